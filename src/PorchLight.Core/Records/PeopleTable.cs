namespace PorchLight.Core.Records;

/// <summary>People as a file of another program holds them: a line each.</summary>
/// <param name="Headings">What each column is called.</param>
/// <param name="Rows">The cells of each line, as many as there are headings; empty for nothing.</param>
public sealed record PeopleTable(IReadOnlyList<string> Headings, IReadOnlyList<IReadOnlyList<string>> Rows)
{
    /// <summary>More lines are not taken in at once.</summary>
    public const int MostRows = 100_000;

    /// <summary>
    /// The line in which a cell begins that is never closed, counted from 1; null when all are. A file that was cut off in the middle of a
    /// quoted cell shows itself so.
    /// </summary>
    /// <param name="text">A text of separated values (RFC 4180).</param>
    /// <param name="separator">What parts its cells.</param>
    public static int? OpenQuote(string text, char separator)
    {
        var (line, opened, isQuoted, isStart) = (1, 0, false, true);
        for (var at = 0; at < text.Length; at++)
        {
            var c = text[at];
            if (c == '\n')
                line++;
            if (isQuoted)
            {
                if (c != '"')
                    continue;
                if (at + 1 < text.Length && text[at + 1] == '"')
                    at++;
                else
                    isQuoted = false;
                continue;
            }

            if (c == '"' && isStart)
                (isQuoted, opened) = (true, line);
            isStart = c == separator || c is '\n' or '\r';
        }

        return isQuoted ? opened : null;
    }

    /// <summary>What parts the cells of a text: the comma, semicolon or tabulator that stands in its first line most often, outside of quotes.</summary>
    /// <param name="text">A text of separated values.</param>
    public static char SeparatorOf(string text)
    {
        var counts = new Dictionary<char, int>
        {
            [','] = 0,
            [';'] = 0,
            ['\t'] = 0,
        };
        var isQuoted = false;
        foreach (var c in text)
        {
            if (c == '"')
                isQuoted = !isQuoted;
            else if (!isQuoted && c is '\n' or '\r' && counts.Values.Any(count => count > 0))
                break;
            else if (!isQuoted && counts.TryGetValue(c, out var count))
                counts[c] = count + 1;
        }

        return counts.MaxBy(one => one.Value).Key;
    }
}
