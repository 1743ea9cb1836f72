using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class ScreeningWorkedOn : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "By",
                table: "ScreeningVersions",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Since",
                table: "ScreeningVersions",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ScreeningDraft",
                table: "Forms",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "FirstCallMinutes",
                table: "Businesses",
                type: "INTEGER",
                nullable: false,
                defaultValue: 45);

            migrationBuilder.CreateTable(
                name: "LaterVerdicts",
                columns: table => new
                {
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ScreeningVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    Verdict = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LaterVerdicts", x => new { x.InquiryId, x.ScreeningVersion });
                    table.ForeignKey(
                        name: "FK_LaterVerdicts_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OverruledFits",
                columns: table => new
                {
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Fit = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OverruledFits", x => x.InquiryId);
                    table.ForeignKey(
                        name: "FK_OverruledFits_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "LaterVerdicts");

            migrationBuilder.DropTable(
                name: "OverruledFits");

            migrationBuilder.DropColumn(
                name: "By",
                table: "ScreeningVersions");

            migrationBuilder.DropColumn(
                name: "Since",
                table: "ScreeningVersions");

            migrationBuilder.DropColumn(
                name: "ScreeningDraft",
                table: "Forms");

            migrationBuilder.DropColumn(
                name: "FirstCallMinutes",
                table: "Businesses");
        }
    }
}
