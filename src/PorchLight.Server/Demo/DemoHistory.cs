using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;

namespace PorchLight.Server.Demo;

/// <summary>Something that happened with a client of the demo in the eighteen months before its last days.</summary>
/// <param name="At">When.</param>
/// <param name="Email">The client's address.</param>
internal abstract record DemoScene(Instant At, string Email)
{
    /// <param name="Form">Which of the forms.</param>
    internal sealed record Asks(Instant At, string Email, DemoFormKind Form, IReadOnlyDictionary<string, Answer?> Answers)
        : DemoScene(At, Email);

    /// <summary>Maren or Sunil answers, by phone or in person.</summary>
    internal sealed record IsAnswered(Instant At, string Email) : DemoScene(At, Email);

    internal sealed record WritesBack(Instant At, string Email, string Words) : DemoScene(At, Email);

    /// <summary>The newest project comes to another stage.</summary>
    internal sealed record Moves(Instant At, string Email, string Stage) : DemoScene(At, Email);

    internal sealed record IsGiven(Instant At, string Email, bool ToSunil) : DemoScene(At, Email);

    /// <summary>Values written by hand, of the client or the newest project.</summary>
    internal sealed record IsWritten(Instant At, string Email, IReadOnlyDictionary<string, Answer> Values) : DemoScene(At, Email);

    internal sealed record IsNoted(Instant At, string Email, string Text) : DemoScene(At, Email);

    /// <summary>The newest inquiry needs nothing any more.</summary>
    internal sealed record IsClosed(Instant At, string Email) : DemoScene(At, Email);

    internal sealed record Stands(Instant At, string Email, Standing Standing) : DemoScene(At, Email);

    internal sealed record HasToDo(Instant At, string Email, string Title, bool IsDate, LocalDate On) : DemoScene(At, Email);
}

/// <summary>The forms leads of the demo send.</summary>
internal enum DemoFormKind
{
    Wall,
    Sign,
    Workshop,
}

/// <summary>The made-up history of the demo: the same people and outcomes every time, at dates that count back from now.</summary>
internal sealed class DemoHistory
{
    private const int Seed = 41_977;
    private const int Inquiries = 150;
    private const int FirstDaysAgo = 545;
    private const int LastDaysAgo = 16;
    private readonly Random _random = new(Seed);
    private readonly List<DemoScene> _scenes = [];
    private readonly List<(DemoPerson Person, Instant Finished)> _finished = [];
    private readonly Instant _now;
    private readonly BusinessCalendar _calendar;

    private DemoHistory(Instant now, BusinessCalendar calendar) => (_now, _calendar) = (now, calendar);

    /// <summary>How long before now it begins.</summary>
    public static Duration Length { get; } = Duration.FromDays(FirstDaysAgo + 15);

    /// <summary>The fields the studio has beside those that come with the program.</summary>
    public static IReadOnlyList<Field> Fields { get; } =
    [
        new("client.coffee-order", "Coffee order", FieldKind.Text) { AtAGlance = true, Help = "What we bring along." },
        new("project.wall", "Wall", FieldKind.Text) { Help = "Size, plaster, in or out." },
        new("project.agreed-price", "Agreed price", FieldKind.Money) { AtAGlance = true },
        new("project.unveiling", "Unveiling", FieldKind.Date),
    ];

    /// <summary>How projects about a wall are shown: what is known of the wall in a part of its own.</summary>
    public static Arrangement OfMurals { get; } =
        new([
            .. Arrangement
                .Usual(RecordScope.Project)
                .Parts.SelectMany(part =>
                    part.Kind == PartKind.Glance
                        ?
                        [
                            part,
                            new("the-wall", PartKind.Fields, "The wall", Beside: false, [Fields[1].Key, "project.place", Fields[3].Key]),
                        ]
                        : new[] { part }
                ),
        ]);

    /// <summary>Everything that happened until the last days, in the order of time.</summary>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">Its days.</param>
    public static IReadOnlyList<DemoScene> Scenes(Instant now, BusinessCalendar calendar)
    {
        var history = new DemoHistory(now, calendar);
        history.Play();
        return [.. history._scenes.Where(scene => scene.At < now - Duration.FromDays(LastDaysAgo - 4)).OrderBy(scene => scene.At)];
    }

    private void Play()
    {
        for (var number = 0; number < Inquiries; number++)
        {
            var daysAgo = FirstDaysAgo - number * (FirstDaysAgo - LastDaysAgo) / (Inquiries - 1);
            var asked = On(_calendar.Today(_now).PlusDays(-daysAgo), 8 + _random.Next(13), _random.Next(60));
            // Whoever was happy comes back.
            var again = _finished.FindIndex(one => one.Finished < asked);
            if (again >= 0 && number % 8 == 3)
            {
                var person = _finished[again].Person;
                _finished.RemoveAt(again);
                Ask(number, asked, person with { Phone = number % 16 == 3 ? DemoNames.Phone(500 + number) : person.Phone }, isKnown: true);
            }
            else
                Ask(number, asked, DemoNames.Person(number), isKnown: false);
        }
    }

