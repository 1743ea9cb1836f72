using System.Globalization;
using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;
using PorchLight.Server.Lists;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Library;

/// <summary>The business's own files as a list. They are few, so that where each is used is looked for at once.</summary>
internal sealed class FileList(PorchDb db, IEnumerable<IFileUse> uses)
    : ListOf<StoredFile, Id<StoredFile>, FileQuery, FileEndpoints.OwnFileView>
{
    private ILookup<Guid, string>? _used;

    public override string Name => "files";

    protected override Expression<Func<StoredFile, Id<StoredFile>>> Identifier => file => file.Id;

    public override IReadOnlyList<ListFilter<StoredFile, FileQuery>> Filters =>
        [
            Several("groups", "Any kind", query => query.Groups, file => file.Group, Fixed<FileGroup>(group => group.Say())),
            new("unused", "unused", (files, query) => query.Unused ? files.Where(file => !_used!.Contains(file.Id.Value)) : files)
            {
                Kind = FilterKind.Switch,
            },
        ];

    public override IReadOnlyList<ListOrder<StoredFile>> Orders =>
        [
            InOrder("uploaded", "Sort by when they were uploaded", true, By(file => file.At)),
            InOrder("name", "name", false, By(file => new NaturalText(file.Name))),
            InOrder("size", "size", true, By(file => file.Bytes)),
        ];

    protected override IReadOnlyList<ListColumn<FileEndpoints.OwnFileView>> Columns =>
        [
            new("Name", file => file.Name),
            new("Kind", file => file.Group.Say()),
            new("Bytes", file => file.Bytes.ToString(CultureInfo.InvariantCulture)),
            new("Used in", file => string.Join(", ", file.UsedIn)),
        ];

    protected override string OrderOf(FileQuery query) => Json.NameOf(query.Order);

    protected override async Task<IQueryable<StoredFile>> AllAsync(FileQuery query, CancellationToken cancellationToken)
    {
        _used ??= await FileEndpoints.UsedAsync(db, uses, cancellationToken);
        var words = query.Words.Trim();
        return (await db.StoredFiles.AsNoTracking().Where(file => file.SendKey == null).ToListAsync(cancellationToken))
            .Where(file => file.Name.Contains(words, StringComparison.OrdinalIgnoreCase))
            .AsQueryable();
    }

    protected override async Task<IReadOnlyList<FileEndpoints.OwnFileView>> RowsAsync(
        IReadOnlyList<Id<StoredFile>> ids,
        FileQuery query,
        CancellationToken cancellationToken
    )
    {
        var files = await db
            .StoredFiles.AsNoTracking()
            .Where(file => ids.Contains(file.Id))
            .ToDictionaryAsync(file => file.Id, cancellationToken);
        return
        [
            .. ids.Where(files.ContainsKey)
                .Select(id => files[id])
                .Select(file => new FileEndpoints.OwnFileView(file.Id, file.Name, file.Bytes, file.Group, [.. _used![file.Id.Value]])),
        ];
    }
}
