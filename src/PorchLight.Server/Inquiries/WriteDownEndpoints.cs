using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Writes down an inquiry for a lead who phoned or wrote, by the questions of a form.</summary>
internal static class WriteDownEndpoints
{
    /// <param name="Form">The form whose questions are asked.</param>
    /// <param name="Channel">How it reached the business.</param>
    /// <param name="On">The day it did, in the business's zone.</param>
    /// <param name="At">The time of that day; null for now, or for noon of a day gone by.</param>
    /// <param name="Answered">Whether the lead was answered already.</param>
    /// <param name="Starts">Whether a follow-through begins with it.</param>
    internal sealed record NewWrittenDown(Id<Form> Form, InquiryChannel Channel, LocalDate On, LocalTime? At, bool Answered, bool Starts);

    /// <param name="Address">The form to fill in.</param>
    internal sealed record WriteDownAddress(string Address);

    /// <param name="Title">What leads see above it.</param>
    /// <param name="Subject">The subject of a mail that brings somebody a link to it.</param>
    /// <param name="Text">The text of such a mail.</param>
    internal sealed record WriteDownForm(Id<Form> Id, string Title, string Subject, string Text);

    /// <param name="Today">The day it is, in the business's zone.</param>
    internal sealed record WriteDownChoices(LocalDate Today, IReadOnlyList<WriteDownForm> Forms);

    public static void MapWritingDown(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/inquiries/write-down").For(Access.Member).WithTags("Inquiries");
        group.MapGet("", ShowAsync);
        group.MapPut("", OpenAsync);
    }

    private static async Task<Ok<WriteDownChoices>> ShowAsync(
        PorchDb db,
        ProgramMail messages,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var forms = new List<WriteDownForm>();
        foreach (var form in await db.Forms.AsNoTracking().Where(form => form.PublishedVersion > 0).ToListAsync(cancellationToken))
        {
            var words = (await messages.WordsAsync(BuiltInMessage.PersonalLink, form.Id))!;
            var (subject, text) = LinkInvitation.Write(words, await messages.ValuesAsync(form));
            forms.Add(new WriteDownForm(form.Id, form.Draft.Title, subject, text));
        }

        return TypedResults.Ok(
            new WriteDownChoices(
                (await db.BusinessAsync()).Calendar.Today(clock.GetCurrentInstant()),
                [.. forms.OrderBy(form => form.Title, StringComparer.OrdinalIgnoreCase)]
            )
        );
    }

    /// <summary>Where to fill it in; nothing is stored before it is sent there.</summary>
    private static async Task<Results<Ok<WriteDownAddress>, ProblemHttpResult>> OpenAsync(
        NewWrittenDown wanted,
        PorchDb db,
        Tokens tokens,
        WriteDownTickets tickets,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (await db.Forms.FindAsync([wanted.Form], cancellationToken) is not { PublishedVersion: > 0 } form)
            return Problems.Invalid(new Finding("form", "This form is not published any more. Please choose another one."));
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var (received, refusal) = WrittenDownTime.Read(wanted.On, wanted.At, now, zone);
        if (received is not { } came)
            return Problems.Invalid(refusal!);
        if (wanted.Channel == InquiryChannel.Form)
            return Problems.Invalid(new Finding("channel", "Choose how it reached you."));
        var ticket = tickets.Open(
            form.Id,
            new WrittenDown(wanted.Channel, came, wanted.Answered, wanted.Starts, who.UserId(), who.DisplayName())
        );
        return TypedResults.Ok(new WriteDownAddress($"/f/{tokens.Open(form.LinkSealed)}?writeDown={Uri.EscapeDataString(ticket)}"));
    }
}
