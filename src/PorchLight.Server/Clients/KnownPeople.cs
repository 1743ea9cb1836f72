using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>
/// Who of some people from a file is here already: by the same address under a name not unlike, or by the same number under the same name.
/// People brought in one after the other know each other.
/// </summary>
internal sealed class KnownPeople
{
    private readonly Dictionary<string, List<Client>> _byKey = [];
    private readonly Dictionary<Id<Client>, Dictionary<string, FieldValue>> _values = [];
    private readonly HashSet<(Id<Client>, string)> _tags = [];
    private readonly HashSet<(Id<Client>, string)> _notes = [];

    public static async Task<KnownPeople> OfAsync(PorchDb db, IReadOnlyList<ImportedPerson> people, CancellationToken cancellationToken)
    {
        var known = new KnownPeople();
        var emails = people.Select(person => person.Traits.EmailKey).OfType<string>().Distinct().ToList();
        var phones = people.Select(person => person.Traits.Phone).OfType<string>().Distinct().ToList();
        foreach (
            var client in await db
                .Clients.IgnoreQueryFilters()
                .Where(client => client.EmailKey != null && emails.Contains(client.EmailKey))
                .ToListAsync(cancellationToken)
        )
            known.Under(MailKey(client.EmailKey!)).Add(client);
        var phone = BuiltInFields.Phone.Key;
        foreach (
            var found in await db
                .FieldValues.Where(value =>
                    value.IsListed && value.Field == phone && value.OrderText != null && phones.Contains(value.OrderText)
                )
                .Join(db.Clients, value => value.ClientId, client => client.Id, (value, client) => new { Client = client, value.OrderText })
                .ToListAsync(cancellationToken)
        )
            known.Under(PhoneKey(found.OrderText!)).Add(found.Client);
        var all = new Dictionary<Id<Client>, Client>();
        foreach (var client in known._byKey.Values.SelectMany(clients => clients))
        {
            var where = await db.WhereMergedAsync(client);
            all[where.Id] = where;
        }

        var ids = all.Keys.ToList();
        foreach (
            var value in await db
                .FieldValues.Where(value => ids.Contains(value.ClientId) && value.ProjectId == null && value.IsCurrent)
                .ToListAsync(cancellationToken)
        )
            known.ValuesOf(value.ClientId)[value.Field] = value;
        foreach (var tag in await db.ClientTags.AsNoTracking().Where(tag => ids.Contains(tag.ClientId)).ToListAsync(cancellationToken))
            known._tags.Add((tag.ClientId, tag.Tag));
        foreach (var note in await db.Notes.AsNoTracking().Where(note => ids.Contains(note.ClientId)).ToListAsync(cancellationToken))
            known._notes.Add((note.ClientId, note.Text));
        return known;
    }

    /// <summary>The client a person is; null for somebody new.</summary>
    public async Task<Client?> FindAsync(PorchDb db, ImportedPerson person)
    {
        var traits = person.Traits;
        if (traits.EmailKey is { } email)
        {
            var under = _byKey.GetValueOrDefault(MailKey(email), []);
            var found = ClientRecognition.Among(
                traits.Name,
                under.Select(client => new SameAddress(client.Id.Value, client.Name == client.Email ? null : client.Name, client.Since))
            );
            if (found is not null)
                return await db.WhereMergedAsync(under.First(client => client.Id.Value == found.Id));
        }

        return traits is { Phone: { } phone, Name: { } name }
            ? _byKey
                .GetValueOrDefault(PhoneKey(phone), [])
                .Find(client => UnicodeText.IsSame(client.Name, name) && (traits.EmailKey is null || client.EmailKey is null))
            : null;
    }

    /// <summary>What stands in the client's own fields.</summary>
    public Dictionary<string, FieldValue> ValuesOf(Id<Client> client) =>
        _values.TryGetValue(client, out var values) ? values : _values[client] = [];

    /// <summary>Whether another client than this one has an address.</summary>
    public bool HasOther(Id<Client> client, Answer email) =>
        email is TextAnswer { Text: var text }
        && _byKey.GetValueOrDefault(MailKey(EmailAddress.Key(text)), []).Exists(other => other.Id != client);

    /// <summary>Notes somebody new.</summary>
    public void Add(Client client, ImportedPerson person, Dictionary<string, FieldValue> values)
    {
        var traits = person.Traits;
        if (traits.EmailKey is { } email)
            Under(MailKey(email)).Add(client);
        if (traits.Phone is { } phone)
            Under(PhoneKey(phone)).Add(client);
        _values[client.Id] = values;
    }

    /// <summary>Whether a tag is new to a client; it is noted.</summary>
    public bool AddTag(Id<Client> client, string tag) => _tags.Add((client, tag));

    /// <summary>Whether nothing like a note stands there already; it is noted.</summary>
    public bool AddNote(Id<Client> client, string text) => _notes.Add((client, text));

    private List<Client> Under(string key) => _byKey.TryGetValue(key, out var clients) ? clients : _byKey[key] = [];

    private static string MailKey(string email) => $"mail {email}";

    private static string PhoneKey(string phone) => $"phone {phone}";
}
