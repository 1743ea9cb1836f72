using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Projects;
using PorchLight.Server.Brand;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>
/// Keeps records true to the lists of the business: no stage goes while projects stand in it, one that means something else now
/// closes or opens them, and a service that is called something else is called so in the records, too.
/// </summary>
internal sealed class ListsInUse(PorchDb db, RecordWriter writer) : IListsInUse
{
    public async Task<IReadOnlyList<Finding>> CheckAsync(BusinessLists was, BusinessLists now)
    {
        foreach (var stage in was.Stages.ExceptBy(now.Stages.Select(one => one.Key), one => one.Key))
        {
            if (await db.Projects.CountAsync(project => project.Stage == stage.Key) is > 0 and var count)
                return
                [
                    new Finding(
                        "stages",
                        $"{(count == 1 ? "One project stands" : $"{count} projects stand")} in “{stage.Name}”. Move {(count == 1 ? "it" : "them")} to another stage first."
                    ),
                ];
        }

        foreach (var (stage, before) in now.Stages.Join(was.Stages, one => one.Key, one => one.Key, (one, before) => (one, before)))
        {
            if (stage.Kind.Closes() != before.Kind.Closes() && await db.Projects.AnyAsync(project => project.Stage == stage.Key))
                return
                [
                    new Finding(
                        "stages",
                        $"There are projects in “{stage.Name}”, so whether it closes them cannot change. Make another stage, and move them there."
                    ),
                ];
        }

        return [];
    }

    public async Task ChangeAsync(BusinessLists was, BusinessLists now, ClaimsPrincipal who, Instant at)
    {
        var field = BuiltInFields.Service.Key;
        foreach (var (service, before) in now.Services.Join(was.Services, one => one.Key, one => one.Key, (one, before) => (one, before)))
        {
            if (service.Name == before.Name)
                continue;
            var values = (await db.FieldValues.Where(value => value.Field == field && value.IsCurrent).ToListAsync())
                .Where(value => value.Value is TextAnswer { Text: var text } && text == before.Name)
                .ToList();
            foreach (var value in values)
                writer.Write(
                    await db.Clients.IgnoreQueryFilters().SingleAsync(client => client.Id == value.ClientId),
                    await db.Projects.FindAsync(value.ProjectId!.Value),
                    field,
                    new TextAnswer(service.Name),
                    value,
                    new ValueSource(ValueOrigin.Hand, who.DisplayName(), at)
                );
        }
    }
}
