using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using Route = PorchLight.Core.Forms.Route;

namespace PorchLight.Server.Inquiries;

/// <summary>What is seen from outside of a form, and the form itself for who may come in.</summary>
/// <param name="Welcome">How they are met.</param>
/// <param name="Note">The same in a sentence; empty when it is open.</param>
/// <param name="CodeGoesTo">The mail address a code would go to, so veiled that only who has it knows it; null when no code is needed.</param>
/// <param name="Lost">What became of the filling-in that was to be finished, in a sentence, when it cannot be; else null.</param>
/// <param name="Form">Null unless it is open.</param>
/// <param name="OnlyLooking">Whether somebody of the business looks at the working copy: nothing is kept or sent.</param>
internal sealed record FormPageView(
    string Title,
    string Business,
    BrandLook Look,
    string? Logo,
    AccessState Welcome,
    string Note,
    string? CodeGoesTo,
    string? Lost,
    PublicForm? Form,
    bool OnlyLooking
);

/// <summary>A form as a lead may see it: nothing of screening, landing or conditions.</summary>
/// <param name="Cover">What stands before the first page, or null.</param>
/// <param name="NotForUs">What the business does not do, or null.</param>
/// <param name="Review">Whether all answers are shown once more before they are sent.</param>
/// <param name="Prefilled">Answers that stand in the form already, hidden ones included, by question key.</param>
/// <param name="Start">The first page, untouched.</param>
/// <param name="Ticket">Says when it was opened; to be sent along.</param>
/// <param name="LeastSeconds">How long nobody is faster than; whoever is waits with sending.</param>
/// <param name="Proof">Whether a proof of work has to be sent along.</param>
/// <param name="Kept">The filling-in that is to be finished, as it was left; null for a new one.</param>
internal sealed record PublicForm(
    string Intro,
    int Version,
    PublicCover? Cover,
    SisterNote? NotForUs,
    bool Review,
    IReadOnlyList<PublicPage> Pages,
    IReadOnlyDictionary<string, Answer> Prefilled,
    EvaluatedPage Start,
    string Ticket,
    int LeastSeconds,
    bool Proof,
    SavedDraftView? Kept
);

/// <param name="Picture">The address of a picture, or null.</param>
/// <param name="Video">The address of a video, or null.</param>
/// <param name="Owner">Who welcomes them, or null.</param>
internal sealed record PublicCover(
    IReadOnlyList<string> Paragraphs,
    string StartLabel,
    string? Picture,
    string PictureAlt,
    string? Video,
    OwnerCard? Owner
)
{
    public static PublicCover? Of(Cover? cover, Business business) =>
        cover is null
            ? null
            : new PublicCover(
                cover.Text.Split("\n\n", StringSplitOptions.RemoveEmptyEntries),
                cover.StartLabel,
                cover.Picture is { } picture ? PublicAddress.OfFile(picture) : null,
                cover.PictureAlt,
                cover.Video is { } video ? PublicAddress.OfFile(video) : null,
                cover.ShowsOwner ? OwnerCard.Of(business) : null
            );
}

/// <param name="Items">What stands on the page.</param>
internal sealed record PublicPage(string Key, string Title, IReadOnlyList<PublicItem> Items);

/// <param name="Name">The owner's name.</param>
/// <param name="Mail">Where they can be written to.</param>
/// <param name="Photo">The address of their picture, or null.</param>
/// <param name="Contact">Other ways to reach them, a line each.</param>
internal sealed record OwnerCard(string Name, string Mail, string? Photo, IReadOnlyList<string> Contact)
{
    public static OwnerCard Of(Business business) =>
        new(
            business.OwnerName,
            business.MailAddress,
            business.OwnerPhoto is { } photo ? PublicAddress.OfFile(photo) : null,
            business.ContactLines.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
        );
}

/// <param name="Text">What the business does not do.</param>
/// <param name="Address">The form that fits better, or null.</param>
/// <param name="Label">What the link to it says, or null.</param>
internal sealed record SisterNote(string Text, string? Address, string? Label);

/// <summary>Where a filling-in stands.</summary>
/// <param name="Pages">The pages shown so far, the open one last.</param>
/// <param name="Shown">The places that are shown on them: keys of items, and "signs/0/width" for what a row asks.</param>
/// <param name="Required">Those of them that must be answered now.</param>
/// <param name="Wordings">Wordings with earlier answers in them, by place; only where they differ from the form's.</param>
/// <param name="Helps">The same of the lines of help.</param>
/// <param name="WorkedOut">Worked-out values in words, by place; only those the lead may see and that are known.</param>
/// <param name="Notices">What has to be known of an answer before it is sent, by place.</param>
/// <param name="Next">The page that would follow; null when the form would end.</param>
/// <param name="Findings">What has to be put right on the open page; only looked for when it is to be left.</param>
/// <param name="Summary">The findings in one sentence; null when there are none.</param>
/// <param name="Review">All answers once more, when the last page is left and the form asks for it; else null.</param>
internal sealed record EvaluatedPage(
    IReadOnlyList<string> Pages,
    IReadOnlyList<string> Shown,
    IReadOnlyList<string> Required,
    IReadOnlyDictionary<string, string> Wordings,
    IReadOnlyDictionary<string, string> Helps,
    IReadOnlyDictionary<string, string> WorkedOut,
    IReadOnlyDictionary<string, string> Notices,
    string? Next,
    IReadOnlyList<Finding> Findings,
    string? Summary,
    IReadOnlyList<ReviewPage>? Review
);

/// <param name="Key">The page to turn back to.</param>
internal sealed record ReviewPage(string Key, string Title, IReadOnlyList<ReviewLine> Lines);

/// <param name="Words">The answer in words; null for a blank.</param>
internal sealed record ReviewLine(string Key, string Wording, string? Words);

