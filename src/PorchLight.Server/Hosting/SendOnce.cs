using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Hosting;

/// <summary>Something that was made or sent under a send key, so that the same press does not do it again.</summary>
internal sealed class CompletedRequest
{
    public static readonly Duration Remembered = Duration.FromDays(2);

    /// <summary>Chosen by the browser, once for each press.</summary>
    public required Guid Key { get; init; }

    /// <summary>What was asked, as a hash; another request under the same key is not the same press.</summary>
    public required string Asked { get; init; }
    public required Instant At { get; init; }

    /// <summary>How it was answered; zero while that is not known.</summary>
    public int Status { get; set; }

    /// <summary>The answer as JSON, sealed: links and secrets are shown once. Null for none.</summary>
    public string? Answer { get; set; }
}

/// <summary>Marks an endpoint that makes or sends something.</summary>
internal sealed class SendOnceMetadata;

internal static class SendOnce
{
    /// <summary>The header that carries the send key.</summary>
    public const string Header = "Send-Key";

    /// <summary>
    /// The endpoint makes or sends something: pressed twice, it happens once. The key and the answer are stored in the transaction in
    /// which the thing itself is, so that a second request under it gets the first one's answer whatever happens in between.
    /// </summary>
    public static RouteHandlerBuilder Once(this RouteHandlerBuilder endpoint) =>
        endpoint.AddEndpointFilter(new SendOnceFilter()).WithMetadata(new SendOnceMetadata());

    private sealed class SendOnceFilter : IEndpointFilter
    {
        // The second of two presses waits until the first is answered; keys that share a turn only wait a little longer.
        private readonly SemaphoreSlim[] _turns = [.. Enumerable.Range(0, 32).Select(_ => new SemaphoreSlim(1, 1))];

        public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
        {
            var http = context.HttpContext;
            if (!Guid.TryParse(http.Request.Headers[Header], out var key))
                return Problems.Say(StatusCodes.Status400BadRequest, "This page is out of date. Please reload it and try again.");
            var turn = _turns[(key.GetHashCode() & int.MaxValue) % _turns.Length];
            await turn.WaitAsync(http.RequestAborted);
            try
            {
                return await InvokeAsync(key, Fingerprint(context), context, next);
            }
            finally
            {
                turn.Release();
            }
        }

        private static async Task<object?> InvokeAsync(
            Guid key,
            string asked,
            EndpointFilterInvocationContext context,
            EndpointFilterDelegate next
        )
        {
            var services = context.HttpContext.RequestServices;
            var (db, tokens) = (services.GetRequiredService<PorchDb>(), services.GetRequiredService<Tokens>());
            if (await db.CompletedRequests.AsNoTracking().SingleOrDefaultAsync(act => act.Key == key) is { } done)
                return done.Asked != asked ? Problems.Conflict("This was sent already, with other words. Reload the page to see what went.")
                    : done.Status == 0 ? Problems.Conflict("This was done already. Reload the page to see it.")
                    : done.Answer is null ? Results.StatusCode(done.Status)
                    : Results.Content(tokens.Open(done.Answer), "application/json", Encoding.UTF8, done.Status);

            var act = new CompletedRequest
            {
                Key = key,
                Asked = asked,
                At = services.GetRequiredService<TimeProvider>().Now(),
            };
            (db.SendKey, db.HoldsCommits) = (act, true);
            try
            {
                var result = await next(context);
                db.HoldsCommits = false;
                var answer = result is INestedHttpResult nested ? nested.Result : result;
                if ((answer as IStatusCodeHttpResult)?.StatusCode is >= 200 and < 300 and var status)
                {
                    var said = answer is IValueHttpResult { Value: { } value }
                        ? tokens.Seal(JsonSerializer.Serialize(value, value.GetType(), Json.Options))
                        : null;
                    await KeepAsync(db, act, status, said);
                }

                await db.CommitHeldAsync(CancellationToken.None);
                return result;
            }
            finally
            {
                (db.SendKey, db.HoldsCommits) = (null, false);
                if (db.CurrentWrite is { IsHeld: true } held)
                    await held.GiveUpAsync();
            }
        }

        /// <summary>Keeps the answer with what was done; where nothing was written, on its own.</summary>
        private static async Task KeepAsync(PorchDb db, CompletedRequest act, int status, string? said)
        {
            if (db.SendKey is not null)
            {
                (act.Status, act.Answer) = (status, said);
                await using var first = await db.WriteAsync(CancellationToken.None);
                await first.SaveAsync(CancellationToken.None);
                return;
            }

            await using var write = db.CurrentWrite is null ? await db.WriteAsync(CancellationToken.None) : null;
            await db
                .CompletedRequests.Where(done => done.Key == act.Key)
                .ExecuteUpdateAsync(done => done.SetProperty(one => one.Status, status).SetProperty(one => one.Answer, said));
            if (write is not null)
                await write.SaveAsync(CancellationToken.None);
        }

        private static string Fingerprint(EndpointFilterInvocationContext context)
        {
            var http = context.HttpContext;
            var body = http.GetEndpoint()?.Metadata.GetMetadata<IAcceptsMetadata>()?.RequestType;
            var said = context.Arguments.FirstOrDefault(argument => argument is not null && argument.GetType() == body);
            return Convert.ToHexStringLower(
                SHA256.HashData(
                    Encoding.UTF8.GetBytes(
                        $"{http.Request.Method} {http.Request.Path}{http.Request.QueryString} {(said is null ? "" : JsonSerializer.Serialize(said, said.GetType(), Json.Options))}"
                    )
                )
            );
        }
    }
}
