using System.Globalization;
using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>One line of a plan table.</summary>
/// <param name="Key">The key of the step; empty for a line that is no step yet.</param>
/// <param name="Day">Its day, the start being day 0; empty where it counts from a day of the project.</param>
/// <param name="Step">What it is called.</param>
/// <param name="Who">Who acts: "by itself", "you, by a nod" or "they".</param>
/// <param name="Sees">What the client sees of it.</param>
/// <param name="StillToWrite">What is still to be written; empty for nothing.</param>
/// <param name="EndsIf">What ends the whole.</param>
public sealed record PlanLine(string Key, string Day, string Step, string Who, string Sees, string StillToWrite, string EndsIf);

/// <summary>A follow-through as a table, to plan it on paper first.</summary>
public static class PlanTable
{
    /// <summary>It goes without a person.</summary>
    public const string ByItself = "by itself";

    /// <summary>A person looks before it goes.</summary>
    public const string WithANod = "you, by a nod";

    /// <summary>It waits for the client.</summary>
    public const string They = "they";

    /// <summary>The client sees nothing of it.</summary>
    public const string Nothing = "nothing";

    /// <summary>The headings of the columns, in order; the last names the steps and is not to be changed.</summary>
    public static IReadOnlyList<string> Headings { get; } =
    ["Day", "Step", "Who acts", "What the client sees", "Still to write", "Ends if", "Id"];

    /// <summary>The table, a line a step.</summary>
    /// <param name="content">The follow-through.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static IReadOnlyList<PlanLine> Of(FollowThroughContent content, FollowThroughNames names)
    {
        var days = StepDays.DaysOf(content);
        var ends = content.SayStops(names);
        return
        [
            .. content.Steps.Select(
                (step, index) =>
                    new PlanLine(
                        step.Key,
                        days[index]?.ToString(CultureInfo.InvariantCulture) ?? "",
                        step.Name,
                        WhoOf(step),
                        SeenOf(step, names),
                        step.Action.StillToWrite(),
                        ends
                    )
            ),
        ];
    }

    /// <summary>What of a follow-through is still to be written, by the keys of the steps, in order.</summary>
    /// <param name="content">The follow-through.</param>
    public static IReadOnlyList<string> Unfinished(FollowThroughContent content) =>
        [.. content.Steps.Where(step => step.Action.StillToWrite().Length > 0).Select(step => step.Key)];

    /// <summary>
    /// The follow-through as somebody has changed its table. Lines are in order: a line with the key of a step is that step with another
    /// name, day or actor; any other is a new step that says what is still to be written; a step that no line names is gone. A day that
    /// is not the one a step has makes it count from the step before, or from the start where that has no day. What the client sees of what is written is changed at the step.
    /// </summary>
    /// <param name="content">The follow-through as it is.</param>
    /// <param name="lines">The lines; those without a word in any cell are left out.</param>
    /// <returns>The follow-through, and what has to be put right first: then it is the one that was given. The place is the line, from 1.</returns>
    public static (FollowThroughContent Content, IReadOnlyList<Finding> Findings) Read(
        FollowThroughContent content,
        IReadOnlyList<PlanLine> lines
    )
    {
        var findings = new List<Finding>();
        var known = content.Steps.ToDictionary(step => step.Key);
        var read = content with { Steps = [] };
        var day = 0;
        foreach (var (line, index) in lines.Select((line, index) => (line, index)).Where(one => !IsBlank(one.line)))
        {
            var place = (index + 1).ToString(CultureInfo.InvariantCulture);
            var step = known.Remove(line.Key.Trim(), out var old) ? Changed(old, line) : New(line, content, read);
            if (step.Name.Length == 0)
                findings.Add(new Finding(place, "Say what the step is called."));
            var above = read.Steps.Count == 0 ? 0 : StepDays.DaysOf(read)[^1];
            read = read with { Steps = [.. read.Steps, step] };
            var stands = StepDays.DaysOf(read)[^1];
            if (line.Day.Trim().Length > 0)
            {
                if (!TryDay(line.Day, out var wanted))
                    findings.Add(new Finding(place, $"“{line.Day.Trim()}” is not a day. Write a whole number; the start is day 0."));
                else if (wanted < day)
                    findings.Add(
                        new Finding(
                            place,
                            $"Day {wanted} comes before the line above it, which is on day {day}. Move the line up, or change its day."
                        )
                    );
                else if (wanted != stands)
                    read = read with { Steps = [.. read.Steps.SkipLast(1), step with { Schedule = OnDay(step, wanted, above) }] };
            }

            day = StepDays.DaysOf(read)[^1] ?? day;
        }

        if (read.Steps.Count > FollowThroughCheck.MostSteps)
            findings.Add(new Finding("", $"A follow-through has at most {FollowThroughCheck.MostSteps} steps."));
        return findings.Count == 0 ? (read, []) : (content, findings);
    }

