using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class InquiryLists : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "LostReason",
                table: "Projects",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ParkedUntil",
                table: "Projects",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "About",
                table: "Inquiries",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "Flags",
                table: "Inquiries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Need",
                table: "Inquiries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Score",
                table: "Inquiries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "Urgency",
                table: "Inquiries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.CreateTable(
                name: "InquiryListViews",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_InquiryListViews", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Projects_ParkedUntil",
                table: "Projects",
                column: "ParkedUntil",
                filter: "\"ParkedUntil\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Received_Id",
                table: "Inquiries",
                columns: new[] { "Received", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Score_Id",
                table: "Inquiries",
                columns: new[] { "Score", "Id" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "InquiryListViews");

            migrationBuilder.DropIndex(
                name: "IX_Projects_ParkedUntil",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Need_Urgency_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Received_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Score_Id",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "LostReason",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "ParkedUntil",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "About",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Flags",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Need",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Score",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Urgency",
                table: "Inquiries");
        }
    }
}
