using CsCheck;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Tests.Forms;

/// <summary>How what people write about how they found the business comes into one list.</summary>
public sealed class SourceListTests
{
    private static readonly BusinessLists Lists = new(
        [],
        [new Source("search", "By searching"), new Source("friend", "A friend") { IsReferral = true }]
    );

    [Fact]
    public void What_people_wrote_counts_to_a_way_once_it_was_merged_into_it()
    {
        var lists = Lists.WithSource("the net", "search");
        lists.SourceCalled(" The net ")!.Key.ShouldBe("search");
        lists.WithSource("THE NET", "friend").SourceCalled("the net")!.Key.ShouldBe("friend", "and moves when it was merged wrongly");
        lists.WithSource("the net", "friend").Sources[0].AlsoWritten.ShouldBeEmpty();
    }

    [Fact]
    public void A_way_that_is_merged_into_another_goes_with_all_it_was_called()
    {
        var lists = Lists.WithSource("the net", "search").WithSource("By searching", "friend");
        lists.Sources.Select(source => source.Key).ShouldBe(["friend"]);
        lists.SourceCalled("the net")!.Key.ShouldBe("friend");
        lists.SourceCalled("by searching")!.Key.ShouldBe("friend");
    }

    [Fact]
    public void What_is_no_way_yet_becomes_one_and_what_is_none_of_the_list_changes_nothing()
    {
        Lists.WithSource("The spring fair", null).Sources[^1].ShouldBe(new Source("the-spring-fair", "The spring fair"), "it has a key");
        Lists.WithSource("a friend", null).ShouldBe(Lists);
        Lists.WithSource("the fair", "gone").ShouldBe(Lists);
        Lists.WithSource("  ", "search").ShouldBe(Lists);
    }

    [Fact]
    public void A_way_that_is_renamed_still_counts_what_was_written_under_its_former_name()
    {
        var renamed = (Lists with { Sources = [Lists.Sources[0] with { Name = "Found us online" }, Lists.Sources[1]] }).Remembering(Lists);
        renamed.SourceCalled("By searching")!.Name.ShouldBe("Found us online");
        renamed.Remembering(renamed).Sources[0].AlsoWritten.ShouldBe(["By searching"], "once");
        var back = (renamed with { Sources = [renamed.Sources[0] with { Name = "By searching" }, renamed.Sources[1]] }).Remembering(
            renamed
        );
        back.SourceCalled("found us online")!.Key.ShouldBe("search");
        renamed.Check().ShouldBeEmpty();
    }

    [Fact]
    public void A_name_that_counts_to_another_way_already_is_refused_with_a_sentence()
    {
        var lists = Lists.WithSource("the net", "search");
        (lists with { Sources = [.. lists.Sources, new Source("g", "The net")] })
            .Check()
            .ShouldHaveSingleItem()
            .Place.ShouldBe("sources.2.name");
    }

    [Fact]
    public void However_they_are_merged_every_word_counts_to_at_most_one_way_and_none_that_did_is_forgotten()
    {
        var words = new[] { "By searching", "A friend", "the net", "the fair", "a flyer" };
        var keys = new[] { "search", "friend", "the-fair", "a-flyer", null };
        var step = Gen.Select(
            Gen.Int[0, words.Length - 1].Select(index => words[index]),
            Gen.Int[0, keys.Length - 1].Select(index => keys[index])
        );
        step.List[1, 12]
            .Sample(steps =>
            {
                var lists = Lists;
                foreach (var (written, into) in steps)
                {
                    var counted = words.Where(word => lists.SourceCalled(word) is not null).ToList();
                    var next = lists.WithSource(written, into);
                    counted.ShouldAllBe(word => next.SourceCalled(word) != null);
                    if (into is not null && lists.Sources.Any(source => source.Key == into))
                        next.SourceCalled(written)!.Key.ShouldBe(into);
                    words.ShouldAllBe(word => next.Sources.Count(source => source.IsCalled(word)) <= 1);
                    next.Check().ShouldBeEmpty();
                    lists = next;
                }
            });
    }
}
