using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

internal sealed class TellTeamEffect(PorchDb db, MailQueue mail) : StepEffect<TellTeam>
{
    protected override async Task DoAsync(TellTeam action, StepToDo todo)
    {
        var users = await db.Users.Where(user => action.Users.Contains(user.Id)).Select(user => user.Email!).ToListAsync();
        var addresses = users.Concat(action.Outside is { } outside ? [outside] : []).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        if (addresses.Count == 0)
            throw new StepFailedException("Nobody who was to be told works here any more. Change the step.");
        foreach (var address in addresses)
            mail.Queue(
                $"told {todo.EffectKey} to {address}",
                todo.Business,
                address,
                null,
                new MailContent(todo.Fill(action.Subject), todo.Fill(action.Text)),
                automatic: true,
                todo.Now
            );
    }
}
