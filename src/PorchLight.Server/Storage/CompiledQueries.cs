using System.Linq.Expressions;
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
    public static readonly Func<PorchDb, Task<Business>> Business = One<Business>(db => db.Businesses.Single());

    public static readonly Func<PorchDb, string, Task<Form?>> FormByLink = One<string, Form?>(
        (db, hash) => db.Forms.SingleOrDefault(form => form.LinkHash == hash)
    );

    public static readonly Func<PorchDb, string, Task<PersonalLink?>> PersonalLinkByHash = One<string, PersonalLink?>(
        (db, hash) => db.PersonalLinks.SingleOrDefault(link => link.LinkHash == hash)
    );

    public static readonly Func<PorchDb, Id<Form>, Guid, Task<UnfinishedForm?>> UnfinishedFormByKey = One<Id<Form>, Guid, UnfinishedForm?>(
        (db, form, key) => db.UnfinishedForms.SingleOrDefault(unfinished => unfinished.FormId == form && unfinished.SendKey == key)
    );

    public static readonly Func<PorchDb, Id<Form>, Guid, Task<Submission?>> SubmissionByKey = One<Id<Form>, Guid, Submission?>(
        (db, form, key) => db.Submissions.SingleOrDefault(earlier => earlier.FormId == form && earlier.SendKey == key)
    );

    public static readonly Func<PorchDb, Id<Form>, int, Task<FormVersion?>> FormVersion = One<Id<Form>, int, FormVersion?>(
        (db, form, number) => db.FormVersions.AsNoTracking().SingleOrDefault(version => version.FormId == form && version.Number == number)
    );

    public static readonly Func<PorchDb, Id<Form>, int, Task<ScreeningVersion>> Screening = One<Id<Form>, int, ScreeningVersion>(
        (db, form, number) => db.ScreeningVersions.AsNoTracking().Single(version => version.FormId == form && version.Number == number)
    );

    /// <summary>Those who are recognised by an address, also those whose records went into another's.</summary>
    public static readonly Func<PorchDb, string, IAsyncEnumerable<Client>> ClientsByEmail = All<string, Client>(
        (db, key) => db.Clients.IgnoreQueryFilters().Where(client => client.EmailKey == key)
    );

    public static readonly Func<PorchDb, Id<Client>, Task<Client?>> ClientOrMerged = One<Id<Client>, Client?>(
        (db, id) => db.Clients.IgnoreQueryFilters().SingleOrDefault(client => client.Id == id)
    );

    /// <summary>When a run last sent an address something that nobody nodded to.</summary>
    public static readonly Func<PorchDb, string, Task<Instant?>> LastAutomaticOfRuns = One<string, Instant?>(
        (db, to) =>
            db
                .OutgoingMail.Where(sent => sent.To == to && sent.Automatic && sent.EffectKey.StartsWith(StepRunner.OfRuns))
                .Max(sent => (Instant?)sent.Written)
    );

    /// <summary>What starts runs: the versions in force of all that are on, the oldest first.</summary>
    public static readonly Func<PorchDb, IAsyncEnumerable<FollowThroughVersion>> LiveFollowThroughs = All<FollowThroughVersion>(db =>
        from one in db.FollowThroughs
        where one.IsOn && one.Archived == null
        join version in db.FollowThroughVersions.AsNoTracking()
            on new { one.Id, one.Number } equals new { Id = version.FollowThroughId, version.Number }
        orderby one.Id
        select version
    );

    public static readonly Func<PorchDb, Task<long?>> LastEvent = One<long?>(db => db.Events.Max(logged => (long?)logged.Seq));

    // Compiled on its first call, with what the context does with its rows then: once to read them, once to hold them in a write.
    private static Func<PorchDb, Task<T>> One<T>(Expression<Func<PorchDb, T>> query)
    {
        var (read, write) = (EF.CompileAsyncQuery(query), EF.CompileAsyncQuery(query));
        return db => (db.CurrentWrite is null ? read : write)(db);
    }

    private static Func<PorchDb, TKey, Task<T>> One<TKey, T>(Expression<Func<PorchDb, TKey, T>> query)
    {
        var (read, write) = (EF.CompileAsyncQuery(query), EF.CompileAsyncQuery(query));
        return (db, key) => (db.CurrentWrite is null ? read : write)(db, key);
    }

    private static Func<PorchDb, TFirst, TSecond, Task<T>> One<TFirst, TSecond, T>(Expression<Func<PorchDb, TFirst, TSecond, T>> query)
    {
        var (read, write) = (EF.CompileAsyncQuery(query), EF.CompileAsyncQuery(query));
        return (db, first, second) => (db.CurrentWrite is null ? read : write)(db, first, second);
    }

    private static Func<PorchDb, IAsyncEnumerable<T>> All<T>(Expression<Func<PorchDb, IQueryable<T>>> query)
    {
        var (read, write) = (EF.CompileAsyncQuery(query), EF.CompileAsyncQuery(query));
        return db => (db.CurrentWrite is null ? read : write)(db);
    }

    private static Func<PorchDb, TKey, IAsyncEnumerable<T>> All<TKey, T>(Expression<Func<PorchDb, TKey, IQueryable<T>>> query)
    {
        var (read, write) = (EF.CompileAsyncQuery(query), EF.CompileAsyncQuery(query));
        return (db, key) => (db.CurrentWrite is null ? read : write)(db, key);
    }
}
