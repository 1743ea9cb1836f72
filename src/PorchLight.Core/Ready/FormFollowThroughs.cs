using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Ready;

/// <summary>What follows an inquiry through a ready form. Every word of it can be changed.</summary>
internal static class FormFollowThroughs
{
    /// <summary>What every form owes whoever sends it: one mail at once, that the answers have arrived.</summary>
    /// <param name="form">The identifier of the form.</param>
    /// <param name="title">Its title.</param>
    internal static FollowThroughContent Thanks(Guid form, string title) =>
        new(
            $"Thanks for “{title}”",
            new InquiryStart(form, []),
            [
                new Step(
                    "thanks",
                    "Thank you, your answers have arrived",
                    new SendMessage(
                        new MessageTemplate(
                            $"Thank you, {{firstName}}: {title}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nThank you, we have your answers. If there is anything you would like to add, just reply to this mail.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true),
                    NeedsNod: false
                ),
            ],
            [StopOn.Replied, StopOn.Booked]
        );

    /// <summary>After an inquiry that fits or may fit: thanks at once, two follow-ups that wait for a nod.</summary>
    /// <param name="form">The identifier of the form.</param>
    /// <param name="title">Its title.</param>
    internal static FollowThroughContent AfterAnInquiry(Guid form, string title) =>
        new(
            $"After “{title}”",
            new InquiryStart(form, [Fit.ComeIn, Fit.TalkFirst]),
            [
                new Step(
                    "thanks",
                    "Thank you, and when we answer",
                    new SendMessage(
                        new MessageTemplate(
                            "Thank you for asking us, {firstName}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nThank you for telling us what you have in mind. We have your answers, and a person will read them. We will reply {promise|as soon as we can}.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true),
                    NeedsNod: false
                ),
                new Step(
                    "first",
                    "First follow-up",
                    new SendMessage(
                        new MessageTemplate(
                            "About your plans, {firstName}",
                            [
                                new TextPart("opening", "Dear {firstName},\n\nI have been thinking about what you wrote."),
                                new GapPart("theirs", "one line about what they have in mind"),
                                new TextPart(
                                    "closing",
                                    "Shall we talk it through for half an hour? Tell me two times that suit you.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 1, TimeUnit.WorkingDays),
                    NeedsNod: true
                ),
                new Step(
                    "last",
                    "Last follow-up",
                    new SendMessage(
                        new MessageTemplate(
                            "Shall we go on?",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nI don’t want to fill your inbox, so this is my last note about it. Shall we go ahead, or leave it? Either answer is fine.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 7, TimeUnit.Days),
                    NeedsNod: true
                ),
            ],
            [StopOn.Replied, StopOn.Booked]
        );

    /// <summary>After a kind no: one mail that their answers are kept.</summary>
    /// <param name="form">The identifier of the form.</param>
    /// <param name="title">Its title.</param>
    internal static FollowThroughContent AfterAKindNo(Guid form, string title) =>
        new(
            $"After a kind no to “{title}”",
            new InquiryStart(form, [Fit.NotNow]),
            [
                new Step(
                    "kept",
                    "Thank you for asking",
                    new SendMessage(
                        new MessageTemplate(
                            "Thank you for asking us, {firstName}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nThank you for asking us. As we said on the page, this one isn’t for us. We have kept your answers: if the plan grows, write to us and you won’t need to start again.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true),
                    NeedsNod: false
                ),
            ],
            [StopOn.Replied, StopOn.Booked]
        );
}
