using System.Text.Encodings.Web;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// The page a person comes to by the link in a message that advertises. To look at it changes nothing, since mail programs look at links by
/// themselves; one press, theirs or their mail program's (RFC 8058), stops the news.
/// </summary>
internal static class UnsubscribePage
{
    public static void MapUnsubscribe(this WebApplication app)
    {
        app.MapGet(UnsubscribeLinks.Path + "{token}", ShowAsync)
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();
        app.MapPost(UnsubscribeLinks.Path + "{token}", StopAsync)
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();
    }

    private static async Task<IResult> ShowAsync(string token, PorchDb db, HttpResponse response)
    {
        if (!await db.Businesses.AnyAsync())
            return Problems.NotFound("There is nothing at this address.");
        var business = await db.BusinessAsync();
        return await db.ClientUnsubscribingAsync(token) is null
            ? Gone(business, response)
            : Page(
                response,
                business,
                $"No more news from {business.Name}?",
                "You still get answers to what you ask, and what belongs to work we do for you.",
                "<form method=\"post\"><button>Stop the news</button></form>"
            );
    }

    /// <summary>Pressed twice it is stopped already.</summary>
    private static async Task<IResult> StopAsync(
        string token,
        PorchDb db,
        RecordWriter writer,
        EventLog events,
        BusinessClock clock,
        HttpResponse response,
        CancellationToken cancellationToken
    )
    {
        if (!await db.Businesses.AnyAsync(cancellationToken))
            return Problems.NotFound("There is nothing at this address.");
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        if (await db.ClientUnsubscribingAsync(token) is not { } client)
            return Gone(business, response);
        var field = BuiltInFields.MayAdvertise.Key;
        var current = (await writer.CurrentAsync(client.Id, null)).GetValueOrDefault(field);
        var now = clock.GetCurrentInstant();
        if (current?.Value is not YesNoAnswer { Yes: false })
        {
            writer.Write(client, null, field, new YesNoAnswer(false), current, new ValueSource(ValueOrigin.Unsubscribed, client.Name, now));
            await events.AppendAsync(new Unsubscribed(), now, new EventContext(client.Id));
            await write.SaveAsync(cancellationToken);
        }

        return Page(response, business, "You get no more news.", $"{business.Name} has noted it. There is nothing more to do.", "");
    }

    private static IResult Gone(Business business, HttpResponse response) =>
        Page(
            response,
            business,
            "This link is not good any more.",
            $"Write to {business.MailAddress} if you still get news you do not want.",
            "",
            StatusCodes.Status404NotFound
        );

    private static IResult Page(
        HttpResponse response,
        Business business,
        string title,
        string words,
        string form,
        int status = StatusCodes.Status200OK
    )
    {
        response.Headers.ContentSecurityPolicy =
            "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";
        response.Headers["Referrer-Policy"] = "no-referrer";
        var html = HtmlEncoder.Default;
        return Results.Content(
            $$"""
            <!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
            <meta name="robots" content="noindex"><title>{{html.Encode(title)}}</title><style>
            body{margin:0;font:17px/1.6 system-ui,sans-serif;color:#1d2033;background:#f3f4f9}
            main{max-width:34rem;margin:12vh auto 0;padding:2rem;background:#fff;border-radius:6px;overflow-wrap:anywhere}
            main>p:first-child{margin-top:0}
            h1{font-size:1.4rem;line-height:1.3;margin:0 0 .6rem}
            button{font:inherit;font-weight:600;min-height:2.75rem;padding:0 1.2rem;border:0;border-radius:6px;cursor:pointer}
            button{background:{{business.Look.Accent}};color:#fff}
            button:focus-visible{outline:3px solid #1d2033;outline-offset:2px}
            </style></head><body><main><p>{{html.Encode(business.Name)}}</p><h1>{{html.Encode(title)}}</h1><p>{{html.Encode(
                words
            )}}</p>{{form}}</main></body></html>
            """,
            "text/html; charset=utf-8",
            statusCode: status
        );
    }
}
