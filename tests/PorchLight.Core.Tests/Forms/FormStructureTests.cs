using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class FormStructureTests
{
    [Fact]
    public void A_sound_form_has_no_findings() => FormStructure.Check(Everything).ShouldBeEmpty();

    [Fact]
    public void What_cannot_work_is_named_at_its_place()
    {
        Places(Everything with { Title = " " }).ShouldBe(["title"]);
        Places(Form()).ShouldBe(["title"]);
        Places(OnePage(Width, Width)).ShouldBe(["width"]);
        Places(OnePage(Width with { Wording = "" })).ShouldBe(["width"]);
        Places(OnePage(Budget with { Kind = new ChoiceKind([]) })).ShouldBe(["budget"]);
        Places(OnePage(Budget with { Kind = new ChoiceKind([new Option("a", "A", new Band(new Bound(5), new Bound(4)))]) })).ShouldBe(["budget"]);
    }

    [Fact]
    public void Conditions_may_look_only_at_what_was_asked_before()
    {
        Places(OnePage(Width with { AskedOnlyWhen = new Is(Of(Decides), "yes") }, Decides)).ShouldBe(["width"]);
        Places(OnePage(Decides, Width with { AskedOnlyWhen = new Is(Of(Decides), "yes") })).ShouldBeEmpty();
        Places(OnePage(Decides) with { SendOffs = [new SendOff("no", "No", "No") { When = new FitIs(Fit.NotNow) }] }).ShouldBeEmpty();
        Places(OnePage(Decides, Width with { AskedOnlyWhen = new FitIs(Fit.ComeIn) })).ShouldBe(["width"]);
    }

    [Fact]
    public void Routes_lead_only_forward()
    {
        Places(Form(new Page("one", "One", [Decides]), new Page("two", "Two", [Width]) { Routes = [new RouteRule(new Is(Of(Decides), "yes"), "one")] })).ShouldBe(["two"]);
        Places(Form(new Page("one", "One", [Decides]) { Routes = [new RouteRule(new Is(Of(Decides), "yes"), "end")] })).ShouldBeEmpty();
    }

    [Fact]
    public void A_send_off_that_nothing_leads_to_needs_a_condition()
    {
        var no = new SendOff("no", "No", "No.");
        Places(OnePage(Decides) with { SendOffs = [no] }).ShouldBe(["no"]);
        Places(OnePage(Decides) with { SendOffs = [no with { When = new Is(Of(Decides), "no") }] }).ShouldBeEmpty();
        Places(Form(new Page("one", "One", [Decides]) { Routes = [new RouteRule(new Is(Of(Decides), "no"), "no")] }) with { SendOffs = [no] }).ShouldBeEmpty();
    }

    [Fact]
    public void An_answer_must_fit_where_it_lands()
    {
        Places(OnePage(Words with { LandsIn = new SetField("project.wanted") })).ShouldBe(["words"]);
        Places(OnePage(Words with { LandsIn = new SetField("project.invented") })).ShouldBe(["words"]);
        Places(OnePage(Words with { LandsIn = new SetField("project.what") })).ShouldBeEmpty();
    }

    private static IEnumerable<string> Places(FormContent form) => FormStructure.Check(form).Select(finding => finding.Place).Distinct();
}
