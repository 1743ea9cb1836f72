using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>What can be done from the terminal of the machine, instead of serving.</summary>
internal static class Commands
{
    /// <summary>Carries out the command and gives its exit code; null when there is none and the program is to be served.</summary>
    public static async Task<int?> RunAsync(WebApplication app, string[] args)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var services = scope.ServiceProvider;
        switch (args)
        {
            case ["backup", var file]:
                return Say(await services.GetRequiredService<Backup>().WriteAsync(Path.GetFullPath(file), CancellationToken.None));
            case ["restore", var file]:
                var known = services.GetRequiredService<PorchDb>().Database.GetMigrations().ToHashSet();
                return Say(await services.GetRequiredService<Backup>().RestoreAsync(Path.GetFullPath(file), known, CancellationToken.None));
            case ["password-link", var email]:
                return Say(await PasswordLinkAsync(services, email));
            default:
                return null;
        }
    }

    /// <summary>A link by which somebody who forgot their password chooses a new one: for an owner nobody else can help.</summary>
    private static async Task<CommandResult> PasswordLinkAsync(IServiceProvider services, string email)
    {
        var users = services.GetRequiredService<UserManager<User>>();
        var tokens = services.GetRequiredService<Tokens>();
        if (!File.Exists(services.GetRequiredService<DataFolder>().Database) || await users.FindByEmailAsync(email) is not { } user)
            return new CommandResult(false, $"Nobody here has the e-mail address {email}.");
        var db = services.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var invite = await PeopleEndpoints.OpenPasswordLinkAsync(
            db,
            tokens,
            services.GetRequiredService<TimeProvider>(),
            users,
            user,
            CancellationToken.None
        );
        await write.SaveAsync(CancellationToken.None);
        return new CommandResult(
            true,
            $"{user.DisplayName} can choose a new password within seven days at the address of Porch Light followed by\n/join/{tokens.Open(invite.LinkSealed)}"
        );
    }

    private static int Say(CommandResult report)
    {
        (report.Done ? Console.Out : Console.Error).WriteLine(report.Sentence);
        return report.Done ? 0 : 1;
    }
}
