using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>The catalogue of fields: those every business has, and its own.</summary>
internal static class FieldEndpoints
{
    private const string Gone = "This field is not here any more.";
    private const int MostShown = 20;

    /// <param name="IsBuiltIn">Whether every business has it.</param>
    /// <param name="Filled">In how many records something stands in it.</param>
    /// <param name="Forms">The titles of the forms whose answers land in it.</param>
    internal sealed record FieldView(Field Field, RecordScope Scope, bool IsBuiltIn, int Filled, IReadOnlyList<string> Forms);

    /// <param name="Scope">Whose field it is.</param>
    /// <param name="Field">The field; its key is made of its words.</param>
    internal sealed record NewField(RecordScope Scope, Field Field);

    /// <param name="Edit">What it was and shall be.</param>
    /// <param name="LosesValues">Whether to change the kind although some values do not fit; they stay in the history.</param>
    internal sealed record FieldChange(Edit<Field> Edit, bool LosesValues);

    /// <summary>What a field would lose by another kind.</summary>
    /// <param name="Fit">How many values can be kept.</param>
    /// <param name="Lost">How many cannot.</param>
    /// <param name="Examples">Some of those, each with whose it is.</param>
    internal sealed record KindChangeView(int Fit, int Lost, IReadOnlyList<LostValue> Examples);

    internal sealed record LostValue(string Client, string Words);

    /// <param name="Question">What is asked.</param>
    /// <param name="Scope">Whose field it shall be.</param>
    internal sealed record FieldForQuestion(Question Question, RecordScope Scope);

    public static void MapFields(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/fields").WithTags("Fields");
        group.MapGet("", ListAsync).For(Access.Member);
        group.MapPost("", AddAsync).For(Access.Owner);
        group.MapPost("/for-question", AddForQuestionAsync).For(Access.Owner).Once();
        group.MapPut("/{key}", ChangeAsync).For(Access.Owner);
        group.MapPost("/{key}/other-kind", OtherKindAsync).For(Access.Owner);
        group.MapPut("/order", OrderAsync).For(Access.Owner);
    }

    private static async Task<Ok<List<FieldView>>> ListAsync(PorchDb db, FieldCatalogues catalogues, CancellationToken cancellationToken)
    {
        var fields = await catalogues.ReadAsync(db);
        var filled = await db
            .FieldValues.Where(value => value.IsCurrent)
            .GroupBy(value => value.Field)
            .Select(field => new { field.Key, Count = field.Count() })
            .ToDictionaryAsync(field => field.Key, field => field.Count, cancellationToken);
        var lists = (await db.BusinessAsync()).Lists;
        var landing = (
            await db.Forms.AsNoTracking().Where(form => form.Archived == null).Select(form => form.Draft).ToListAsync(cancellationToken)
        )
            .SelectMany(form => lists.Into(form).Questions.Select(question => (form.Title, (question.LandsIn as SetField)?.Field)))
            .Where(one => one.Field is not null)
            .Distinct()
            .ToLookup(one => one.Field!, one => one.Title);
        return TypedResults.Ok(
            fields
                .All.Select(field => new FieldView(
                    field,
                    field.Scope,
                    field.IsBuiltIn,
                    filled.GetValueOrDefault(field.Key),
                    [.. landing[field.Key].Order(StringComparer.CurrentCultureIgnoreCase)]
                ))
                .ToList()
        );
    }