    private void Ask(int number, Instant asked, DemoPerson person, bool isKnown)
    {
        var form = _random.Next(100) switch
        {
            < 50 => DemoFormKind.Wall,
            < 84 => DemoFormKind.Sign,
            _ => DemoFormKind.Workshop,
        };
        var (answers, chance) = form switch
        {
            DemoFormKind.Wall => Wall(asked, person),
            DemoFormKind.Sign => Sign(asked, person),
            _ => Workshop(asked, person),
        };
        _scenes.Add(new DemoScene.Asks(asked, person.Email, form, answers));
        if (number % 5 == 2)
            _scenes.Add(
                new DemoScene.IsWritten(Later(asked, 1), person.Email, Values((Fields[0].Key, new TextAnswer(Pick(DemoNames.Coffees)))))
            );
        Follow(asked, person, isKnown ? chance + 25 : chance, form);
    }

    /// <summary>What became of it: booked, lost, turned down, or open still.</summary>
    private void Follow(Instant asked, DemoPerson person, int chance, DemoFormKind form)
    {
        var email = person.Email;
        if (chance < 8)
        {
            _scenes.Add(new DemoScene.IsAnswered(Later(asked, 1), email));
            Ends(Later(asked, 2), email, "declined");
            return;
        }

        _scenes.Add(new DemoScene.IsAnswered(Later(asked, 1), email));
        var wroteBack = Later(asked, 3);
        _scenes.Add(new DemoScene.WritesBack(wroteBack, email, Pick(DemoNames.Answers)));
        _scenes.Add(new DemoScene.IsAnswered(wroteBack + Duration.FromMinutes(50), email));
        _scenes.Add(new DemoScene.Moves(Later(asked, 4), email, "talking"));
        var offered = Later(asked, 6 + _random.Next(8));
        _scenes.Add(new DemoScene.Moves(offered, email, "offered"));
        if (_random.Next(100) >= chance)
        {
            if (_random.Next(6) == 0)
                _scenes.Add(new DemoScene.Moves(Later(offered, 20), email, "parked"));
            else
                Ends(Later(offered, 14 + _random.Next(20)), email, "lost");
            return;
        }

        var booked = Later(offered, 3 + _random.Next(12));
        var begins = Later(booked, 20 + _random.Next(60));
        var finished = Later(begins, 6 + _random.Next(40));
        _scenes.Add(new DemoScene.Moves(booked, email, "booked"));
        _scenes.Add(new DemoScene.IsGiven(booked + Duration.FromMinutes(2), email, ToSunil: _random.Next(2) == 0));
        _scenes.Add(
            new DemoScene.IsWritten(
                booked + Duration.FromMinutes(5),
                email,
                Values(
                    (
                        Fields[2].Key,
                        new MoneyAnswer(form == DemoFormKind.Wall ? 3600 + _random.Next(60) * 100 : 420 + _random.Next(30) * 40, "EUR")
                    ),
                    ("project.start", new DateAnswer(_calendar.Today(begins))),
                    (Fields[3].Key, new DateAnswer(_calendar.Today(finished)))
                )
            )
        );
        if (form == DemoFormKind.Wall)
            _scenes.Add(new DemoScene.IsWritten(Later(booked, 2), email, Values((Fields[1].Key, new TextAnswer(Pick(DemoNames.Walls))))));
        if (_random.Next(3) == 0)
            _scenes.Add(new DemoScene.IsNoted(Later(booked, 4), email, Pick(DemoNames.Notes)));
        _scenes.Add(new DemoScene.IsClosed(Later(booked, 5), email));
        _scenes.Add(new DemoScene.Moves(begins, email, "under-way"));
        _scenes.Add(new DemoScene.Moves(finished, email, "finished"));
        _scenes.Add(new DemoScene.Stands(Later(finished, 10), email, Standing.Past));
        if (begins > _now)
            _scenes.Add(
                new DemoScene.HasToDo(Later(booked, 1), email, "Order paint and leaf", IsDate: false, _calendar.Today(begins).PlusDays(-7))
            );
        _finished.Add((person, Later(finished, 30)));
    }

    private void Ends(Instant at, string email, string stage)
    {
        _scenes.Add(new DemoScene.Moves(at, email, stage));
        _scenes.Add(new DemoScene.IsClosed(at + Duration.FromMinutes(3), email));
        _scenes.Add(new DemoScene.Stands(Later(at, 45), email, Standing.Archived));
    }

