using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;

namespace PorchLight.Core.Ready;

/// <summary>A follow-through to begin with.</summary>
/// <param name="Key">Names it.</param>
/// <param name="Name">What it is called.</param>
/// <param name="About">What it is for, as a sentence.</param>
/// <param name="Make">Makes it for a business with these stages. Every word of it can be changed.</param>
public sealed record ReadyFollowThrough(string Key, string Name, string About, Func<IReadOnlyList<Stage>, FollowThroughContent> Make);

/// <summary>The follow-throughs that are ready to begin with, in the order of the work.</summary>
public static class ReadyFollowThroughs
{
    private const string ProjectStart = "project.start";
    private const string Regards = "Warmly\n{owner}\n{business}";
    private static readonly StopOn StageMoves = new(new StageOccasion([]));
    private static readonly Schedule AtOnce = new(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<ReadyFollowThrough> All { get; } =
    [
        new(
            "inquiry",
            "After an inquiry",
            "Thanks at once, three follow-ups further and further apart, and a note three months later.",
            _ =>
                Of(
                    "After an inquiry",
                    new InquiryStart(null, [Fit.ComeIn, Fit.TalkFirst]),
                    [StopOn.Replied, StopOn.Booked],
                    Mail(
                        "thanks",
                        "Thank you, and when we answer",
                        AtOnce,
                        "Thank you for asking us, {firstName}",
                        "Thank you for telling us what you have in mind. We have your answers, and a person will read them. We will reply {promise|as soon as we can}."
                    ),
                    WithGap(
                        "first",
                        "First follow-up",
                        After(1, TimeUnit.Days),
                        "About your plans, {firstName}",
                        "I have been thinking about what you wrote.",
                        "one line about what they have in mind",
                        "Shall we talk it through for half an hour? Tell me two times that suit you."
                    ),
                    Nodded(
                        "second",
                        "Second follow-up",
                        After(3, TimeUnit.Days),
                        "Is there something I can answer?",
                        "You may still have questions: the price, how long it takes, how we would begin. Ask me anything, it costs nothing."
                    ),
                    Nodded(
                        "third",
                        "Last follow-up",
                        After(7, TimeUnit.Days),
                        "Shall we go on?",
                        "I don’t want to fill your inbox, so this is my last note for now. Shall we go ahead, or leave it? Either answer is fine."
                    ),
                    Nodded(
                        "later",
                        "A word after three months",
                        After(90, TimeUnit.Days),
                        "How did it go, {firstName}?",
                        "Three months ago you told us about your plans. If they are back on the table, we still have your answers, so you don’t need to start again."
                    )
                )
        ),
        new(
            "unfinished",
            "A form left half-finished",
            "One friendly note a day later to anyone who left a form half-finished, with the link that brings their answers back.",
            _ =>
                Of(
                    "A form left half-finished",
                    new LeftUnfinishedStart(null, 24),
                    [],
                    new Step(
                        "word",
                        "Your answers are still here",
                        new SendMessage(
                            new MessageTemplate(
                                "Your answers to “{form}” are still here",
                                [
                                    Text(
                                        "text",
                                        $"Hello {{firstName|there}},\n\nYou began “{{form}}” and did not finish it. If you would like to go on, this link brings your answers back until {{until}}:\n\n{{link}}\n\nIf you have a question, just reply to this mail. If you would rather leave it, there is nothing to do: we won’t write about it again.\n\n{Regards}"
                                    ),
                                ]
                            )
                        ),
                        new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes),
                        NeedsNod: false
                    )
                )
        ),
        new(
            "meeting",
            "Before a meeting",
            "Two reminders of a meeting someone booked: a day before, and an hour before. It stops when the meeting is cancelled.",
            _ =>
                Of(
                    "Before a meeting",
                    new BookedStart(),
                    [new StopOn(new MeetingCancelledOccasion()), new StopOn(new MeetingMissedOccasion())],
                    // Practice, no source: a day before, and an hour before.
                    Mail(
                        "day-before",
                        "Tomorrow we meet",
                        new Schedule(new MeetingAnchor(), -1, TimeUnit.Days, AtOnce: true),
                        "We meet on {meeting}",
                        "A short reminder: we meet on {meeting}. If that doesn’t suit any more, the mail with the time has a link to move it."
                    ),
                    Mail(
                        "hour-before",
                        "In an hour",
                        new Schedule(new MeetingAnchor(), -1, TimeUnit.Hours, AtOnce: true),
                        "In an hour: {meeting}",
                        "We meet in an hour. See you then."
                    )
                ) with
                {
                    SideBySide = true,
                }
        ),
        new(
            "call",
            "After a call",
            "What was said, in writing, the next morning; then two reminders if nothing comes back.",
            stages =>
                Of(
                    "After a call",
                    AtStage(stages, "talking"),
                    [StopOn.Replied, StopOn.Booked, StageMoves],
                    WithGap(
                        "summary",
                        "What we talked about",
                        After(1, TimeUnit.WorkingDays),
                        "What we talked about, {firstName}",
                        "Thank you for your time. So that neither of us forgets:",
                        "what was agreed, a line each",
                        "If I have got anything wrong, please tell me."
                    ),
                    Nodded(
                        "reminder",
                        "What we still need",
                        After(3, TimeUnit.Days),
                        "What I still need from you",
                        "To price it I need a few last answers from you. A short mail is enough."
                    ),
                    Nodded(
                        "close",
                        "Shall I wait?",
                        After(7, TimeUnit.Days),
                        "Shall I wait?",
                        "I have not heard from you since we talked, which is quite all right. Shall I keep a place free, or is it off the table for now?"
                    )
                )
        ),
        new(
            "proposal",
            "After a proposal is sent",
            "Three short follow-ups within seven days, then someone calls.",
            stages =>
                Of(
                    "After a proposal is sent",
                    AtStage(stages, "offered"),
                    [StopOn.Replied, StopOn.Booked, StageMoves],
                    Nodded(
                        "arrived",
                        "Did it arrive?",
                        After(2, TimeUnit.Days),
                        "Did our proposal arrive?",
                        "Two days ago I sent you our proposal. Did it arrive, and is everything in it clear?"
                    ),
                    Nodded(
                        "questions",
                        "The questions most people have",
                        After(3, TimeUnit.Days),
                        "Three questions most people have",
                        "Before they decide, most people ask three things: when we can begin, what is not included, and when it is paid. All three are in the proposal, and I am glad to talk them through."
                    ),
                    Nodded(
                        "date",
                        "How long the date is kept",
                        After(2, TimeUnit.Days),
                        "Your date",
                        "I can keep your date free until the end of next week. If you need more time, tell me and we will find another."
                    ),
                    Do("call", "Call them", After(1, TimeUnit.WorkingDays), new MakeTask("Call {name} about the proposal", 1, null))
                )
        ),
        new(
            "onboarding",
            "Onboarding",
            "A welcome the day they book, what you need from them, and a note a week before the start.",
            stages =>
                Of(
                    "Onboarding",
                    AtStage(stages, "booked"),
                    [],
                    Nodded(
                        "welcome",
                        "Welcome, and what happens next",
                        new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes),
                        "Welcome, {firstName}",
                        "It’s good to be working together. Here is what happens next: we send you a few questions, you send us what you have, and we meet before the start to go through it all."
                    ),
                    Do(
                        "folder",
                        "Set up the project",
                        After(0, TimeUnit.Days),
                        new MakeTask("Set up the folder and the dates of {name}", 1, null)
                    ),
                    WithGap(
                        "needed",
                        "What we need from you",
                        After(2, TimeUnit.WorkingDays),
                        "What we need from you",
                        "To get started we need:",
                        "what they are to send, a line each",
                        "It doesn’t have to be perfect. Send what you have, and we’ll sort it."
                    ),
                    new Step("answers", "They send it", new WaitFor(new RepliedOccasion()), After(5, TimeUnit.WorkingDays), false),
                    Nodded(
                        "week-before",
                        "A week before the start",
                        new Schedule(new ProjectDateAnchor("project.start"), -7, TimeUnit.Days),
                        "One week to go",
                        "We begin in a week. We’ll be at your door in the morning; there is nothing left for you to do until then."
                    )
                )
        ),
        new(
            "support",
            "Delivery and support",
            "Thirty days in which you look after what you delivered: a check-in, a notice, a farewell, and one more look.",
            stages =>
                Of(
                    "Delivery and support",
                    AtStage(stages, "finished"),
                    [],
                    WithGap(
                        "handed-over",
                        "It is yours",
                        new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes),
                        "It is yours, {firstName}",
                        "It’s finished, and it’s yours. For the next thirty days we will put right anything that isn’t as it should be.",
                        "how to look after it, a line or two",
                        "Write to me whenever something is wrong."
                    ),
                    Nodded(
                        "check-in",
                        "Is everything as it should be?",
                        new Schedule(Anchor.RunStart, 7, TimeUnit.Days),
                        "Is everything as it should be?",
                        "A week has gone by. Is everything as it should be? Small things are quickly put right."
                    ),
                    Nodded(
                        "notice",
                        "A week of support left",
                        new Schedule(Anchor.RunStart, 23, TimeUnit.Days),
                        "One more week",
                        "Our thirty days end in a week. Take one more look, and tell me if anything is left to do."
                    ),
                    Nodded(
                        "farewell",
                        "Farewell, and a kind word",
                        new Schedule(Anchor.RunStart, 30, TimeUnit.Days),
                        "Thank you, {firstName}",
                        "Our thirty days are over. Thank you for trusting us. If you are happy with it, a sentence or two that we can share would help us a great deal: just reply to this mail."
                    ),
                    Nodded(
                        "look-back",
                        "How does it look today?",
                        After(90, TimeUnit.Days),
                        "How does it look today?",
                        "Three months on, how does it look, and how is it holding up? And if someone you know needs something similar, we would be glad if you mentioned us."
                    )
                )
        ),
        new(
            "beforehand",
            "Before the work begins",
            "Two weeks and three days before the start of a project: what is still needed, and what will happen.",
            _ =>
                Of(
                    "Before the work begins",
                    new ProjectDateStart(ProjectStart, -14),
                    [],
                    Nodded(
                        "needed",
                        "What we still need",
                        AtOnce with
                        {
                            AtOnce = false,
                        },
                        "Two weeks to go, {firstName}",
                        "We begin in two weeks. Before then we need from you: the keys, or someone to open the door, a word to the neighbours, and a place to put our things."
                    ),
                    Nodded(
                        "soon",
                        "Three days to go",
                        new Schedule(new ProjectDateAnchor(ProjectStart), -3, TimeUnit.Days),
                        "We begin in three days",
                        "We’ll be with you in three days, at nine in the morning unless we have said otherwise. If anything has changed, just reply to this mail."
                    )
                ) with
                {
                    SideBySide = true,
                }
        ),
        new(
            "birthday",
            "A word on their birthday",
            "Each year on a client's birthday, a few words that wait for your nod.",
            _ =>
                Of(
                    "A word on their birthday",
                    new YearlyDateStart(BuiltInFields.Born.Key, 0),
                    [],
                    WithGap(
                        "word",
                        "Many happy returns",
                        AtOnce with
                        {
                            AtOnce = false,
                        },
                        "Many happy returns, {firstName}",
                        "All the best to you today.",
                        "a line that only you could write",
                        "We are glad to know you."
                    )
                ) with
                {
                    SideBySide = true,
                }
        ),
        new(
            "later",
            "A word after three months",
            "For work on hold: one friendly message after three months, then you decide whether to let it go.",
            stages =>
                Of(
                    "A word after three months",
                    AtStage(stages, "parked"),
                    [StopOn.Replied, StopOn.Booked, StageMoves],
                    Nodded(
                        "word",
                        "How are your plans?",
                        After(3, TimeUnit.Months),
                        "How are your plans, {firstName}?",
                        "A while ago we put your plans on hold. Have they changed, or is now a better time? We still have everything you told us."
                    ),
                    Do(
                        "let-go",
                        "Decide whether to let it go",
                        After(2, TimeUnit.Weeks),
                        new MakeTask("Let {name} go, or wait longer?", 2, null)
                    )
                )
        ),
    ];

    /// <summary>Starts at a stage of the usual list; by hand where the business has no such stage.</summary>
    private static StartOn AtStage(IReadOnlyList<Stage> stages, string key) =>
        stages.Any(stage => stage.Key == key) ? new StageStart([key]) : new ByHandStart();

    private static FollowThroughContent Of(string name, StartOn starts, IReadOnlyList<StopOn> stops, params Step[] steps) =>
        new(name, starts, steps, stops);

    private static Schedule After(int amount, TimeUnit unit) => new(Anchor.PreviousSettled, amount, unit);

    private static Step Mail(string key, string name, Schedule when, string subject, string text) =>
        new(
            key,
            name,
            new SendMessage(new MessageTemplate(subject, [Text("text", $"Dear {{firstName}},\n\n{text}\n\n{Regards}")])),
            when,
            NeedsNod: false
        );

    private static Step Nodded(string key, string name, Schedule when, string subject, string text) =>
        Mail(key, name, when, subject, text) with
        {
            NeedsNod = true,
        };

    private static Step WithGap(string key, string name, Schedule when, string subject, string opening, string gap, string closing) =>
        new(
            key,
            name,
            new SendMessage(
                new MessageTemplate(
                    subject,
                    [
                        Text("opening", $"Dear {{firstName}},\n\n{opening}"),
                        new GapPart("gap", gap),
                        Text("closing", $"{closing}\n\n{Regards}"),
                    ]
                )
            ),
            when,
            NeedsNod: true
        );

    private static TextPart Text(string key, string text) => new(key, text);

    private static Step Do(string key, string name, Schedule when, OutsideAction action) => new(key, name, action, when, NeedsNod: false);
}
