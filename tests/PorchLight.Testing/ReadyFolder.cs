using System.Collections.Concurrent;
using System.Net;
using Microsoft.AspNetCore.Mvc.Testing.Handlers;
using Microsoft.Extensions.Time.Testing;
using PorchLight.Server.Demo;
using static PorchLight.Testing.Requests;

namespace PorchLight.Testing;

/// <summary>What a signed-in browser carries: its cookies, and the antiforgery token of its requests.</summary>
internal sealed record SignedIn(IReadOnlyList<(string Name, string Value)> Cookies, string Antiforgery);

/// <summary>
/// A data folder as it is right after a first start, with the cookies of its people. It is made once in a run (migrated,
/// furnished, signed in to), and each test works on a copy.
/// </summary>
internal sealed class ReadyFolder
{
    private static readonly ConcurrentDictionary<(SeedData, DateTimeOffset), Lazy<ReadyFolder>> Made = [];

    private readonly string _path;

    private ReadyFolder(string path, SignedIn? owner, SignedIn? member) => (_path, Owner, Member) = (path, owner, member);

    /// <summary>The owner's cookies, good in every copy; null in an empty program.</summary>
    public SignedIn? Owner { get; }

    /// <summary>The member's.</summary>
    public SignedIn? Member { get; }

    /// <summary>The one with these things in it, made at this time.</summary>
    public static ReadyFolder Of(SeedData furnishing, DateTimeOffset at) =>
        Made.GetOrAdd((furnishing, at), key => new(() => Task.Run(() => MakeAsync(key.Item1, key.Item2)).GetAwaiter().GetResult())).Value;

    public void CopyTo(string folder) => FolderCopy.Make(_path, folder);

    private static async Task<ReadyFolder> MakeAsync(SeedData furnishing, DateTimeOffset at)
    {
        var path = Directory.CreateTempSubdirectory("porch-light-ready-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(path, recursive: true);
        await using var app = new TestApp
        {
            Folder = path,
            SeedData = furnishing,
            Time = new FakeTimeProvider(at),
        };
        _ = app.Server;
        return furnishing == SeedData.Empty
            ? new ReadyFolder(path, null, null)
            : new ReadyFolder(path, await SignInAsync(app, DemoBusiness.OwnerMail), await SignInAsync(app, DemoBusiness.MemberMail));
    }

    private static async Task<SignedIn> SignInAsync(TestApp app, string email)
    {
        var jar = new CookieContainer();
        using var client = app.CreateDefaultClient(new CookieContainerHandler(jar));
        await RefreshTokenAsync(client);
        (await client.PostAsync("/api/sign-in", Body(new { email, password = DemoBusiness.Password }))).EnsureSuccessStatusCode();
        await RefreshTokenAsync(client);
        return new SignedIn(
            [.. jar.GetAllCookies().Select(cookie => (cookie.Name, cookie.Value))],
            client.DefaultRequestHeaders.GetValues(AntiforgeryHeader).Single()
        );
    }
}
