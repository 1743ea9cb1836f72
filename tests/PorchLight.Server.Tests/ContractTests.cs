using System.Diagnostics;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;

namespace PorchLight.Server.Tests;

public sealed class ContractTests
{
    [Fact]
    public async Task The_committed_contract_is_the_one_the_server_speaks()
    {
        await using var app = new TestApp();
        var spoken = JsonNode.Parse(await app.CreateClient().GetStringAsync("/openapi/v1.json"))!.AsObject();
        var committed = JsonNode.Parse(await File.ReadAllTextAsync(Repository("src/PorchLight.Server/openapi.json")))!.AsObject();
        // Where the server happens to listen is no part of the contract.
        spoken.Remove("servers");
        committed.Remove("servers");
        JsonNode.DeepEquals(spoken, committed).ShouldBeTrue("build the server and commit src/PorchLight.Server/openapi.json");
    }

    [Fact]
    public async Task The_generated_client_types_are_those_of_the_contract()
    {
        using var check = Process.Start(new ProcessStartInfo("npm", ["run", "--silent", "api:check"])
        {
            WorkingDirectory = Repository("src/PorchLight.Ui"), RedirectStandardOutput = true, RedirectStandardError = true,
        })!;
        var said = await check.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await check.WaitForExitAsync(TestContext.Current.CancellationToken);
        check.ExitCode.ShouldBe(0, "run npm run api in src/PorchLight.Ui and commit schema.d.ts. " + said);
    }

    private static string Repository(string path, [CallerFilePath] string here = "") => Path.Combine(Path.GetDirectoryName(here)!, "../..", path);
}
