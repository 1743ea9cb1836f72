using PorchLight.Core.FollowThrough;
using PorchLight.Server.Records;

namespace PorchLight.Server.FollowThrough;

/// <summary>What is still to be written can be in no version that is in force.</summary>
internal sealed class UnwrittenEffect : StepEffect<Unwritten>
{
    protected override Task DoAsync(Unwritten action, StepToDo todo) =>
        throw new StepFailedException($"“{todo.Step.Name}” is still to be written.");
}
