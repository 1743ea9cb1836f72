using System.Diagnostics;
using System.Text.Json.Nodes;

namespace PorchLight.Server.Tests;

/// <summary>Runs a module of the screens beside the server's own code. One process of Node answers everything that is asked.</summary>
internal static class UiCode
{
    private const string Script = """
        import { readFileSync } from "node:fs";
        const lines = readFileSync(0, "utf8").split("\n").filter(Boolean);
        const { build } = await import("vite");
        const [entry, answer] = process.argv.slice(1);
        const [{ output }] = await build({
          configFile: false,
          logLevel: "error",
          build: { write: false, minify: false, target: "esnext", lib: { entry, formats: ["es"], fileName: "module" } },
        });
        const code = await import("data:text/javascript;base64," + Buffer.from(output[0].code).toString("base64"));
        const reply = new Function("code", "asked", answer);
        for (const line of lines) console.log(JSON.stringify(reply(code, JSON.parse(line))));
        """;

    /// <summary>The answers to what is asked, in order.</summary>
    /// <param name="module">The path of the module under the sources of the screens.</param>
    /// <param name="answer">The body of a function in JavaScript that knows the module as <c>code</c> and what is <c>asked</c>.</param>
    /// <param name="asked">Each in one line of JSON.</param>
    public static async Task<List<JsonNode>> AnswersAsync(string module, string answer, IEnumerable<string> asked)
    {
        using var node = Process.Start(
            new ProcessStartInfo("node", ["--input-type=module", "-e", Script, "--", $"src/{module}", answer])
            {
                WorkingDirectory = Repository.Find("src/PorchLight.Ui"),
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var said = node.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        var failed = node.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        await node.StandardInput.WriteAsync(string.Join('\n', asked));
        node.StandardInput.Close();
        await node.WaitForExitAsync(TestContext.Current.CancellationToken);
        node.ExitCode.ShouldBe(0, await failed);
        return [.. (await said).Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => JsonNode.Parse(line)!)];
    }
}
