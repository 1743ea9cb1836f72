using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(PorchDb))]
    [Migration("20261202032247_ListViews")]
    public partial class ListViews : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "ListViews",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    List = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ListViews", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_WebhookCalls_Written_Id",
                table: "WebhookCalls",
                columns: new[] { "Written", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_PracticeMail_At_Id",
                table: "PracticeMail",
                columns: new[] { "At", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_ListViews_List_Name",
                table: "ListViews",
                columns: new[] { "List", "Name" },
                unique: true);

            migrationBuilder.Sql(
                """
                INSERT INTO "ListViews" ("Id", "List", "Name", "Query") SELECT "Id", 'clients', "Name", "Query" FROM "SavedViews";
                INSERT INTO "ListViews" ("Id", "List", "Name", "Query") SELECT "Id", 'inquiries', "Name", "Query" FROM "InquiryListViews";
                """);

            migrationBuilder.DropTable(
                name: "InquiryListViews");

            migrationBuilder.DropTable(
                name: "SavedViews");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_WebhookCalls_Written_Id",
                table: "WebhookCalls");

            migrationBuilder.DropIndex(
                name: "IX_PracticeMail_At_Id",
                table: "PracticeMail");

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

            migrationBuilder.CreateTable(
                name: "SavedViews",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SavedViews", x => x.Id);
                });

            migrationBuilder.Sql(
                """
                INSERT INTO "SavedViews" ("Id", "Name", "Query") SELECT "Id", "Name", "Query" FROM "ListViews" WHERE "List" = 'clients';
                INSERT INTO "InquiryListViews" ("Id", "Name", "Query") SELECT "Id", "Name", "Query" FROM "ListViews" WHERE "List" = 'inquiries';
                """);

            migrationBuilder.DropTable(
                name: "ListViews");
        }
    }
}
