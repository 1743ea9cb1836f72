using System.Text;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The clients of a list as vCards, for the address book of anybody.</summary>
internal static class ClientsVCard
{
    public static void MapClientsVCard(this IEndpointRouteBuilder api) =>
        api.MapGet("/clients.vcf", WriteAsync).WithTags("Clients").For(Access.Member).ExcludeFromDescription();

    private static async Task<IResult> WriteAsync(string? query, PorchDb db, ClientsToSave saved, CancellationToken cancellationToken)
    {
        var (found, refusal) = await saved.FindAsync(query, cancellationToken);
        if (found is null)
            return refusal!;
        var ids = found.Clients.Select(client => client.Id).ToList();
        var notes = (
            await db
                .Notes.AsNoTracking()
                .Where(note => note.ProjectId == null && ids.Contains(note.ClientId))
                .OrderBy(note => note.At)
                .ToListAsync(cancellationToken)
        ).ToLookup(note => note.ClientId, note => note.Text);
        var cards = VCards.Write(found.Clients.Select(client => Row(client, found.Values(client.Id))));
        return TypedResults.File(Encoding.UTF8.GetBytes(cards), "text/vcard; charset=utf-8", "clients.vcf");

        string[] Row(Client client, IReadOnlyDictionary<string, Answer> own)
        {
            var name = own.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer;
            var address = own.GetValueOrDefault(BuiltInFields.Address.Key) as AddressAnswer;
            return
            [
                client.Name,
                name?.Given ?? "",
                name?.Family ?? "",
                client.Email ?? "",
                own.GetValueOrDefault(BuiltInFields.Phone.Key) is PhoneAnswer phone ? phone.E164 ?? phone.Typed : "",
                Words(BuiltInFields.Company.Key),
                own.GetValueOrDefault(BuiltInFields.Born.Key) is DateAnswer born ? LocalDatePattern.Iso.Format(born.Date) : "",
                address?.Street ?? "",
                address?.Unit ?? "",
                address?.City ?? "",
                address?.Region ?? "",
                address?.PostalCode ?? "",
                address?.Country ?? "",
                Words("client.website"),
                Words("client.language"),
                string.Join(", ", found.Tags[client.Id]),
                string.Join("\n", notes[client.Id]),
            ];

            string Words(string field) => own.TryGetValue(field, out var value) ? AnswerWords.Say(value) : "";
        }
    }
}
