using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class BusinessListsTests
{
    private static readonly BusinessLists Lists = new(
        [new Service("gilding", "Window gilding", 600), new Service("mural", "A mural")],
        [new Source("search", "By searching")]
    );

    [Fact]
    public void The_options_of_a_list_come_first_and_the_questions_own_after_them()
    {
        var question = new Question(
            "work",
            "What is it about?",
            new ChoiceKind([new Option("unsure", "I don't know yet", Unsure: true), new Option("mural", "stands there already")])
            {
                From = OptionList.Services,
            }
        );
        var bound = Lists.Into(OnePage(question)).FindQuestion("work")!;
        bound
            .Options.Select(option => (option.Key, option.Label))
            .ShouldBe([("gilding", "Window gilding"), ("mural", "A mural"), ("unsure", "I don't know yet")]);
    }

    [Fact]
    public void A_form_that_is_taken_out_of_its_lists_follows_them_again()
    {
        var own = new Option("unsure", "I don't know yet", Unsure: true);
        var written = OnePage(new Question("work", "What?", new ChoiceKind([own]) { From = OptionList.Services }), Budget);
        var version = Lists.Into(written);
        var anew = Lists.OutOf(version);
        anew.FindQuestion("work")!.Options.ShouldBe([own]);
        anew.FindQuestion("budget")!.Options.ShouldBe(Budget.Options, "it is not bound to a list");
        Lists.Into(anew).FindQuestion("work")!.Options.ShouldBe(version.FindQuestion("work")!.Options);
        // A service that goes later is not offered any more; one that has gone before stays as it stood in the version.
        var fewer = Lists with
        {
            Services = [Lists.Services[0]],
        };
        fewer.Into(anew).FindQuestion("work")!.Options.Select(option => option.Key).ShouldBe(["gilding", "unsure"]);
        fewer.OutOf(version).FindQuestion("work")!.Options.Select(option => option.Key).ShouldBe(["mural", "unsure"]);
    }

    [Fact]
    public void A_service_sets_the_projects_service_and_a_source_how_they_found_us_unless_the_question_lands_elsewhere()
    {
        Question Ask(OptionList from, LandsIn? landsIn = null) =>
            new("asked", "?", new ChoiceKind([]) { From = from }) { LandsIn = landsIn };
        Landed(Ask(OptionList.Services)).ShouldBe(new SetField(BuiltInFields.Service.Key));
        Landed(Ask(OptionList.Sources)).ShouldBe(new SetField(BuiltInFields.Source.Key));
        Landed(Ask(OptionList.Services, new AppendToNotes(RecordScope.Project))).ShouldBe(new AppendToNotes(RecordScope.Project));
        Landed(Budget).ShouldBeNull("it is not bound to a list");

        static LandsIn? Landed(Question question) => Lists.Into(OnePage(question)).Questions.Single().LandsIn;
    }

    [Fact]
    public void The_chosen_service_lands_by_its_name()
    {
        var form = Lists.Into(OnePage(new Question("work", "?", new ChoiceKind([]) { From = OptionList.Services })));
        var plan = Landing.Plan(
            Known(form, ("work", AnswerState.Of(ChoiceAnswer.Of("gilding")))),
            new Dictionary<string, Answer>(),
            FieldCatalogue.BuiltIn,
            LandingTrust.NewClient
        );
        plan.Writes.ShouldHaveSingleItem().ShouldBe(new FieldWrite("project.service", "work", new TextAnswer("Window gilding")));
    }

    [Fact]
    public void A_service_is_the_same_by_its_key_and_by_its_name_and_a_difference_is_said_once()
    {
        SetField service = new(BuiltInFields.Service.Key);
        var form = Lists.Into(
            OnePage(
                new Question("link", "From the link", new HiddenKind("service")) { LandsIn = service },
                new Question("work", "?", new ChoiceKind([]) { From = OptionList.Services }),
                new Question("again", "In words?", new ShortTextKind()) { LandsIn = service }
            )
        );
        LandingPlan Plan(string onFile) =>
            Landing.Plan(
                Known(
                    form,
                    ("link", AnswerState.Of(new TextAnswer("gilding"))),
                    ("work", AnswerState.Of(ChoiceAnswer.Of("gilding"))),
                    ("again", AnswerState.Of(new TextAnswer("window GILDING")))
                ),
                new Dictionary<string, Answer> { [service.Field] = new TextAnswer(onFile) },
                FieldCatalogue.BuiltIn,
                LandingTrust.Claims,
                Lists
            );
        Plan("Window gilding").Differences.ShouldBeEmpty();
        Plan("gilding").Differences.ShouldBeEmpty("it is on file by its key");
        Plan("A mural")
            .Differences.ShouldHaveSingleItem()
            .ShouldBe(new Difference(service.Field, "link", new TextAnswer("Window gilding"), new TextAnswer("A mural")));
    }

    [Fact]
    public void New_lines_get_a_key_of_their_own_and_old_ones_keep_theirs()
    {
        var tidy = new BusinessLists(
            [
                new Service("gilding", "Gilding, new name "),
                new Service("", "Gilding"),
                new Service("", " Öl & Gold! "),
                new Service("", "!!"),
            ],
            []
        ).Normalise();
        tidy.Services.Select(service => (service.Key, service.Name))
            .ShouldBe([("gilding", "Gilding, new name"), ("gilding-2", "Gilding"), ("ol-gold", "Öl & Gold!"), ("line", "!!")]);
    }

    [Fact]
    public void A_line_needs_a_name_of_its_own() =>
        new BusinessLists(
            [new Service("a", "Signs", -1), new Service("b", "signs"), new Service("c", "")],
            [new Source("d", new string('w', 101))]
        )
            .Check()
            .Select(finding => finding.Place)
            .ShouldBe(["services.1.name", "services.2.name", "services.0.startsAt", "sources.0.name"]);
}
