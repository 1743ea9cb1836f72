using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Server.Demo;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

public sealed class StorageTests
{
    /// <summary>Every type the database keeps as JSON, found in its model.</summary>
    private static IReadOnlyList<Type> KeptAsJson { get; } = FindKeptAsJson();

    /// <summary>Everything that comes in kinds; most of it is kept within something else.</summary>
    private static IReadOnlyList<Type> Families { get; } =
    [
        .. typeof(Answer)
            .Assembly.GetTypes()
            .Where(type =>
                type.IsAbstract
                && (type.GetCustomAttributes<JsonDerivedTypeAttribute>(inherit: false).Any() || type.IsDefined(typeof(KindFamilyAttribute)))
            ),
    ];

    public static TheoryData<string> Written => new(KeptAsJson.Union(Families).Select(type => type.Name));

    public static TheoryData<string> Kept => new(KeptAsJson.Select(type => type.Name));

    [Theory]
    [MemberData(nameof(Kept))]
    public void What_is_kept_as_JSON_comes_back_as_it_was_in_every_kind_and_to_the_last_property(string name)
    {
        var type = KeptAsJson.Single(one => one.Name == name);
        foreach (var value in SampleValues.EachOf(type))
            DeepComparison.FirstDifference(value, Again(value, type)).ShouldBeNull(value.GetType().Name);
    }

    [Fact]
    public void The_forms_screenings_and_follow_throughs_of_the_demo_come_back_as_they_were()
    {
        foreach (
            var value in new object[]
            {
                DemoForm.Wall,
                DemoWorkshop.Screening,
                DemoForm.Screening,
                DemoForm.AfterAnInquiry(Guid.Empty),
                DemoForm.AfterAKindNo(Guid.Empty),
            }
        )
            DeepComparison.FirstDifference(value, Again(value, value.GetType())).ShouldBeNull(value.GetType().Name);
    }

    [Fact]
    public void Every_answer_comes_back_equal()
    {
        foreach (var answer in SampleValues.EachOf(typeof(Answer)))
            Again(answer, typeof(Answer)).ShouldBe(answer);
    }

    [Fact]
    public void Every_kind_is_written_with_a_discriminator_of_its_own()
    {
        Families.ShouldContain(typeof(Condition));
        foreach (var family in Families)
        {
            var named = Json.Options.GetTypeInfo(family).PolymorphismOptions!.DerivedTypes;
            named.Select(kind => kind.TypeDiscriminator).ShouldBeUnique();
            named
                .Select(kind => kind.DerivedType)
                .ShouldBe(
                    family.Assembly.GetTypes().Where(type => type.IsSubclassOf(family) && !type.IsAbstract),
                    ignoreOrder: true,
                    family.Name
                );
        }
    }

    /// <summary>
    /// What each release has written, one file a type. <c>PORCH_LIGHT_GOLDEN=release-2 ./test server golden</c> writes
    /// those of a new format.
    /// </summary>
    [Theory]
    [MemberData(nameof(Written))]
    public void What_any_release_has_written_is_read_and_the_newest_golden_file_is_what_is_written_today(string name)
    {
        var type = KeptAsJson.Union(Families).Single(one => one.Name == name);
        if (Environment.GetEnvironmentVariable("PORCH_LIGHT_GOLDEN") is { Length: > 0 } release)
            WriteGolden(type, release);
        var releases = GoldenOf(name);
        releases.ShouldNotBeEmpty($"{name} has no golden file yet");
        foreach (var file in releases)
        {
            foreach (var stored in JsonNode.Parse(File.ReadAllText(file))!.AsArray())
            {
                var written = Write(Read(stored!.ToJsonString(Json.Options), type), type);
                if (file == releases[^1])
                    JsonNode
                        .DeepEquals(JsonNode.Parse(written), stored)
                        .ShouldBeTrue(
                            $"{name} is written in another way than {file} has it. Add a step to StoredJson and a golden file.\n{written}\n{stored.ToJsonString(Json.Options)}"
                        );
            }
        }

        JsonNode
            .Parse(File.ReadAllText(releases[^1]))!
            .AsArray()
            .Count.ShouldBe(SampleValues.KindsOf(type).Count, "there is one of each kind");
    }

