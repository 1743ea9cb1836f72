using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>Writes the messages of the program, in the words that the business or the form gave them.</summary>
internal sealed class ProgramMail(PorchDb db)
{
    /// <summary>The words of a message about a form; null where it is switched off.</summary>
    public async Task<MessageTemplate?> WordsAsync(BuiltInMessage kind, Id<Form>? form)
    {
        var texts = await db
            .BuiltInTexts.AsNoTracking()
            .Where(text => text.Kind == kind && (text.FormId == null || text.FormId == form))
            .ToListAsync();
        var found = BuiltInMessages.Find(kind);
        return found.InForce(
            Of(texts.FirstOrDefault(text => text.FormId is null)),
            Of(texts.FirstOrDefault(text => text.FormId is not null))
        );

        (Wording, MessageTemplate) Of(BuiltInText? text) =>
            text is null ? (Wording.Standard, found.Standard) : (text.Wording, text.Message);
    }

    /// <summary>A message about a form, ready to be queued; null where it is switched off.</summary>
    /// <param name="values">What can be set into it beside what is known of everybody.</param>
    public async Task<MailContent?> WriteAsync(BuiltInMessage kind, Form form, params (string Name, string Value)[] values) =>
        await WordsAsync(kind, form.Id) is { } words ? await WriteAsync(words, form, values) : null;

    /// <summary>A message that is about no form, ready to be queued; null where it is switched off.</summary>
    /// <param name="values">What can be set into it beside what is known of everybody.</param>
    public async Task<MailContent?> WriteAsync(BuiltInMessage kind, params (string Name, string Value)[] values) =>
        await WordsAsync(kind, form: null) is { } words ? Write(words, await ValuesAsync(values)) : null;

    /// <summary>The same in words that are given.</summary>
    public async Task<MailContent> WriteAsync(MessageTemplate words, Form form, params (string Name, string Value)[] values) =>
        Write(words, await ValuesAsync(form, values));

    /// <summary>The same with everything that is set into it.</summary>
    public static MailContent Write(MessageTemplate words, IReadOnlyDictionary<string, string> values)
    {
        var draft = words.Draft(values);
        return MailContent.Of(draft, draft.FinishedText!);
    }

    /// <summary>What can be set into a message about a form, by name.</summary>
    public Task<Dictionary<string, string>> ValuesAsync(Form form, params (string Name, string Value)[] values) =>
        ValuesAsync([("form", form.Draft.Title), .. values]);

    /// <summary>The same with examples, where nobody is meant.</summary>
    /// <param name="form">The form it is about; null for an example, too.</param>
    public Task<Dictionary<string, string>> ExamplesAsync(BuiltInMessage kind, Form? form = null) =>
        ValuesAsync([
            .. BuiltInMessages
                .Find(kind)
                .Values.Select(value => (value.Name, value.Name == "form" && form is not null ? form.Draft.Title : value.Example)),
        ]);

    private async Task<Dictionary<string, string>> ValuesAsync((string Name, string Value)[] values)
    {
        var business = await db.BusinessAsync();
        return new Dictionary<string, string>
        {
            ["business"] = business.Name,
            ["owner"] = business.OwnerName,
            [MessageTemplate.Signature] = (await db.SignaturesAsync()).Shared,
        }
            .Concat(values.Select(value => KeyValuePair.Create(value.Name, value.Value)))
            .ToDictionary();
    }
}
