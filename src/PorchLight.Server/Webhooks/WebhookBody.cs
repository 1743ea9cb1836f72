using System.Text.Json;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

/// <summary>What a webhook is told: where the run stands, and what is on file about the client and the project.</summary>
internal static class WebhookBody
{
    private sealed record OfStep(Instant At, string FollowThrough, string Step, OfClient Client, OfProject Project, OfInquiry? Inquiry)
    {
        /// <summary>By the key of the field.</summary>
        public required IReadOnlyDictionary<string, OnFile> Values { get; init; }
    }

    private sealed record OfClient(Guid Id, string Name, string? Email, string Standing);

    private sealed record OfProject(Guid Id, string Title, string Stage, string StageName);

    private sealed record OfInquiry(Guid Id, Instant Received, string? Fit);

    /// <param name="Words">The value as a person reads it.</param>
    /// <param name="Value">The value itself, as answers are written in every export.</param>
    private sealed record OnFile(string Label, string Words, Answer Value);

    public static string Write(StepToDo todo, Project project, Inquiry? inquiry, FieldCatalogue fields) =>
        JsonSerializer.Serialize(
            new OfStep(
                todo.Now,
                todo.FollowThrough,
                todo.Step.Name,
                new OfClient(todo.Client.Id.Value, todo.Client.Name, todo.Client.Email, Json.NameOf(todo.Client.Standing)),
                new OfProject(
                    project.Id.Value,
                    project.Title,
                    project.Stage,
                    todo.Business.Lists.Stages.FirstOrDefault(stage => stage.Key == project.Stage)?.Name ?? project.Stage
                ),
                inquiry is not null
                    ? new OfInquiry(inquiry.Id.Value, inquiry.Received, inquiry.Fit is { } fit ? Json.NameOf(fit) : null)
                    : null
            )
            {
                Values = todo
                    .OnFile.Where(value => fields.Find(value.Key) is not null)
                    .OrderBy(value => value.Key, StringComparer.Ordinal)
                    .ToDictionary(
                        value => value.Key,
                        value => new OnFile(fields.Find(value.Key)!.Label, AnswerWords.Say(value.Value), value.Value)
                    ),
            },
            Json.Options
        );
}
