using PorchLight.Core.Common;

namespace PorchLight.Core.Tests.Common;

public sealed class UnicodeTextStartTests
{
    [Theory]
    [InlineData("abc", 2, "ab")]
    [InlineData("a👩‍🎨b", 3, "a")]
    [InlineData("a👩‍🎨b", 6, "a👩‍🎨")]
    [InlineData("e\u0301e", 1, "")]
    [InlineData("abc", 3, "abc")]
    [InlineData("abc", 0, "")]
    public void No_letter_and_no_emoji_is_cut_in_half(string text, int most, string start) => UnicodeText.Start(text, most).ShouldBe(start);
}