    private static bool IsBlank(PlanLine line) => string.IsNullOrWhiteSpace(line.Step + line.Day + line.Sees + line.StillToWrite);

    private static bool TryDay(string text, out int day) =>
        int.TryParse(
            text.Trim().StartsWith("day ", StringComparison.OrdinalIgnoreCase) ? text.Trim()[4..] : text.Trim(),
            NumberStyles.None,
            CultureInfo.InvariantCulture,
            out day
        )
        && day <= Schedule.LongestDays;

    private static Step Changed(Step old, PlanLine line) =>
        old with
        {
            Name = line.Step.Trim(),
            NeedsNod = old.Action is FlowAction ? old.NeedsNod : NeedsNod(line.Who) ?? old.NeedsNod,
            Action = old.Action is Unwritten unwritten ? unwritten with { What = Rewritten(unwritten.What, line) } : old.Action,
        };

    // Both cells say the same of what is still to be written; whichever was changed is meant.
    private static string Rewritten(string was, PlanLine line) =>
        new[] { line.StillToWrite.Trim(), line.Sees.Trim() }.FirstOrDefault(cell => cell.Length > 0 && cell != was) ?? was;

    private static Step New(PlanLine line, FollowThroughContent before, FollowThroughContent read)
    {
        var taken = before.Steps.Concat(read.Steps).Select(step => step.Key).ToHashSet();
        var name = line.Step.Trim() is { Length: > 0 } called ? called : What(line);
        return new Step(
            ItemKeys.For(name, taken, "step"),
            name,
            new Unwritten(What(line) is { Length: > 0 } what ? what : name),
            new Schedule(Anchor.PreviousSettled, 0, TimeUnit.Days),
            NeedsNod(line.Who) ?? true
        );
    }

    /// <summary>On a day, counted from the day of the step above; from the start where that one has none.</summary>
    private static Schedule OnDay(Step step, int day, int? above) =>
        above is { } from
            ? new(Anchor.PreviousSettled, day - from, TimeUnit.Days, step.Schedule.AtOnce)
            : new(Anchor.RunStart, day, TimeUnit.Days, step.Schedule.AtOnce);

    private static string What(PlanLine line) =>
        line.StillToWrite.Trim() is { Length: > 0 } still ? still
        : string.Equals(line.Sees.Trim(), Nothing, StringComparison.OrdinalIgnoreCase) ? ""
        : line.Sees.Trim();

    /// <summary>Whether a person looks first, as somebody wrote it; null where it does not say.</summary>
    private static bool? NeedsNod(string who) =>
        who.Contains("itself", StringComparison.OrdinalIgnoreCase) || who.Contains("automatic", StringComparison.OrdinalIgnoreCase) ? false
        : string.IsNullOrWhiteSpace(who) || who.Trim().Equals(They, StringComparison.OrdinalIgnoreCase) ? null
        : true;

    private static string WhoOf(Step step) =>
        step.Action.WaitsFor() is not null ? They
        : step.Action is OutsideAction && step.NeedsNod ? WithANod
        : ByItself;

    private static string SeenOf(Step step, FollowThroughNames names) => step.Action.Seen() ?? $"{Nothing}: {step.SayAction(names)}";
}
