using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.Forms;

/// <summary>What makes a form impossible to publish. Form-craft advice is not given here; this is about forms that cannot work.</summary>
public static class FormStructure
{
    /// <summary>
    /// The findings, in form order; none means the form can be published. The place is a question's or page's key,
    /// or "title".
    /// </summary>
    public static IReadOnlyList<Finding> Check(FormContent form)
    {
        var found = new List<Finding>();
        if (string.IsNullOrWhiteSpace(form.Title))
            Say("title", "The form needs a title, so that people know what they are answering.");
        if (form.Pages.Count == 0)
            Say("title", "The form needs at least one page.");

        var keys = form.Pages.Select(page => page.Key).Concat(form.Questions.Select(question => question.Key))
            .Concat(form.SendOffs.Append(form.DefaultSendOff).Select(sendOff => sendOff.Key));
        foreach (var twice in keys.GroupBy(key => key).Where(group => group.Count() > 1))
            Say(twice.Key, $"The key “{twice.Key}” is used twice; each page, question and send-off needs its own.");

        var earlier = new HashSet<string>();
        for (var index = 0; index < form.Pages.Count; index++)
        {
            var page = form.Pages[index];
            CheckCondition(page.ShownOnlyWhen, page.Key, earlier);
            foreach (var question in page.Questions)
            {
                CheckQuestion(question, earlier);
                earlier.Add(question.Key);
            }

            foreach (var rule in page.Routes)
            {
                CheckCondition(rule.When, page.Key, earlier);
                if (!form.Pages.Skip(index + 1).Any(later => later.Key == rule.To) && form.FindSendOff(rule.To) is null)
                    Say(page.Key, $"After the page “{page.Title}” a rule leads to “{rule.To}”, which is no later page and no send-off.");
            }
        }

        foreach (var sendOff in form.SendOffs)
            CheckCondition(sendOff.When, sendOff.Key, earlier, atTheEnd: true);
        return found;

        void Say(string place, string sentence) => found.Add(new Finding(place, sentence));

        void CheckQuestion(Question question, HashSet<string> before)
        {
            if (string.IsNullOrWhiteSpace(question.Wording))
                Say(question.Key, "This question has no wording. Say what you want to ask.");
            CheckCondition(question.AskedOnlyWhen, question.Key, before);
            if (question.Kind is ChoiceKind { Options.Count: 0 })
                Say(question.Key, "This choice offers nothing to choose. Add an answer.");
            if (question.Options.GroupBy(option => option.Key).Any(group => group.Count() > 1))
                Say(question.Key, "Two answers of this choice have the same key.");
            if (question.Options.Any(option => string.IsNullOrWhiteSpace(option.Label)))
                Say(question.Key, "One of the answers has no words.");
            if (question.Options.Any(option => option.Band is { IsEmpty: true }))
                Say(question.Key, "The range of one of the answers ends before it starts.");
            if (question.LandsIn is { } landing && Landing.Refusal(question, landing) is { } refusal)
                Say(question.Key, refusal);
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

    private static bool UsesVerdict(Condition condition) => condition switch
    {
        All all => all.Parts.Any(UsesVerdict),
        Any any => any.Parts.Any(UsesVerdict),
        Not not => UsesVerdict(not.Part),
        Comparison { Of: PointsSoFar } or FitIs => true,
        _ => false,
    };
}
