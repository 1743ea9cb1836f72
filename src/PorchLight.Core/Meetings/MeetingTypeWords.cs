using System.Globalization;
using PorchLight.Core.Common;

namespace PorchLight.Core.Meetings;

/// <summary>Says what a meeting type is.</summary>
public static class MeetingTypeWords
{
    /// <summary>"30 minutes, by phone or video, with Maren or Sunil".</summary>
    /// <param name="type">The type.</param>
    /// <param name="hosts">The names of its hosts, in order; null for one who has left.</param>
    public static string Summary(MeetingType type, IReadOnlyList<string?> hosts)
    {
        var here = hosts.OfType<string>().ToList();
        var places = WordLists.Either(type.Places.Select(place => SayPlace(place.Kind)));
        var with = With(here, type);
        return $"{Length(type.Rules.Minutes)}, {places}" + (with.Length == 0 ? "" : $", with {with}");
    }

    /// <summary>"30 minutes", "1 hour", "1 hour 30 minutes".</summary>
    /// <param name="minutes">How long it lasts.</param>
    public static string Length(int minutes)
    {
        var (hours, rest) = (minutes / 60, minutes % 60);
        var said = hours == 0 ? "" : Count(hours, "hour");
        return rest == 0 ? said : $"{said} {Count(rest, "minute")}".TrimStart();
    }

    /// <summary>What somebody should know of a type, as a sentence: that a host has left; null for nothing.</summary>
    /// <param name="type">The type.</param>
    /// <param name="hosts">The names of its hosts, in order; null for one who has left.</param>
    public static string? Note(MeetingType type, IReadOnlyList<string?> hosts) =>
        !hosts.Contains(null) ? null
        : hosts.OfType<string>().Any()
            ? $"Someone who held it no longer works here. It is booked with {With([.. hosts.OfType<string>()], type)} now."
        : "Nobody who held it works here any more, so no times are offered. Choose who holds it.";

    private static string Count(int count, string unit) =>
        string.Create(CultureInfo.InvariantCulture, $"{count} {unit}{(count == 1 ? "" : "s")}");

    private static string SayPlace(MeetingPlaceKind kind) =>
        kind switch
        {
            MeetingPlaceKind.Phone => "by phone",
            MeetingPlaceKind.Video => "by video",
            MeetingPlaceKind.Ours => "at your place",
            MeetingPlaceKind.Theirs => "at theirs",
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };

    private static string With(List<string> hosts, MeetingType type) => type.IsHeldByAll ? WordLists.All(hosts) : WordLists.Either(hosts);
}
