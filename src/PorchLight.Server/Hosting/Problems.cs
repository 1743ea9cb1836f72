using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Data.Sqlite;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;

namespace PorchLight.Server.Hosting;

/// <summary>Answers bad requests with problem details (RFC 9457) whose detail is a sentence for the person.</summary>
internal static class Problems
{
    /// <param name="retryAfter">In how many seconds the same would be taken; null when waiting alone does not help.</param>
    public static ProblemHttpResult Say(int status, string sentence, IEnumerable<Finding>? findings = null, int? retryAfter = null)
    {
        var more = new Dictionary<string, object?>();
        if (findings is not null)
            more["findings"] = findings;
        if (retryAfter is not null)
            more["retryAfter"] = retryAfter;
        return TypedResults.Problem(sentence, statusCode: status, extensions: more);
    }

    public static ProblemHttpResult NotFound(string sentence) => Say(StatusCodes.Status404NotFound, sentence);

    public static ProblemHttpResult Unprocessable(string sentence, IEnumerable<Finding>? findings = null) =>
        Say(StatusCodes.Status422UnprocessableEntity, sentence, findings);

    /// <summary>What has to be put right before something can be kept, each at its place.</summary>
    public static ProblemHttpResult Invalid(params IReadOnlyList<Finding> findings) =>
        Unprocessable(
            findings.Count == 1 ? findings[0].Sentence : "Some places need another look; nothing is kept before they are right.",
            findings
        );

    /// <summary>Gives what the framework refuses by itself a sentence too.</summary>
    public static void GiveSentences(ProblemDetailsOptions options) =>
        options.CustomizeProblemDetails = context =>
            context.ProblemDetails.Detail ??= context.HttpContext.Response.StatusCode switch
            {
                StatusCodes.Status413PayloadTooLarge => TooMuch,
                StatusCodes.Status404NotFound => "There is nothing at this address.",
                _ => Unreadable,
            };

    internal const string TooMuch =
        "That is more than we can take in one go. Please shorten the longest answer; nothing you typed is lost.";
    internal const string Unreadable = "This request could not be read. Please reload the page and try again.";

    /// <summary>That a time is taken, with those that can be had in its place.</summary>
    public static ProblemHttpResult Taken(string sentence, IReadOnlyList<BookingTime> nearest) =>
        TypedResults.Problem(
            sentence,
            statusCode: StatusCodes.Status409Conflict,
            extensions: new Dictionary<string, object?> { ["nearest"] = nearest }
        );

    public static ProblemHttpResult Conflict(string sentence) => Say(StatusCodes.Status409Conflict, sentence);
}

/// <summary>Turns unreadable bodies into sentences, and hides everything else behind one.</summary>
internal sealed class ProblemWriter(ILogger<ProblemWriter> logger) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        var problem = exception switch
        {
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => Problems.Say(
                StatusCodes.Status413PayloadTooLarge,
                Problems.TooMuch
            ),
            BadHttpRequestException { InnerException: JsonException json } => Unreadable(json.Path),
            // A polymorphic body without its discriminator.
            BadHttpRequestException { InnerException: NotSupportedException } or NotSupportedException => Unreadable(null),
            // A body in letters this machine cannot read, like UTF-7; the framework calls it our failure.
            InvalidOperationException { Source: "Microsoft.AspNetCore.Http.Extensions" } => Unreadable(null),
            _ when IsDiskFull(exception) => Problems.Say(
                StatusCodes.Status507InsufficientStorage,
                "The disk Porch Light runs on is full, so this could not be kept. Make room on it and try again; what you typed is still here."
            ),
            BadHttpRequestException bad => Problems.Say(bad.StatusCode, Problems.Unreadable),
            _ => null,
        };
        if (problem is null)
        {
            logger.LogError(
                exception,
                "Unhandled failure at {Method} {Route}",
                httpContext.Request.Method,
                RequestLog.RouteOf(httpContext)
            );
            problem = Problems.Say(
                StatusCodes.Status500InternalServerError,
                "Something broke on our side. What you typed is still here; please try again in a moment."
            );
        }

        await problem.ExecuteAsync(httpContext);
        return true;
    }

    // SQLite says 13 (SQLITE_FULL), the file system 28 (ENOSPC) or, under Windows, 112 (ERROR_DISK_FULL).
    private static bool IsDiskFull(Exception exception) =>
        exception switch
        {
            SqliteException sqlite => sqlite.SqliteErrorCode == 13,
            IOException io => (io.HResult & 0xFFFF) is 28 or 112,
            { InnerException: { } inner } => IsDiskFull(inner),
            _ => false,
        };

    // The path of an answer reads $.answers.budget.keys or $.answers['a key'].keys.
    private static ProblemHttpResult Unreadable(string? path)
    {
        var question =
            path?.StartsWith("$.answers", StringComparison.Ordinal) == true
                ? path["$.answers".Length..].TrimStart('.', '[', '\'').Split('.', '\'', ']')[0]
                : "";
        return question.Length == 0
            ? Problems.Say(StatusCodes.Status400BadRequest, Problems.Unreadable)
            : Problems.Say(
                StatusCodes.Status400BadRequest,
                "One answer could not be read. Please answer it again.",
                [new Finding(question, "This answer could not be read. Please answer it again.")]
            );
    }
}
