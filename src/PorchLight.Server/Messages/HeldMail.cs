using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;

namespace PorchLight.Server.Messages;

/// <summary>
/// What follows once a message that somebody wrote has gone. Until then nothing has happened: no promise is kept and no project moved, so
/// that nothing is left when it is taken back.
/// </summary>
/// <param name="By">The user who sent it.</param>
/// <param name="Project">The project it is about; null for none.</param>
/// <param name="Inquiry">The inquiry it is about; null for none.</param>
/// <param name="Stage">The key of the stage the project comes to; null where it stays.</param>
/// <param name="Until">The day it comes back, of a stage where nothing happens; else null.</param>
internal sealed record HeldMail(Guid By, Id<Project>? Project, Id<Inquiry>? Inquiry, string? Stage = null, LocalDate? Until = null);

/// <summary>A message that is on its way out.</summary>
/// <param name="Id">Its identifier.</param>
/// <param name="TakeBackSeconds">For how many seconds it can be taken back; null where it goes at once.</param>
internal sealed record MailGoing(Id<OutgoingMail> Id, int? TakeBackSeconds);

/// <summary>For how long what somebody sends can be taken back before it goes.</summary>
internal sealed class TakeBackTime(IConfiguration configuration)
{
    /// <summary>In whole seconds; zero where everything goes at once.</summary>
    public Duration Length { get; } = Duration.FromSeconds(configuration.GetValue("PorchLight:SecondsToTakeBack", 10));

    public MailGoing Of(Id<OutgoingMail> mail) => new(mail, Length > Duration.Zero ? (int)Length.TotalSeconds : null);
}
