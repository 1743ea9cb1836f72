using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class SolidGround : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "Accent",
                table: "Businesses",
                newName: "Look");

            // Until here there was one colour.
            migrationBuilder.Sql("""UPDATE "Businesses" SET "Look" = json_object('accent', lower("Look"), 'backdrop', '#f2f3f8', 'typeface', 'hyperlegible')""");

            migrationBuilder.AddColumn<bool>(
                name: "Automatic",
                table: "OutgoingMail",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "IsDemo",
                table: "Businesses",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            // Nobody but the demo could have been made before.
            migrationBuilder.Sql("""UPDATE "Businesses" SET "IsDemo" = 1""");

            migrationBuilder.AddColumn<string>(
                name: "LogoHash",
                table: "Businesses",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Smtp",
                table: "Businesses",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "BrandPictures",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    ContentType = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BrandPictures", x => x.Hash);
                });

            migrationBuilder.CreateTable(
                name: "Invites",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    Role = table.Column<string>(type: "TEXT", nullable: false),
                    SeatId = table.Column<Guid>(type: "TEXT", nullable: true),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    GoodUntil = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Invites", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Invites_LinkHash",
                table: "Invites",
                column: "LinkHash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BrandPictures");

            migrationBuilder.DropTable(
                name: "Invites");

            migrationBuilder.DropColumn(
                name: "Automatic",
                table: "OutgoingMail");

            migrationBuilder.DropColumn(
                name: "IsDemo",
                table: "Businesses");

            migrationBuilder.DropColumn(
                name: "LogoHash",
                table: "Businesses");

            migrationBuilder.DropColumn(
                name: "Smtp",
                table: "Businesses");

            migrationBuilder.RenameColumn(
                name: "Look",
                table: "Businesses",
                newName: "Accent");

            migrationBuilder.Sql("""UPDATE "Businesses" SET "Accent" = json_extract("Accent", '$.accent')""");
        }
    }
}
