using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>A line in the simulated team chat.</summary>
internal sealed class TeamChatPost
{
    public required Id<TeamChatPost> Id { get; init; }

    /// <summary>Whom it is about; null for somebody who is no client.</summary>
    public required Id<Client>? ClientId { get; init; }

    /// <summary>The half-finished form it is about, with which it goes; null for none.</summary>
    public required Id<SavedDraft>? SavedDraftId { get; init; }
    public required string Text { get; init; }

    /// <summary>The follow-through that posted it, by the name it had.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}

internal static class TeamChat
{
    /// <summary>Posts a line, as part of the caller's transaction.</summary>
    /// <param name="db">The database.</param>
    /// <param name="text">What it says.</param>
    /// <param name="by">The follow-through that posts it.</param>
    /// <param name="about">The client it is about; null for somebody who is none.</param>
    /// <param name="left">The half-finished form it is about; null for none.</param>
    /// <param name="at">When.</param>
    public static void PostToTeamChat(this PorchDb db, string text, string by, Client? about, SavedDraft? left, Instant at) =>
        db.TeamChat.Add(
            new TeamChatPost
            {
                Id = new Id<TeamChatPost>(Guid.CreateVersion7()),
                ClientId = about?.Id,
                SavedDraftId = left?.Id,
                Text = text.Trim(),
                By = by,
                At = at,
            }
        );
}
