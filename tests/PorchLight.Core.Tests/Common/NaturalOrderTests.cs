using CsCheck;
using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

public sealed class NaturalOrderTests
{
    [Fact]
    public void Names_stand_as_people_order_them()
    {
        string[] ordered =
        [
            "after the call",
            "Reminder",
            "Reminder 1",
            "reminder 2",
            "Reminder 02b",
            "Reminder 10",
            "Reminder 10b",
            "Welcome",
        ];
        ordered.Reverse().Order(NaturalOrder.Instance).ShouldBe(ordered);
        NaturalOrder.Instance.Compare(new string('9', 60), "1" + new string('0', 60)).ShouldBeNegative("numbers of any length");
    }

    [Fact]
    public void It_is_an_order()
    {
        string[] parts = ["a", "B", "2", "10", "007", " ", "é"];
        var name = Gen.Int[0, parts.Length - 1].Array[0, 5].Select(chosen => string.Concat(chosen.Select(part => parts[part])));
        Gen.Select(name, name, name)
            .Sample(
                (x, y, z) =>
                {
                    var order = NaturalOrder.Instance;
                    Math.Sign(order.Compare(x, y)).ShouldBe(-Math.Sign(order.Compare(y, x)));
                    (order.Compare(x, y) == 0).ShouldBe(x == y);
                    if (order.Compare(x, y) <= 0 && order.Compare(y, z) <= 0)
                        order.Compare(x, z).ShouldBeLessThanOrEqualTo(0, $"{x} | {y} | {z}");
                }
            );
    }
}
