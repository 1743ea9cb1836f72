using System.Diagnostics;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.OpenApi;

namespace PorchLight.Server.Tests;

public sealed class ContractTests
{
    [Fact]
    public async Task The_committed_contract_is_the_one_the_server_speaks()
    {
        await using var app = new TestApp();
        var document = await app
            .Services.GetRequiredKeyedService<IOpenApiDocumentProvider>("v1")
            .GetOpenApiDocumentAsync(TestContext.Current.CancellationToken);
        var written = await document.SerializeAsJsonAsync(OpenApiSpecVersion.OpenApi3_1, TestContext.Current.CancellationToken);
        var spoken = JsonNode.Parse(written)!.AsObject();
        var committed = (await CommittedAsync()).AsObject();
        JsonNode
            .DeepEquals(JsonNode.Parse(await app.CreateClient().GetStringAsync("/openapi/v1.json")), committed)
            .ShouldBeTrue("what is shown is the committed file");
        // Where the server happens to listen is no part of the contract.
        spoken.Remove("servers");
        committed.Remove("servers");
        // Comments are gathered only when it is written.
        LeaveCommentsOut(spoken);
        LeaveCommentsOut(committed);
        JsonNode
            .DeepEquals(spoken, committed)
            .ShouldBeTrue("dotnet build src/PorchLight.Server -p:Contract=write, and commit src/PorchLight.Server/openapi.json");
    }

    private static void LeaveCommentsOut(JsonNode? node)
    {
        if (node is JsonObject inner)
        {
            foreach (var comment in new[] { "description", "summary" })
            {
                if (inner[comment] is JsonValue)
                    inner.Remove(comment);
            }
        }

        foreach (var part in node is JsonObject all ? all.Select(one => one.Value) : node as JsonArray ?? [])
            LeaveCommentsOut(part);
    }

    [Fact]
    public async Task Every_operation_has_a_name_of_its_own_and_says_how_it_refuses()
    {
        var contract = await CommittedAsync();
        var operations = contract["paths"]!
            .AsObject()
            .SelectMany(path => path.Value!.AsObject())
            .Select(operation => operation.Value!)
            .ToList();
        operations.Count.ShouldBeGreaterThan(70);
        operations.Select(operation => (string?)operation["operationId"]).ShouldBeUnique();
        operations.ShouldAllBe(operation =>
            operation["operationId"] != null
            && (string?)operation["responses"]!["default"]!["content"]!["application/problem+json"]!["schema"]!["$ref"]
                == "#/components/schemas/Refusal"
        );
        operations.ShouldContain(operation => (string?)operation["operationId"] == "getFormsById");
    }

    /// <summary>
    /// Forms, screenings and follow-throughs, too, have types that are generated: nothing of them may be described as
    /// "anything".
    /// </summary>
    [Fact]
    public async Task Everything_that_forms_screenings_and_follow_throughs_are_made_of_is_described()
    {
        var contract = await CommittedAsync();
        var schemas = contract["components"]!["schemas"]!.AsObject();
        foreach (
            var family in new[]
            {
                "Item",
                "QuestionKind",
                "Condition",
                "Subject",
                "Calculation",
                "AnswerRule",
                "LandsIn",
                "Prefill",
                "Answer",
                "SignalEffect",
                "StartOn",
                "Occasion",
                "StepAction",
                "Anchor",
            }
        )
        {
            var kinds = schemas[family]!["anyOf"]!.AsArray().Select(kind => ((string)kind!["$ref"]!).Split('/')[^1]).ToList();
            kinds.ShouldNotBeEmpty(family);
            foreach (var kind in kinds)
            {
                var name = (string)schemas[family]!["discriminator"]!["propertyName"]!;
                schemas[kind]!["required"]!.AsArray().Select(field => (string?)field).ShouldContain(name, kind);
                schemas[kind]!["properties"]!.AsObject().ShouldAllBe(property => property.Value!.AsObject().Count > 0, kind);
            }
        }

        schemas["QuestionKind"]!["anyOf"]!.AsArray().Count.ShouldBe(PorchLight.Core.Forms.QuestionKinds.All.Count);
    }

    /// <summary>What a refusal is in the contract is what the server writes.</summary>
    [Fact]
    public async Task A_refusal_has_no_more_and_no_less_than_the_contract_says()
    {
        await using var app = new TestApp();
        var contract = (await CommittedAsync())["components"]!["schemas"]!["Refusal"]!;
        var refused = JsonNode
            .Parse(await (await app.SendAsync([])).Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!
            .AsObject();
        refused.Select(field => field.Key).Except(contract["properties"]!.AsObject().Select(field => field.Key)).ShouldBeEmpty();
        contract["required"]!.AsArray().ShouldAllBe(field => refused.ContainsKey((string)field!));
        refused["findings"]!.AsArray().ShouldNotBeEmpty();
    }

    [Fact]
    public async Task The_generated_client_types_are_those_of_the_contract()
    {
        using var check = Process.Start(
            new ProcessStartInfo("npm", ["run", "--silent", "api:check"])
            {
                WorkingDirectory = Repository.Find("src/PorchLight.Ui"),
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var said = await check.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await check.WaitForExitAsync(TestContext.Current.CancellationToken);
        check.ExitCode.ShouldBe(0, "run npm run api in src/PorchLight.Ui and commit schema.d.ts. " + said);
    }

    /// <summary>The contract as it is committed, which the first of these tests compares with what the server speaks.</summary>
    private static async Task<JsonNode> CommittedAsync() =>
        JsonNode.Parse(await File.ReadAllTextAsync(Repository.Find("src/PorchLight.Server/openapi.json")))!;
}
