using CsCheck;
using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

public sealed class JaroWinklerTests
{
    /// <summary>
    /// Pairs W. E. Winkler published with their values to three places: the first three from "String Comparator Metrics" (1990), the
    /// others from the table in "Advanced Methods for Record Linkage" (1994), which are given from memory.
    /// </summary>
    [Theory]
    [InlineData("MARTHA", "MARHTA", 0.961)]
    [InlineData("DIXON", "DICKSONX", 0.813)]
    [InlineData("DWAYNE", "DUANE", 0.840)]
    [InlineData("SHACKLEFORD", "SHACKELFORD", 0.982)]
    [InlineData("DUNNINGHAM", "CUNNIGHAM", 0.896)]
    [InlineData("NICHLESON", "NICHULSON", 0.956)]
    [InlineData("JONES", "JOHNSON", 0.832)]
    [InlineData("MASSEY", "MASSIE", 0.933)]
    [InlineData("ABROMS", "ABRAMS", 0.922)]
    [InlineData("HARDIN", "MARTINEZ", 0.722)]
    [InlineData("JERALDINE", "GERALDINE", 0.926)]
    [InlineData("MICHELLE", "MICHAEL", 0.921)]
    [InlineData("JULIES", "JULIUS", 0.933)]
    [InlineData("TANYA", "TONYA", 0.880)]
    [InlineData("SEAN", "SUSAN", 0.805)]
    [InlineData("JON", "JOHN", 0.933)]
    public void Pairs_are_as_alike_as_Winkler_published(string a, string b, double value) =>
        JaroWinkler.Similarity(a, b).ShouldBe(value, 0.0006);

    [Theory]
    [InlineData("", "", 1)]
    [InlineData("", "A", 0)]
    [InlineData("ABC", "XYZ", 0)]
    [InlineData("A", "A", 1)]
    public void Empty_and_unlike_texts_stand_at_the_ends(string a, string b, double value) => JaroWinkler.Similarity(a, b).ShouldBe(value);

    private static readonly Gen<string> Names = Gen.String[Gen.Char["abcd"], 0, 9];

    [Fact]
    public void It_lies_between_nothing_and_all_and_is_all_only_for_equal_texts() =>
        Names
            .Select(Names)
            .Sample(
                (a, b) =>
                {
                    var alike = JaroWinkler.Similarity(a, b);
                    alike.ShouldBeInRange(0, 1);
                    (alike > 0.999_999).ShouldBe(a == b);
                }
            );

    /// <summary>Written from the words of the 1990 report: letters are crossed off with a pencil.</summary>
    [Fact]
    public void It_is_what_somebody_with_a_pencil_works_out() =>
        Names.Select(Names).Sample((a, b) => JaroWinkler.Similarity(a, b).ShouldBe(WithAPencil(a, b), 1e-12));

    private static double WithAPencil(string a, string b)
    {
        if (a == b)
            return 1;
        var (left, inA) = (b.Select(letter => (char?)letter).ToArray(), "");
        var reach = Math.Max(a.Length, b.Length) / 2;
        for (var i = 0; i < a.Length; i++)
        {
            for (var j = 0; j < b.Length; j++)
            {
                if (Math.Abs(i - j) >= Math.Max(reach, 1) || left[j] != a[i])
                    continue;
                left[j] = null;
                inA += a[i];
                break;
            }
        }

        var inB = string.Concat(b.Where((_, j) => left[j] is null));
        if (inA.Length == 0)
            return 0;
        var swapped = Enumerable.Range(0, inA.Length).Count(i => inA[i] != inB[i]) * 0.5;
        var jaro = ((1.0 * inA.Length / a.Length) + (1.0 * inA.Length / b.Length) + ((inA.Length - swapped) / inA.Length)) / 3;
        var start = 0;
        while (start < 4 && start < a.Length && start < b.Length && a[start] == b[start])
            start++;
        return jaro + (start * 0.1 * (1 - jaro));
    }
}
