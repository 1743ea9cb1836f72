using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class TimedStarts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AlterColumn<Guid>(
                name: "ClientId",
                table: "TeamChat",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AlterColumn<Guid>(
                name: "ProjectId",
                table: "Runs",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AlterColumn<Guid>(
                name: "ClientId",
                table: "Runs",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AddColumn<int>(
                name: "DraftRevision",
                table: "Runs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "SavedDraftId",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DaysLookedAt",
                table: "Businesses",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Runs_SavedDraftId",
                table: "Runs",
                column: "SavedDraftId",
                filter: "\"SavedDraftId\" IS NOT NULL");

            migrationBuilder.AddForeignKey(
                name: "FK_Runs_SavedDrafts_SavedDraftId",
                table: "Runs",
                column: "SavedDraftId",
                principalTable: "SavedDrafts",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Runs_SavedDrafts_SavedDraftId",
                table: "Runs");

            migrationBuilder.DropIndex(
                name: "IX_Runs_SavedDraftId",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "DraftRevision",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "SavedDraftId",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "DaysLookedAt",
                table: "Businesses");

            migrationBuilder.AlterColumn<Guid>(
                name: "ClientId",
                table: "TeamChat",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<Guid>(
                name: "ProjectId",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<Guid>(
                name: "ClientId",
                table: "Runs",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);
        }
    }
}
