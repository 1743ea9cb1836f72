using System.Text;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The clients of a list as vCards, for the address book of anybody.</summary>
internal static class ClientsVCard
{
    public static void MapClientsVCard(this IEndpointRouteBuilder api) =>
        api.MapGet("/clients.vcf", WriteAsync).WithTags("Clients").For(Access.Member).ExcludeFromDescription();

    private static async Task<IResult> WriteAsync(
        string? query,
        PorchDb db,
        ClientFinder finder,
        ClientSearch search,
        FieldCatalogues catalogues,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (ClientsCsv.QueryOf(query) is not { } wanted)
            return Problems.Unprocessable(ClientsCsv.CutOff);
        var (fields, business) = (await catalogues.ReadAsync(db), await db.BusinessAsync());
        var (clients, refusal) = await ClientListEndpoints.ReadAsync(
            wanted,
            db,
            finder,
            search,
            fields,
            business,
            clock,
            cancellationToken
        );
        if (clients is null)
            return refusal!;
        var found = await finder.PageAsync(clients, wanted, fields, 0, int.MaxValue, cancellationToken);
        var ids = clients.Select(client => client.Id);
        var values = (
            await db
                .FieldValues.AsNoTracking()
                .Where(value => value.IsCurrent && value.ProjectId == null && ids.Contains(value.ClientId))
                .ToListAsync(cancellationToken)
        ).ToLookup(value => value.ClientId);
        var tags = (
            await db
                .ClientTags.AsNoTracking()
                .Where(tag => ids.Contains(tag.ClientId))
                .OrderBy(tag => tag.Tag)
                .ToListAsync(cancellationToken)
        ).ToLookup(tag => tag.ClientId, tag => tag.Tag);
        var notes = (
            await db
                .Notes.AsNoTracking()
                .Where(note => note.ProjectId == null && ids.Contains(note.ClientId))
                .OrderBy(note => note.At)
                .ToListAsync(cancellationToken)
        ).ToLookup(note => note.ClientId, note => note.Text);
        var cards = VCards.Write(
            found.Select(client => Row(client, values[client.Id].ToDictionary(value => value.Field, value => value.Value!)))
        );
        return TypedResults.File(Encoding.UTF8.GetBytes(cards), "text/vcard; charset=utf-8", "clients.vcf");

        string[] Row(Client client, Dictionary<string, Answer> own)
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
                string.Join(", ", tags[client.Id]),
                string.Join("\n", notes[client.Id]),
            ];

            string Words(string field) => own.TryGetValue(field, out var value) ? AnswerWords.Say(value) : "";
        }
    }
}
