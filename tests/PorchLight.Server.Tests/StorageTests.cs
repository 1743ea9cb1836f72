using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Server.Data;
using PorchLight.Server.Demo;

namespace PorchLight.Server.Tests;

public sealed class StorageTests
{
    /// <summary>Every type the database keeps as JSON, found in its model.</summary>
    private static IReadOnlyList<Type> KeptAsJson { get; } = FindKeptAsJson();

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
        foreach (var value in new object[] { DemoForm.Wall, DemoWorkshop.Screening, DemoForm.Screening, DemoForm.AfterAnInquiry(Guid.Empty), DemoForm.AfterAKindNo(Guid.Empty) })
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
        var families = typeof(Answer).Assembly.GetTypes().Where(type => type.IsAbstract && type.GetCustomAttributes<JsonDerivedTypeAttribute>(inherit: false).Any()).ToList();
        families.ShouldContain(typeof(Condition));
        foreach (var family in families)
        {
            var named = family.GetCustomAttributes<JsonDerivedTypeAttribute>(inherit: false).ToList();
            named.Select(kind => kind.TypeDiscriminator).ShouldBeUnique();
            named.Select(kind => kind.DerivedType).ShouldBe(family.Assembly.GetTypes().Where(type => type.IsSubclassOf(family) && !type.IsAbstract), ignoreOrder: true, family.Name);
        }
    }

    [Fact]
    public void The_migrations_make_the_model()
    {
        using var db = Model();
        db.Database.HasPendingModelChanges().ShouldBeFalse("dotnet ef migrations add, as CONTRIBUTING.md says");
    }

    private static object Again(object value, Type type) => JsonSerializer.Deserialize(JsonSerializer.Serialize(value, type, Json.Options), type, Json.Options)!;

    private static PorchDb Model() => new(new DbContextOptionsBuilder<PorchDb>().UseSqlite().Options);

    private static List<Type> FindKeptAsJson()
    {
        using var db = Model();
        return [.. db.Model.GetEntityTypes().SelectMany(entity => entity.GetProperties())
            .Where(property => property.GetTypeMapping().Converter is { ProviderClrType: { } stored } && stored == typeof(string) && property.ClrType.IsClass)
            .Select(property => property.ClrType).Distinct()];
    }
}
