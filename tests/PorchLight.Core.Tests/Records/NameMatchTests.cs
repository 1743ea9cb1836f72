using CsCheck;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class NameMatchTests
{
    [Theory]
    [InlineData("Sign", "sign", 0)]
    [InlineData("A sign for your front", "A SIGN", 1)]
    [InlineData("A sign for your front", "front", 2)]
    [InlineData("Designs, and a sign", "sign", 2)]
    [InlineData("Designs", "sign", 3)]
    [InlineData("Dún Laoghaire", "dun", 1)]
    [InlineData("Mural", "sign", null)]
    [InlineData("Mural", " ", null)]
    public void What_is_called_just_so_comes_before_what_begins_so_and_that_before_what_holds_it(string name, string typed, int? rank) =>
        NameMatch.Rank(name, typed).ShouldBe(rank);

    /// <summary>A second way: word by word.</summary>
    [Fact]
    public void Whatever_is_typed_it_is_found_where_it_stands() =>
        Gen.Select(Words, Words)
            .Sample(
                (name, typed) =>
                {
                    var rank =
                        name == typed ? 0
                        : name.StartsWith(typed, StringComparison.Ordinal) ? 1
                        : $" {name}".Contains($" {typed}", StringComparison.Ordinal) ? 2
                        : name.Contains(typed, StringComparison.Ordinal) ? 3
                        : (int?)null;
                    NameMatch.Rank(name, typed).ShouldBe(rank);
                }
            );

    private static readonly Gen<string> Words = RandomForms
        .Pick("a", "ab", "b", "ba", "aab")
        .Array[1, 3]
        .Select(words => string.Join(' ', words));
}
