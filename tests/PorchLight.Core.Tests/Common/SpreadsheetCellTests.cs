using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

public sealed class SpreadsheetCellTests
{
    [Theory]
    [InlineData("=1+1", "'=1+1")]
    [InlineData("a;=1+1", "a;'=1+1")]
    [InlineData("a\n=1+1", "a\n'=1+1")]
    [InlineData("a\t@SUM(1)", "a\t'@SUM(1)")]
    [InlineData("\u200B=1+1", "\u200B'=1+1")]
    [InlineData("\uFEFF =1+1", "\uFEFF '=1+1")]
    [InlineData("\uFF1D1+1", "'\uFF1D1+1")]
    [InlineData("a;\u200B\uFF0B1", "a;\u200B'\uFF0B1")]
    [InlineData("-5", "-5")]
    [InlineData("-5,5", "-5,5")]
    [InlineData("-5+cmd|' /C calc'!A0", "'-5+cmd|' /C calc'!A0")]
    [InlineData("+353 1 555", "'+353 1 555")]
    [InlineData("a = b; c", "a = b; c")]
    [InlineData("", "")]
    public void Whatever_a_spreadsheet_would_run_is_text(string text, string cell)
    {
        SpreadsheetCells.Defused(text).ShouldBe(cell);
        SpreadsheetCells.Read(cell).ShouldBe(text, "a file that comes back says what it said");
    }
}
