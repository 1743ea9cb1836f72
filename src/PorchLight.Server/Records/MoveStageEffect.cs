using PorchLight.Core.FollowThrough;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

internal sealed class MoveStageEffect(PorchDb db, ProjectStages stages) : StepEffect<MoveStage>
{
    protected override async Task DoAsync(MoveStage action, StepToDo todo)
    {
        var stage =
            todo.Business.Lists.Stages.FirstOrDefault(one => one.Key == action.Stage)
            ?? throw new StepFailedException("The stage it moves to is not in your list any more. Put it back, or change the step.");
        await stages.MoveAsync(
            (await db.Projects.FindAsync(todo.Project))!,
            stage,
            todo.By,
            todo.Now,
            action.ParkedDays is { } days ? todo.Business.Calendar.Today(todo.Now).PlusDays(days) : null
        );
    }
}
