using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using static PorchLight.Core.Common.StructuralEquality;

namespace PorchLight.Core.Workbench;

/// <summary>Something that is not the same in two versions of a form.</summary>
/// <param name="Place">The key of the page, item or send-off it is about; "form" for the form itself.</param>
/// <param name="Sentence">What was done, for the owner: "Question 6: two answers added."</param>
public sealed record FormDifference(string Place, string Sentence);

/// <summary>Says in words what changed between two versions of a form.</summary>
public static class FormDifferences
{
    /// <summary>
    /// What was done to the older form to get the newer one, in form order: first the form itself, then pages with what stands on
    /// them, then send-offs. Pages, items and send-offs are told apart by their keys. Empty exactly when the two hold the same.
    /// </summary>
    /// <param name="older">The form before; its numbers are used for what is gone.</param>
    /// <param name="newer">The form after; its numbers are used for what is there.</param>
    public static IReadOnlyList<FormDifference> Between(FormContent older, FormContent newer)
    {
        var found = new List<FormDifference>();
        CompareForm(older, newer, found);
        ComparePages(older, newer, found);
        CompareItems(older, newer, found);
        CompareSendOffs(older, newer, found);
        // Keys that come twice in an unfinished copy can hide what changed.
        if (found.Count == 0 && !Same(older, newer))
            found.Add(new FormDifference("form", "The form was changed."));
        return found;
    }

    private static void CompareForm(FormContent older, FormContent newer, List<FormDifference> found)
    {
        if (older.Title != newer.Title)
            Say($"The title is now “{newer.Title}”.");
        if (older.Intro != newer.Intro)
            Say("The words under the title were rewritten.");
        if (!Same(older.Cover, newer.Cover))
            Say(AddedGoneOr("The cover", older.Cover, newer.Cover));
        if (!Same(older.NotForUs, newer.NotForUs))
            Say(AddedGoneOr("The note about what you do not do", older.NotForUs, newer.NotForUs));
        if (!Same(older.Look, newer.Look))
            Say("The look was changed.");
        if (older.Review != newer.Review)
            Say(
                newer.Review
                    ? "Answers are looked over before they are sent."
                    : "Answers are not looked over any more before they are sent."
            );
        if (!Same(older.Rules, newer.Rules))
            Say(
                Counted("check between answers", "checks between answers", older.Rules.Count, newer.Rules.Count)
                    ?? "The checks between answers were changed."
            );

        void Say(string sentence) => found.Add(new FormDifference("form", sentence));
    }

    private static void ComparePages(FormContent older, FormContent newer, List<FormDifference> found)
    {
        foreach (var (page, index) in older.Pages.Select((page, index) => (page, index)))
        {
            if (newer.Pages.All(other => other.Key != page.Key))
                found.Add(new FormDifference(page.Key, $"Page {index + 1}, “{page.Title}”, is gone."));
        }

        foreach (var (page, index) in newer.Pages.Select((page, index) => (page, index)))
        {
            if (older.Pages.FirstOrDefault(other => other.Key == page.Key) is not { } was)
            {
                Say($"is new: “{page.Title}”.");
                continue;
            }

            if (was.Title != page.Title)
                Say($"is now called “{page.Title}”.");
            if (!Same(was.ShownOnlyWhen, page.ShownOnlyWhen))
                Say(page.ShownOnlyWhen is null ? "is always shown." : "is shown under another condition.");
            if (!Same(was.Routes, page.Routes))
                Say("leads on in another way.");

            void Say(string what) => found.Add(new FormDifference(page.Key, $"Page {index + 1} {what}"));
        }

        if (IsReordered(older.Pages.Select(page => page.Key), newer.Pages.Select(page => page.Key)))
            found.Add(new FormDifference("form", "The pages are in another order."));
    }

