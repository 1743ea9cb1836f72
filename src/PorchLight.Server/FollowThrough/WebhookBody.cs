using System.Text.Json;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>What a webhook is told: where the run stands, and what is on file about the client and the project.</summary>
internal static class WebhookBody
{
    private sealed record Told(Instant At, string FollowThrough, string Step, OfClient Client, OfProject Project, OfInquiry? Inquiry)
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

    public static string Write(RunContext context, string step, Project project, FieldCatalogue fields, Instant at) =>
        JsonSerializer.Serialize(
            new Told(
                at,
                context.Content.Name,
                context.Content.Step(step).Name,
                new OfClient(
                    context.Client.Id.Value,
                    context.Client.Name,
                    context.Client.Email,
                    JsonNamingPolicy.CamelCase.ConvertName(context.Client.Standing.ToString())
                ),
                new OfProject(
                    project.Id.Value,
                    project.Title,
                    project.Stage,
                    context.Business.Lists.Stages.FirstOrDefault(stage => stage.Key == project.Stage)?.Name ?? project.Stage
                ),
                context.Inquiry is { } inquiry
                    ? new OfInquiry(
                        inquiry.Id.Value,
                        inquiry.Received,
                        inquiry.Fit is { } fit ? JsonNamingPolicy.CamelCase.ConvertName(fit.ToString()) : null
                    )
                    : null
            )
            {
                Values = context
                    .Facts.OnFile.Where(value => fields.Find(value.Key) is not null)
                    .OrderBy(value => value.Key, StringComparer.Ordinal)
                    .ToDictionary(
                        value => value.Key,
                        value => new OnFile(fields.Find(value.Key)!.Label, AnswerWords.Say(value.Value), value.Value)
                    ),
            },
            Json.Options
        );
}
