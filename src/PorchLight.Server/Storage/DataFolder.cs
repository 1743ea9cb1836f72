using System.Diagnostics.CodeAnalysis;
using System.Text;
using NodaTime;
using NodaTime.Text;

namespace PorchLight.Server.Storage;

/// <summary>The folder in which everything is kept: the database, the keys and the files people sent.</summary>
internal sealed class DataFolder(string path) : IDisposable
{
    private FileStream? _inUse;

    public string Path { get; } = path;

    public string Database => System.IO.Path.Combine(Path, "porch-light.db");

    public string Keys => System.IO.Path.Combine(Path, "keys");

    public string Files => System.IO.Path.Combine(Path, "files");

    /// <summary>When a program used it last before this one, to about a minute; null where nobody noted it.</summary>
    public Instant? LastInUse { get; private set; }

    /// <summary>Notes that it is in use at this moment. It is kept beside the lock, and in no backup.</summary>
    public void NoteInUse(Instant now)
    {
        if (_inUse is null)
            return;
        _inUse.SetLength(0);
        _inUse.Write(Encoding.ASCII.GetBytes(InstantPattern.General.Format(now)));
        _inUse.Flush();
    }

    /// <summary>
    /// Marks the folder as in use by this process, until it ends in whatever way. False when another one uses it: two
    /// programs on one folder would carry out everything twice, and a restore would pull the floor away.
    /// </summary>
    [SuppressMessage("Reliability", "CA2000", Justification = "Kept open until the folder is disposed.")]
    public bool TryUse()
    {
        Directory.CreateDirectory(Path);
        try
        {
            if (_inUse is null)
            {
                _inUse = new FileStream(
                    System.IO.Path.Combine(Path, "in-use"),
                    FileMode.OpenOrCreate,
                    FileAccess.ReadWrite,
                    FileShare.None
                );
                using var reader = new StreamReader(_inUse, leaveOpen: true);
                LastInUse = InstantPattern.General.Parse(reader.ReadToEnd()) is { Success: true, Value: var at } ? at : null;
            }

            KeepPrivate();
            return true;
        }
        catch (IOException)
        {
            return false;
        }
    }

    /// <summary>
    /// Takes the rights of other users of the machine away, also in a folder that somebody made beforehand or that was
    /// restored: 0700 for folders, 0600 for files. Copies a killed process left half done are removed.
    /// </summary>
    public void KeepPrivate()
    {
        RemoveAbandonedCopies();
        if (OperatingSystem.IsWindows())
            return;
        const UnixFileMode file = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        Set(Path, file | UnixFileMode.UserExecute);
        foreach (
            var entry in Directory.EnumerateFileSystemEntries(
                Path,
                "*",
                new EnumerationOptions { RecurseSubdirectories = true, AttributesToSkip = FileAttributes.ReparsePoint }
            )
        )
            Set(entry, Directory.Exists(entry) ? file | UnixFileMode.UserExecute : file);

        [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
        static void Set(string entry, UnixFileMode mode)
        {
            if (File.GetUnixFileMode(entry) != mode)
                File.SetUnixFileMode(entry, mode);
        }
    }

    /// <summary>
    /// Says that a copy is being written, also by another process: until it is disposed no start of the program takes half-written copies
    /// away.
    /// </summary>
    public FileStream BeginCopy() => new(System.IO.Path.Combine(Path, "copying"), FileMode.OpenOrCreate, FileAccess.Read, FileShare.Read);

    /// <summary>Takes away what killed processes left half written, unless somebody is writing a copy now.</summary>
    private void RemoveAbandonedCopies()
    {
        try
        {
            using var nobodyCopies = new FileStream(
                System.IO.Path.Combine(Path, "copying"),
                FileMode.OpenOrCreate,
                FileAccess.ReadWrite,
                FileShare.None,
                1,
                FileOptions.DeleteOnClose
            );
            foreach (var copy in Directory.EnumerateFiles(Path, Unfinished + "*"))
                File.Delete(copy);
        }
        catch (IOException)
        {
            // The next start takes them.
        }
    }

    /// <summary>Writes a page of nothing to the disk and takes it away again; throws when that is not possible.</summary>
    public async Task TryWritingAsync(CancellationToken cancellationToken)
    {
        var path = System.IO.Path.Combine(Path, $"{Unfinished}{Guid.NewGuid():N}");
        await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1, FileOptions.DeleteOnClose);
        await file.WriteAsync(new byte[4096], cancellationToken);
        file.Flush(flushToDisk: true);
    }

    /// <summary>What a file is called while it is only half written.</summary>
    public const string Unfinished = "copy-";

    /// <summary>A new file that nobody but this user can read; whatever stood there is gone.</summary>
    public static FileStream CreatePrivateFile(string file)
    {
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.ReadWrite };
        if (!OperatingSystem.IsWindows())
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        return new FileStream(file, options);
    }

    public void Dispose() => _inUse?.Dispose();
}
