using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class AnswersCsvTests
{
    [Fact]
    public async Task Every_answer_stands_in_its_column_whatever_commas_quotes_and_lines_it_holds()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var answers = Answers();
        answers["what"] = new TextAnswer("A \"big\" gull, flying\r\nover bread");
        await app.SendAsync(answers);
        app.Time.Advance(TimeSpan.FromMinutes(1));
        await app.SendAsync(Answers("second@bakes.example", "under-1500"));
        var rows = await ReadAsync(app);
        rows.Count.ShouldBe(2);
        (rows[0]["Received"], rows[0]["Fit"], rows[0]["Came from"]).ShouldBe(
            ("2026-11-23 10:00", "Come in", "https://bakery.example/walls")
        );
        rows[0]["What would you like painted?"].ShouldBe("A \"big\" gull, flying\r\nover bread", "RFC 4180, 2.6 and 2.7");
        (rows[1]["Fit"], rows[1]["What would you like painted?"]).ShouldBe(("Not now", "Bread and gulls"));
    }

    [Theory]
    [InlineData("two\nlines")]
    [InlineData("a carriage\rreturn")]
    [InlineData("\"quoted\", and\nmore\n\nlines")]
    [InlineData(",")]
    [InlineData("\"")]
    public async Task Whatever_stands_in_a_cell_comes_back_letter_by_letter(string words)
    {
        await using var app = new TestApp();
        var page = new Page(
            "one",
            "One",
            [new Question("words", "Words", new LongTextKind()), new Question("more", "More", new ShortTextKind())]
        );
        var link = await app.MakeQuickFormAsync(new FormContent("Words", "", [page], [], new SendOff("end", "Thanks", "Thanks.")));
        (
            await app.SendAsync(link, new() { ["words"] = new TextAnswer(words), ["more"] = new TextAnswer("after it") })
        ).EnsureSuccessStatusCode();
        var stored = (TextAnswer)(await app.AskAsync(db => db.Submissions.SingleAsync())).Answers.ByQuestion["words"];
        var row = (await ReadAsync(app, "Words")).ShouldHaveSingleItem();
        (row["Words"], row["More"]).ShouldBe((stored.Text, "after it"));
    }

    // The first characters are those of the Open Worldwide Application Security Project's page "CSV Injection", from memory.
    [Theory]
    [InlineData("=HYPERLINK(\"https://evil.example\",\"Click\")")]
    [InlineData("+1+cmd|' /C calc'!A0")]
    [InlineData("-2+3")]
    [InlineData("@SUM(1+9)")]
    [InlineData("\t=1+1")]
    public async Task A_cell_that_a_spreadsheet_would_run_is_only_words(string formula)
    {
        await using var app = new TestApp();
        var answers = Answers();
        answers["what"] = new TextAnswer(formula);
        answers["place"] = new TextAnswer("\"=1+1");
        (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        var cell = (await ReadAsync(app)).Single()["What would you like painted?"];
        cell.ShouldStartWith("'");
        cell.ShouldEndWith(formula.Trim());
    }

    // Spreadsheets of many countries part cells at semicolons, whatever the file says of itself. Common practice, no source.
    [Theory]
    [InlineData("a;=1+1", "a;'=1+1")]
    [InlineData("two\n@SUM(1)", "two\n'@SUM(1)")]
    [InlineData("a; b", "a; b")]
    public async Task What_a_spreadsheet_would_run_behind_another_mark_is_only_words_too(string words, string cell)
    {
        await using var app = new TestApp();
        var answers = Answers();
        answers["what"] = new TextAnswer(words);
        (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        (await ReadAsync(app)).Single()["What would you like painted?"].ShouldBe(cell);
    }

    [Fact]
    public async Task A_form_nobody_knows_has_no_answers()
    {
        await using var app = new TestApp();
        (await app.Owner().GetAsync($"/api/forms/{Guid.NewGuid()}/answers.csv")).StatusCode.ShouldBe(System.Net.HttpStatusCode.NotFound);
    }

    /// <summary>The file as a CSV reader sees it, by heading.</summary>
    private static async Task<List<Dictionary<string, string>>> ReadAsync(TestApp app, string title = "A wall to paint")
    {
        var owner = app.Owner();
        var form = (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Single(one => one.Text("title") == title).Text("id");
        var file = await owner.GetAsync($"/api/forms/{form}/answers.csv");
        file.Content.Headers.ContentDisposition!.DispositionType.ShouldBe("attachment");
        var bytes = await file.Content.ReadAsByteArrayAsync();
        bytes[..3].ShouldBe([0xef, 0xbb, 0xbf], "spreadsheets take it for UTF-8");
        var rows = Rfc4180.Read(System.Text.Encoding.UTF8.GetString(bytes[3..]));
        rows.ShouldAllBe(row => row.Count == rows[0].Count, "every row has a cell for every column");
        return [.. rows.Skip(1).Select(row => rows[0].Zip(row).ToDictionary(cell => cell.First, cell => cell.Second))];
    }
}
