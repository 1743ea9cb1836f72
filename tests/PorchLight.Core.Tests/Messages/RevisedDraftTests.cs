using CsCheck;
using PorchLight.Core.Messages;

namespace PorchLight.Core.Tests.Messages;

public sealed class RevisedDraftTests
{
    // Few keys, so that edits often lose a gap, turn two around, or have a part twice.
    private static readonly Gen<string> Key = RandomForms.Pick("a", "b", "c", "d");
    private static readonly Gen<string> Words = RandomForms.Pick("", " ", "Hi", "seen it", "two\nlines");
    private static readonly Gen<MessagePart> Part = Gen.Select(
        Key,
        Words,
        Words,
        Gen.Bool,
        (key, words, filled, isGap) => isGap ? new GapPart(key, words, filled) : (MessagePart)new TextPart(key, words)
    );
    private static readonly Gen<MessageDraft> Draft = Gen.Select(
        Part.Array[0, 4],
        RandomForms.Pick("Hello", "Hello\r\nBcc: all@example.com"),
        (parts, subject) => new MessageDraft(subject, parts)
    );

    [Fact]
    public void An_edit_stands_as_it_was_written_exactly_when_its_gaps_are_those_of_the_draft()
    {
        var (kept, refused) = (0, 0);
        Gen.Select(Draft.Where(draft => draft.Parts.DistinctBy(part => part.Key).Count() == draft.Parts.Count), Draft)
            .Sample(
                (draft, edited) =>
                {
                    var revised = draft.Revise(edited);
                    (revised is null).ShouldBe(!IsAnEditOf(draft, edited));
                    if (revised is null)
                    {
                        Interlocked.Increment(ref refused);
                        return;
                    }

                    Interlocked.Increment(ref kept);
                    revised.Enclosed.ShouldBe(draft.Enclosed);
                    revised.Subject.ShouldBe(edited.Subject.Replace("\r\n", " ", StringComparison.Ordinal));
                    revised.Parts.Count.ShouldBe(edited.Parts.Count);
                    for (var at = 0; at < revised.Parts.Count; at++)
                        revised.Parts[at].ShouldBe(Expected(draft, edited.Parts[at]));
                },
                iter: 20_000
            );
        kept.ShouldBeGreaterThan(500);
        refused.ShouldBeGreaterThan(500);
    }

    /// <summary>A second reading of the rule: the gaps are crossed off one by one, and no key is met again.</summary>
    private static bool IsAnEditOf(MessageDraft draft, MessageDraft edited)
    {
        var left = new Queue<string>(draft.Parts.Where(part => part is GapPart).Select(part => part.Key));
        var met = new HashSet<string>();
        foreach (var part in edited.Parts)
        {
            if (!met.Add(part.Key))
                return false;
            if (part is GapPart && (!left.TryDequeue(out var next) || next != part.Key))
                return false;
        }

        return left.Count == 0;
    }

    private static MessagePart Expected(MessageDraft draft, MessagePart edited)
    {
        if (edited is not GapPart gap)
            return edited;
        foreach (var part in draft.Parts)
            if (part is GapPart ours && ours.Key == gap.Key)
                return new GapPart(gap.Key, ours.Prompt, gap.Filled);
        throw new InvalidOperationException("no such gap");
    }
}
