namespace PorchLight.Core.Tests.Calendar;

/// <summary>
/// The examples of RFC 5545, section 3.8.5.3, each with the name it has there, its rule and the dates published with it (written down from
/// memory). All begin at 09:00 in America/New_York where nothing else is said.
/// </summary>
internal static class RecurrenceExamples
{
    /// <param name="Name">What the standard calls it.</param>
    /// <param name="Begins">"19970902T090000", in America/New_York.</param>
    /// <param name="Rule">The rule, and what is left out ("EXDATE:19970902T090000").</param>
    /// <param name="Dates">
    /// The first dates, in the words of <see cref="Read"/>: "1997 Sep 2 4 6; Oct 1-3". A time other than 09:00 stands behind its day: "2@12:00".
    /// </param>
    /// <param name="EndsThere">Whether there are no others.</param>
    internal sealed record Example(string Name, string Begins, string Rule, string Dates, bool EndsThere = true);

    public static readonly Example[] All =
    [
        new("Daily for 10 occurrences", "19970902T090000", "FREQ=DAILY;COUNT=10", "1997 Sep 2-11"),
        new(
            "Daily until December 24, 1997",
            "19970902T090000",
            "FREQ=DAILY;UNTIL=19971224T000000Z",
            "1997 Sep 2-30; Oct 1-31; Nov 1-30; Dec 1-23"
        ),
        new(
            "Every other day - forever",
            "19970902T090000",
            "FREQ=DAILY;INTERVAL=2",
            "1997 Sep 2 4 6 8 10 12 14 16 18 20 22 24 26 28 30; Oct 2 4 6 8 10 12 14 16 18 20 22 24 26 28 30; Nov 1 3 5 7 9 11 13 15 17 19 21 23 25 27 29; Dec 1 3",
            EndsThere: false
        ),
        new("Every 10 days, 5 occurrences", "19970902T090000", "FREQ=DAILY;INTERVAL=10;COUNT=5", "1997 Sep 2 12 22; Oct 2 12"),
        new(
            "Every day in January, for 3 years",
            "19980101T090000",
            "FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA",
            "1998 Jan 1-31; 1999 Jan 1-31; 2000 Jan 1-31"
        ),
        new(
            "Every day in January, for 3 years (by days)",
            "19980101T090000",
            "FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1",
            "1998 Jan 1-31; 1999 Jan 1-31; 2000 Jan 1-31"
        ),
        new("Weekly for 10 occurrences", "19970902T090000", "FREQ=WEEKLY;COUNT=10", "1997 Sep 2 9 16 23 30; Oct 7 14 21 28; Nov 4"),
        new(
            "Weekly until December 24, 1997",
            "19970902T090000",
            "FREQ=WEEKLY;UNTIL=19971224T000000Z",
            "1997 Sep 2 9 16 23 30; Oct 7 14 21 28; Nov 4 11 18 25; Dec 2 9 16 23"
        ),
        new(
            "Every other week - forever",
            "19970902T090000",
            "FREQ=WEEKLY;INTERVAL=2;WKST=SU",
            "1997 Sep 2 16 30; Oct 14 28; Nov 11 25; Dec 9 23; 1998 Jan 6 20; Feb 3 17",
            EndsThere: false
        ),
        new(
            "Weekly on Tuesday and Thursday for five weeks",
            "19970902T090000",
            "FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH",
            "1997 Sep 2 4 9 11 16 18 23 25 30; Oct 2"
        ),
        new(
            "Weekly on Tuesday and Thursday for five weeks (counted)",
            "19970902T090000",
            "FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH",
            "1997 Sep 2 4 9 11 16 18 23 25 30; Oct 2"
        ),
        new(
            "Every other week on Monday, Wednesday, and Friday until December 24, 1997, starting on Monday, September 1, 1997",
            "19970901T090000",
            "FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR",
            "1997 Sep 1 3 5 15 17 19 29; Oct 1 3 13 15 17 27 29 31; Nov 10 12 14 24 26 28; Dec 8 10 12 22"
        ),
        new(
            "Every other week on Tuesday and Thursday, for 8 occurrences",
            "19970902T090000",
            "FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH",
            "1997 Sep 2 4 16 18 30; Oct 2 14 16"
        ),
        new(
            "Monthly on the first Friday for 10 occurrences",
            "19970905T090000",
            "FREQ=MONTHLY;COUNT=10;BYDAY=1FR",
            "1997 Sep 5; Oct 3; Nov 7; Dec 5; 1998 Jan 2; Feb 6; Mar 6; Apr 3; May 1; Jun 5"
        ),
        new(
            "Monthly on the first Friday until December 24, 1997",
            "19970905T090000",
            "FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR",
            "1997 Sep 5; Oct 3; Nov 7; Dec 5"
        ),
        new(
            "Every other month on the first and last Sunday of the month for 10 occurrences",
            "19970907T090000",
            "FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU",
            "1997 Sep 7 28; Nov 2 30; 1998 Jan 4 25; Mar 1 29; May 3 31"
        ),
        new(
            "Monthly on the second-to-last Monday of the month for 6 months",
            "19970922T090000",
            "FREQ=MONTHLY;COUNT=6;BYDAY=-2MO",
            "1997 Sep 22; Oct 20; Nov 17; Dec 22; 1998 Jan 19; Feb 16"
        ),
        new(
            "Monthly on the third-to-the-last day of the month, forever",
            "19970928T090000",
            "FREQ=MONTHLY;BYMONTHDAY=-3",
            "1997 Sep 28; Oct 29; Nov 28; Dec 29; 1998 Jan 29; Feb 26",
            EndsThere: false
        ),
        new(
            "Monthly on the 2nd and 15th of the month for 10 occurrences",
            "19970902T090000",
            "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15",
            "1997 Sep 2 15; Oct 2 15; Nov 2 15; Dec 2 15; 1998 Jan 2 15"
        ),
        new(
            "Monthly on the first and last day of the month for 10 occurrences",
            "19970930T090000",
            "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1",
            "1997 Sep 30; Oct 1 31; Nov 1 30; Dec 1 31; 1998 Jan 1 31; Feb 1"
        ),
        new(
            "Every 18 months on the 10th thru 15th of the month for 10 occurrences",
            "19970910T090000",
            "FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15",
            "1997 Sep 10-15; 1999 Mar 10-13"
        ),
        new(
            "Every Tuesday, every other month",
            "19970902T090000",
            "FREQ=MONTHLY;INTERVAL=2;BYDAY=TU",
            "1997 Sep 2 9 16 23 30; Nov 4 11 18 25; 1998 Jan 6 13 20 27; Mar 3 10 17 24 31",
            EndsThere: false
        ),
        new(
            "Yearly in June and July for 10 occurrences",
            "19970610T090000",
            "FREQ=YEARLY;COUNT=10;BYMONTH=6,7",
            "1997 Jun 10; Jul 10; 1998 Jun 10; Jul 10; 1999 Jun 10; Jul 10; 2000 Jun 10; Jul 10; 2001 Jun 10; Jul 10"
        ),
        new(
            "Every other year on January, February, and March for 10 occurrences",
            "19970310T090000",
            "FREQ=YEARLY;INTERVAL=2;COUNT=10;BYMONTH=1,2,3",
            "1997 Mar 10; 1999 Jan 10; Feb 10; Mar 10; 2001 Jan 10; Feb 10; Mar 10; 2003 Jan 10; Feb 10; Mar 10"
        ),
        new(
            "Every third year on the 1st, 100th, and 200th day for 10 occurrences",
            "19970101T090000",
            "FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200",
            "1997 Jan 1; Apr 10; Jul 19; 2000 Jan 1; Apr 9; Jul 18; 2003 Jan 1; Apr 10; Jul 19; 2006 Jan 1"
        ),
        new(
            "Every 20th Monday of the year, forever",
            "19970519T090000",
            "FREQ=YEARLY;BYDAY=20MO",
            "1997 May 19; 1998 May 18; 1999 May 17",
            EndsThere: false
        ),
        new(
            "Monday of week number 20 (where the default start of the week is Monday), forever",
            "19970512T090000",
            "FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO",
            "1997 May 12; 1998 May 11; 1999 May 17",
            EndsThere: false
        ),
        new(
            "Every Thursday in March, forever",
            "19970313T090000",
            "FREQ=YEARLY;BYMONTH=3;BYDAY=TH",
            "1997 Mar 13 20 27; 1998 Mar 5 12 19 26; 1999 Mar 4 11 18 25",
            EndsThere: false
        ),
        new(
            "Every Thursday, but only during June, July, and August, forever",
            "19970605T090000",
            "FREQ=YEARLY;BYDAY=TH;BYMONTH=6,7,8",
            "1997 Jun 5 12 19 26; Jul 3 10 17 24 31; Aug 7 14 21 28; 1998 Jun 4 11 18 25; Jul 2 9 16 23 30; Aug 6 13 20 27; 1999 Jun 3 10 17 24; Jul 1 8 15 22 29; Aug 5 12 19 26",
            EndsThere: false
        ),
        new(
            "Every Friday the 13th, forever",
            "19970902T090000",
            "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13\r\nEXDATE;TZID=America/New_York:19970902T090000",
            "1998 Feb 13; Mar 13; Nov 13; 1999 Aug 13; 2000 Oct 13",
            EndsThere: false
        ),
        new(
            "The first Saturday that follows the first Sunday of the month, forever",
            "19970913T090000",
            "FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13",
            "1997 Sep 13; Oct 11; Nov 8; Dec 13; 1998 Jan 10; Feb 7; Mar 7; Apr 11; May 9; Jun 13",
            EndsThere: false
        ),
        new(
            "Every 4 years, the first Tuesday after a Monday in November, forever (U.S. Presidential Election day)",
            "19961105T090000",
            "FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8",
            "1996 Nov 5; 2000 Nov 7; 2004 Nov 2",
            EndsThere: false
        ),
        new(
            "The third instance into the month of one of Tuesday, Wednesday, or Thursday, for the next 3 months",
            "19970904T090000",
            "FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3",
            "1997 Sep 4; Oct 7; Nov 6"
        ),
        new(
            "The second-to-last weekday of the month",
            "19970929T090000",
            "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2",
            "1997 Sep 29; Oct 30; Nov 27; Dec 30; 1998 Jan 29; Feb 26; Mar 30",
            EndsThere: false
        ),
        // The rule as published ends at 17:00Z, which is 13:00 there; erratum 3883 has 21:00Z, which gives the dates that were published.
        new(
            "Every 3 hours from 9:00 AM to 5:00 PM on a specific day",
            "19970902T090000",
            "FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T210000Z",
            "1997 Sep 2 2@12:00 2@15:00"
        ),
        new(
            "Every 15 minutes for 6 occurrences",
            "19970902T090000",
            "FREQ=MINUTELY;INTERVAL=15;COUNT=6",
            "1997 Sep 2 2@09:15 2@09:30 2@09:45 2@10:00 2@10:15"
        ),
        new(
            "Every hour and a half for 4 occurrences",
            "19970902T090000",
            "FREQ=MINUTELY;INTERVAL=90;COUNT=4",
            "1997 Sep 2 2@10:30 2@12:00 2@13:30"
        ),
        new(
            "Every 20 minutes from 9:00 AM to 4:40 PM every day",
            "19970902T090000",
            "FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40",
            EveryTwentyMinutes,
            EndsThere: false
        ),
        new(
            "Every 20 minutes from 9:00 AM to 4:40 PM every day (by minutes)",
            "19970902T090000",
            "FREQ=MINUTELY;INTERVAL=20;BYHOUR=9,10,11,12,13,14,15,16",
            EveryTwentyMinutes,
            EndsThere: false
        ),
        new(
            "An example where the days generated makes a difference because of WKST",
            "19970805T090000",
            "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO",
            "1997 Aug 5 10 19 24"
        ),
        new(
            "changing only WKST from MO to SU, yields different results",
            "19970805T090000",
            "FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU",
            "1997 Aug 5 17 19 31"
        ),
        new(
            "An example where an invalid date (i.e., February 30) is ignored",
            "20070115T090000",
            "FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5",
            "2007 Jan 15 30; Feb 15; Mar 15 30"
        ),
    ];

