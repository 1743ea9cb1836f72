using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Library;

/// <summary>The files that messages carry or show: those of the library, of steps, and of what waits for somebody already.</summary>
internal sealed class FilesInMessages(PorchDb db) : IFileUse
{
    public async Task<IReadOnlyList<(Guid File, string Where)>> UsesAsync(CancellationToken cancellationToken)
    {
        var found = new List<(Guid, string)>();
        foreach (var message in await db.LibraryMessages.AsNoTracking().ToListAsync(cancellationToken))
            Add(message.Message.FilesNeeded, $"the message “{message.Name}”");
        foreach (var (_, content) in await db.WorkedOnAsync(cancellationToken))
            AddSteps(content);
        foreach (
            var version in await db
                .FollowThroughVersions.AsNoTracking()
                .Where(version =>
                    db.Runs.Any(run =>
                        run.Active && run.FollowThroughId == version.FollowThroughId && run.FollowThroughNumber == version.Number
                    )
                )
                .ToListAsync(cancellationToken)
        )
            AddSteps(version.Content);
        foreach (var run in await db.Runs.AsNoTracking().Where(run => run.NodStatus != null).ToListAsync(cancellationToken))
        foreach (var draft in run.Drafts.ByStep.Values)
            Add(draft.Enclosed.Files, $"the message “{draft.Subject}”, which waits");
        foreach (var signature in await SignaturesAsync(cancellationToken))
            Add(FormattedText.Read(signature).Pictures, "a signature");
        return [.. found.Distinct()];

        void Add(IEnumerable<Guid> files, string place) => found.AddRange(files.Select(file => (file, place)));

        void AddSteps(FollowThroughContent content)
        {
            foreach (var step in content.AllSteps)
            {
                if (step.Action is SendMessage send)
                    Add(send.Message.FilesNeeded, $"the step “{step.Name}” of “{content.Name}”");
            }
        }
    }

    private async Task<List<string>> SignaturesAsync(CancellationToken cancellationToken) =>
        [
            (await db.BusinessAsync()).Signature,
            .. await db.Users.Where(user => user.Signature != "").Select(user => user.Signature).ToListAsync(cancellationToken),
        ];
}
