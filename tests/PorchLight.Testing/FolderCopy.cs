namespace PorchLight.Testing;

internal static class FolderCopy
{
    /// <summary>
    /// Copies a data folder as a restart finds it: without the mark that it is in use, and what the database rebuilds
    /// by itself.
    /// </summary>
    public static void Make(string from, string to)
    {
        foreach (var file in Directory.EnumerateFiles(from, "*", SearchOption.AllDirectories))
        {
            if (Path.GetFileName(file) is "in-use" or "copying" || file.EndsWith("-shm", StringComparison.Ordinal))
                continue;
            var copy = Path.Combine(to, Path.GetRelativePath(from, file));
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }
    }
}
