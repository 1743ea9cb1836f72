using NodaTime;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>The one way projects move from stage to stage and standings change, as part of the caller's write.</summary>
internal sealed class ProjectStages(PorchDb db, EventLog events)
{
    /// <summary>
    /// Moves a project to a stage, which may close it or open it again; work that is won makes its client one the business works for.
    /// </summary>
    /// <param name="project">The project.</param>
    /// <param name="stage">The stage it comes to; the one it stands in changes nothing.</param>
    /// <param name="by">The user who moves it; null for a follow-through.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="until">The day a parked one comes back; looked at only for a stage where nothing happens.</param>
    /// <param name="reason">Why it will not come; looked at only for a stage that is lost.</param>
    public async Task MoveAsync(Project project, Stage stage, Guid? by, Instant now, LocalDate? until = null, string? reason = null)
    {
        until = stage.Kind == StageKind.Parked ? until : null;
        reason = stage.Kind == StageKind.Lost ? reason : null;
        if (stage.Key == project.Stage && until == project.ParkedUntil && reason == project.LostReason)
            return;
        (project.ParkedUntil, project.LostReason) = (until, reason);
        var wasClosed = project.Closed is not null;
        Set(project, stage, now);
        await events.AppendAsync(
            (wasClosed, project.Closed is not null) switch
            {
                (_, true) => new ProjectClosed(by, stage.Key) { Reason = reason },
                (true, false) => new ProjectReopened(by, stage.Key),
                _ => new ProjectStageSet(stage.Key, by) { Until = until },
            },
            now,
            new EventContext(project.ClientId, project.Id)
        );
        var client = (await db.Clients.FindAsync(project.ClientId))!;
        await SetStandingAsync(client, client.Standing.Once(stage.Kind), by, now);
    }

    /// <summary>Brings a parked project back among the open ones, because its day has come.</summary>
    public async Task ComeBackAsync(Project project, Instant now)
    {
        var first = (await db.BusinessAsync()).Lists.Stages.FirstOpen();
        Set(project, first, now);
        await events.AppendAsync(new ProjectCameBack(first.Key), now, new EventContext(project.ClientId, project.Id));
    }

    /// <summary>Closes a project nothing was agreed about, because the last of its inquiries is closed; what is agreed goes on.</summary>
    public async Task CloseWithInquiryAsync(Project project, Guid? by, Instant now)
    {
        var stages = (await db.BusinessAsync()).Lists.Stages;
        if (stages.FirstOrDefault(stage => stage.Key == project.Stage)?.Kind is null or StageKind.Open or StageKind.Parked)
            await MoveAsync(project, stages.First(stage => stage.Kind == StageKind.Lost), by, now);
    }

    /// <summary>Opens a project again, because an inquiry of it is opened again.</summary>
    public async Task OpenWithInquiryAsync(Project project, Guid? by, Instant now)
    {
        if (project.Closed is not null)
            await MoveAsync(project, (await db.BusinessAsync()).Lists.Stages.FirstOpen(), by, now);
    }

    /// <summary>Says how the business stands with a client; as it is already changes nothing.</summary>
    public async Task SetStandingAsync(Client client, Standing standing, Guid? by, Instant now)
    {
        if (client.Standing == standing)
            return;
        client.Standing = standing;
        await events.AppendAsync(new StandingSet(standing, by), now, new EventContext(client.Id));
    }

    private static void Set(Project project, Stage stage, Instant now)
    {
        project.Stage = stage.Key;
        if (stage.Kind != StageKind.Parked)
            project.ParkedUntil = null;
        if (stage.Kind != StageKind.Lost)
            project.LostReason = null;
        project.Closed = stage.Kind.Closes() ? project.Closed ?? now : null;
    }
}
