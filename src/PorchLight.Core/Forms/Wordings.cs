using System.Text.RegularExpressions;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Sets earlier answers into later wordings.</summary>
public static partial class Wordings
{
    private const string Prefix = "answer:";

    /// <summary>
    /// The words with every <c>{answer:key|fallback}</c> replaced by the answer in words, of a name the first name; and with
    /// <see cref="AnswerContext.Values"/> (<see cref="KnownValues.Fill"/>). While the answer is unknown the wording's own fallback stands.
    /// </summary>
    /// <param name="words">The words.</param>
    /// <param name="known">What is known; in a row, with the row's own answers.</param>
    public static string Fill(string words, AnswerContext known)
    {
        if (!words.Contains('{', StringComparison.Ordinal))
            return words;
        var said = QuestionsUsed(words)
            .Distinct()
            .Select(key => (Key: Prefix + key, Words: Say(key, known)))
            .Where(one => one.Words is not null)
            .ToDictionary(one => one.Key, one => one.Words!);
        foreach (var (name, value) in known.Values)
            said[name] = value;
        return KnownValues.Fill(words, said);
    }

    /// <summary>The words without the sentences that name a known value: what was "We have your answers. You hear from us {promise}." says only
    /// that they arrived. Paragraphs of which nothing is left go, too.</summary>
    /// <param name="words">Words with places. A sentence ends with a full stop, a question mark or an exclamation mark before a blank.</param>
    /// <param name="name">The name of the known value: "promise".</param>
    public static string WithoutSentencesThatName(string words, string name)
    {
        var place = new Regex($@"\{{{Regex.Escape(name)}(\|[^{{}}]*)?\}}", RegexOptions.CultureInvariant);
        return place.IsMatch(words)
            ? string.Join(
                "\n\n",
                words
                    .Split("\n\n")
                    .Select(paragraph =>
                        string.Join(' ', SentenceEnd().Split(paragraph).Where(sentence => !place.IsMatch(sentence))).Trim()
                    )
                    .Where(paragraph => paragraph.Length > 0)
            )
            : words;
    }

    /// <summary>
    /// The route with every agreement as it was read: the statement with earlier answers in it, word for word as it stood on the page.
    /// </summary>
    /// <param name="route">The route the answers took; its answers are in their stored shape.</param>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <returns>The same route where no statement names an answer.</returns>
    public static Route WithAgreedWords(Route route, AnswerContext known)
    {
        var (now, answers) = (route.Know(known), new Dictionary<string, AnswerState>(route.Answers));
        foreach (var question in known.Form.Questions)
        {
            if (question.Kind is AgreementKind agreement && now.Of(question.Key).Answer is ConsentAnswer agreed)
                answers[question.Key] = AnswerState.Of(agreed with { Wording = Fill(agreement.Statement, now) });
        }

        return route with
        {
            Answers = answers,
        };
    }

    /// <summary>The words as they read while some answers are never known: their fallback stands, or nothing.</summary>
    /// <param name="words">Words with places.</param>
    /// <param name="questions">The keys of the questions whose answers go.</param>
    public static string Without(string words, IReadOnlySet<string> questions)
    {
        // All other places stay as they are: each is its own value for a moment.
        var others = KnownValues
            .PlacesIn(words)
            .Where(place => !questions.Contains(place.Name.Replace(Prefix, "", StringComparison.Ordinal)));
        return questions.Count == 0
            ? words
            : KnownValues.Fill(words, others.DistinctBy(place => place.Name).ToDictionary(place => place.Name, place => place.Whole));
    }

    /// <summary>The keys of the questions whose answers stand in the words.</summary>
    /// <param name="words">Words with places; a question named twice comes twice.</param>
    public static IEnumerable<string> QuestionsUsed(string words) => Answers().Matches(words).Select(match => match.Groups["key"].Value);

    private static string? Say(string key, AnswerContext known) =>
        known.Of(key).Answer switch
        {
            null => null,
            PersonNameAnswer name => name.Given,
            var answer => AnswerWords.Say(answer, known.Behind(key)),
        };

    [GeneratedRegex(@"(?<=[.!?])\s+", RegexOptions.CultureInvariant)]
    private static partial Regex SentenceEnd();

    [GeneratedRegex(@"\{answer:(?<key>[a-z0-9-]+)(?:\|[^{}]*)?\}", RegexOptions.CultureInvariant)]
    private static partial Regex Answers();
}
