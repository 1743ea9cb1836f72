using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class TeamChatOfLeftForms : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "SavedDraftId",
                table: "TeamChat",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_TeamChat_SavedDraftId",
                table: "TeamChat",
                column: "SavedDraftId");

            migrationBuilder.AddForeignKey(
                name: "FK_TeamChat_SavedDrafts_SavedDraftId",
                table: "TeamChat",
                column: "SavedDraftId",
                principalTable: "SavedDrafts",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_TeamChat_SavedDrafts_SavedDraftId",
                table: "TeamChat");

            migrationBuilder.DropIndex(
                name: "IX_TeamChat_SavedDraftId",
                table: "TeamChat");

            migrationBuilder.DropColumn(
                name: "SavedDraftId",
                table: "TeamChat");
        }
    }
}