    private static async Task<Results<Created<Field>, ProblemHttpResult>> AddAsync(
        NewField wanted,
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var fields = await catalogues.ReadAsync(db);
        var label = wanted.Field.Label.Trim();
        var field = Tidied(wanted.Field with { Key = fields.NewKey(wanted.Scope, label), Label = label, Archived = false });
        // The same field again is the same press.
        if (fields.Offered.FirstOrDefault(one => IsSame(one with { Key = field.Key }, field) && one.Scope == wanted.Scope) is { } there)
            return TypedResults.Created($"/api/fields/{there.Key}", there);
        if (fields.Check(field) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        await StoreAsync(field, db, write, catalogues, cancellationToken);
        return TypedResults.Created($"/api/fields/{field.Key}", field);
    }

    /// <summary>Makes the field a question would land in, without leaving the form.</summary>
    private static async Task<Results<Created<Field>, ProblemHttpResult>> AddForQuestionAsync(
        FieldForQuestion wanted,
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var fields = await catalogues.ReadAsync(db);
        var asked = (await db.BusinessAsync()).Lists.Into(wanted.Question);
        if (FieldProposals.For(asked, wanted.Scope, fields) is not { } field)
            return Problems.Unprocessable(
                "No field can keep this kind of answer. It stays with the inquiry; the notes can have it in words."
            );
        if (fields.Check(field) is { Count: > 0 } findings)
            return Problems.Unprocessable(findings[0].Sentence, findings);
        await StoreAsync(field, db, write, catalogues, cancellationToken);
        return TypedResults.Created($"/api/fields/{field.Key}", field);
    }

    internal static async Task StoreAsync(
        Field field,
        PorchDb db,
        Write write,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        var last = await db.Fields.MaxAsync(one => (int?)one.Position, cancellationToken) ?? 0;
        db.Fields.Add(
            new StoredField
            {
                Key = field.Key,
                Position = last + 1,
                Field = field,
            }
        );
        await write.SaveAsync(cancellationToken);
        catalogues.Forget();
    }

    /// <summary>
    /// Changes a field; its key and whose it is stay. With another kind every value is carried over; where some do not fit, that is
    /// asked about first.
    /// </summary>
    private static async Task<Results<Ok<Field>, ProblemHttpResult>> ChangeAsync(
        string key,
        FieldChange change,
        PorchDb db,
        RecordWriter writer,
        FieldCatalogues catalogues,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Fields.FindAsync([key], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var (merged, refusal) = change.Edit.Onto(stored.Field);
        if (refusal is not null)
            return refusal;
        var field = Tidied(merged with { Key = key, Label = merged.Label.Trim() });
        var fields = await catalogues.ReadAsync(db);
        if (fields.Check(field) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        if (IsOtherKind(field, stored.Field))
        {
            var values = await db.FieldValues.Where(value => value.IsCurrent && value.Field == key).ToListAsync(cancellationToken);
            var carry = await ConversionAsync(db, field, clock);
            if (!change.LosesValues && values.Any(value => carry(value.Value!) is null))
                return Problems.Conflict("Some values do not fit this kind. Look at them first, and say whether they may go.");
            var clients = await db
                .Clients.Where(client => db.FieldValues.Any(value => value.IsCurrent && value.Field == key && value.ClientId == client.Id))
                .ToDictionaryAsync(client => client.Id, cancellationToken);
            var projects = await db
                .Projects.Where(project =>
                    db.FieldValues.Any(value => value.IsCurrent && value.Field == key && value.ProjectId == project.Id)
                )
                .ToDictionaryAsync(project => project.Id, cancellationToken);
            var source = new ValueSource(ValueOrigin.Hand, who.DisplayName(), clock.GetCurrentInstant());
            foreach (var value in values)
            {
                if (carry(value.Value!) is var carried && !Equals(carried, value.Value))
                    writer.Write(
                        clients[value.ClientId],
                        value.ProjectId is { } project ? projects[project] : null,
                        key,
                        carried,
                        value,
                        source
                    );
            }
        }

        if (
            field.AtAGlance != stored.Field.AtAGlance
            && await db.Arrangements.FindAsync([field.Scope, ""], cancellationToken) is { } arranged
        )
            arranged.Arrangement = arranged.Arrangement.Without(key);
        stored.Field = field;
        await write.SaveAsync(cancellationToken);
        catalogues.Forget();
        return TypedResults.Ok(field);
    }

    /// <summary>What would not fit a field of another kind. Nothing is changed.</summary>
    private static async Task<Results<Ok<KindChangeView>, ProblemHttpResult>> OtherKindAsync(
        string key,
        Field wanted,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Fields.FindAsync([key], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var carry = IsOtherKind(wanted, stored.Field) ? await ConversionAsync(db, wanted with { Key = key }, clock) : value => value;
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => value.IsCurrent && value.Field == key)
            .Join(db.Clients, value => value.ClientId, client => client.Id, (value, client) => new { value.Value, client.Name })
            .ToListAsync(cancellationToken);
        var lost = values.Where(value => carry(value.Value!) is null).ToList();
        return TypedResults.Ok(
            new KindChangeView(
                values.Count - lost.Count,
                lost.Count,
                [.. lost.Take(MostShown).Select(value => new LostValue(value.Name, AnswerWords.Say(value.Value!)))]
            )
        );
    }

    /// <summary>Puts the fields in order; one that is not named stays behind those that are.</summary>
    private static async Task<NoContent> OrderAsync(
        IReadOnlyList<string> keys,
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var fields = await db.Fields.OrderBy(field => field.Position).ToListAsync(cancellationToken);
        var places = keys.OfType<string>().Distinct().Select((key, place) => (key, place)).ToDictionary(one => one.key, one => one.place);
        foreach (var (place, field) in fields.OrderBy(field => places.GetValueOrDefault(field.Key, int.MaxValue)).Index())
            field.Position = place;
        await write.SaveAsync(cancellationToken);
        catalogues.Forget();
        return TypedResults.NoContent();
    }

    private static bool IsSame(Field a, Field b) => Edits.UnlessSeen(a, b) is null;

    private static bool IsOtherKind(Field wanted, Field stored) =>
        wanted.Kind != stored.Kind
        || wanted.Kind == FieldKind.Rows && !wanted.Columns.Select(Shape).SequenceEqual(stored.Columns.Select(Shape));

    private static (string, FieldKind) Shape(FieldColumn column) => (column.Key, column.Kind);

    private static async Task<Func<Answer, Answer?>> ConversionAsync(PorchDb db, Field wanted, BusinessClock clock)
    {
        var business = await db.BusinessAsync();
        var now = clock.GetCurrentInstant();
        var context = new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now));
        return value => FieldEntry.Carried(value, wanted, context, business.Currency);
    }

    /// <summary>Names without blanks around them, and a key for each column that has none yet.</summary>
    private static Field Tidied(Field field)
    {
        var keys = field.Columns.Select(column => column.Key).Where(key => key.Length > 0).ToHashSet();
        return field with
        {
            Options = [.. field.Options.Select(option => option.Trim())],
            Columns =
            [
                .. field.Columns.Select(column =>
                    column with
                    {
                        Key = column.Key.Length > 0 ? column.Key : ItemKeys.For(column.Label, keys, "column"),
                        Label = column.Label.Trim(),
                    }
                ),
            ],
        };
    }
}
