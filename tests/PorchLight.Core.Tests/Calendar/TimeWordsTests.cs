using NodaTime;
using PorchLight.Core.Calendar;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Calendar;

public sealed class TimeWordsTests
{
    private static readonly BusinessCalendar Clock = Dublin();
    private static readonly Instant Now = Clock.At(2026, 11, 23, 10);

    [Fact]
    public void A_moment_reads_as_one_would_say_it_and_exactly_on_demand()
    {
        TimeWords.At(Clock.At(2026, 11, 23, 8, 12), Now, Clock.Zone).ShouldBe("today 08:12");
        TimeWords.At(Clock.At(2026, 11, 22, 17, 30), Now, Clock.Zone).ShouldBe("yesterday 17:30");
        TimeWords.At(Clock.At(2026, 11, 12, 10, 5), Now, Clock.Zone).ShouldBe("Thursday 12 November, 10:05");
        TimeWords.InList(Clock.At(2026, 11, 22, 17, 30), Now, Clock.Zone).ShouldBe("yesterday 17:30");
        TimeWords.InList(Clock.At(2026, 11, 12, 10, 5), Now, Clock.Zone).ShouldBe("12 Nov");
        TimeWords.InList(Clock.At(2025, 11, 22, 17), Now, Clock.Zone).ShouldBe("22 Nov 2025");
        TimeWords.Exactly(Clock.At(2026, 11, 24, 15), Clock.Zone).ShouldBe("Tuesday 24 November 2026, 15:00 Europe/Dublin");
    }

    [Fact]
    public void Days_are_those_of_the_business_not_of_the_machine()
    {
        var auckland = DateTimeZoneProviders.Tzdb["Pacific/Auckland"];
        TimeWords.At(Instant.FromUtc(2026, 11, 23, 12, 0), Instant.FromUtc(2026, 11, 23, 10, 0), auckland).ShouldBe("tomorrow 01:00");
    }
}
