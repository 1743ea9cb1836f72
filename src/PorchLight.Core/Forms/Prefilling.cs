using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>What already stands in a form when it is opened.</summary>
public static class Prefilling
{
    private const int Longest = 500;

    /// <summary>
    /// The answers an address and a record give, and the empty rows lists begin with, by question key. What cannot be
    /// read as an answer of the question's kind
    /// is left out, never an error: whoever opens a link did not write it.
    /// </summary>
    /// <param name="form">The version that is opened.</param>
    /// <param name="parameters">Names and values in the address.</param>
    /// <param name="onFile">What is known of the person a personal link was made for, by field key; empty for everybody else.</param>
    /// <param name="cameFrom">The page they came from, or null.</param>
    public static Dictionary<string, Answer> Start(
        FormContent form,
        IReadOnlyDictionary<string, string> parameters,
        IReadOnlyDictionary<string, Answer> onFile,
        string? cameFrom
    )
    {
        var start = new Dictionary<string, Answer>();
        foreach (var question in form.Questions)
        {
            var answer =
                question.Kind.StartsWith(parameters, cameFrom)
                ?? question.Prefill switch
                {
                    FromAddress from => Read(question.Kind, parameters.GetValueOrDefault(from.Parameter)),
                    FromRecord from => onFile.GetValueOrDefault(from.Field),
                    // What is known is never asked as if it were not.
                    null when question.LandsIn is SetField set => onFile.GetValueOrDefault(set.Field),
                    null when question.LandsIn is SetPerson person => ClientPeople
                        .Only(onFile.GetValueOrDefault(ClientPeople.Field.Key), person.Person)
                        ?[ClientPeople.Key(person.Part)],
                    _ => null,
                };
            if (answer is not null)
                start[question.Key] = answer;
        }

        return start;
    }

    /// <summary>
    /// Text read as an answer of the question's kind, or null when it is none: options by key (several parted by
    /// commas), dates as ISO 8601 (2027-05-14), numbers with a point, yes and no as "yes" and "no".
    /// </summary>
    /// <param name="kind">The kind.</param>
    /// <param name="text">What was given, or null.</param>
    /// <param name="longest">What is longer is no answer, in UTF-16 code units.</param>
    public static Answer? Read(QuestionKind kind, string? text, int longest = Longest) =>
        string.IsNullOrWhiteSpace(text) || text.Length > longest ? null : kind.Read(text.Trim());
}
