using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class AnswersAndSendKeys : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Site",
                table: "OpenAgainWishes");

            migrationBuilder.AlterColumn<string>(
                name: "Fit",
                table: "Inquiries",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(string),
                oldType: "TEXT");

            migrationBuilder.AddColumn<long>(
                name: "Closed",
                table: "Inquiries",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "WroteBack",
                table: "Inquiries",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PublicAddress",
                table: "Businesses",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "DoneActs",
                columns: table => new
                {
                    Key = table.Column<Guid>(type: "TEXT", nullable: false),
                    Asked = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Status = table.Column<int>(type: "INTEGER", nullable: false),
                    Answer = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DoneActs", x => x.Key);
                });

            migrationBuilder.CreateTable(
                name: "EndedSessions",
                columns: table => new
                {
                    Session = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EndedSessions", x => x.Session);
                });

            // A form without signals sorts nothing; what it was said to sort was never more than a default.
            migrationBuilder.Sql("""
                UPDATE Inquiries SET Fit = NULL WHERE EXISTS (SELECT 1 FROM ScreeningVersions AS version
                    WHERE version.FormId = Inquiries.FormId AND version.Number = Inquiries.ScreeningVersion AND json_array_length(version.Rules, '$.signals') = 0)
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "DoneActs");

            migrationBuilder.DropTable(
                name: "EndedSessions");

            migrationBuilder.DropColumn(
                name: "Closed",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "WroteBack",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "PublicAddress",
                table: "Businesses");

            migrationBuilder.AddColumn<string>(
                name: "Site",
                table: "OpenAgainWishes",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AlterColumn<string>(
                name: "Fit",
                table: "Inquiries",
                type: "TEXT",
                nullable: false,
                defaultValue: "",
                oldClrType: typeof(string),
                oldType: "TEXT",
                oldNullable: true);
        }
    }
}
