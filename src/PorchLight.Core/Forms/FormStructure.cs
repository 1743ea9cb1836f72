using System.Text.RegularExpressions;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>What makes a form impossible to publish. Form-craft advice is not given here; this is about forms that cannot work.</summary>
public static partial class FormStructure
{
    /// <summary>
    /// The findings, in form order; none means the form can be published. The place is a question's or page's key,
    /// "title" or "look".
    /// </summary>
    /// <param name="form">The form, its bounds kept (<see cref="FormBounds.Check"/>).</param>
    /// <param name="fields">The fields its answers can land in.</param>
    public static IReadOnlyList<Finding> Check(FormContent form, FieldCatalogue fields)
    {
        var found = new List<Finding>();
        if (string.IsNullOrWhiteSpace(form.Title))
            Say("title", "The form needs a title, so that people know what they are answering.");
        foreach (var fault in form.Look?.Faults() ?? [])
            Say("look", fault);
        if (form.Pages.Count == 0)
            Say("title", "The form needs at least one page.");

        var keys = form
            .Pages.Select(page => page.Key)
            .Concat(form.Pages.SelectMany(page => page.Items).Select(item => item.Key))
            .Concat(form.Questions.SelectMany(question => question.RowQuestions).Select(question => question.Key))
            .Concat(form.SendOffs.Append(form.DefaultSendOff).Select(sendOff => sendOff.Key));
        foreach (var twice in keys.GroupBy(key => key).Where(group => group.Count() > 1))
            Say(twice.Key, $"The key “{twice.Key}” is used twice; each page, question and send-off needs its own.");

        var earlier = new HashSet<string>();
        var cells = new HashSet<string>();
        for (var index = 0; index < form.Pages.Count; index++)
        {
            var page = form.Pages[index];
            CheckCondition(page.ShownOnlyWhen, page.Key, earlier);
            foreach (var item in page.Items)
            {
                CheckCondition(item.OnlyWhen, item.Key, earlier);
                if (item is not Question question)
                    continue;
                CheckQuestion(question, earlier);
                earlier.Add(question.Key);
                cells.UnionWith(question.RowQuestions.Select(cell => cell.Key));
            }

            foreach (var rule in page.Routes)
            {
                CheckCondition(rule.When, page.Key, earlier);
                if (!form.Pages.Skip(index + 1).Any(later => later.Key == rule.To) && form.FindSendOff(rule.To) is null)
                    Say(
                        page.Key,
                        $"After the page “{page.Title}” a rule leads to “{rule.To}”, which is neither a later page nor a send-off."
                    );
            }
        }

        var ledTo = form.Pages.SelectMany(page => page.Routes).Select(rule => rule.To).ToHashSet();
        foreach (var sendOff in form.SendOffs.Where(sendOff => sendOff.When is null && !ledTo.Contains(sendOff.Key)))
            Say(sendOff.Key, $"Nobody can end with “{sendOff.Title}”: say when it is for, or let a page lead to it.");
        foreach (var sendOff in form.SendOffs.Append(form.DefaultSendOff))
        {
            CheckCondition(sendOff.When, sendOff.Key, earlier, atTheEnd: true);
            if (
                sendOff
                    .WaysForward.Select(way => way.Address)
                    .Append(sendOff.Button?.Address)
                    .Append(sendOff.Redirect)
                    .OfType<string>()
                    .Any(address => !IsWebPage(address))
            )
                Say(sendOff.Key, $"“{sendOff.Title}” leads to an address without https. Please write it in full: https://www.example.com.");
        }

        foreach (var rule in form.Rules)
            CheckRule(rule);
        found.AddRange(FormBounds.Check(form));
        return found;

        void Say(string place, string sentence) => found.Add(new Finding(place, sentence));

        void CheckQuestion(Question question, HashSet<string> before)
        {
            if (!KeyPattern().IsMatch(question.Key))
                Say(question.Key, $"The key “{question.Key}” must be made of small letters, digits and hyphens.");
            if (string.IsNullOrWhiteSpace(question.Wording))
                Say(question.Key, "This question has no wording. Say what you want to ask.");
            CheckCondition(question.RequiredWhen, question.Key, before);
            if (!question.Kind.Uses().HasFlag(KindUses.MayBeRequired) && (question.Required || question.RequiredWhen is not null))
                Say(question.Key, "Permission to advertise cannot be required: it has to be given freely.");
            if (question.Kind is WorkedOutKind worked)
                CheckUsed(worked.Value.QuestionsUsed(), question.Key, [.. before, .. cells]);
            if (question.Kind is RowsKind rows)
                CheckRows(question, rows, before);
            if (question.LandsIn is { } landing && question.RefusesToLand(landing, fields) is { } refusal)
                Say(question.Key, refusal);
        }

        void CheckRows(Question question, RowsKind rows, HashSet<string> before)
        {
            var inRow = new HashSet<string>(before);
            foreach (var cell in rows.Questions)
            {
                if (!cell.Kind.Uses().HasFlag(KindUses.InRows))
                    Say(cell.Key, "This kind of question cannot be asked in a row. Ask it on the page.");
                if (cell.LandsIn is not null)
                    Say(cell.Key, "What a row asks lands with its list; it cannot have a place of its own.");
                CheckCondition(cell.AskedOnlyWhen, cell.Key, inRow);
                CheckQuestion(cell, inRow);
                inRow.Add(cell.Key);
            }
        }

        void CheckRule(AnswerRule rule)
        {
            var (used, place) = rule switch
            {
                EndNotBeforeStartRule r => ((IEnumerable<string>)[r.Start, r.End], r.End),
                CountMatchesRowsRule r => ([r.Count, r.Rows], r.Rows),
                NeverRule r => (r.When.QuestionsUsed().Append(r.At), r.At),
                _ => throw new ArgumentOutOfRangeException(nameof(rule), rule, "A rule of an unknown kind."),
            };
            CheckUsed(used, place, [.. form.Questions.Select(question => question.Key)], "not a question of this form");
        }

        void CheckUsed(IEnumerable<string> used, string place, HashSet<string> before, string why = "not asked before this place")
        {
            foreach (var key in used.Where(key => !before.Contains(key)))
                Say(place, $"Something here looks at “{key}”, which is {why}.");
        }

        void CheckCondition(Condition? condition, string place, HashSet<string> before, bool atTheEnd = false)
        {
            if (condition is null)
                return;
            foreach (var key in condition.QuestionsUsed().Where(key => !before.Contains(key)))
                Say(place, $"A condition here looks at “{key}”, which is not asked before this place.");
            if (!atTheEnd && UsesVerdict(condition))
                Say(place, "Only a send-off can depend on the fit or the points.");
        }
    }

    private static bool UsesVerdict(Condition condition) =>
        condition switch
        {
            AllCondition all => all.Parts.Any(UsesVerdict),
            AnyCondition any => any.Parts.Any(UsesVerdict),
            NotCondition not => UsesVerdict(not.Part),
            ComparisonCondition { Of: PointsSoFar } or FitCondition => true,
            _ => false,
        };

    private static bool IsWebPage(string address) => Uri.TryCreate(address, UriKind.Absolute, out var page) && page.Scheme == "https";

    [GeneratedRegex(@"^[a-z0-9-]{1,60}\z", RegexOptions.CultureInvariant)]
    private static partial Regex KeyPattern();
}
