using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>A follow-through of the business: its version in force, and what somebody works on beside it.</summary>
internal sealed class StoredFollowThrough
{
    public required Id<StoredFollowThrough> Id { get; init; }

    /// <summary>The number of the version in force, which new runs take; 0 before there is one.</summary>
    public required int Number { get; set; }

    /// <summary>Whether it starts runs by itself.</summary>
    public required bool IsOn { get; set; }

    /// <summary>What somebody works on; null while nobody does.</summary>
    public FollowThroughContent? Draft { get; set; }

    /// <summary>When it was put away; null while it is in the list.</summary>
    public Instant? Archived { get; set; }
}

/// <summary>A follow-through under one number; never changed. Runs stay with theirs.</summary>
internal sealed class FollowThroughVersion
{
    public required Id<StoredFollowThrough> FollowThroughId { get; init; }
    public required int Number { get; init; }
    public required FollowThroughContent Content { get; init; }

    /// <summary>Since when it is in force; null for one that was there from the beginning.</summary>
    public Instant? Since { get; init; }

    /// <summary>Who put it into force.</summary>
    public string? By { get; init; }
}

internal static class FollowThroughMaking
{
    /// <summary>Follow-throughs that are in force and on at once; of two, the one given first counts as the older.</summary>
    public static void AddFollowThroughs(this PorchDb db, IEnumerable<FollowThroughContent> contents)
    {
        FollowThroughContent[] all = [.. contents];
        // Made within a millisecond they are in no order of their own.
        var ids = all.Select(_ => Guid.CreateVersion7()).Order();
        foreach (var (content, made) in all.Zip(ids))
        {
            var id = new Id<StoredFollowThrough>(made);
            db.FollowThroughs.Add(
                new StoredFollowThrough
                {
                    Id = id,
                    Number = 1,
                    IsOn = true,
                }
            );
            db.FollowThroughVersions.Add(
                new FollowThroughVersion
                {
                    FollowThroughId = id,
                    Number = 1,
                    Content = content,
                }
            );
        }
    }

    /// <summary>The version a run follows.</summary>
    public static async Task<FollowThroughVersion> VersionOfAsync(this PorchDb db, Run run) =>
        (await db.FollowThroughVersions.FindAsync(run.FollowThroughId, run.FollowThroughNumber))!;

    /// <summary>The version of a follow-through that is in force; null before there is one.</summary>
    public static async Task<FollowThroughVersion?> InForceAsync(this PorchDb db, StoredFollowThrough one) =>
        one.Number == 0 ? null : await db.FollowThroughVersions.FindAsync(one.Id, one.Number);

    /// <summary>Every run with the version it follows.</summary>
    public static IQueryable<RunWithVersion> RunsWithVersion(this PorchDb db) =>
        from run in db.Runs.AsNoTracking()
        join version in db.FollowThroughVersions.AsNoTracking()
            on new { Id = run.FollowThroughId, Number = run.FollowThroughNumber } equals new
            {
                Id = version.FollowThroughId,
                version.Number,
            }
        select new RunWithVersion { Run = run, Version = version };

    /// <summary>The same with whom each is about.</summary>
    public static IQueryable<RunWithPerson> RunsWithPeople(this PorchDb db) =>
        from one in db.RunsWithVersion()
        from client in db.Clients.AsNoTracking().Where(client => client.Id == one.Run.ClientId).DefaultIfEmpty()
        from left in db.UnfinishedForms.AsNoTracking().Where(left => left.Id == one.Run.UnfinishedFormId).DefaultIfEmpty()
        select new RunWithPerson
        {
            Run = one.Run,
            Version = one.Version,
            Client = client,
            MailedTo = left.MailedTo,
        };

    /// <summary>All that are not put away, each with what is worked on, else with what is in force.</summary>
    public static async Task<IReadOnlyList<(StoredFollowThrough Stored, FollowThroughContent Content)>> WorkedOnAsync(
        this PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var all = await (
            from stored in db.FollowThroughs
            where stored.Archived == null
            join version in db.FollowThroughVersions.AsNoTracking()
                on new { stored.Id, stored.Number } equals new { Id = version.FollowThroughId, version.Number }
                into inForce
            from version in inForce.DefaultIfEmpty()
            select new { Stored = stored, Version = version }
        ).ToListAsync(cancellationToken);
        return [.. all.Select(one => (one.Stored, one.Stored.Draft ?? one.Version!.Content))];
    }

    /// <summary>What follows an inquiry through one form, as far as it is on, for a copy of that form, too.</summary>
    /// <param name="form">The original.</param>
    /// <param name="title">Its title, which stands in the names of its follow-throughs.</param>
    /// <param name="copy">The copy.</param>
    /// <param name="copyTitle">Its title.</param>
    public static async Task CopyFollowThroughsAsync(this PorchDb db, Id<Form> form, string title, Id<Form> copy, string copyTitle) =>
        db.AddFollowThroughs(
            from version in await CompiledQueries.LiveFollowThroughs(db).ToListAsync()
            let content = version.Content
            let starts = content.Starts as InquiryStart
            where starts?.Form == form.Value
            select content with
            {
                Name = content.Name.Replace(title, copyTitle, StringComparison.Ordinal),
                Starts = starts with { Form = copy.Value },
            }
        );
}

/// <summary>A run beside whom it is about.</summary>
internal sealed class RunWithPerson
{
    public required Run Run { get; init; }
    public required FollowThroughVersion Version { get; init; }

    /// <summary>Null for who is no client yet.</summary>
    public required Client? Client { get; init; }

    /// <summary>Where the link to a half-finished form went; null for everybody else, and where it went nowhere.</summary>
    public required string? MailedTo { get; init; }

    /// <summary>What to call them in a list.</summary>
    public string Name => Client?.Name ?? MailedTo ?? "Someone who left a form";

    /// <summary>Their address; empty where they left none.</summary>
    public string Address => Client?.Email ?? MailedTo ?? "";
}

/// <summary>A run beside the version it follows.</summary>
internal sealed class RunWithVersion
{
    public required Run Run { get; init; }
    public required FollowThroughVersion Version { get; init; }
}