/// <summary>Shows forms to leads.</summary>
internal static class PublicForms
{
    /// <summary>The pages; what nobody sees is left out.</summary>
    /// <param name="content">The version.</param>
    /// <param name="today">The day of asking in the business's zone.</param>
    public static List<PublicPage> Pages(FormContent content, LocalDate today) =>
        [
            .. content.Pages.Select(page => new PublicPage(
                page.Key,
                page.Title,
                [.. page.Items.Select(item => Show(item, today)).OfType<PublicItem>()]
            )),
        ];

    /// <summary>An item as a lead may see it; null when nobody sees it.</summary>
    public static PublicItem? Show(Item item, LocalDate today) =>
        item switch
        {
            Question q => Control.Of(q.Kind, today) is { } control
                ? new PublicQuestion(q.Key, q.Width, q.OnlyWhen is null, q.Wording, q.Help, q.Placeholder, control)
                : null,
            Heading heading => new PublicHeading(heading.Key, heading.Width, heading.Text),
            Passage passage => new PublicPassage(passage.Key, passage.Width, passage.Text),
            Picture picture => new PublicPicture(picture.Key, picture.Width, PublicAddress.OfFile(picture.File), picture.Alt),
            Video video => new PublicVideo(video.Key, video.Width, PublicAddress.OfFile(video.File), video.Title),
            Divider divider => new PublicDivider(divider.Key, divider.Width),
            Download download => new PublicDownload(download.Key, download.Width, PublicAddress.OfFile(download.File), download.Label),
            _ => throw new ArgumentOutOfRangeException(nameof(item), item, "An item that cannot be shown."),
        };

    /// <summary>What a page shows on a route, and what it says there.</summary>
    /// <param name="open">The route as it stands while the page is open.</param>
    /// <param name="known">What is known beside the answers.</param>
    /// <param name="next">The page that would follow; null when the form would end.</param>
    /// <param name="findings">What has to be put right.</param>
    /// <param name="review">All answers once more, or null.</param>
    /// <param name="notices">What has to be known of an answer before it is sent, by place; null for nothing.</param>
    /// <param name="sofar">The same with every blank taken for good, for values that are shown as they grow.</param>
    public static EvaluatedPage Step(
        AnswerContext known,
        Route open,
        Route sofar,
        string? next,
        IReadOnlyList<Finding> findings,
        IReadOnlyList<ReviewPage>? review,
        IReadOnlyDictionary<string, string>? notices = null
    )
    {
        var (now, then) = (open.Know(known), sofar.Know(known));
        var shown = open.Shown.ToHashSet();
        var (required, wordings, helps, workedOut) = (
            new List<string>(),
            new Dictionary<string, string>(),
            new Dictionary<string, string>(),
            new Dictionary<string, string>()
        );
        foreach (var page in known.Form.Pages.Where(page => open.Pages.Contains(page.Key)))
        {
            Differ(wordings, page.Key, page.Title, then);
            foreach (var item in page.Items.Where(item => shown.Contains(item.Key)))
                Tell(item, item.Key, now, then);
        }

        return new EvaluatedPage(
            open.Pages,
            [.. open.Shown],
            required,
            wordings,
            helps,
            workedOut,
            notices ?? new Dictionary<string, string>(),
            next,
            findings,
            findings.Count == 0 ? null : AnswerChecks.Summary(findings),
            review
        );

        void Tell(Item item, string place, AnswerContext now, AnswerContext then)
        {
            switch (item)
            {
                case Heading heading:
                    Differ(wordings, place, heading.Text, then);
                    break;
                case Passage passage:
                    Differ(wordings, place, passage.Text, then);
                    break;
                case Question question:
                    Differ(wordings, place, question.Wording, then);
                    Differ(helps, place, question.Help ?? "", then);
                    if (question.IsRequired(now))
                        required.Add(place);
                    if (
                        question.Kind is WorkedOutKind { Shown: true }
                        && then.Of(question.Key).Answer is { } value
                        && then.IsGrounded(question)
                    )
                        workedOut[place] = AnswerWords.Say(value, then.Behind(question.Key));
                    var rows = now.RowsOf(question.Key);
                    for (var index = 0; index < rows.Count; index++)
                    {
                        foreach (var cell in question.RowQuestions.Where(cell => shown.Contains(Places.InRow(place, index, cell.Key))))
                            Tell(
                                cell,
                                Places.InRow(place, index, cell.Key),
                                now.InRow(rows[index]),
                                then.InRow(then.RowsOf(question.Key)[index])
                            );
                    }

                    break;
            }
        }
    }

    /// <summary>All answers of a route once more, as they would be sent.</summary>
    public static List<ReviewPage> Review(AnswerContext known, Route route)
    {
        var now = route.Know(known);
        var asked = route.Asked(known.Form).ToHashSet();
        return
        [
            .. known
                .Form.Pages.Where(page => route.Pages.Contains(page.Key))
                .Select(page => new ReviewPage(
                    page.Key,
                    Wordings.Fill(page.Title, now),
                    [
                        .. page
                            .Questions.Where(question =>
                                asked.Contains(question.Key) && question.Kind is not (HiddenKind or WorkedOutKind { Shown: false })
                            )
                            .Select(question => new ReviewLine(
                                question.Key,
                                Wordings.Fill(question.Wording, now),
                                now.Of(question.Key).Answer is { } answer ? AnswerWords.Say(answer, now.Behind(question.Key)) : null
                            )),
                    ]
                )),
        ];
    }

    private static void Differ(Dictionary<string, string> said, string place, string words, AnswerContext known)
    {
        if (Wordings.Fill(words, known) is var filled && filled != words)
            said[place] = filled;
    }
}
