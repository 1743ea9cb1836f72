using System.Text;

namespace PorchLight.Server.Tests;

/// <summary>
/// Reads CSV by the grammar of RFC 4180, section 2, letter by letter, and by nothing of the library that writes it. What the
/// grammar does not allow is an error.
/// </summary>
internal static class Rfc4180
{
    public static List<List<string>> Read(string text)
    {
        var rows = new List<List<string>>();
        for (var at = 0; at < text.Length; )
            rows.Add(ReadRow(text, ref at));
        return rows;
    }

    private static List<string> ReadRow(string text, ref int at)
    {
        var cells = new List<string>();
        while (true)
        {
            cells.Add(at < text.Length && text[at] == '"' ? ReadQuoted(text, ref at) : ReadPlain(text, ref at));
            if (at == text.Length)
                return cells;
            if (text[at] == ',')
            {
                at++;
                continue;
            }

            if (text[at] != '\r' || at + 1 == text.Length || text[at + 1] != '\n')
                throw new FormatException($"Neither a comma nor a line end at {at}: {text[at..]}");
            at += 2;
            return cells;
        }
    }

    private static string ReadPlain(string text, ref int at)
    {
        var start = at;
        while (at < text.Length && text[at] is not (',' or '\r' or '\n' or '"'))
            at++;
        return text[start..at];
    }

    private static string ReadQuoted(string text, ref int at)
    {
        var cell = new StringBuilder();
        for (at++; ; at++)
        {
            if (at == text.Length)
                throw new FormatException("A quoted cell does not end.");
            if (text[at] == '"')
            {
                at++;
                if (at == text.Length || text[at] != '"')
                    return cell.ToString();
            }

            cell.Append(text[at]);
        }
    }
}
