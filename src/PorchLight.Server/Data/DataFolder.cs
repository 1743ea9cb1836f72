using System.Diagnostics.CodeAnalysis;

namespace PorchLight.Server.Data;

/// <summary>The folder in which everything is kept: the database, the keys and the files people sent.</summary>
internal sealed class DataFolder(string path) : IDisposable
{
    private FileStream? _inUse;

    public string Path { get; } = path;

    public string Database => System.IO.Path.Combine(Path, "porch-light.db");

    public string Keys => System.IO.Path.Combine(Path, "keys");

    public string Files => System.IO.Path.Combine(Path, "files");

    /// <summary>
    /// Marks the folder as in use by this process, until it ends in whatever way. False when another one uses it: two
    /// houses on one folder would carry out everything twice, and a restore would pull the floor away.
    /// </summary>
    [SuppressMessage("Reliability", "CA2000", Justification = "Kept open until the folder is disposed.")]
    public bool TryUse()
    {
        if (OperatingSystem.IsWindows())
            Directory.CreateDirectory(Path);
        else
            Directory.CreateDirectory(Path, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        try
        {
            _inUse ??= new FileStream(System.IO.Path.Combine(Path, "in-use"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            return true;
        }
        catch (IOException)
        {
            return false;
        }
    }

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
