using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Brand;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;

namespace PorchLight.Server.Storage;

/// <summary>
/// What every sending asks of the database, compiled once: leads wait for these. The types are named, because the compiler would try
/// dozens of overloads for each.
/// </summary>
internal static class CompiledQueries
{
    public static readonly Func<PorchDb, string, Task<Form?>> FormByLink = EF.CompileAsyncQuery<PorchDb, string, Form?>(
        (db, hash) => db.Forms.SingleOrDefault(form => form.LinkHash == hash)
    );

    public static readonly Func<PorchDb, Id<Form>, Task<Form>> FormAsStored = EF.CompileAsyncQuery<PorchDb, Id<Form>, Form>(
        (db, id) => db.Forms.AsNoTracking().Single(form => form.Id == id)
    );

    public static readonly Func<PorchDb, Id<Form>, Guid, Task<SavedDraft?>> DraftByKey = EF.CompileAsyncQuery<
        PorchDb,
        Id<Form>,
        Guid,
        SavedDraft?
    >((db, form, key) => db.SavedDrafts.SingleOrDefault(draft => draft.FormId == form && draft.SendKey == key));

    /// <summary>When a run last sent an address something that nobody nodded to.</summary>
    public static readonly Func<PorchDb, string, Task<Instant?>> LastAutomaticOfRuns = EF.CompileAsyncQuery<PorchDb, string, Instant?>(
        (db, to) =>
            db
                .OutgoingMail.Where(sent => sent.To == to && sent.Automatic && sent.EffectKey.StartsWith(StepRunner.OfRuns))
                .Max(sent => (Instant?)sent.Written)
    );

    public static readonly Func<PorchDb, string, Task<PersonalLink?>> PersonalLinkByHash = EF.CompileAsyncQuery<
        PorchDb,
        string,
        PersonalLink?
    >((db, hash) => db.PersonalLinks.SingleOrDefault(link => link.LinkHash == hash));

    public static readonly Func<PorchDb, Task<Business>> Business = EF.CompileAsyncQuery<PorchDb, Business>(db => db.Businesses.Single());

    public static readonly Func<PorchDb, Id<Form>, Guid, Task<Submission?>> SubmissionByKey = EF.CompileAsyncQuery<
        PorchDb,
        Id<Form>,
        Guid,
        Submission?
    >((db, form, key) => db.Submissions.SingleOrDefault(earlier => earlier.FormId == form && earlier.SendKey == key));

    public static readonly Func<PorchDb, Id<Form>, int, Task<FormVersion?>> FormVersion = EF.CompileAsyncQuery<
        PorchDb,
        Id<Form>,
        int,
        FormVersion?
    >((db, form, number) => db.FormVersions.AsNoTracking().SingleOrDefault(version => version.FormId == form && version.Number == number));

    public static readonly Func<PorchDb, Id<Form>, int, Task<ScreeningVersion>> Screening = EF.CompileAsyncQuery<
        PorchDb,
        Id<Form>,
        int,
        ScreeningVersion
    >((db, form, number) => db.ScreeningVersions.AsNoTracking().Single(version => version.FormId == form && version.Number == number));

    /// <summary>Those who are recognised by an address, also those whose records went into another's.</summary>
    public static readonly Func<PorchDb, string, IAsyncEnumerable<Client>> ClientsByEmail = EF.CompileAsyncQuery<PorchDb, string, Client>(
        (db, key) => db.Clients.IgnoreQueryFilters().Where(client => client.EmailKey == key)
    );

    public static readonly Func<PorchDb, Id<Client>, Task<Client?>> ClientOrMerged = EF.CompileAsyncQuery<PorchDb, Id<Client>, Client?>(
        (db, id) => db.Clients.IgnoreQueryFilters().SingleOrDefault(client => client.Id == id)
    );

    /// <summary>What starts runs: the versions in force of all that are on, the oldest first.</summary>
    public static readonly Func<PorchDb, IAsyncEnumerable<FollowThroughVersion>> LiveFollowThroughs = EF.CompileAsyncQuery<
        PorchDb,
        FollowThroughVersion
    >(db =>
        from one in db.FollowThroughs
        where one.IsOn && one.Archived == null
        join version in db.FollowThroughVersions.AsNoTracking()
            on new { one.Id, one.Number } equals new { Id = version.FollowThroughId, version.Number }
        orderby one.Id
        select version
    );

    public static readonly Func<PorchDb, Task<long?>> LastEvent = EF.CompileAsyncQuery<PorchDb, long?>(db =>
        db.Events.Max(logged => (long?)logged.Seq)
    );
}
