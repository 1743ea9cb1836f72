using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Library;

/// <summary>The messages of the library: written once, used in follow-throughs and answers.</summary>
internal static class LibraryMessageEndpoints
{
    private const string Gone = "This message is not in the library any more.";
    private const int LongestName = 120;
    private const int Most = 500;
    private const int PeopleShown = 200;

    /// <param name="Folder">Empty for none.</param>
    internal sealed record LibraryMessageContent(string Name, string Folder, MessageTemplate Message)
    {
        public static LibraryMessageContent Of(LibraryMessage stored) => new(stored.Name, stored.Folder, stored.Message);

        /// <summary>It may be unfinished; only what could not be kept is refused.</summary>
        public IReadOnlyList<Finding> Check() =>
            [
                .. Name.Trim().Length is > 0 and <= LongestName
                    ? Array.Empty<Finding>()
                    : [new Finding("name", $"Give it a name of at most {LongestName} characters.")],
                .. Folder.Trim().Length <= LongestName
                    ? Array.Empty<Finding>()
                    : [new Finding("folder", $"A folder has a name of at most {LongestName} characters.")],
            ];
    }

    /// <param name="UsedIn">The follow-throughs whose steps took its words.</param>
    /// <param name="Finding">What has to be put right before it can be used; null for nothing.</param>
    internal sealed record LibraryRow(
        Id<LibraryMessage> Id,
        string Name,
        string Folder,
        string Subject,
        int Gaps,
        string Changed,
        IReadOnlyList<MessageUse> UsedIn,
        string? Finding
    );

    /// <param name="Step">The name of the step.</param>
    /// <param name="HasOtherWords">Whether the step's words are not those of the library any more.</param>
    internal sealed record MessageUse(Id<StoredFollowThrough> FollowThroughId, string FollowThrough, string Step, bool HasOtherWords);

    internal sealed record LibraryMessageView(LibraryRow Row, LibraryMessageContent Content);

    /// <summary>What messages are made of beside their words.</summary>
    /// <param name="Files">The files of the business that can go with one.</param>
    /// <param name="Pictures">Those of them that can be shown in one.</param>
    /// <param name="People">In whose name one can come.</param>
    /// <param name="Messages">The messages whose words can be taken, with their folder.</param>
    /// <param name="Folders">The folders there are.</param>
    /// <param name="Signatures">What stands below messages: first the business's, then of those who have one of their own.</param>
    internal sealed record MessageParts(
        IReadOnlyList<Choice> Files,
        IReadOnlyList<Choice> Pictures,
        IReadOnlyList<Choice> People,
        IReadOnlyList<Choice> Messages,
        IReadOnlyList<string> Folders,
        IReadOnlyList<SignatureShown> Signatures
    );

    /// <param name="Sender">Below whose messages it stands; null for the business's.</param>
    /// <param name="Words">What it says, formatted.</param>
    internal sealed record SignatureShown(Guid? Sender, string Words);

    /// <param name="CopyOf">The message whose words it begins with; null for none.</param>
    internal sealed record NewLibraryMessage(string Name, string Folder, Guid? CopyOf);

    internal sealed record MadeMessage(Id<LibraryMessage> Id);

    /// <param name="Message">The message as it stands on screen.</param>
    /// <param name="ClientId">Whom it would go to; null for an example.</param>
    /// <param name="BuiltIn">The message of the program it is; null for one of the library.</param>
    internal sealed record PreviewRequest(MessageTemplate Message, Guid? ClientId = null, BuiltInMessage? BuiltIn = null);

    /// <param name="Html">As it is read, with what formats it.</param>
    /// <param name="Draft">The same as a draft, to be put into an answer.</param>
    internal sealed record MessagePreview(string To, string Subject, string Html, MessageDraft Draft, IReadOnlyList<string> Files);

    public static void MapLibraryMessages(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/library/messages").For(Access.Member).WithTags("Library");
        group.MapGet("", async (LibraryMessageList list, CancellationToken cancellationToken) => await list.ReadAsync(cancellationToken));
        group.MapPost("", MakeAsync).Once();
        group.MapGet("/parts", PartsAsync);
        group.MapGet("/people", PeopleAsync);
        group.MapGet("/{id}", ShowAsync);
        group.MapPut("/{id}", ChangeAsync);
        group.MapDelete("/{id}", RemoveAsync);
        group.MapPost("/preview", PreviewAsync);
        group.MapPost("/{id}/test", TestAsync).Once();
    }

