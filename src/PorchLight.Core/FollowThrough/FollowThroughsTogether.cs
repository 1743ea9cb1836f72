namespace PorchLight.Core.FollowThrough;

/// <summary>A follow-through that is in force, beside the one that is looked at.</summary>
/// <param name="Id">Its identifier.</param>
/// <param name="Content">Its newest version.</param>
/// <param name="IsOn">Whether it starts by itself; one that is off is still started by steps.</param>
/// <param name="IsOlder">Whether it was made before the one that is looked at: of two that ask for as much the older one starts.</param>
public sealed record OtherFollowThrough(Guid Id, FollowThroughContent Content, bool IsOn, bool IsOlder);

/// <summary>What follow-throughs do to each other.</summary>
public static class FollowThroughsTogether
{
    /// <summary>
    /// The follow-throughs by which one leads back to its own start, in order, itself left out: by steps that start another, and by moves
    /// of the stage that others start on. Empty where it never comes round.
    /// </summary>
    /// <param name="content">The one that is looked at.</param>
    /// <param name="id">Its identifier.</param>
    /// <param name="others">All others in force.</param>
    /// <returns>The shortest round; null where there is none. A round of its own, with nobody between, is empty.</returns>
    public static IReadOnlyList<OtherFollowThrough>? Round(FollowThroughContent content, Guid id, IReadOnlyList<OtherFollowThrough> others)
    {
        var itself = new OtherFollowThrough(id, content, IsOn: true, IsOlder: false);
        var seen = new HashSet<Guid>();
        var ways = new Queue<IReadOnlyList<OtherFollowThrough>>([
            [],
        ]);
        while (ways.TryDequeue(out var way))
        {
            var last = way.Count == 0 ? itself : way[^1];
            if (Starts(last.Content, itself))
                return way;
            foreach (var next in others.Where(other => Starts(last.Content, other) && seen.Add(other.Id)))
                ways.Enqueue([.. way, next]);
        }

        return null;
    }

    /// <summary>
    /// The forms by which one of the others starts instead, whatever is answered, because it asks for more or was there first: of several
    /// that an inquiry could start, one does.
    /// </summary>
    /// <param name="content">The one that is looked at.</param>
    /// <param name="others">All others in force.</param>
    /// <param name="forms">The identifiers of the forms that take answers.</param>
    /// <returns>The forms with what starts there, in the order of <paramref name="forms"/>; empty where it starts by none, or is not beaten.</returns>
    public static IReadOnlyList<(Guid Form, OtherFollowThrough By)> BeatenBy(
        FollowThroughContent content,
        IReadOnlyList<OtherFollowThrough> others,
        IReadOnlyList<Guid> forms
    )
    {
        if (content.Starts is not InquiryStart start)
            return [];
        return
        [
            .. forms
                .Where(form => start.Form is null || start.Form == form)
                .Select(form => (Form: form, By: others.FirstOrDefault(other => Beats(other, form))))
                .Where(one => one.By is not null)
                .Select(one => (one.Form, one.By!)),
        ];

        bool Beats(OtherFollowThrough other, Guid form) =>
            other is { IsOn: true, Content.Starts: InquiryStart { Condition: null } wider }
            && (wider.Form is null || wider.Form == form)
            && (wider.Service is null || wider.Service == start.Service)
            && (wider.Fits.Count == 0 || (start.Fits.Count > 0 && start.Fits.All(wider.Fits.Contains)))
            && (wider.Precision > start.Precision || (wider.Precision == start.Precision && other.IsOlder))
            && !(other.Content.SideBySide && content.SideBySide);
    }

    /// <summary>The same as sentences, one for each of the others.</summary>
    /// <param name="content">The one that is looked at.</param>
    /// <param name="others">All others in force.</param>
    /// <param name="forms">The identifiers of the forms that take answers.</param>
    /// <param name="titleOf">What a form is called.</param>
    public static IReadOnlyList<string> SayBeaten(
        FollowThroughContent content,
        IReadOnlyList<OtherFollowThrough> others,
        IReadOnlyList<Guid> forms,
        Func<Guid, string> titleOf
    )
    {
        var beaten = BeatenBy(content, others, forms);
        var asked = content.Starts is InquiryStart { Form: { } form } ? forms.Count(one => one == form) : forms.Count;
        var never = beaten.Count > 0 && beaten.Count == asked;
        return
        [
            .. beaten
                .GroupBy(one => one.By.Id)
                .Select(group =>
                {
                    var titles = string.Join(" and ", group.Select(one => $"“{titleOf(one.Form)}”"));
                    return $"{(never ? "It never starts: for" : "For")} {titles} “{group.First().By.Content.Name}” starts instead, because it is more exact{(group.Any(one => one.By.Content.Starts.Precision == content.Starts.Precision) ? " or older" : "")}.";
                }),
        ];
    }

    private static bool Starts(FollowThroughContent running, OtherFollowThrough next) =>
        running.AllSteps.Any(step =>
            step.Action switch
            {
                StartAnother another => another.FollowThrough == next.Id,
                MoveStage move => next is { IsOn: true, Content.Starts: StageStart start } && start.Stages.Contains(move.Stage),
                _ => false,
            }
        );
}