    private (IReadOnlyDictionary<string, Answer?> Answers, int Chance) Wall(Instant asked, DemoPerson person)
    {
        var (budget, chance) = Pick([
            ("under-1500", 2),
            ("1500-4000", 22),
            ("4000-9000", 48),
            ("4000-9000", 48),
            ("over-9000", 55),
            ("unsure", 18),
        ]);
        var (decides, sure) = Pick([("me", 14), ("me", 14), ("together", 0), ("someone-else", -14)]);
        var wantedIn = _random.Next(5) == 0 ? (int?)null : 20 + _random.Next(200);
        var answers = Person(person);
        answers["place"] = new TextAnswer(person.Town);
        answers["what"] = new TextAnswer($"{Pick(DemoNames.Wishes)} {Pick(DemoNames.Reasons)}");
        answers["budget"] = ChoiceAnswer.Of(budget);
        answers["decides"] = ChoiceAnswer.Of(decides);
        answers["wanted"] = wantedIn is { } days ? new DateAnswer(_calendar.Today(asked).PlusDays(days)) : null;
        answers["found"] = ChoiceAnswer.Of(Pick(["past-client", "saw-one", "search", "other"]));
        return (answers, chance == 2 ? 2 : chance + sure - (wantedIn < 28 ? 12 : 0));
    }

    private (IReadOnlyDictionary<string, Answer?> Answers, int Chance) Sign(Instant asked, DemoPerson person)
    {
        var gilded = _random.Next(3) == 0;
        var rented = _random.Next(3) > 0;
        var agreed = Pick(["yes", "asked", "no"]);
        var inDays = 10 + _random.Next(120);
        var from = _calendar.Today(asked).PlusDays(inDays);
        var answers = Person(person);
        answers["signs"] = new RowsAnswer([
            new AnswerRow(
                new Dictionary<string, Answer?>
                {
                    ["says"] = new TextAnswer($"{person.Family} {Pick(["Books", "Bakery", "& Daughters", "Bikes", "Coffee"])}"),
                    ["wide"] = new NumberAnswer(120 + 10 * _random.Next(30)),
                    ["high"] = new NumberAnswer(30 + 5 * _random.Next(10)),
                    ["alike"] = null,
                    ["finish"] = ChoiceAnswer.Of(gilded ? "gilded" : "painted"),
                    ["leaf"] = gilded ? ChoiceAnswer.Of("gold") : null,
                }
            ),
        ]);
        answers["work"] = ChoiceAnswer.Of(gilded ? "gilding" : "lettering");
        answers["trade"] = ChoiceAnswer.Of(Pick(["food", "bikes", "care"]));
        answers["rented"] = new YesNoAnswer(rented);
        answers["landlord"] = rented ? ChoiceAnswer.Of(agreed) : null;
        answers["when"] = new DateRangeAnswer(from, from.PlusDays(14));
        answers["keep"] = new ConsentAnswer();
        return (answers, (gilded ? 48 : 36) + (rented && agreed == "no" ? -18 : 8) - (inDays < 21 ? 40 : 0));
    }

    private (IReadOnlyDictionary<string, Answer?> Answers, int Chance) Workshop(Instant asked, DemoPerson person)
    {
        var heads = 4 + _random.Next(9);
        var day = _calendar.Today(asked).PlusDays(20 + _random.Next(150));
        var answers = Person(person);
        answers["kind"] = ChoiceAnswer.Of(Pick(["wall", "boards"]));
        answers["day"] = new DateAnswer(day);
        answers["heads"] = new NumberAnswer(heads);
        answers["painters"] = new RowsAnswer([
            .. Enumerable
                .Range(0, heads)
                .Select(index => new AnswerRow(
                    new Dictionary<string, Answer?>
                    {
                        ["painter"] = DemoNames.Painter(_random.Next(1000) + index),
                        ["born"] = new DateAnswer(day.PlusYears(-12 - _random.Next(40)).PlusDays(-_random.Next(300))),
                    }
                )),
        ]);
        answers["where"] = new AddressAnswer("Harbour Row " + (1 + _random.Next(60)), null, person.Town, null, null, "IE");
        answers["keep"] = new ConsentAnswer();
        return (answers, heads < 6 ? 4 : 52);
    }

    private static Dictionary<string, Answer?> Person(DemoPerson person) =>
        new()
        {
            ["name"] = new PersonNameAnswer(person.Given, person.Family),
            ["email"] = new TextAnswer(person.Email),
            ["phone"] = new PhoneAnswer(person.Phone),
        };

    private static Dictionary<string, Answer> Values(params (string Field, Answer Value)[] values) =>
        values.ToDictionary(one => one.Field, one => one.Value);

    private T Pick<T>(IReadOnlyList<T> from) => from[_random.Next(from.Count)];

    /// <summary>Some days later, in the working day.</summary>
    private Instant Later(Instant from, int days) =>
        Max(On(_calendar.Today(from).PlusDays(days), 9 + _random.Next(8), _random.Next(60)), from + Duration.FromMinutes(1));

    private static Instant Max(Instant a, Instant b) => a > b ? a : b;

    private Instant On(LocalDate day, int hour, int minute) => _calendar.ToInstant(day + new LocalTime(hour, minute));
}
