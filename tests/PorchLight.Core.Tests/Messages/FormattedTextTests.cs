using CsCheck;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class FormattedTextTests
{
    private static readonly Guid Wall = new("019abc00-0000-7000-8000-00000000000a");

    [Theory]
    [InlineData("Dear Ada,\nhello.\n\nMaren", "<p>Dear Ada,<br>hello.</p><p>Maren</p>")]
    [InlineData("It is **ready** now", "<p>It is <strong>ready</strong> now</p>")]
    [InlineData("2 ** 3 and **open", "<p>2 ** 3 and **open</p>")]
    [InlineData("****", "<p>****</p>")]
    [InlineData("Bring:\n- paint\n- **brushes**", "<p>Bring:</p><ul><li>paint</li><li><strong>brushes</strong></li></ul>")]
    [InlineData("1. First\n2. Second\nThen", "<ol><li>First</li><li>Second</li></ol><p>Then</p>")]
    [InlineData("3. the third: yes\n4. the fourth: no", "<p>3. the third: yes<br>4. the fourth: no</p>")]
    [InlineData("1. a\n3. c", "<ol><li>a</li></ol><p>3. c</p>")]
    [InlineData("-no list\n2026. A year", "<p>-no list<br>2026. A year</p>")]
    [InlineData("[Our page](https://example.com/a?b=1&c=2)", "<p><a href=\"https://example.com/a?b=1&amp;c=2\">Our page</a></p>")]
    [InlineData("[write](mailto:maren@example.com)", "<p><a href=\"mailto:maren@example.com\">write</a></p>")]
    [InlineData("[run](javascript:alert(1))", "<p>[run](javascript:alert(1))</p>")]
    [InlineData("[x](data:text/html;base64,AA)", "<p>[x](data:text/html;base64,AA)</p>")]
    [InlineData("[x](/here)", "<p>[x](/here)</p>")]
    [InlineData(@"\[no](https://example.com) \** \\", @"<p>[no](https://example.com) ** \</p>")]
    [InlineData("\\- no item\n1\\. no number", "<p>- no item<br>1. no number</p>")]
    [InlineData(@"C:\.config \-x", @"<p>C:\.config \-x</p>")]
    [InlineData(@"[a \] b](https://example.com)", "<p><a href=\"https://example.com\">a ] b</a></p>")]
    [InlineData("<b>&amp;</b>\"'", "<p>&lt;b&gt;&amp;amp;&lt;/b&gt;&quot;&#39;</p>")]
    [InlineData("", "")]
    [InlineData("\r\n \r\n", "")]
    public void A_little_formatting_becomes_a_little_HTML(string text, string html) =>
        FormattedText.Read(text).ToHtml(_ => null).ShouldBe(html);

    [Fact]
    public void A_picture_is_shown_where_it_is_there_and_said_where_it_is_not()
    {
        var text = FormattedText.Read($"See ![the \"wall\"]({Wall})");
        text.Pictures.ShouldBe([Wall]);
        text.ToHtml(_ => "cid:wall").ShouldBe("<p>See <img src=\"cid:wall\" alt=\"the &quot;wall&quot;\"></p>");
        text.ToHtml(_ => null).ShouldBe("<p>See [the &quot;wall&quot;]</p>");
        FormattedText.Read("![x](https://example.com/a.png)").Pictures.ShouldBeEmpty("pictures are one's own files");
    }

    [Theory]
    [InlineData("It is **ready**.\n\n- [here](https://example.com)\n- [https://example.com](https://example.com)", false)]
    [InlineData("Dear Ada,\n\nhello.", true)]
    [InlineData("Prices:\n1. small", false)]
    public void Those_who_read_mail_without_formatting_get_all_of_it(string text, bool isPlain)
    {
        var read = FormattedText.Read(text);
        read.IsPlain.ShouldBe(isPlain);
        if (isPlain)
            read.ToPlain().ShouldBe(text);
    }

    [Fact]
    public void A_link_says_its_address_in_plain_text_unless_it_is_read_already() =>
        FormattedText
            .Read("[here](https://example.com) [https://example.com](https://example.com) [a@example.com](mailto:a@example.com)")
            .ToPlain()
            .ShouldBe("here (https://example.com) https://example.com a@example.com");

    [Fact]
    public void Whatever_is_written_by_somebody_else_is_read_back_as_nothing_but_itself()
    {
        Pieces.Sample(words =>
        {
            var line = words.Trim();
            var read = FormattedText.Read(FormattedText.Escape(line));
            (read.IsPlain, read.ToPlain()).ShouldBe((true, line));
        });
    }

    /// <summary>A second way, by a scanner that knows nothing of the first: outside of the few tags no bracket is left, and all close.</summary>
    [Fact]
    public void Whatever_is_written_only_the_few_tags_come_out_and_they_close()
    {
        string[] known = ["p", "ul", "ol", "li", "strong", "a", "/p", "/ul", "/ol", "/li", "/strong", "/a"];
        Gen.Select(Pieces, Pieces, Pieces, (a, b, c) => $"{a}\n{b}\n{c}")
            .Sample(text =>
            {
                var html = FormattedText.Read(text).ToHtml(_ => "cid:x");
                var open = new Stack<string>();
                foreach (var part in html.Split('<').Skip(1))
                {
                    var end = part.IndexOf('>', StringComparison.Ordinal);
                    end.ShouldBeGreaterThan(0, html);
                    var name = part[..end].Split(' ')[0];
                    if (name is "br" or "img")
                        continue;
                    known.ShouldContain(name, html);
                    if (name[0] == '/')
                        open.Pop().ShouldBe(name[1..], html);
                    else
                        open.Push(name);
                    if (name == "a")
                        part.ShouldStartWith("a href=\"http");
                }

                open.ShouldBeEmpty(html);
                html.Replace("<", "", StringComparison.Ordinal).Count(letter => letter == '"').ShouldBe(2 * Attributes(html), html);
            });

        static int Attributes(string html) => html.Split("<a ").Length - 1 + 2 * (html.Split("<img ").Length - 1);
    }

    private static Gen<string> Pieces { get; } =
        Gen.Int[0, Parts.Length - 1].Array[0, 12].Select(chosen => string.Concat(chosen.Select(part => Parts[part])));

    private static string[] Parts =>
        [
            "**",
            "*",
            "[",
            "](",
            ")",
            "!",
            "\\",
            "- ",
            "1. ",
            "a",
            " ",
            "<script>",
            "\"",
            "'",
            "&",
            "https://example.com",
            "javascript:",
            "019abc00-0000-7000-8000-00000000000a",
        ];
}
