using System.Text;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Hosting;
using PorchLight.Server.Lists;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>The clients of a list as vCards, for the address book of anybody.</summary>
internal static class ClientsVCard
{
    private const int AtOnce = 500;

    public static void MapClientsVCard(this IEndpointRouteBuilder api) =>
        api.MapGet("/clients.vcf", WriteAsync).WithTags("Clients").For(Access.Member).ExcludeFromDescription();

    private static async Task<IResult> WriteAsync(
        string? query,
        PorchDb db,
        ClientList list,
        ClientsToSave saved,
        CancellationToken cancellationToken
    )
    {
        if (ListEndpoints.Read<ClientQuery>(query) is not { } asked)
            return Problems.Unprocessable(ListEndpoints.Unreadable);
        var (ids, findings) = await list.IdsAsync(asked, cancellationToken);
        if (ids is null)
            return Problems.Invalid(findings);
        var cards = new StringBuilder();
        foreach (var batch in ids.Chunk(AtOnce))
        {
            var found = await saved.ReadAsync(batch, cancellationToken);
            var notes = (
                await db
                    .Notes.AsNoTracking()
                    .Where(note => note.ProjectId == null && batch.Contains(note.ClientId))
                    .OrderBy(note => note.At)
                    .ToListAsync(cancellationToken)
            ).ToLookup(note => note.ClientId, note => note.Text);
            cards.Append(VCards.Write(found.Clients.Select(client => Row(client, found, notes))));
        }

        return TypedResults.File(Encoding.UTF8.GetBytes(cards.ToString()), "text/vcard; charset=utf-8", "clients.vcf");

        static string[] Row(Client client, SavedClients found, ILookup<Id<Client>, string> notes)
        {
            var own = found.Values(client.Id);
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
