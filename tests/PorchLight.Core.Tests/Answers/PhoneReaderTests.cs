using PhoneNumbers;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Tests.Answers;

/// <summary>
/// Numbers are read as the recommendation ITU-T E.164 writes them. What is right is what libphonenumber says of its own example
/// numbers, one of each kind for every region it knows.
/// </summary>
public sealed class PhoneReaderTests
{
    private static readonly PhoneNumberUtil Phones = PhoneNumberUtil.GetInstance();

    public static TheoryData<PhoneNumberType> Kinds => [PhoneNumberType.FIXED_LINE, PhoneNumberType.MOBILE];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void The_example_number_of_every_region_is_one_number_however_it_is_written(PhoneNumberType kind)
    {
        var tried = 0;
        foreach (var region in Phones.GetSupportedRegions())
        {
            if (Phones.GetExampleNumberForType(region, kind) is not { } example)
                continue;
            tried++;
            var wanted = Phones.Format(example, PhoneNumberFormat.E164);
            wanted.ShouldMatch(@"^\+[1-9][0-9]{3,14}$", "at most fifteen digits behind the plus");
            foreach (
                var typed in new[]
                {
                    wanted,
                    Phones.Format(example, PhoneNumberFormat.INTERNATIONAL),
                    Phones.Format(example, PhoneNumberFormat.RFC3966),
                }
            )
                PhoneReader.Read(typed, "IE").E164.ShouldBe(wanted, $"{region}, written {typed}");
            var national = Phones.Format(example, PhoneNumberFormat.NATIONAL);
            PhoneReader.Read(national, region).E164.ShouldBe(wanted, $"{region}, written {national} there");
        }

        tried.ShouldBeGreaterThan(200);
    }

    [Theory]
    [InlineData("")]
    [InlineData("call me")]
    [InlineData("+999 12345678")]
    [InlineData("12")]
    public void What_cannot_be_dialled_has_no_such_form(string typed) => PhoneReader.Read(typed, "IE").E164.ShouldBeNull();
}
