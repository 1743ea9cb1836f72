using System.Linq.Expressions;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Lists;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>What the fields of clients leave of a list, and put in order in it. Both are done in the database.</summary>
internal sealed class ClientFields(PorchDb db)
{
    private static readonly Keyset<FieldValue> ByNumber = new(
        (Expression<Func<FieldValue, double>>)(value => value.OrderNumber!.Value),
        (Expression<Func<FieldValue, Id<Client>>>)(value => value.ClientId)
    );
    private static readonly Keyset<FieldValue> ByText = new(
        (Expression<Func<FieldValue, string>>)(value => value.OrderText!),
        (Expression<Func<FieldValue, Id<Client>>>)(value => value.ClientId)
    );
    private static readonly Keyset<Client> ById = new((Expression<Func<Client, Id<Client>>>)(client => client.Id));

    /// <summary>
    /// The keys of the clients that follow in the order of a field. Those who have something there come from the index in their order; only
    /// when they run out are the others looked for.
    /// </summary>
    public Task<List<object?[]>> KeysAsync(
        Field field,
        IQueryable<Client> clients,
        bool descending,
        object?[]? after,
        int take,
        CancellationToken cancellationToken
    )
    {
        var values = Values(field);
        return Keyset.FilledFirstAsync(
            after,
            take,
            (behind, some) =>
                OrderOf(field)
                    .ReadAsync(
                        values.Join(clients, value => value.ClientId, client => client.Id, (value, _) => value),
                        descending,
                        behind,
                        some,
                        cancellationToken
                    ),
            (behind, some) => ById.ReadAsync(clients.Where(Not(Any(values))), descending, behind, some, cancellationToken)
        );
    }

    /// <summary>Reads where a page in the order of a field ended; null where it says nothing of the kind.</summary>
    public static object?[]? ReadAfter(Field field, string after) => OrderOf(field).Read(after, mayBeNull: true);

    private static Keyset<FieldValue> OrderOf(Field field) => ValueOrder.IsByNumber(field.Kind) ? ByNumber : ByText;

    /// <summary>Which clients a filter leaves; else why it cannot be read.</summary>
    /// <param name="field">The field it is about.</param>
    /// <param name="filter">The filter; one that the kind of field allows.</param>
    /// <param name="context">What typed values are read by.</param>
    /// <param name="currency">The business's currency.</param>
    public (Expression<Func<Client, bool>>? Test, string? Finding) Test(
        Field field,
        FieldFilter filter,
        NormaliseContext context,
        string currency
    )
    {
        var values = Values(field);
        if (filter.Test is FieldTest.IsFilled)
            return (Any(values), null);
        if (filter.Test is FieldTest.IsEmpty)
            return (Not(Any(values)), null);

        if (string.IsNullOrWhiteSpace(filter.Value))
            return (null, $"Say what “{field.Label}” is compared with, or take this filter away.");
        if (filter.Test == FieldTest.Contains)
        {
            var part = ValueOrder.Fold(filter.Value);
            return (Any(values.Where(value => value.OrderText != null && value.OrderText.Contains(part))), null);
        }

        // Words are compared as they are sorted; only what has an order of its own has to be read.
        ValueOrder order;
        if (field.Kind is FieldKind.Number or FieldKind.Money or FieldKind.Date or FieldKind.YesNo or FieldKind.Phone)
        {
            if (FieldEntry.Read(filter.Value, field, context, currency) is not { Fault: null, Value: { } read })
                return (null, $"“{filter.Value}” cannot be compared with “{field.Label}”. Please write it in another way.");
            order = ValueOrder.Of(read);
        }
        else
        {
            order = new ValueOrder(ValueOrder.Fold(filter.Value), null);
        }

        return order switch
        {
            { Number: { } number } => (
                Any(
                    filter.Test switch
                    {
                        FieldTest.AtLeast => values.Where(value => value.OrderNumber >= number),
                        FieldTest.AtMost => values.Where(value => value.OrderNumber <= number),
                        _ => values.Where(value => value.OrderNumber == number),
                    }
                ),
                null
            ),
            { Text: var text } => (Any(values.Where(value => value.OrderText == text)), null),
        };
    }

    /// <summary>What lists show of one field. It names the half of the index it wants, so that nothing else is looked at.</summary>
    private IQueryable<FieldValue> Values(Field field)
    {
        var values = db.FieldValues.Where(value => value.IsListed && value.Field == field.Key);
        return ValueOrder.IsByNumber(field.Kind)
            ? values.Where(value => value.OrderNumber != null)
            : values.Where(value => value.OrderText != null);
    }

    private static Expression<Func<Client, bool>> Any(IQueryable<FieldValue> values) =>
        client => values.Select(value => value.ClientId).Contains(client.Id);

    private static Expression<Func<Client, bool>> Not(Expression<Func<Client, bool>> test) =>
        Expression.Lambda<Func<Client, bool>>(Expression.Not(test.Body), test.Parameters);
}