    private static async Task<MessageParts> PartsAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var files = (await db.StoredFiles.AsNoTracking().Where(file => file.FormId == null).ToListAsync(cancellationToken))
            .OrderBy(file => file.Name, NaturalOrder.Instance)
            .ToList();
        var messages = await db.LibraryMessages.AsNoTracking().ToListAsync(cancellationToken);
        var signatures = await db.SignaturesAsync();
        return new MessageParts(
            [.. files.Select(NameOf)],
            [.. files.Where(file => file.Group == FileGroup.Picture).Select(NameOf)],
            [
                .. (await db.Users.AsNoTracking().ToListAsync(cancellationToken))
                    .OrderBy(user => user.DisplayName, NaturalOrder.Instance)
                    .Select(user => new Choice(user.Id.ToString(), user.DisplayName)),
            ],
            [
                .. messages
                    .Select(one => new Choice(one.Id.ToString(), one.Folder.Length == 0 ? one.Name : $"{one.Folder}: {one.Name}"))
                    .OrderBy(one => one.Name, NaturalOrder.Instance),
            ],
            [.. messages.Select(one => one.Folder).Where(folder => folder.Length > 0).Distinct().Order(NaturalOrder.Instance)],
            [new SignatureShown(null, signatures.Shared), .. signatures.Own.Select(one => new SignatureShown(one.Key, one.Value))]
        );

