using System.Runtime.CompilerServices;

namespace PorchLight.Testing;

/// <summary>The files this program is made of.</summary>
internal static class Repository
{
    /// <summary>Where a file or folder of the repository lies.</summary>
    /// <param name="path">From the root of the repository: "src/PorchLight.Ui".</param>
    public static string Find(string path) => Path.GetFullPath(Path.Combine(Here(), "../..", path));

    private static string Here([CallerFilePath] string file = "") => Path.GetDirectoryName(file)!;
}
