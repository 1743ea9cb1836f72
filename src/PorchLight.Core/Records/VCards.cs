using System.Globalization;
using System.Text;

namespace PorchLight.Core.Records;

/// <summary>Cards read from a file, or why they cannot be.</summary>
/// <param name="People">A row a card; null when the file cannot be read.</param>
/// <param name="Fault">What is wrong and what to do, as a sentence; null when it was read.</param>
public sealed record VCardsRead(PeopleTable? People, string? Fault);

/// <summary>Reads and writes people as vCards (RFC 6350, version 4.0; 3.0 is read, too).</summary>
public static class VCards
{
    private const int LongestKept = 100_000;
    private const int LongestLine = 75;

    /// <summary>What the columns of people read from cards are called.</summary>
    public static IReadOnlyList<string> Headings { get; } =
    [
        "Name",
        "First name",
        "Family name",
        "E-mail",
        "Phone",
        "Company",
        "Birth date",
        "Street",
        "Flat or floor",
        "Town",
        "Region",
        "Postal code",
        "Country",
        "Website",
        "Language",
        "Tags",
        "Notes",
    ];

    /// <summary>
    /// The people in a file of cards. Of several addresses and numbers the preferred one is theirs (the first of equal ones); the others
    /// are added to the notes. Of what no column is for (pictures, keys) nothing is taken.
    /// </summary>
    /// <param name="text">The file; its lines may be folded, and end as they like.</param>
    public static VCardsRead Read(string text)
    {
        var (rows, lines) = (new List<IReadOnlyList<string>>(), Unfold(text));
        List<Property>? card = null;
        var began = 0;
        foreach (var (line, number) in lines)
        {
            if (line.Length == 0)
                continue;
            if (Property.Of(line) is not { } property)
                return Faulty($"Line {number} is not a line of a vCard. Please export the file again.");
            if (property is { Name: "BEGIN" } && property.Is("VCARD"))
            {
                if (card is not null)
                    return Faulty(CutOff(began));
                (card, began) = ([], number);
            }
            else if (card is null)
            {
                return Faulty($"Line {number} is outside a card. Please export the file again.");
            }
            else if (property is { Name: "END" } && property.Is("VCARD"))
            {
                rows.Add(Row(card));
                card = null;
            }
            else if (property is { Name: "VERSION" } && property.Is("2.1"))
            {
                return Faulty("These cards are of an old kind (vCard 2.1). Please export them as vCard 3.0 or 4.0.");
            }
            else
            {
                card.Add(property);
            }
        }

        return card is not null ? Faulty(CutOff(began))
            : rows.Count == 0 ? Faulty("There is nobody in this file.")
            : new VCardsRead(new PeopleTable(Headings, rows), null);

        static VCardsRead Faulty(string sentence) => new(null, sentence);

        static string CutOff(int line) =>
            $"The file is cut off: the card that begins in line {line} has no end. Nobody was imported; please export it again.";
    }

    /// <summary>A file of cards in version 4.0, lines folded at 75 octets and ended as the standard wants it.</summary>
    /// <param name="people">Rows with a cell for each of <see cref="Headings"/>; empty ones are left out.</param>
    public static string Write(IEnumerable<IReadOnlyList<string>> people)
    {
        var file = new StringBuilder();
        foreach (var row in people)
        {
            var cell = Headings.Zip(row).ToDictionary(pair => pair.First, pair => pair.Second);
            Line("BEGIN:VCARD");
            Line("VERSION:4.0");
            Line($"FN:{Escape(cell["Name"])}");
            if (cell["First name"].Length + cell["Family name"].Length > 0)
                Line($"N:{Escape(cell["Family name"])};{Escape(cell["First name"])};;;");
            Text("EMAIL", cell["E-mail"]);
            Text("TEL", cell["Phone"]);
            Text("ORG", cell["Company"]);
            if (cell["Birth date"].Length > 0)
                Line($"BDAY:{cell["Birth date"].Replace("-", "", StringComparison.Ordinal)}");
            string[] address = ["Flat or floor", "Street", "Town", "Region", "Postal code", "Country"];
            if (address.Any(part => cell[part].Length > 0))
                Line($"ADR:;{string.Join(';', address.Select(part => Escape(cell[part])))}");
            if (cell["Website"].Length > 0)
                Line($"URL:{cell["Website"]}");
            Text("LANG", cell["Language"]);
            if (cell["Tags"].Length > 0)
                Line($"CATEGORIES:{string.Join(',', cell["Tags"].Split(", ").Select(Escape))}");
            Text("NOTE", cell["Notes"]);
            Line("END:VCARD");
        }

        return file.ToString();

        void Text(string name, string value)
        {
            if (value.Length > 0)
                Line($"{name}:{Escape(value)}");
        }

        void Line(string line)
        {
            var octets = 0;
            foreach (var rune in line.EnumerateRunes())
            {
                if (octets + rune.Utf8SequenceLength > LongestLine)
                {
                    file.Append("\r\n ");
                    octets = 1;
                }

                file.Append(rune.ToString());
                octets += rune.Utf8SequenceLength;
            }

            file.Append("\r\n");
        }
    }