        static Choice NameOf(StoredFile file) => new(file.Id.ToString(), file.Name);
    }

    /// <summary>Whom a message can be seen for: those who came last, by name.</summary>
    private static async Task<List<Choice>> PeopleAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var newest = await db
            .CountingClients.AsNoTracking()
            .OrderByDescending(client => client.Since)
            .Take(PeopleShown)
            .Select(client => new { client.Id, client.Name })
            .ToListAsync(cancellationToken);
        return [.. newest.OrderBy(one => one.Name, NaturalOrder.Instance).Select(one => new Choice(one.Id.ToString(), one.Name))];
    }

    private static async Task<Results<Created<MadeMessage>, ProblemHttpResult>> MakeAsync(
        NewLibraryMessage wanted,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var copied = wanted.CopyOf is { } id ? await db.LibraryMessages.FindAsync([new Id<LibraryMessage>(id)], cancellationToken) : null;
        if (wanted.CopyOf is not null && copied is null)
            return Problems.NotFound(Gone);
        if (await db.LibraryMessages.CountAsync(cancellationToken) >= Most)
            return Problems.Unprocessable($"The library holds {Most} messages. Take one out that nobody needs.");
        var content = new LibraryMessageContent(wanted.Name, wanted.Folder, copied?.Message ?? Blank);
        if (content.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        var made = new LibraryMessage
        {
            Id = new Id<LibraryMessage>(Guid.CreateVersion7()),
            Name = content.Name.Trim(),
            Folder = content.Folder.Trim(),
            Message = content.Message,
            Changed = clock.GetCurrentInstant(),
        };
        db.LibraryMessages.Add(made);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/library/messages/{made.Id}", new MadeMessage(made.Id));
    }

    private static async Task<Results<Ok<LibraryMessageView>, ProblemHttpResult>> ShowAsync(
        Id<LibraryMessage> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        await db.LibraryMessages.FindAsync([id], cancellationToken) is { } stored
            ? TypedResults.Ok(await ViewAsync(stored, db, clock, cancellationToken))
            : Problems.NotFound(Gone);

    private static async Task<Results<Ok<LibraryMessageView>, ProblemHttpResult>> ChangeAsync(
        Id<LibraryMessage> id,
        Edit<LibraryMessageContent> edit,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.LibraryMessages.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(LibraryMessageContent.Of(stored));
        if (refusal is not null)
            return refusal;
        if (merged.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        (stored.Name, stored.Folder, stored.Message) = (merged.Name.Trim(), merged.Folder.Trim(), merged.Message);
        stored.Changed = clock.GetCurrentInstant();
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(stored, db, clock, cancellationToken));
    }

    /// <summary>Takes a message out of the library. Steps that took its words keep them.</summary>
    private static async Task<NoContent> RemoveAsync(Id<LibraryMessage> id, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.LibraryMessages.FindAsync([id], cancellationToken) is { } stored)
            db.LibraryMessages.Remove(stored);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>A message as one person would get it.</summary>
    private static async Task<Results<Ok<MessagePreview>, ProblemHttpResult>> PreviewAsync(
        PreviewRequest request,
        PorchDb db,
        ProgramMail messages,
        CancellationToken cancellationToken
    )
    {
        var client = request.ClientId is { } id ? await db.Clients.FindAsync([new Id<Client>(id)], cancellationToken) : null;
        if (request.ClientId is not null && client is null)
            return Problems.NotFound(ClientEdits.Gone);
        var draft = request.Message.Draft(
            request.BuiltIn is { } kind
                ? await messages.ExamplesAsync(kind)
                : await ValuesAsync(db, client, request.Message.Enclosed.Sender, cancellationToken)
        );
        var shown = string.Join(
            "\n\n",
            draft.Parts.Select(part => part is GapPart gap ? $"**[{FormattedText.Escape(gap.Prompt)}]**" : ((TextPart)part).Text)
        );
        var files = draft.Enclosed.Files.Select(file => new Id<StoredFile>(file)).ToList();
        return TypedResults.Ok(
            new MessagePreview(
                client is null ? "Ada Example" : client.Email ?? client.Name,
                draft.Subject,
                MailHtml.Clean(FormattedText.Read(shown).ToHtml(file => $"/public/files/{file}")),
                draft,
                await db.StoredFiles.Where(file => files.Contains(file.Id)).Select(file => file.Name).ToListAsync(cancellationToken)
            )
        );
    }

    /// <summary>Sends a message to the person who asks, its gaps named.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TestAsync(
        Id<LibraryMessage> id,
        PorchDb db,
        MailQueue mail,
        BusinessClock clock,
        ClaimsPrincipal who,
        UserManager<User> users,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.LibraryMessages.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        if (MessageCheck.Check(stored.Message) is { } sentence)
            return Problems.Unprocessable(sentence);
        var draft = stored.Message.Draft(await ValuesAsync(db, null, stored.Message.Enclosed.Sender, cancellationToken));
        var filled = draft with
        {
            Parts = [.. draft.Parts.Select(part => part is GapPart gap ? gap with { Filled = $"[{gap.Prompt}]" } : part)],
            Enclosed = draft.Enclosed with { Cc = [] },
        };
        await QueueTestAsync(db, mail, users, who, MailContent.Of(filled, filled.FinishedText!), clock);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Queues a message to the person who asks, named a test, as part of the caller's write.</summary>
    internal static async Task QueueTestAsync(
        PorchDb db,
        MailQueue mail,
        UserManager<User> users,
        ClaimsPrincipal who,
        MailContent content,
        BusinessClock clock
    ) =>
        mail.Queue(
            $"test {Guid.CreateVersion7()}",
            await db.BusinessAsync(),
            (await users.GetUserAsync(who))!.Email!,
            null,
            content with
            {
                Subject = $"A test: {content.Subject}",
            },
            automatic: false,
            clock.GetCurrentInstant()
        );

    private static readonly MessageTemplate Blank = new("", [new TextPart("text", "Dear {firstName},\n\n\n\n{signature}")]);

    private static async Task<Dictionary<string, string>> ValuesAsync(
        PorchDb db,
        Client? client,
        Guid? sender,
        CancellationToken cancellationToken
    )
    {
        var name = client is null
            ? new PersonNameAnswer("Ada", "Example")
            : (
                await db
                    .FieldValues.AsNoTracking()
                    .Where(value => value.ClientId == client.Id && value.IsCurrent && value.Field == BuiltInFields.Name.Key)
                    .FirstOrDefaultAsync(cancellationToken)
            )?.Value as PersonNameAnswer;
        return RunContext.ValuesOf(await db.BusinessAsync(), name, "", (await db.SignaturesAsync()).Of(sender));
    }

    private static async Task<LibraryMessageView> ViewAsync(
        LibraryMessage stored,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) => new(await RowOfAsync(stored, await UsesAsync(db, cancellationToken), db, clock), LibraryMessageContent.Of(stored));

    internal static async Task<LibraryRow> RowOfAsync(
        LibraryMessage stored,
        ILookup<Guid, (StoredFollowThrough By, FollowThroughContent Content, Step Step)> used,
        PorchDb db,
        BusinessClock clock
    ) =>
        new(
            stored.Id,
            stored.Name,
            stored.Folder,
            stored.Message.Subject,
            stored.Message.Parts.OfType<GapPart>().Count(),
            TimeWords.InList(stored.Changed, clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone),
            [
                .. used[stored.Id.Value]
                    .Select(use => new MessageUse(
                        use.By.Id,
                        use.Content.Name,
                        use.Step.Name,
                        !((SendMessage)use.Step.Action).Message.SaysTheSameAs(stored.Message)
                    ))
                    .OrderBy(use => use.FollowThrough, NaturalOrder.Instance),
            ],
            MessageCheck.Check(stored.Message)
        );

    /// <summary>The steps that took their words from the library, by the message: of what is worked on, else of what is in force.</summary>
    internal static async Task<ILookup<Guid, (StoredFollowThrough By, FollowThroughContent Content, Step Step)>> UsesAsync(
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var found = new List<(StoredFollowThrough By, FollowThroughContent Content, Step Step)>();
        foreach (var (one, content) in await db.WorkedOnAsync(cancellationToken))
        {
            found.AddRange(
                content
                    .AllSteps.Where(step => step.Action is SendMessage { Message.TakenFrom: not null })
                    .Select(step => (one, content, step))
            );
        }

        return found.ToLookup(one => ((SendMessage)one.Step.Action).Message.TakenFrom!.Value);
    }
}
