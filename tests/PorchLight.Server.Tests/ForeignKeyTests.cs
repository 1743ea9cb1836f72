using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Records;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The database itself holds every reference, and says what becomes of it when what it names goes.</summary>
public sealed class ForeignKeyTests
{
    [Fact]
    public async Task Every_identifier_of_something_else_is_a_foreign_key()
    {
        await using var app = new TestApp();
        (
            await app.AskAsync(db =>
                Task.FromResult(
                    db.Model.GetEntityTypes()
                        .SelectMany(entity => entity.GetProperties())
                        .Where(property =>
                            Named(property) is { } named && !(named == property.DeclaringType.ClrType && property.IsPrimaryKey())
                        )
                        // A follow-through is named by its identifier and number together; that pair is its key.
                        .Where(property => !property.IsForeignKey())
                        .Select(property => $"{property.DeclaringType.ShortName()}.{property.Name}")
                        .ToList()
                )
            )
        ).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_row_that_names_nothing_is_refused_by_the_database()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await app.SendAsync(Answers());
        await Should.ThrowAsync<DbUpdateException>(() =>
            app.ChangeAsync(async db =>
                db.Notes.Add(
                    new Note
                    {
                        Id = new Id<Note>(Guid.CreateVersion7()),
                        ClientId = new Id<Client>(Guid.CreateVersion7()),
                        ProjectId = null,
                        Heading = "Of nobody",
                        Text = "Nobody said this.",
                        InquiryId = (await db.Inquiries.SingleAsync()).Id,
                        By = "Nobody",
                        At = app.Time.Now(),
                    }
                )
            )
        );
    }

    [Fact]
    public async Task What_belongs_to_a_client_goes_with_the_client_and_what_happened_and_was_sent_stays()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var (events, mails) = await app.AskAsync(async db => (await db.Events.CountAsync(), await db.OutgoingMail.CountAsync()));

        await app.ChangeAsync(db => db.Clients.ExecuteDeleteAsync());

        await app.AskAsync(async db =>
        {
            (await db.Projects.CountAsync() + await db.Inquiries.CountAsync() + await db.FieldValues.CountAsync()).ShouldBe(0);
            (await db.Notes.CountAsync() + await db.Runs.CountAsync() + await db.Differences.CountAsync()).ShouldBe(0);
            (await db.Submissions.CountAsync()).ShouldBe(1);
            (await db.Events.CountAsync(logged => logged.ClientId == null && logged.InquiryId == null)).ShouldBe(events);
            (await db.OutgoingMail.CountAsync(mail => mail.ClientId == null)).ShouldBe(mails);
            return 0;
        });
    }

    [Fact]
    public async Task A_version_somebody_has_answered_cannot_be_taken_away()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await app.SendAsync(Answers());
        await Should.ThrowAsync<Microsoft.Data.Sqlite.SqliteException>(() => app.ChangeAsync(db => db.FormVersions.ExecuteDeleteAsync()));
    }

    private static Type? Named(IProperty property)
    {
        var bare = Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType;
        return bare.IsGenericType && bare.GetGenericTypeDefinition() == typeof(Id<>) ? bare.GetGenericArguments()[0] : null;
    }
}
