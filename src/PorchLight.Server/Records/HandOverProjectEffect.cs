using PorchLight.Core.FollowThrough;
using PorchLight.Core.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

internal sealed class HandOverProjectEffect(PorchDb db, EventLog events) : StepEffect<HandOverProject>
{
    protected override async Task DoAsync(HandOverProject action, StepToDo todo)
    {
        var project = (await db.Projects.FindAsync(todo.Project))!;
        var to = await db.WorksHereAsync(action.To);
        if (project.LooksAfterId == to)
            return;
        if (action.KeepWatching && project.LooksAfterId is { } before)
            await db.WatchAsync(project, before);
        project.LooksAfterId = to;
        await events.AppendAsync(new ProjectGiven(to, todo.By), todo.Now, todo.About);
    }
}
