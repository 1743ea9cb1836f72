using System.ComponentModel.DataAnnotations;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>A follow-through under one number; never changed. The highest number is the one new runs take.</summary>
internal sealed class FollowThroughVersion
{
    public required Id<FollowThroughVersion> Id { get; init; }
    public required int Number { get; init; }
    public required FollowThroughContent Content { get; init; }
    public required bool Live { get; set; }
}

/// <summary>One follow-through on one project.</summary>
internal sealed class Run
{
    public required Id<Run> Id { get; init; }
    public required Id<FollowThroughVersion> FollowThroughId { get; init; }
    public required int FollowThroughNumber { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project> ProjectId { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }
    public required RunState State { get; set; }
    public required RunDrafts Drafts { get; set; }

    /// <summary>Whether steps are still to come; kept beside the state so that it can be asked for.</summary>
    public bool Active { get; set; } = true;

    /// <summary>When the worker must look again; kept beside the state so that it can be asked for.</summary>
    public required Instant? NextMoment { get; set; }

    /// <summary>Rises with every change; two hands on one run are noticed.</summary>
    [ConcurrencyCheck]
    public int Revision { get; set; }
}

/// <summary>The messages that wait for a nod, by step key, with a person's edits.</summary>
internal sealed record RunDrafts(IReadOnlyDictionary<string, MessageDraft> ByStep);

internal static class FollowThroughMaking
{
    /// <summary>Follow-throughs that are live at once.</summary>
    public static void AddFollowThroughs(this PorchDb db, IEnumerable<FollowThroughContent> contents) =>
        db.FollowThroughs.AddRange(
            contents.Select(content => new FollowThroughVersion
            {
                Id = new Id<FollowThroughVersion>(Guid.CreateVersion7()),
                Number = 1,
                Content = content,
                Live = true,
            })
        );

    /// <summary>What follows an inquiry through one form, as far as it is live, for a copy of that form, too.</summary>
    /// <param name="form">The original.</param>
    /// <param name="title">Its title, which stands in the names of its follow-throughs.</param>
    /// <param name="copy">The copy.</param>
    /// <param name="copyTitle">Its title.</param>
    public static async Task CopyFollowThroughsAsync(
        this PorchDb db,
        Id<Form> form,
        string title,
        Id<Form> copy,
        string copyTitle,
        CancellationToken cancellationToken
    ) =>
        db.AddFollowThroughs(
            from content in (await db.FollowThroughs.AsNoTracking().Where(one => one.Live).ToListAsync(cancellationToken))
                .GroupBy(one => one.Id)
                .Select(versions => versions.MaxBy(one => one.Number)!.Content)
            let starts = content.Starts as InquiryStart
            where starts?.Form == form.Value
            select content with
            {
                Name = content.Name.Replace(title, copyTitle, StringComparison.Ordinal),
                Starts = starts with { Form = copy.Value },
            }
        );
}
