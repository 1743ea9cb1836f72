using PorchLight.Core.Answers;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Fields;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

internal sealed class FillFieldEffect(PorchDb db, FieldCatalogues fields, RecordWriter writer) : StepEffect<FillField>
{
    protected override async Task DoAsync(FillField action, StepToDo todo)
    {
        var field =
            (await fields.ReadAsync(db)).Find(action.Field)
            ?? throw new StepFailedException("The field it sets is not there any more. Put it back, or change the step.");
        var (value, refusal) = await writer.EnteredAsync(
            todo.Client,
            field,
            action.Value ?? new DateAnswer(todo.Business.Calendar.Today(todo.Now)),
            todo.Now
        );
        if (refusal is not null)
            throw new StepFailedException($"What it sets does not fit the field “{field.Label}”. Change the step or the field.");
        var current = (await writer.CurrentAsync(todo.Client.Id, todo.About.ProjectId)).GetValueOrDefault(action.Field);
        if (!Equals(current?.Value, value))
            writer.Write(
                todo.Client,
                (await db.Projects.FindAsync(todo.Project))!,
                action.Field,
                value,
                current,
                new ValueSource(ValueOrigin.FollowThrough, todo.FollowThrough, todo.Now)
            );
    }
}
