using System.Globalization;
using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Lists;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using LibraryRow = PorchLight.Server.Library.LibraryMessageEndpoints.LibraryRow;

namespace PorchLight.Server.Library;

/// <summary>A message with the row it is shown as.</summary>
internal sealed record ListedMessage(LibraryMessage Stored, LibraryRow Row);

/// <summary>The messages of the library as a list. They are few, so they are read whole, with where each is used.</summary>
internal sealed class LibraryMessageList(PorchDb db, BusinessClock clock)
    : ListOf<ListedMessage, Id<LibraryMessage>, LibraryMessageQuery, LibraryRow>
{
    private List<ListedMessage>? _all;

    public override string Name => "messages";

    protected override Expression<Func<ListedMessage, Id<LibraryMessage>>> Identifier => message => message.Row.Id;

    public override IReadOnlyList<ListFilter<ListedMessage, LibraryMessageQuery>> Filters =>
        [
            Several("folders", "Any folder", query => query.Folders, message => message.Row.Folder, FoldersAsync),
            Switch("unused", "unused", query => query.Unused, message => message.Row.UsedIn.Count == 0),
        ];

    public override IReadOnlyList<ListOrder<ListedMessage>> Orders =>
        [
            InOrder(
                "folder",
                "Sort by folder",
                false,
                By(message => new NaturalText(message.Row.Folder)),
                By(message => new NaturalText(message.Row.Name))
            ),
            InOrder("name", "name", false, By(message => new NaturalText(message.Row.Name))),
            InOrder("changed", "last change", true, By(message => message.Stored.Changed)),
        ];

    protected override IReadOnlyList<ListColumn<LibraryRow>> Columns =>
        [
            new("Folder", row => row.Folder),
            new("Name", row => row.Name),
            new("Subject", row => row.Subject),
            new("Gaps", row => row.Gaps.ToString(CultureInfo.InvariantCulture)),
            new("Changed", row => row.Changed),
            new("Used in", row => string.Join(", ", row.UsedIn.Select(use => use.FollowThrough).Distinct())),
        ];

    protected override string OrderOf(LibraryMessageQuery query) => Json.NameOf(query.Order);

    protected override async Task<IQueryable<ListedMessage>> AllAsync(LibraryMessageQuery query, CancellationToken cancellationToken)
    {
        var words = query.Words.Trim();
        return (await AllAsync(cancellationToken)).Where(message => Says(message.Stored, words)).AsQueryable();
    }

    protected override async Task<IReadOnlyList<LibraryRow>> RowsAsync(
        IReadOnlyList<Id<LibraryMessage>> ids,
        LibraryMessageQuery query,
        CancellationToken cancellationToken
    )
    {
        var rows = (await AllAsync(cancellationToken)).ToDictionary(message => message.Row.Id, message => message.Row);
        return [.. ids.Select(id => rows[id])];
    }

    /// <summary>How many of those found lie in each folder, for the headings between them.</summary>
    protected override Task<IReadOnlyList<ListGroup>> GroupsAsync(IQueryable<ListedMessage> found, CancellationToken cancellationToken) =>
        Task.FromResult<IReadOnlyList<ListGroup>>([
            .. found
                .AsEnumerable()
                .GroupBy(message => message.Row.Folder)
                .OrderBy(folder => folder.Key, NaturalOrder.Instance)
                .Select(folder => new ListGroup(folder.Key, folder.Key.Length > 0 ? folder.Key : "Without a folder", folder.Count())),
        ]);

    /// <summary>All messages, by folder and name.</summary>
    public async Task<List<LibraryRow>> ReadAsync(CancellationToken cancellationToken) =>
        [
            .. (await AllAsync(cancellationToken))
                .Select(message => message.Row)
                .OrderBy(row => row.Folder, NaturalOrder.Instance)
                .ThenBy(row => row.Name, NaturalOrder.Instance),
        ];

    private async Task<List<ListedMessage>> AllAsync(CancellationToken cancellationToken)
    {
        if (_all is not null)
            return _all;
        var used = await LibraryMessageEndpoints.UsesAsync(db, cancellationToken);
        var all = new List<ListedMessage>();
        foreach (var one in await db.LibraryMessages.AsNoTracking().ToListAsync(cancellationToken))
            all.Add(new ListedMessage(one, await LibraryMessageEndpoints.RowOfAsync(one, used, db, clock)));
        return _all = all;
    }

    private async Task<IReadOnlyList<FilterChoice>> FoldersAsync(CancellationToken cancellationToken) =>
        [
            .. (await AllAsync(cancellationToken))
                .Select(message => message.Row.Folder)
                .Distinct()
                .Order(NaturalOrder.Instance)
                .Select(folder => new FilterChoice(folder, folder.Length > 0 ? folder : "without a folder")),
        ];

    private static bool Says(LibraryMessage message, string words) =>
        new[] { message.Name, message.Folder, message.Message.Subject }
            .Concat(message.Message.Parts.OfType<TextPart>().Select(part => part.Text))
            .Any(text => text.Contains(words, StringComparison.OrdinalIgnoreCase));
}