    [Fact]
    public void Older_formats_are_brought_up_step_by_step_and_newer_ones_are_refused()
    {
        Upcaster[] steps =
        [
            old => new JsonObject { ["name"] = old["title"]!.DeepClone() },
            old => new JsonObject { ["name"] = $"{(string)old["name"]!}!", ["text"] = "none" },
        ];
        StoredJson.Read<Titled>("""{"format":1,"value":{"title":"A"}}""", steps).ShouldBe(new Titled("A!", "none"));
        StoredJson.Read<Titled>("""{"format":2,"value":{"name":"A"}}""", steps).ShouldBe(new Titled("A!", "none"));
        StoredJson.Read<Titled>(StoredJson.Write(new Titled("A", "b"), steps), steps).ShouldBe(new Titled("A", "b"));
        foreach (
            var wrong in (string[])
                ["""{"format":4,"value":{}}""", """{"format":0,"value":{}}""", """{"name":"A"}""", "", "{\"format\":1,\"value\":"]
        )
            Should.Throw<JsonException>(() => StoredJson.Read<Titled>(wrong, steps), wrong);
    }

    private sealed record Titled(string Name, string Text);

    [Fact]
    public async Task The_migrations_make_the_model()
    {
        await using var migrated = Model();
        await using var made = Model();
        await migrated.Database.OpenConnectionAsync();
        await migrated.Database.MigrateAsync();
        await made.Database.OpenConnectionAsync();
        await made.Database.EnsureCreatedAsync();
        (await GoldenDatabaseTests.SchemaAsync(migrated))
            // The index of words is no table of the model: a migration makes it by hand.
            .Where(line => !line.Contains("ClientWords", StringComparison.Ordinal))
            .ShouldBe(await GoldenDatabaseTests.SchemaAsync(made), "dotnet ef migrations add, as CONTRIBUTING.md says");
    }

    private static object Again(object value, Type type) => Read(Write(value, type), type);

    private static object Read(string text, Type type) => Stored(nameof(StoredJson.Read), type).Invoke(null, [text])!;

    private static string Write(object value, Type type) => (string)Stored(nameof(StoredJson.Write), type).Invoke(null, [value])!;

    private static MethodInfo Stored(string name, Type type) =>
        typeof(StoredJson).GetMethods().Single(method => method.Name == name).MakeGenericMethod(type);

    private static string Golden => Repository.Find("tests/PorchLight.Server.Tests/Golden");

    private static List<string> GoldenOf(string name) =>
        [
            .. Directory
                .GetDirectories(Golden)
                .Order(StringComparer.Create(CultureInfo.InvariantCulture, CompareOptions.NumericOrdering))
                .Select(release => Path.Combine(release, $"{name}.json"))
                .Where(File.Exists),
        ];

    // What is written as before needs no file of its own.
    private static void WriteGolden(Type type, string release)
    {
        var written = new JsonArray([.. SampleValues.EachOf(type).Select(value => JsonNode.Parse(Write(value, type)))]);
        if (
            GoldenOf(type.Name) is [.., var last]
            && JsonNode.Parse(File.ReadAllText(last))!.AsArray() is var before
            && written.All(value => before.Any(known => JsonNode.DeepEquals(value, known)))
        )
            return;
        var file = Path.Combine(Directory.CreateDirectory(Path.Combine(Golden, release)).FullName, $"{type.Name}.json");
        File.Exists(file).ShouldBeFalse("what a release has written is never written again");
        File.WriteAllText(
            file,
            written.ToJsonString(new JsonSerializerOptions(Json.Options) { WriteIndented = true, MaxDepth = 256 }) + "\n"
        );
    }

    private static PorchDb Model() => new(new DbContextOptionsBuilder<PorchDb>().UseSqlite("Data Source=:memory:").Options);

    private static List<Type> FindKeptAsJson()
    {
        using var db = Model();
        return
        [
            .. db
                .Model.GetEntityTypes()
                .SelectMany(entity => entity.GetProperties())
                .Where(property =>
                    property.GetTypeMapping().Converter is { ProviderClrType: { } stored }
                    && stored == typeof(string)
                    && property.ClrType.IsClass
                )
                .Select(property => property.ClrType)
                .Distinct(),
            // Views keep what a list of theirs is asked.
            .. new[] { typeof(ListQuery), typeof(PorchDb) }
                .SelectMany(one => one.Assembly.GetTypes())
                .Where(type => type.IsSubclassOf(typeof(ListQuery))),
        ];
    }
}
