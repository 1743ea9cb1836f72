using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

internal static class WholePeople
{
    // A word of three letters stands in too much that is about somebody else.
    private const int ShortestWord = 4;

    /// <summary>A client with every record that was made one with theirs, and all they are told by.</summary>
    public static async Task<WholePerson> WholePersonAsync(this PorchDb db, Id<Client> client, CancellationToken cancellationToken)
    {
        var records = new List<Id<Client>> { client };
        for (var at = 0; at < records.Count; at++)
        {
            var into = records[at];
            records.AddRange(
                await db
                    .Clients.IgnoreQueryFilters()
                    .Where(other => other.MergedIntoId == into)
                    .Select(other => other.Id)
                    .ToListAsync(cancellationToken)
            );
        }

        var inquiries = await db
            .Inquiries.Where(inquiry => records.Contains(inquiry.ClientId))
            .Select(inquiry => new
            {
                inquiry.Id,
                inquiry.SubmissionId,
                inquiry.ProjectId,
            })
            .ToListAsync(cancellationToken);
        var runs = await db
            .Runs.Where(run => run.ClientId != null && records.Contains(run.ClientId.Value))
            .Select(run => run.Id)
            .ToListAsync(cancellationToken);
        string[] fields = [BuiltInFields.Email.Key, BuiltInFields.Name.Key, BuiltInFields.Phone.Key];
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => records.Contains(value.ClientId) && fields.Contains(value.Field))
            .ToListAsync(cancellationToken);
        var own = await db
            .Clients.IgnoreQueryFilters()
            .Where(one => records.Contains(one.Id))
            .Select(one => new { one.Name, one.EmailKey })
            .ToListAsync(cancellationToken);
        var emails = values
            .Where(value => value.Field == BuiltInFields.Email.Key)
            .Select(value => value.Value)
            .OfType<TextAnswer>()
            .Select(value => EmailAddress.Key(value.Text))
            .Concat(own.Select(one => one.EmailKey).OfType<string>())
            .Distinct()
            .ToList();
        // A mailbox that somebody else has, too, is theirs as well: what went there may be about them.
        var shared = await db
            .Clients.IgnoreQueryFilters()
            .Where(other => other.EmailKey != null && emails.Contains(other.EmailKey) && !records.Contains(other.Id))
            .Select(other => other.EmailKey!)
            .ToListAsync(cancellationToken);
        var theirs = emails.Except(shared).ToList();
        return new WholePerson(
            records,
            [.. inquiries.Select(inquiry => inquiry.SubmissionId).Distinct()],
            theirs,
            [
                .. values
                    .Where(value => value.Field != BuiltInFields.Email.Key)
                    .Select(value => value.Value)
                    .OfType<Answer>()
                    .Select(value => AnswerWords.Say(value))
                    .Concat(own.Select(one => one.Name))
                    .Concat(theirs)
                    .Concat(records.Select(record => record.ToString()))
                    .Where(word => word.Length >= ShortestWord && word != Contact.NoName)
                    .Distinct(StringComparer.OrdinalIgnoreCase),
            ],
            inquiries
                .SelectMany(inquiry => new[] { inquiry.Id.ToString(), inquiry.ProjectId.ToString() })
                .Concat(runs.Select(run => run.ToString()))
                .ToHashSet()
        );
    }
}
