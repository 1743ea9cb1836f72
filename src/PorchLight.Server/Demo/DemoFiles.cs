using System.Reflection;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>The pictures, papers and lists of the demo business, by the identifiers its forms know them by. All made up.</summary>
internal sealed record DemoFiles(
    Guid Shopfronts,
    Guid Gilded,
    Guid Painted,
    Guid Workshop,
    Guid WhatToBring,
    Guid Lettering,
    Guid Maren,
    Guid Colours
)
{
    /// <summary>Takes them in the way an owner's uploads are.</summary>
    public static async Task<DemoFiles> TakeInAsync(PorchDb db, FileStore store, TimeProvider time)
    {
        var colours = new Id<LookUpList>(Guid.CreateVersion7());
        await using (var csv = Open("colours.csv"))
        {
            var (columns, lines, refusal) = await ListCsv.ReadAsync(csv, colours, CancellationToken.None);
            if (refusal is not null)
                throw new InvalidOperationException(refusal);
            await using var write = await db.WriteAsync(CancellationToken.None);
            db.LookUpLists.Add(
                new LookUpList
                {
                    Id = colours,
                    Name = "House colours",
                    Columns = columns,
                    Lines = lines.Count,
                }
            );
            db.LookUpLines.AddRange(lines);
            await write.SaveAsync(CancellationToken.None);
        }

        return new DemoFiles(
            await TakeAsync("shopfronts.png"),
            await TakeAsync("gilded.png"),
            await TakeAsync("painted.png"),
            await TakeAsync("workshop.png"),
            await TakeAsync("what-to-bring.txt"),
            await TakeAsync("lettering.webm"),
            await TakeAsync("maren.png"),
            colours.Value
        );

        async Task<Guid> TakeAsync(string name)
        {
            await using var own = Open(name);
            var (taken, refusal) = await store.TakeAsync(own, name, new FilesKind(), CancellationToken.None);
            if (taken is null)
                throw new InvalidOperationException(refusal);
            return (await db.KeepAsync(store, taken, StoredFile.Own(taken, time.Now()), CancellationToken.None)).Id.Value;
        }
    }

    private static Stream Open(string name) =>
        Assembly.GetExecutingAssembly().GetManifestResourceStream($"Demo.{name}")
        ?? throw new InvalidOperationException($"The demo has no {name}.");
}
