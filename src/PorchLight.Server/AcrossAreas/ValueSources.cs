using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>Says where values came from.</summary>
internal static class ValueSources
{
    /// <summary>Where each of some values came from, in words, and what was asked; null for what was no answer to a question.</summary>
    public static async Task<Func<FieldValue, (string Source, string? Asked)>> OfAsync(
        PorchDb db,
        IReadOnlyList<FieldValue> values,
        CancellationToken cancellationToken
    )
    {
        var forms = new Dictionary<(Id<Form>, int), FormContent>();
        foreach (var value in values)
        {
            if (value is { FormId: { } form, FormVersion: { } number } && !forms.ContainsKey((form, number)))
                forms[(form, number)] = (await db.FormVersions.FindAsync([form, number], cancellationToken))!.Content;
        }

        return value =>
        {
            if (value is not { FormId: { } form, FormVersion: { } number })
                return (
                    value.Origin switch
                    {
                        ValueOrigin.Settled => $"{value.By}, settling a difference",
                        ValueOrigin.Merged => $"{value.By}, from another record of theirs",
                        ValueOrigin.Imported => $"{value.By}, from a file",
                        ValueOrigin.Unsubscribed => $"{value.By}, by the link in a message",
                        ValueOrigin.Booked => $"{value.By}, when booking a meeting",
                        ValueOrigin.Meeting => $"the day of “{value.By}”",
                        ValueOrigin.FollowThrough => $"automatically, “{value.By}”",
                        _ => value.By,
                    },
                    null
                );
            var content = forms[(form, number)];
            return (
                $"{value.By} in “{content.Title}”",
                value.Question is { } question ? KnownValues.BeforeAnswers(content.FindQuestion(question)?.Wording ?? "") : null
            );
        };
    }
}
