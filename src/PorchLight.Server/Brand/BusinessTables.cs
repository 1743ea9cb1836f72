using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Brand;

/// <summary>How the business is kept.</summary>
internal static class BusinessTables
{
    public static ModelConfigurationBuilder HaveBusiness(this ModelConfigurationBuilder builder) =>
        builder
            .HaveSharedJson<WorkingHours>()
            .HaveSharedJson<BrandLook>()
            .HaveSharedJson<BusinessLists>()
            .HaveJson<SmtpSettings>()
            .HaveJson<ImapSettings>();

    public static void MapBusiness(this ModelBuilder builder)
    {
        builder.Entity<BrandPicture>().HasKey(picture => picture.Hash);
        builder
            .Entity<Business>()
            .HasOne<BrandPicture>()
            .WithMany()
            .HasForeignKey(business => business.LogoHash)
            .OnDelete(DeleteBehavior.SetNull);
    }
}