    private static string[] Row(List<Property> card)
    {
        var (name, address) = (First("N")?.Parts ?? [], First("ADR")?.Parts ?? []);
        var (emails, phones) = (Preferred("EMAIL"), Preferred("TEL"));
        // RFC 6350, 6.2.2: middle names stand behind the first, several parted by commas.
        var (given, family) = ($"{Part(name, 1)} {Part(name, 2).Replace(',', ' ')}".Trim(), Part(name, 0));
        var birthday = First("BDAY");
        string[] notes =
        [
            .. card.Where(one => one.Name == "NOTE").Select(one => one.Text),
            birthday is not null && WithoutYear(birthday) is { } day ? $"Birthday: {day}" : "",
            .. emails.Skip(1).Select(other => $"Another e-mail: {other}"),
            .. phones.Skip(1).Select(other => $"Another phone: {other}"),
        ];
        return
        [
            given.Length + family.Length > 0 ? $"{given} {family}".Trim() : First("FN")?.Text ?? "",
            given,
            family,
            emails.FirstOrDefault(""),
            phones.FirstOrDefault(""),
            Part(First("ORG")?.Parts ?? [], 0),
            birthday is null || WithoutYear(birthday) is not null ? "" : Day(birthday.Text),
            Part(address, 2),
            Part(address, 1),
            Part(address, 3),
            Part(address, 4),
            Part(address, 5),
            Part(address, 6),
            First("URL")?.Text ?? "",
            First("LANG")?.Text ?? "",
            string.Join(", ", card.Where(one => one.Name == "CATEGORIES").SelectMany(one => one.Listed)),
            string.Join("\n", notes.Where(note => note.Length > 0)),
        ];

        Property? First(string property) => card.Where(one => one.Name == property).OrderBy(one => one.Preference).FirstOrDefault();

        List<string> Preferred(string property) =>
            [
                .. card.Where(one => one.Name == property)
                    .OrderBy(one => one.Preference)
                    .Select(one => one.Text.StartsWith("tel:", StringComparison.OrdinalIgnoreCase) ? one.Text[4..] : one.Text)
                    .Where(one => one.Length > 0)
                    .Distinct(),
            ];

        static string Part(IReadOnlyList<string> parts, int at) => at < parts.Count ? parts[at] : "";

        // RFC 6350, 4.3.1 writes --0412; address books that must write a year write 1604, the first leap year of their calendar
        // (common practice, no source).
        static string? WithoutYear(Property birthday)
        {
            var digits = birthday.Text.Replace("-", "", StringComparison.Ordinal);
            var day =
                birthday.Text.StartsWith("--", StringComparison.Ordinal) && digits.Length >= 4 ? digits[..4]
                : digits.Length >= 8 && digits.StartsWith("1604", StringComparison.Ordinal) ? digits[4..8]
                : null;
            return
                day is not null
                && int.TryParse(day[..2], NumberStyles.None, CultureInfo.InvariantCulture, out var month)
                && month is >= 1 and <= 12
                && int.TryParse(day[2..], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                ? $"{number} {CultureInfo.InvariantCulture.DateTimeFormat.GetMonthName(month)}"
                : null;
        }

        // 19850412 as 1985-04-12; what is no day at all is left as it is written.
        static string Day(string day) =>
            day.Length >= 8 && day[..8].All(char.IsAsciiDigit) ? $"{day[..4]}-{day[4..6]}-{day[6..8]}"
            : day.Length > 10 && day[10] == 'T' ? day[..10]
            : day;
    }

    /// <summary>
    /// The bytes of a file with the folds taken out that part the bytes of one character: programs fold at an octet, wherever it is (RFC
    /// 6350, 3.2). Other folds stay, so that lines keep their numbers.
    /// </summary>
    /// <param name="bytes">The file in UTF-8; one in another encoding comes back as it is.</param>
    public static byte[] WholeCharacters(ReadOnlySpan<byte> bytes)
    {
        var whole = new byte[bytes.Length];
        var length = 0;
        for (var at = 0; at < bytes.Length; at++)
        {
            var fold = bytes[at..] switch
            {
                [(byte)'\r', (byte)'\n', (byte)' ' or (byte)'\t', ..] => 3,
                [(byte)'\n', (byte)' ' or (byte)'\t', ..] => 2,
                _ => 0,
            };
            if (fold > 0 && length > 0 && whole[length - 1] >= 0x80 && at + fold < bytes.Length && (bytes[at + fold] & 0xC0) == 0x80)
                at += fold - 1;
            else
                whole[length++] = bytes[at];
        }

        return whole[..length];
    }

    /// <summary>
    /// The lines, each with the number of the first of its folds. Only line ends of the standard end one, not what else Unicode takes for
    /// some. Of a line that is longer than any text that is kept, a picture for instance, the rest is left out.
    /// </summary>
    private static IEnumerable<(string Line, int Number)> Unfold(string text)
    {
        var (whole, began, number) = (new StringBuilder(), 0, 0);
        for (var from = 0; from <= text.Length; )
        {
            var end = text.AsSpan(from).IndexOfAny('\r', '\n') is var found and >= 0 ? from + found : text.Length;
            number++;
            var isFolded = began > 0 && end > from && text[from] is ' ' or '\t';
            if (!isFolded)
            {
                if (began > 0)
                    yield return (whole.ToString(), began);
                whole.Clear();
                began = number;
            }

            var (start, room) = (from + (isFolded ? 1 : 0), LongestKept - whole.Length);
            whole.Append(text, start, Math.Clamp(end - start, 0, Math.Max(0, room)));
            from = end + (end + 1 < text.Length && text[end] == '\r' && text[end + 1] == '\n' ? 2 : 1);
        }

        if (began > 0)
            yield return (whole.ToString(), began);
    }

    private static string Escape(string text) =>
        text.Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace(";", "\\;", StringComparison.Ordinal)
            .Replace(",", "\\,", StringComparison.Ordinal)
            .ReplaceLineEndings("\\n");

    /// <summary>A line of a card: "item1.EMAIL;PREF=1:name@example.com".</summary>
    private sealed record Property(string Name, int Preference, string Raw)
    {
        public string Text => Unescape(Raw);

        public IReadOnlyList<string> Parts => [.. Split(';').Select(Unescape)];

        public IEnumerable<string> Listed => Split(',').Select(Unescape).Where(one => one.Length > 0);

        public bool Is(string value) => string.Equals(Raw.Trim(), value, StringComparison.OrdinalIgnoreCase);

        public static Property? Of(string line)
        {
            var isQuoted = false;
            var colon = -1;
            for (var at = 0; at < line.Length && colon < 0; at++)
            {
                if (line[at] == '"')
                    isQuoted = !isQuoted;
                else if (line[at] == ':' && !isQuoted)
                    colon = at;
            }

            if (colon <= 0)
                return null;
            var parts = line[..colon].Split(';');
            var name = parts[0][(parts[0].IndexOf('.') + 1)..].ToUpperInvariant();
            var preference = 101;
            foreach (var parameter in parts[1..].Select(one => one.ToUpperInvariant()))
            {
                if (parameter.StartsWith("PREF=", StringComparison.Ordinal) && int.TryParse(parameter[5..], out var given))
                    preference = given;
                // So version 3.0 says it.
                else if (parameter.StartsWith("TYPE=", StringComparison.Ordinal) && parameter[5..].Split(',').Contains("PREF"))
                    preference = 1;
            }

            return new Property(name, preference, line[(colon + 1)..]);
        }

        private IEnumerable<string> Split(char separator)
        {
            var part = new StringBuilder();
            for (var at = 0; at < Raw.Length; at++)
            {
                if (Raw[at] == '\\' && at + 1 < Raw.Length)
                    part.Append(Raw, at++, 2);
                else if (Raw[at] != separator)
                    part.Append(Raw[at]);
                else
                {
                    yield return part.ToString();
                    part.Clear();
                }
            }

            yield return part.ToString();
        }

        private static string Unescape(string raw)
        {
            var text = new StringBuilder(raw.Length);
            for (var at = 0; at < raw.Length; at++)
            {
                if (raw[at] != '\\' || at + 1 == raw.Length)
                    text.Append(raw[at]);
                else
                    text.Append(raw[++at] is 'n' or 'N' ? '\n' : raw[at]);
            }

            return text.ToString().Trim();
        }
    }
}
