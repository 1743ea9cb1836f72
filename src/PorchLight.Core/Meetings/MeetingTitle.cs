using PorchLight.Core.Common;

namespace PorchLight.Core.Meetings;

/// <summary>What a meeting is called in calendars.</summary>
public static class MeetingTitle
{
    /// <summary>The title where a type has none of its own.</summary>
    public const string Usual = "{type} with {client}";

    /// <summary>The longest title; what is longer is cut short.</summary>
    public const int Longest = 200;

    /// <summary>The title of a meeting, in one line.</summary>
    /// <param name="template">The title of its type, with known values; empty for <see cref="Usual"/>.</param>
    /// <param name="type">The name of its type.</param>
    /// <param name="client">Whom it is with.</param>
    /// <param name="answers">What whoever booked answered, by the keys of the questions.</param>
    public static string Of(string template, string type, string client, IReadOnlyDictionary<string, string> answers)
    {
        var values = new Dictionary<string, string> { ["type"] = type, ["client"] = client };
        foreach (var (key, answer) in answers)
            values[$"answer:{key}"] = answer;
        var title = KnownValues.OneLine(KnownValues.Fill(template.Trim().Length == 0 ? Usual : template, values));
        return title.Length == 0 ? type
            : title.Length <= Longest ? title
            : title[..(Longest - 1)].TrimEnd() + "…";
    }
}
