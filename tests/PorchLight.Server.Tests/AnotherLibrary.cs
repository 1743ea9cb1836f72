using System.Diagnostics;
using System.Text.Json;

namespace PorchLight.Server.Tests;

/// <summary>Reads what the program writes with libraries that know nothing of ours, through small scripts beside the screens.</summary>
internal static class AnotherLibrary
{
    /// <summary>What a script makes of an input.</summary>
    public static T Reads<T>(string script, byte[] input)
    {
        var root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "PorchLight.slnx")))
            root = Path.GetDirectoryName(root)!;
        using var node = Process.Start(
            new ProcessStartInfo("node", [Path.Combine(root, "src/PorchLight.Ui/scripts", script)])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                WorkingDirectory = Path.Combine(root, "src/PorchLight.Ui"),
            }
        )!;
        node.StandardInput.BaseStream.Write(input);
        node.StandardInput.Close();
        return JsonSerializer.Deserialize<T>(node.StandardOutput.ReadToEnd())!;
    }
}
