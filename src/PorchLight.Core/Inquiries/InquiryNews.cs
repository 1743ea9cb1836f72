using PorchLight.Core.Conditions;

namespace PorchLight.Core.Inquiries;

/// <summary>An inquiry as somebody of the business is told of it by mail.</summary>
/// <param name="Client">Who sent it.</param>
/// <param name="Form">The title of the form.</param>
/// <param name="Fit">How it is sorted; null by a form that sorts nothing.</param>
/// <param name="About">What it is about, in one line.</param>
/// <param name="Address">Where it is read.</param>
public sealed record InquiryNews(string Client, string Form, Fit? Fit, string About, string Address);

/// <summary>Writes mails about inquiries that came in.</summary>
public static class InquiryNewsWords
{
    /// <summary>One mail about all of them, in the order they came.</summary>
    /// <param name="news">What came in; at least one.</param>
    public static (string Subject, string Text) Write(IReadOnlyList<InquiryNews> news) =>
        news is [var one]
            ? (one.Fit is { } fit ? $"{fit.Say()}: {one.Client}" : $"{one.Client}: {one.Form}", Say(one))
            : ($"{news.Count} inquiries: {Names(news)}", string.Join("\n\n---\n\n", news.Select(Say)));

    private static string Say(InquiryNews one) =>
        $"{one.Client} sent “{one.Form}”{(one.Fit is { } fit ? $": {fit.Say()}" : "")}.\n\n{one.About}\n\n{one.Address}";

    private static string Names(IReadOnlyList<InquiryNews> news) =>
        string.Join(", ", news.Take(3).Select(one => one.Client)) + (news.Count > 3 ? $" and {news.Count - 3} more" : "");
}
