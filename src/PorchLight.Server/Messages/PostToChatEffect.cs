using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

internal sealed class PostToChatEffect(PorchDb db) : StepEffect<PostToChat>
{
    protected override Task DoAsync(PostToChat action, StepToDo todo)
    {
        db.TeamChat.Add(
            new TeamChatPost
            {
                Id = new Id<TeamChatPost>(Guid.CreateVersion7()),
                ClientId = todo.Person?.Id,
                UnfinishedFormId = todo.Left?.Id,
                Text = todo.Fill(action.Text).Trim(),
                By = todo.FollowThrough,
                At = todo.Now,
            }
        );
        return Task.CompletedTask;
    }
}
