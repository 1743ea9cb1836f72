using System.Collections.Concurrent;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>A file as it lies in the room, before anybody owns it.</summary>
internal sealed record ReceivedFile(string StoredAs, string Name, long Bytes, FileType Type);

/// <summary>
/// Keeps files in the data folder, outside of what the web server shows, under random names. They are written as they
/// come in, never held in memory, and are what their bytes say, not what their name says.
/// </summary>
internal sealed class FileStore(DataFolder folder, TimeProvider time)
{
    private const string Incoming = ".incoming";

    // What stands in the folder and is not known to the database yet. Nobody but this program uses the folder.
    private readonly ConcurrentDictionary<string, bool> _arriving = [];

    /// <summary>Takes a file in, or says why not. What is refused leaves nothing behind.</summary>
    public async Task<(ReceivedFile? Taken, string? Refusal)> TakeAsync(
        Stream body,
        string givenName,
        FilesKind limits,
        CancellationToken cancellationToken
    )
    {
        Directory.CreateDirectory(folder.Files);
        var name = FileTypes.SafeName(givenName);
        var storedAs = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        var path = Path.Combine(folder.Files, storedAs);
        _arriving[storedAs] = true;
        var taken = false;
        try
        {
            long length;
            FileType? type;
            await using (var file = DataFolder.CreatePrivateFile(path + Incoming))
            {
                if (!await CopyAsync(body, file, limits.MaxBytes, cancellationToken))
                    return (null, $"“{name}” is larger than {FileSize.Say(limits.MaxBytes)}. Please send a smaller copy.");
                length = file.Length;
                file.Position = 0;
                var head = new byte[FileTypes.HeadLength];
                type = FileTypes.Recognise(
                    head.AsSpan(0, await file.ReadAtLeastAsync(head, head.Length, throwOnEndOfStream: false, cancellationToken)),
                    name
                );
                file.Flush(flushToDisk: true);
            }

            if (length == 0)
                return (null, $"“{name}” is empty. Please choose another file.");
            if (type is null)
                return (
                    null,
                    $"“{name}” is not a file we can use here, or its name says something else than what is in it. These are fine: {string.Join(", ", FileTypes.Endings(limits.Groups))}."
                );
            if (limits.CheckFile(new FileRef(default, name, length, type.Group)) is { } wrong)
                return (null, wrong);
            File.Move(path + Incoming, path);
            taken = true;
            return (new ReceivedFile(storedAs, name, length, type), null);
        }
        finally
        {
            File.Delete(path + Incoming);
            if (!taken)
                Arrived(storedAs);
        }
    }

    /// <summary>The database knows the file, or it is gone: from now on it stays only as long as it is known.</summary>
    public void Arrived(string storedAs) => _arriving.TryRemove(storedAs, out _);

    public string PathOf(StoredFile file) => Path.Combine(folder.Files, file.StoredAs);

    public void Delete(string storedAs) => File.Delete(Path.Combine(folder.Files, storedAs));

    /// <summary>Removes uploads whose form was never sent, and files nobody knows any more.</summary>
    public async Task SweepAsync(PorchDb db, CancellationToken cancellationToken)
    {
        if (!Directory.Exists(folder.Files))
            return;
        var before = time.Now() - Retention.UnsentUpload;
        await using (var write = await db.WriteAsync(cancellationToken))
        {
            await db
                .StoredFiles.Where(file =>
                    file.SendKey != null
                    && file.SubmissionId == null
                    && file.At < before
                    && !db.UnfinishedForms.Any(draft => draft.SendKey == file.SendKey && draft.Ended == null)
                )
                .ExecuteDeleteAsync(cancellationToken);
            await write.SaveAsync(cancellationToken);
        }

        // In this order: whatever stands in the folder now is on its way in, known, or nobody's.
        var there = Directory.EnumerateFiles(folder.Files).Select(path => Path.GetFileName(path)).ToList();
        var arriving = _arriving.Keys.ToHashSet();
        var known = (await db.StoredFiles.Select(file => file.StoredAs).ToListAsync(cancellationToken)).ToHashSet();
        foreach (
            var name in there.Where(name =>
                !known.Contains(name) && !arriving.Contains(name.Replace(Incoming, "", StringComparison.Ordinal))
            )
        )
            Delete(name);
    }

    private static async Task<bool> CopyAsync(Stream from, FileStream to, long most, CancellationToken cancellationToken)
    {
        var buffer = new byte[64 * 1024];
        for (long total = 0; ; )
        {
            var read = await from.ReadAsync(buffer, cancellationToken);
            if (read == 0)
                return true;
            if ((total += read) > most)
                return false;
            await to.WriteAsync(buffer.AsMemory(0, read), cancellationToken);
        }
    }
}

internal static class FileMaking
{
    /// <summary>Makes a taken file known. When that fails, the file is taken away again.</summary>
    public static async Task<StoredFile> KeepAsync(
        this PorchDb db,
        FileStore store,
        ReceivedFile taken,
        StoredFile file,
        CancellationToken cancellationToken
    )
    {
        try
        {
            await using var write = await db.WriteAsync(cancellationToken);
            db.StoredFiles.Add(file);
            await write.SaveAsync(cancellationToken);
            return file;
        }
        catch
        {
            store.Delete(taken.StoredAs);
            throw;
        }
        finally
        {
            store.Arrived(taken.StoredAs);
        }
    }

    /// <summary>A body may be as large as the limit says, whatever is usual elsewhere.</summary>
    public static void AllowBody(this HttpContext http, long bytes)
    {
        if (http.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = bytes + 64 * 1024;
    }
}
