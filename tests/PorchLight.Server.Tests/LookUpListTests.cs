using System.Net;
using System.Text;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Tests;

public sealed class LookUpListTests
{
    // RFC 4180, section 2: the examples of its rules 1, 2, 3, 5, 6 and 7, here with names in the first line.
    [Theory]
    [InlineData("field_name,b,c\r\naaa,bbb,ccc\r\nzzz,yyy,xxx\r\n", "aaa|bbb|ccc;zzz|yyy|xxx")]
    [InlineData("field_name,b,c\r\naaa,bbb,ccc\r\nzzz,yyy,xxx", "aaa|bbb|ccc;zzz|yyy|xxx")]
    [InlineData("field_name,b,c\r\n\"aaa\",\"bbb\",\"ccc\"\r\nzzz,yyy,xxx", "aaa|bbb|ccc;zzz|yyy|xxx")]
    [InlineData("field_name,b,c\r\n\"aaa\",\"b\r\nbb\",\"ccc\"\r\nzzz,yyy,xxx", "aaa|b\r\nbb|ccc;zzz|yyy|xxx")]
    [InlineData("field_name,b,c\r\n\"aaa\",\"b\"\"bb\",\"ccc\"", "aaa|b\"bb|ccc")]
    [InlineData("field_name,b,c\r\naaa,\"b,bb\",ccc", "aaa|b,bb|ccc")]
    public async Task A_list_is_read_as_published(string csv, string cells)
    {
        var (_, lines, refusal) = await ReadAsync(csv);
        refusal.ShouldBeNull();
        string.Join(';', lines.Select(line => string.Join('|', line.Cells.Texts))).ShouldBe(cells);
    }

    [Theory]
    [InlineData("", "The file is empty")]
    [InlineData("Name,name\r\na,b", "Every column needs a name of its own")]
    [InlineData("Name\r\n", "There are no lines")]
    [InlineData("Name,Code\r\na,b,c", "more cells than there are columns")]
    public async Task What_is_no_list_is_refused_with_what_to_do(string csv, string says) =>
        (await ReadAsync(csv)).Refusal.ShouldNotBeNull().ShouldContain(says);

    [Fact]
    public async Task Bytes_that_are_no_text_are_refused() =>
        (await ListCsv.ReadAsync(new MemoryStream([0x41, 0x0a, 0xff, 0xfe, 0x00]), default, CancellationToken.None))
            .Refusal.ShouldNotBeNull()
            .ShouldContain("UTF-8");

    [Fact]
    public async Task A_list_with_ten_million_cells_is_refused_as_soon_as_it_is_too_long()
    {
        await using var csv = new TenMillionCells();
        var (_, _, refusal) = await ListCsv.ReadAsync(csv, default, CancellationToken.None);
        refusal.ShouldBe("A list can have up to 50,000 lines, and this one has more. Please split it.");
        csv.LinesGiven.ShouldBeLessThan(51_000, "it stopped reading long before the end");
    }

    [Fact]
    public async Task Fifty_thousand_lines_are_found_by_a_few_letters_and_only_shown_columns_are_told()
    {
        await using var app = new TestApp();
        var (owner, list) = (app.Owner(), Guid.CreateVersion7());
        var csv = new StringBuilder("Colour,Code,Price\r\n");
        for (var n = 0; n < 49_999; n++)
            csv.Append("Shade ").Append(n).Append(",S").Append(n).Append(",7\r\n");
        csv.Append("Ócher,OW 1,9\r\n");
        var saved = await owner.PutAsync($"/api/lists/{list}?name=Colours", new StringContent(csv.ToString(), Encoding.UTF8, "text/csv"));
        (await saved.JsonAsync()).GetProperty("lines").GetInt32().ShouldBe(50_000);

        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "A colour",
                "",
                [new Page("one", "One", [new Question("colour", "Which?", new LookUpKind(list, ["Colour", "Code"]))])],
                [],
                new SendOff("end", "Thanks", "Thanks.")
            )
        );
        var stranger = app.CreateClient();
        var found = await stranger.GetAsync($"/public/forms/{link}/1/look-up?question=colour&typed=OCHER%20ow").JsonAsync();
        found[0]
            .GetProperty("columns")
            .EnumerateArray()
            .Select(column => column.GetString())
            .ShouldBe(["Ócher", "OW 1"], "without regard to case and accents, and without the price");
        (await stranger.GetAsync($"/public/forms/{link}/1/look-up?question=colour&typed=shade").JsonAsync()).GetArrayLength().ShouldBe(20);
        (await stranger.GetAsync($"/public/forms/{link}/1/look-up?question=colour&typed=%25").JsonAsync())
            .GetArrayLength()
            .ShouldBe(0, "a percent sign is a letter like any other");

        (await app.SendAsync(link, new() { ["colour"] = new LookUpAnswer("invented") })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await app.SendAsync(link, new() { ["colour"] = new LookUpAnswer("Ócher", ["Whatever", "the browser says"]) })).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        (await app.AskAsync(db => db.Submissions.SingleAsync()))
            .Answers.ByQuestion["colour"]
            .ShouldBe(new LookUpAnswer("Ócher", ["Ócher", "OW 1"]));
    }

    /// <summary>Half a million lines of twenty cells, made as they are read.</summary>
    private sealed class TenMillionCells : Stream
    {
        private static readonly byte[] Line = Encoding.UTF8.GetBytes(
            string.Join(',', Enumerable.Range(0, 20).Select(n => $"c{n}")) + "\r\n"
        );

        public int LinesGiven { get; private set; }

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public override int Read(byte[] buffer, int offset, int count)
        {
            if (count < Line.Length || LinesGiven == 500_000)
                return 0;
            LinesGiven++;
            Line.CopyTo(buffer, offset);
            return Line.Length;
        }

        public override void Flush() => throw new NotSupportedException();

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }

    private static async Task<(Cells Columns, List<LookUpLine> Lines, string? Refusal)> ReadAsync(string csv) =>
        await ListCsv.ReadAsync(new MemoryStream(Encoding.UTF8.GetBytes(csv)), new Id<LookUpList>(Guid.Empty), CancellationToken.None);
}
