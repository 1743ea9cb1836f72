using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

internal sealed class StartAnotherEffect(PorchDb db, RunEngine engine, EventLog events) : StepEffect<StartAnother>
{
    /// <summary>Said before the other starts, which may end the run of this one.</summary>
    public override bool SaysItself => true;

    protected override async Task DoAsync(StartAnother action, StepToDo todo)
    {
        var wanted = await db.FollowThroughs.FindAsync(new Id<StoredFollowThrough>(action.FollowThrough));
        if (wanted is not { Archived: null } || await db.InForceAsync(wanted) is not { } version)
            throw new StepFailedException("What it starts is not there any more. Change the step.");
        await events.AppendAsync(new StepDone(todo.Step.Key, todo.By), todo.Now, todo.About);
        await engine.StartAsync(version, todo.About with { RunId = null }, todo.Now);
    }
}
