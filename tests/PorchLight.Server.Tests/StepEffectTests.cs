using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Records;

namespace PorchLight.Server.Tests;

public sealed class StepEffectTests
{
    [Fact]
    public void Whatever_a_step_can_do_outside_its_run_some_area_does() =>
        StepEffects.All.Keys.ShouldBe(
            Kinds.Of(typeof(StepAction)).Values.Where(kind => kind.IsSubclassOf(typeof(OutsideAction))),
            ignoreOrder: true
        );
}
