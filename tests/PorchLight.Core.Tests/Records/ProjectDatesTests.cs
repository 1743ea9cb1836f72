using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ProjectDatesTests
{
    private static readonly LocalDate Today = new(2026, 4, 20);

    [Fact]
    public void The_days_of_a_project_stand_in_the_order_of_time_and_today_is_not_past()
    {
        Field[] fields = [new("project.unveiling", "Unveiling", FieldKind.Date), new("project.start", "Start", FieldKind.Date)];
        ProjectDates
            .Of(
                new LocalDate(2026, 3, 7),
                new LocalDate(2026, 6, 1),
                [
                    (fields[0], new DateAnswer(new LocalDate(2026, 5, 9))),
                    (fields[1], new DateAnswer(Today)),
                    (fields[0] with { Archived = true }, new DateAnswer(Today)),
                    (fields[0] with { Label = "Empty" }, null),
                    (new Field("project.place", "Place", FieldKind.Text), new TextAnswer("Howth")),
                ],
                Today
            )
            .ShouldBe([
                new("Begun", new LocalDate(2026, 3, 7), true),
                new("Start", Today, false),
                new("Unveiling", new LocalDate(2026, 5, 9), false),
                new("Closed", new LocalDate(2026, 6, 1), false),
            ]);
        ProjectDates.Of(Today, null, [], Today).Select(one => one.Label).ShouldBe(["Begun"]);
    }

    [Theory]
    [InlineData(StageKind.Open, false)]
    [InlineData(StageKind.Parked, false)]
    [InlineData(StageKind.Won, false)]
    [InlineData(StageKind.Lost, true)]
    [InlineData(StageKind.Done, true)]
    public void A_project_is_closed_by_a_stage_that_ends_the_work(StageKind kind, bool closes) => kind.Closes().ShouldBe(closes);

    [Fact]
    public void A_list_of_stages_has_one_to_begin_in_one_that_is_done_and_one_that_is_lost()
    {
        Stage.Usual.Lacks().ShouldBeNull();
        Stage.Usual.FirstOpen().Key.ShouldBe("new");
        foreach (var kind in new[] { StageKind.Open, StageKind.Done, StageKind.Lost })
            Stage.Usual.Where(stage => stage.Kind != kind).ToList().Lacks().ShouldNotBeNull();
        Stage.Usual.Where(stage => stage.Kind is not StageKind.Parked and not StageKind.Won).ToList().Lacks().ShouldBeNull();
    }

    [Fact]
    public void Only_work_that_is_won_changes_the_standing()
    {
        foreach (var standing in Enum.GetValues<Standing>())
        {
            standing.Once(StageKind.Won).ShouldBe(Standing.Active);
            foreach (var kind in Enum.GetValues<StageKind>().Where(kind => kind != StageKind.Won))
                standing.Once(kind).ShouldBe(standing);
        }
    }
}
