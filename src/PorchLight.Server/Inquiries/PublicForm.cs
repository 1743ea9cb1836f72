using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Forms;
using PorchLight.Server.Brand;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Inquiries;

/// <summary>What is seen from outside of a form, and the form itself for who may come in.</summary>
/// <param name="Welcome">How they are met.</param>
/// <param name="Note">The same in a sentence; empty when it is open.</param>
/// <param name="CodeGoesTo">
/// The mail address a code would go to, so veiled that only who has it knows it; null when no code is needed.
/// </param>
/// <param name="Lost">What became of the filling-in that was to be finished, in a sentence, when it cannot be; else null.</param>
/// <param name="Form">Null unless it is open.</param>
/// <param name="WritesDown">
/// How what is written down here reached the business ("by phone"), for somebody of the business; else null.
/// </param>
/// <param name="TellsWhenOpen">Whether who finds it closed can ask to be told when it is open again.</param>
/// <param name="IsFirstLook">Whether nobody has opened the form by this personal link yet; then the browser says that it is opened.</param>
/// <param name="OnlyLooking">Whether somebody of the business looks at the working copy: nothing is kept or sent.</param>
internal sealed record FormPageView(
    string Title,
    string Business,
    ShownLook Look,
    string? Logo,
    AccessState Welcome,
    string Note,
    string? CodeGoesTo,
    string? Lost,
    PublicForm? Form,
    bool OnlyLooking,
    string? WritesDown,
    bool TellsWhenOpen,
    bool IsFirstLook
);

/// <summary>A form as a lead may see it: nothing of screening, landing or conditions.</summary>
/// <param name="Cover">What stands before the first page, or null.</param>
/// <param name="NotForUs">What the business does not do, or null.</param>
/// <param name="Review">Whether all answers are shown once more before they are sent.</param>
/// <param name="Prefilled">Answers that stand in the form already, hidden ones included, by question key.</param>
/// <param name="Start">The first page, untouched.</param>
/// <param name="Ticket">Says when it was opened; to be sent along.</param>
/// <param name="Proof">Whether a proof of work has to be sent along.</param>
/// <param name="FollowsUp">Whether one more mail may come to who has the link sent and does not come back.</param>
/// <param name="MailsLink">Whether the link to go on later can be had by mail.</param>
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
    bool Proof,
    bool FollowsUp,
    bool MailsLink,
    UnfinishedFormView? Kept
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
}