    private static void CompareItems(FormContent older, FormContent newer, List<FormDifference> found)
    {
        var (before, after) = (NamedItem.Of(older), NamedItem.Of(newer));
        foreach (var gone in before.Values.Where(item => !after.ContainsKey(item.Item.Key)))
            found.Add(new FormDifference(gone.Item.Key, $"{gone.Name}{gone.Quoted} is gone."));
        foreach (var (key, now) in after)
        {
            if (!before.TryGetValue(key, out var was))
                found.Add(new FormDifference(key, $"{now.Name} is new{(now.Quoted.Length > 0 ? $": {now.Quoted.Trim(',', ' ')}" : "")}."));
            else
                found.AddRange(ItemDifferences.Between(was.Item, now.Item).Select(what => new FormDifference(key, $"{now.Name}: {what}.")));
            if (was is not null && was.Page != now.Page)
                found.Add(new FormDifference(key, $"{now.Name} is on another page."));
        }

        foreach (var page in newer.Pages)
        {
            if (
                older.Pages.FirstOrDefault(other => other.Key == page.Key) is { } was
                && IsReordered(was.Items.Select(item => item.Key), page.Items.Select(item => item.Key))
            )
                found.Add(new FormDifference(page.Key, $"The order on “{page.Title}” has changed."));
        }
    }

    private static void CompareSendOffs(FormContent older, FormContent newer, List<FormDifference> found)
    {
        foreach (var gone in older.SendOffs.Where(sendOff => newer.SendOffs.All(other => other.Key != sendOff.Key)))
            found.Add(new FormDifference(gone.Key, $"The send-off “{gone.Title}” is gone."));
        foreach (var now in newer.SendOffs)
        {
            if (older.SendOffs.FirstOrDefault(other => other.Key == now.Key) is { } was)
                Compare(was, now, "The send-off");
            else
                found.Add(new FormDifference(now.Key, $"The send-off “{now.Title}” is new."));
        }

        if (IsReordered(older.SendOffs.Select(sendOff => sendOff.Key), newer.SendOffs.Select(sendOff => sendOff.Key)))
            found.Add(new FormDifference("form", "The send-offs are tried in another order."));
        Compare(older.DefaultSendOff, newer.DefaultSendOff, "The send-off for everyone else,");

        void Compare(SendOff was, SendOff now, string name)
        {
            if (!Same(was.When, now.When))
                found.Add(new FormDifference(now.Key, $"{name} “{now.Title}” is taken under another condition."));
            if (!Same(was with { When = null }, now with { When = null }))
                found.Add(new FormDifference(now.Key, $"{name} “{now.Title}” was rewritten."));
        }
    }

    /// <summary>Whether what both have stands in another order.</summary>
    internal static bool IsReordered(IEnumerable<string> before, IEnumerable<string> after)
    {
        var (was, now) = (before.ToList(), after.ToList());
        return !was.Where(now.Contains).SequenceEqual(now.Where(was.Contains));
    }

    /// <summary>How many were added or taken away: "two answers added"; null when there are as many as before.</summary>
    internal static string? Counted(string one, string many, int before, int after) =>
        (after - before) switch
        {
            0 => null,
            var more =>
                $"{Capital(NumberWords.Say(Math.Abs(more)))} {(Math.Abs(more) == 1 ? one : many)} {(more > 0 ? "added" : "taken away")}.",
        };

    private static string AddedGoneOr(string name, object? before, object? after) =>
        before is null ? $"{name} is new."
        : after is null ? $"{name} is gone."
        : $"{name} was changed.";

    private static string Capital(string word) => char.ToUpperInvariant(word[0]) + word[1..];

    /// <summary>What stands on a page, and what it is called in words.</summary>
    private sealed record NamedItem(Item Item, string Page, string Name, string Quoted)
    {
        /// <summary>
        /// All items of a form by their keys, in form order. Of two with one key, which cannot be published, the first
        /// counts.
        /// </summary>
        public static Dictionary<string, NamedItem> Of(FormContent form)
        {
            var (all, questions) = (new Dictionary<string, NamedItem>(), 0);
            foreach (var page in form.Pages)
            {
                foreach (var item in page.Items)
                {
                    var (name, quoted) = item switch
                    {
                        Question question => ($"Question {++questions}", $", “{KnownValues.BeforeAnswers(question.Wording)}”,"),
                        Heading heading => ("A heading", $", “{heading.Text}”,"),
                        Passage => ("A text", ""),
                        Picture => ("A picture", ""),
                        Video video => ("A video", $", “{video.Title}”,"),
                        Divider => ("A divider", ""),
                        Download download => ("A download", $", “{download.Label}”,"),
                        _ => throw new ArgumentOutOfRangeException(nameof(form), item, "An item of an unknown kind."),
                    };
                    all.TryAdd(item.Key, new NamedItem(item, page.Key, name, quoted));
                }
            }

            return all;
        }
    }
}
