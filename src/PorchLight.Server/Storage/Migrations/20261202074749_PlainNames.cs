using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(PorchDb))]
    [Migration("20261202074749_PlainNames")]
    public partial class PlainNames : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(name: "IX_PracticeNotes_ClientId", table: "PracticeNotes");
            migrationBuilder.DropIndex(name: "IX_PracticeNotes_EffectKey", table: "PracticeNotes");
            migrationBuilder.DropIndex(name: "IX_Tellings_Due", table: "Tellings");
            migrationBuilder.RenameTable(name: "PracticeNotes", newName: "ShortMessages");
            migrationBuilder.RenameTable(name: "Tellings", newName: "DueNotifications");
            migrationBuilder.RenameColumn(name: "ToldDailyAt", table: "AspNetUsers", newName: "NotifiedDailyAt");
            migrationBuilder.RenameColumn(name: "ToldAtNight", table: "AspNetUsers", newName: "NotifiedAtNight");
            migrationBuilder.CreateIndex(name: "IX_ShortMessages_ClientId", table: "ShortMessages", column: "ClientId");
            migrationBuilder.CreateIndex(name: "IX_ShortMessages_EffectKey", table: "ShortMessages", column: "EffectKey", unique: true);
            migrationBuilder.CreateIndex(name: "IX_DueNotifications_Due", table: "DueNotifications", column: "Due");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(name: "IX_ShortMessages_ClientId", table: "ShortMessages");
            migrationBuilder.DropIndex(name: "IX_ShortMessages_EffectKey", table: "ShortMessages");
            migrationBuilder.DropIndex(name: "IX_DueNotifications_Due", table: "DueNotifications");
            migrationBuilder.RenameTable(name: "ShortMessages", newName: "PracticeNotes");
            migrationBuilder.RenameTable(name: "DueNotifications", newName: "Tellings");
            migrationBuilder.RenameColumn(name: "NotifiedDailyAt", table: "AspNetUsers", newName: "ToldDailyAt");
            migrationBuilder.RenameColumn(name: "NotifiedAtNight", table: "AspNetUsers", newName: "ToldAtNight");
            migrationBuilder.CreateIndex(name: "IX_PracticeNotes_ClientId", table: "PracticeNotes", column: "ClientId");
            migrationBuilder.CreateIndex(name: "IX_PracticeNotes_EffectKey", table: "PracticeNotes", column: "EffectKey", unique: true);
            migrationBuilder.CreateIndex(name: "IX_Tellings_Due", table: "Tellings", column: "Due");
        }
    }
}
