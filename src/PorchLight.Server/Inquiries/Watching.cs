using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Tells those by mail who watch a project what comes in to it, in the transaction in which it does.</summary>
internal sealed class Watching(PorchDb db, MailQueue mail, PublicAddress address) : IEventReaction
{
    public async Task ReactAsync(LoggedEvent logged)
    {
        if (logged is not { ProjectId: { } projectId, ClientId: { } clientId } || !WatchingWords.Tells(logged.What))
            return;
        var watchers = await (
            from watcher in db.ProjectWatchers
            where watcher.ProjectId == projectId
            join user in db.Users on watcher.UserId equals user.Id
            select new { user.Id, user.Email }
        ).ToListAsync();
        if (watchers.Count == 0)
            return;
        var (client, project, business) = (
            (await db.Clients.FindAsync(clientId))!,
            (await db.Projects.FindAsync(projectId))!,
            await db.BusinessAsync()
        );
        var news = WatchingWords.Write(
            logged.What,
            client.Name,
            project.Title,
            key => business.Lists.Stages.FirstOrDefault(stage => stage.Key == key)?.Name ?? key,
            $"{address.Site}/clients/{clientId}/projects/{projectId}"
        );
        if (news is not var (subject, text))
            return;
        foreach (var watcher in watchers)
            mail.Queue(
                $"watched {logged.Seq} {watcher.Id}",
                business,
                watcher.Email!,
                null,
                new MailContent(subject, text),
                automatic: true,
                logged.At
            );
    }
}