    private const string EveryTwentyMinutes =
        "1997 Sep 2 2@09:20 2@09:40 2@10:00 2@10:20 2@10:40 2@11:00 2@11:20 2@11:40 2@12:00 2@12:20 2@12:40 2@13:00 2@13:20 2@13:40 2@14:00 2@14:20 2@14:40 2@15:00 2@15:20 2@15:40 2@16:00 2@16:20 2@16:40 3 3@09:20";

    /// <summary>The dates of an example.</summary>
    public static List<NodaTime.LocalDateTime> Read(string dates)
    {
        var (read, year, month) = (new List<NodaTime.LocalDateTime>(), 0, 0);
        foreach (var word in dates.Split([' ', ';'], StringSplitOptions.RemoveEmptyEntries))
        {
            if (word.Length == 4 && int.TryParse(word, out var named))
                year = named;
            else if (char.IsLetter(word[0]))
                month = 1 + "JanFebMarAprMayJunJulAugSepOctNovDec".IndexOf(word, StringComparison.Ordinal) / 3;
            else
            {
                var (days, time) = word.Split('@') is [var day, var clock] ? (day, clock) : (word, "09:00");
                var (first, last) = days.Split('-') is [var from, var to] ? (from, to) : (days, days);
                for (var on = int.Parse(first, null); on <= int.Parse(last, null); on++)
                    read.Add(
                        new NodaTime.LocalDate(year, month, on).At(NodaTime.Text.LocalTimePattern.ExtendedIso.Parse(time + ":00").Value)
                    );
            }
        }

        return read;
    }
}
