using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>How users, invites and sessions are kept.</summary>
internal static class UserTables
{
    public static ModelConfigurationBuilder HaveUsers(this ModelConfigurationBuilder builder) => builder.HaveId<Invite>();

    public static void MapUsers(this ModelBuilder builder)
    {
        builder.Entity<Invite>().HasIndex(invite => invite.LinkHash).IsUnique();
        builder.Entity<Invite>().HasOne<User>().WithMany().HasForeignKey(invite => invite.UserId).OnDelete(DeleteBehavior.Cascade);
        builder.Entity<EndedSession>().HasKey(ended => ended.Session);
    }
}
