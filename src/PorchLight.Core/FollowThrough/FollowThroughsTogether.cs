using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;

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
    /// The forms by which others start instead, whatever is answered, because they ask for more or were there first: of several that an
    /// inquiry could start, one does (<see cref="FollowThroughs.Of"/>). Every fit and service an inquiry can have is gone through, and what
    /// starts only on some answers may or may not be there.
    /// </summary>
    /// <param name="content">The one that is looked at.</param>
    /// <param name="others">All others in force, the oldest first.</param>
    /// <param name="forms">The identifiers of the forms that take answers.</param>
    /// <returns>
    /// The forms with what starts there, in the order of <paramref name="forms"/>; empty where it does not start on an inquiry, and without
    /// the forms where some inquiry starts it.
    /// </returns>
    public static IReadOnlyList<(Guid Form, IReadOnlyList<OtherFollowThrough> By)> BeatenBy(
        FollowThroughContent content,
        IReadOnlyList<OtherFollowThrough> others,
        IReadOnlyList<Guid> forms
    )
    {
        if (content.Starts is not InquiryStart start)
            return [];
        OtherFollowThrough itself = new(Guid.Empty, content, IsOn: true, IsOlder: false);
        IReadOnlyList<OtherFollowThrough> all = [.. others.Where(other => other.IsOlder), itself, .. others.Where(other => !other.IsOlder)];
        var byInquiry = all.Where(one => one is { IsOn: true, Content.Starts: InquiryStart }).ToList();
        var services = byInquiry.Select(one => StartOf(one).Service).Append(null).Distinct().ToList();
        return
        [
            .. forms
                .Select(form => (Form: form, By: Instead(form)))
                .Where(one => one.By is { Count: > 0 })
                .Select(one => (one.Form, (IReadOnlyList<OtherFollowThrough>)one.By!)),
        ];

        List<OtherFollowThrough>? Instead(Guid form)
        {
            var instead = new List<OtherFollowThrough>();
            foreach (var service in services)
            {
                foreach (var received in Inquiries(form).Where(received => start.Takes(received, service)))
                {
                    var could = byInquiry.Where(one => StartOf(one).Takes(received, service)).ToList();
                    var first = FollowThroughs.First([.. could.Where(one => one == itself || StartOf(one).Condition is null)], ContentOf)!;
                    var ahead = could.Where(one =>
                        FollowThroughs.First([.. could.Where(other => other == one || other == first)], ContentOf) == one
                    );
                    if (first == itself || (content.SideBySide && ahead.Any(one => one.Content.SideBySide)))
                        return null;
                    instead.Add(first);
                }
            }

            return [.. instead.Distinct()];
        }

        static InquiryStart StartOf(OtherFollowThrough one) => (InquiryStart)one.Content.Starts;
        static FollowThroughContent ContentOf(OtherFollowThrough one) => one.Content;
    }

    private static readonly Fit?[] Fits = [null, Fit.ComeIn, Fit.TalkFirst, Fit.NotNow];

    /// <summary>An inquiry of every kind that starts can tell apart: with each fit and without, turned away and not.</summary>
    private static IEnumerable<InquiryReceived> Inquiries(Guid form) =>
        Fits.SelectMany(fit =>
        {
            var received = new InquiryReceived(form, 1, fit, KnownBefore: false, Joined: false);
            return (IEnumerable<InquiryReceived>)[received, received with { TurnedAway = true }];
        });

    /// <summary>The same as sentences, one for each way others start instead.</summary>
    /// <param name="content">The one that is looked at.</param>
    /// <param name="others">All others in force, the oldest first.</param>
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
                .GroupBy(one => string.Join(' ', one.By.Select(other => other.Id)))
                .Select(group =>
                {
                    var by = group.First().By;
                    var titles = string.Join(" and ", group.Select(one => $"“{titleOf(one.Form)}”"));
                    var names = string.Join(" or ", by.Select(other => $"“{other.Content.Name}”"));
                    var older = by.Any(other => other.Content.Starts.Precision == content.Starts.Precision) ? " or older" : "";
                    return $"{(never ? "It never starts: for" : "For")} {titles}, {names} starts instead because it is more exact{older}.";
                }),
        ];
    }

    private static bool Starts(FollowThroughContent running, OtherFollowThrough next) =>
        running.AllSteps.Any(step => step.Action.Starts(next));
}
