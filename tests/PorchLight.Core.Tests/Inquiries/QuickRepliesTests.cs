using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class QuickRepliesTests
{
    private static readonly QuickReplyContext Anna = new("Anna", "Maren Tolliver", "Ochre Wren", "A mural", "1,500 EUR", null, 4, []);

    // Thursday; the 27th is a Friday.
    private static readonly Instant Now = Dublin().At(2026, 11, 26, 15);

    [Fact]
    public void Each_has_a_letter_and_moves_the_project_where_it_belongs()
    {
        var replies = For(Anna);
        replies
            .Select(reply => (reply.Kind, reply.Letter, reply.Stage))
            .ShouldBe([
                (QuickReplyKind.ComeIn, 'C', "talking"),
                (QuickReplyKind.AskBack, 'Q', "talking"),
                (QuickReplyKind.NoForPrice, 'P', "declined"),
                (QuickReplyKind.NoRoom, 'F', "declined"),
                (QuickReplyKind.NoMatch, 'M', "declined"),
                (QuickReplyKind.ComeBack, 'D', "parked"),
            ]);
        For(Anna, stage: "talking")[0].Stage.ShouldBeNull("it stands there already");
        replies.Select(reply => reply.Letter).ShouldBeUnique();
    }

    [Fact]
    public void Times_are_offered_on_the_next_working_days_within_opening_hours_by_their_dates() =>
        Text(For(Anna)[0]).ShouldContain("Friday 27 November at 10:00, Monday 30 November at 10:00, or Tuesday 1 December at 10:00?");

    [Fact]
    public void A_closed_day_is_never_offered_and_without_working_days_they_are_asked()
    {
        Text(For(Anna, calendar: Dublin(new LocalDate(2026, 11, 27)))[0]).ShouldNotContain("Friday 27 November");
        Text(For(Anna, calendar: new BusinessCalendar(DateTimeZoneProviders.Tzdb["Europe/Dublin"], [], []))[0])
            .ShouldContain("Which times suit you for half an hour?");
    }

    [Theory]
    [InlineData(9, 0, 10, 0, "at 09:00")]
    [InlineData(9, 0, 10, 30, "at 10:00")]
    [InlineData(23, 0, 24, 0, "at 23:00")]
    [InlineData(9, 0, 9, 20, "Which times suit you for half an hour?")]
    public void However_short_a_business_opens_the_talk_ends_before_it_closes(int from, int fromMinute, int to, int toMinute, string words)
    {
        var closes = to == 24 ? OpenSpan.EndOfDay : new LocalTime(to, toMinute);
        Text(For(Anna, calendar: Week("Europe/Dublin", new OpenSpan(new LocalTime(from, fromMinute), closes)))[0]).ShouldContain(words);
    }

    [Fact]
    public void A_no_for_the_price_names_it_and_without_one_a_person_has_to()
    {
        var no = For(Anna)[2];
        no.Draft.FinishedText.ShouldNotBeNull().ShouldContain("A mural starts at 1,500 EUR with us.");
        For(Anna with { StartsAt = null })[2].Draft.OpenGaps.Single().Prompt.ShouldBe("where this starts in price with you");
    }

    [Fact]
    public void Who_did_not_know_a_budget_is_not_told_that_the_price_lies_above_it() =>
        For(Anna with { NamedNoBudget = true }).ShouldNotContain(reply => reply.Kind == QuickReplyKind.NoForPrice);

    [Theory]
    [InlineData("SEO audit", "Let us talk: SEO audit")]
    [InlineData("DJ for a night", "Let us talk: DJ for a night")]
    [InlineData("Wandbild", "Let us talk: Wandbild")]
    [InlineData(null, "Let us talk")]
    public void A_service_is_called_as_the_business_calls_it(string? service, string subject) =>
        For(Anna with { Service = service })[0].Draft.Subject.ShouldBe(subject);

    [Fact]
    public void A_name_that_looks_like_a_link_is_no_link()
    {
        var letter = Text(For(Anna with { FirstName = "[Anna](https://evil.example/)" })[0]);
        FormattedText.Read(letter).ToHtml(_ => null).ShouldStartWith("<p>Dear [Anna](https://evil.example/),</p>");
    }

    [Fact]
    public void A_question_back_cannot_go_without_the_question() => For(Anna)[1].Draft.FinishedText.ShouldBeNull();

    [Fact]
    public void A_kind_no_names_what_else_may_help_and_says_nothing_where_there_is_nothing()
    {
        var with = For(
            Anna with
            {
                WaysForward = [new WayForward("Ask the art college", "They take small walls.", "https://college.example")],
            }
        )[4];
        with.Draft.FinishedText.ShouldNotBeNull().ShouldContain("Ask the art college: They take small walls. https://college.example");
        For(Anna)[4].Draft.Parts.ShouldNotContain(part => part.Key == "help");
    }

    [Fact]
    public void Who_was_turned_away_before_can_be_told_that_the_door_is_open() =>
        For(Anna, wasTurnedAway: true)[0]
            .ShouldSatisfyAllConditions(
                reply => reply.Kind.ShouldBe(QuickReplyKind.DoorReopened),
                reply => reply.Draft.OpenGaps.Count().ShouldBe(1)
            );

    [Fact]
    public void To_come_back_is_early_enough_for_what_they_want_and_always_a_day_to_come() =>
        Gen.Select(Gen.Int[-100, 600], Gen.Int[0, 30])
            .Sample(
                (days, lead) =>
                {
                    var wanted = Today.PlusDays(days);
                    var on = QuickReplies.ComeBackOn(Anna with { WantedBy = wanted, LeadWeeks = lead }, Today);
                    on.ShouldBeGreaterThan(Today);
                    if (wanted.PlusWeeks(-lead - 4) > Today)
                        Period.DaysBetween(on, wanted).ShouldBe((lead + 4) * 7);
                    else
                        on.ShouldBe(Today.PlusWeeks(12));
                }
            );

    [Fact]
    public void Somebody_without_a_name_is_greeted_all_the_same() => Text(For(Anna with { FirstName = "" })[0]).ShouldStartWith("Hello,");

    private static string Text(QuickReply reply) => string.Join("\n\n", reply.Draft.Parts.OfType<TextPart>().Select(part => part.Text));

    private static IReadOnlyList<QuickReply> For(
        QuickReplyContext context,
        string stage = "new",
        bool wasTurnedAway = false,
        BusinessCalendar? calendar = null
    ) => QuickReplies.For(context, Stage.Usual, stage, wasTurnedAway, Now, calendar ?? Dublin());
}
