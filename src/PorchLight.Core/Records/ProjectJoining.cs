using NodaTime;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>A piece of work that is in hand.</summary>
/// <param name="Id">Its identifier.</param>
/// <param name="Form">The form it came by; null for one that was begun by hand.</param>
/// <param name="Service">The service it is about, by its name; null when nothing says.</param>
/// <param name="Opened">When it began.</param>
public sealed record OpenProject(Guid Id, Guid? Form, string? Service, Instant Opened);

/// <summary>Decides whether an inquiry is about work that is in hand.</summary>
public static class ProjectJoining
{
    /// <summary>
    /// The project an inquiry joins, or null when it makes a new one: by the form's setting the newest in hand, the newest in
    /// hand that came by the same form or is about the same service, or none. A client who was not known before has none.
    /// </summary>
    /// <param name="about">The form's setting.</param>
    /// <param name="form">The form that was sent.</param>
    /// <param name="service">The name of the service the form asks about; null for none in particular.</param>
    /// <param name="inHand">
    /// The client's projects that are open; of two begun at one instant the one with the larger identifier is the
    /// newer.
    /// </param>
    public static OpenProject? Joined(ProjectAssignment about, Guid form, string? service, IEnumerable<OpenProject> inHand) =>
        inHand
            .Where(project =>
                about switch
                {
                    ProjectAssignment.WorkInHand => true,
                    ProjectAssignment.NewWorkOrMore => project.Form == form
                        || service is not null && string.Equals(project.Service, service, StringComparison.OrdinalIgnoreCase),
                    ProjectAssignment.NewWork => false,
                    _ => throw new ArgumentOutOfRangeException(nameof(about)),
                }
            )
            .MaxBy(project => (project.Opened, project.Id));
}
