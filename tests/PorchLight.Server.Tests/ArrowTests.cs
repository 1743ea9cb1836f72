using Mono.Cecil;
using Mono.Cecil.Cil;
using PorchLight.Core.Common;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

/// <summary>
/// Areas know each other in one direction only. What a compiled type refers to is read from the assembly: base types,
/// members, signatures and every instruction. An identifier alone is no knowledge: a lower area may keep the identifier of
/// something above it, as a foreign key does, without looking into it.
/// </summary>
public sealed class ArrowTests
{
    /// <summary>The areas of the rules, each knowing only those before it.</summary>
    private static readonly string[][] CoreOrder =
    [
        ["Common"],
        ["Calendar", "Money", "Brand", "Projects", "Webhooks"],
        ["Answers"],
        ["Conditions"],
        ["Fields"],
        ["Forms"],
        ["Screening"],
        ["Records"],
        ["Messages"],
        ["Meetings"],
        ["Inquiries"],
        ["FollowThrough"],
        ["Ready"],
        ["Workbench"],
    ];

    /// <summary>The areas of the server, each knowing only those before it, and the storage, which knows them all.</summary>
    private static readonly string[][] ServerOrder =
    [
        ["Storage"],
        ["Calendar"],
        ["Hosting"],
        ["Brand"],
        ["Identity"],
        ["Fields"],
        ["Forms"],
        ["Records"],
        ["Lists"],
        ["Messages"],
        ["Inquiries"],
        ["Meetings"],
        ["Webhooks"],
        ["FollowThrough"],
        ["Clients", "Library"],
        ["Ready"],
        ["AcrossAreas"],
        ["Work", "StandIns"],
        ["Demo"],
    ];

    [Fact]
    public void Areas_of_the_core_know_only_those_below_them() =>
        Upward(typeof(Id<>).Assembly.Location, "PorchLight.Core.", CoreOrder, free: []).ShouldBeEmpty();

    [Fact]
    public void Areas_of_the_server_know_only_those_below_them_and_the_storage() =>
        Upward(typeof(PorchDb).Assembly.Location, "PorchLight.Server.", ServerOrder, free: ["Storage"]).ShouldBeEmpty();

    private static List<string> Upward(string assembly, string prefix, string[][] order, string[] free)
    {
        using var module = ModuleDefinition.ReadModule(assembly);
        var found = new SortedSet<string>(StringComparer.Ordinal);
        foreach (var type in module.GetTypes())
        {
            if (AreaOf(type, prefix) is not { } area || free.Contains(area))
                continue;
            foreach (var used in Used(type))
            {
                if (AreaOf(used, prefix) is { } other && other != area && !free.Contains(other) && LevelOf(other) >= LevelOf(area))
                    found.Add($"{area} -> {other}: {Outermost(type).Name} uses {used.Name}");
            }
        }

        return [.. found];

        int LevelOf(string area)
        {
            var level = Array.FindIndex(order, level => level.Contains(area));
            return level >= 0 ? level : throw new InvalidOperationException($"The area {area} has no place in the order yet.");
        }
    }

    private static string? AreaOf(TypeReference type, string prefix)
    {
        var name = Outermost(type).Namespace;
        return name.StartsWith(prefix, StringComparison.Ordinal) ? name[prefix.Length..].Split('.')[0] : null;
    }

    private static TypeReference Outermost(TypeReference type)
    {
        while (type.DeclaringType is { } outer)
            type = outer;
        return type;
    }

    private static IEnumerable<TypeReference> Used(TypeDefinition type) =>
        new[] { type.BaseType }
            .Concat(type.Interfaces.Select(one => one.InterfaceType))
            .Concat(type.Fields.Select(field => field.FieldType))
            .Concat(type.Methods.SelectMany(Used))
            .Where(used => used is not null)
            .SelectMany(Parts);

    private static IEnumerable<TypeReference> Used(MethodDefinition method) =>
        method
            .Parameters.Select(parameter => parameter.ParameterType)
            .Append(method.ReturnType)
            .Concat(method.HasBody ? method.Body.Variables.Select(variable => variable.VariableType) : [])
            .Concat(method.HasBody ? method.Body.Instructions.SelectMany(Used) : []);

    private static IEnumerable<TypeReference> Used(Instruction instruction) =>
        instruction.Operand switch
        {
            TypeReference type => [type],
            GenericInstanceMethod generic => [generic.DeclaringType, .. generic.GenericArguments],
            MethodReference method => [method.DeclaringType],
            FieldReference field => [field.DeclaringType, field.FieldType],
            _ => [],
        };

    /// <summary>A type and what it is made of: elements of arrays, arguments of generic types.</summary>
    private static IEnumerable<TypeReference> Parts(TypeReference type) =>
        type switch
        {
            GenericInstanceType generic when generic.ElementType.Name == typeof(Id<>).Name => [],
            GenericInstanceType generic => generic.GenericArguments.SelectMany(Parts).Append(generic.ElementType),
            TypeSpecification other => Parts(other.ElementType),
            GenericParameter => [],
            _ => [type],
        };
}
