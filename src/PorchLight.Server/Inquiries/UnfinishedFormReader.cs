using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>A form that somebody left half-finished, with what is known of them by it.</summary>
/// <param name="Unfinished">The filling-in; it has not ended.</param>
/// <param name="Form">The form.</param>
/// <param name="Content">The version they saw.</param>
/// <param name="Known">What they answered on the pages they have been to.</param>
/// <param name="Name">What they call themselves; null where they have not said.</param>
/// <param name="Email">Where they can be reached: where the link went, else what they answered; null for nowhere.</param>
internal sealed record UnfinishedFormFacts(
    UnfinishedForm Unfinished,
    Form Form,
    FormContent Content,
    AnswerContext Known,
    PersonNameAnswer? Name,
    string? Email
);

/// <summary>Something that follows when somebody goes on with a form they had left, or its answers are not kept any more.</summary>
internal interface IUnfinishedFormReaction
{
    /// <summary>Part of the caller's write.</summary>
    Task WentOnAsync(UnfinishedForm unfinished);
}

/// <summary>Reads forms that were left half-finished, and writes to who left them.</summary>
internal sealed class UnfinishedFormReader(
    PorchDb db,
    AnswerContextLoader loader,
    ProgramMail messages,
    Tokens tokens,
    PublicAddress address,
    BusinessClock clock
)
{
    /// <summary>Why a message to them does not go, where they may not be written to.</summary>
    public const string HadTheirMail =
        "They had the one mail they were told of, so this one does not go to them. With your nod only what comes after it goes on.";

    /// <summary>What is known by a filling-in that has not ended.</summary>
    public async Task<UnfinishedFormFacts> ReadAsync(UnfinishedForm unfinished, CancellationToken cancellationToken = default)
    {
        var form = (await db.Forms.FindAsync([unfinished.FormId], cancellationToken))!;
        var content = (await db.FormVersionAsync(unfinished.FormId, unfinished.FormVersion))!.Content;
        var given = unfinished.Answers!.ByQuestion;
        var nothing = await loader.ContextBeforeAnswersAsync(
            content,
            new FormTarget(form, null),
            await db.BusinessAsync(),
            clock.GetCurrentInstant(),
            cancellationToken
        );
        var contact = Contact.Of(
            content,
            given.Where(one => one.Value is not null).ToDictionary(one => one.Key, one => AnswerState.Of(one.Value!))
        );
        var email = unfinished.MailedTo ?? contact.Email;
        return new UnfinishedFormFacts(
            unfinished,
            form,
            content,
            Routes.Trace(nothing, given, unfinished.Page).Know(nothing),
            contact.Name,
            email is not null && EmailAddress.Check(email) is null ? email : null
        );
    }

    /// <summary>What a message to them can say, by name.</summary>
    public async Task<Dictionary<string, string>> ValuesAsync(UnfinishedFormFacts left) =>
        await messages.ValuesAsync(
            left.Form,
            ("until", UnfinishedForms.Until(left.Unfinished, await db.BusinessAsync())),
            ("link", UnfinishedFormEndpoints.LinkOf(address, tokens.Open(left.Form.LinkSealed), tokens.Open(left.Unfinished.LinkSealed)))
        );
}
