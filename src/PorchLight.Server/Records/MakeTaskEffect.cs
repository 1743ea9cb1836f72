using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

internal sealed class MakeTaskEffect(PorchDb db) : StepEffect<MakeTask>
{
    private const int LongestTitle = 200;

    protected override async Task DoAsync(MakeTask action, StepToDo todo)
    {
        var calendar = todo.Business.Calendar;
        db.ClientTasks.Add(
            new ClientTask
            {
                Id = new Id<ClientTask>(Guid.CreateVersion7()),
                ClientId = todo.Client.Id,
                ProjectId = todo.About.ProjectId,
                Title = UnicodeText.Start(KnownValues.OneLine(todo.Fill(action.Title)), LongestTitle),
                IsDate = false,
                On = calendar.WorkingDaysAfter(calendar.Today(todo.Now), action.DueAfterWorkingDays),
                ForId = action.For is { } user ? await db.WorksHereAsync(user) : (await db.Projects.FindAsync(todo.Project))!.LooksAfterId,
                By = todo.FollowThrough,
                At = todo.Now,
            }
        );
    }
}
