using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class FollowThroughsWorkedOn : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "StoredFollowThroughs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    IsOn = table.Column<bool>(type: "INTEGER", nullable: false),
                    Draft = table.Column<string>(type: "TEXT", nullable: true),
                    Archived = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StoredFollowThroughs", x => x.Id);
                });

            migrationBuilder.Sql(
                """
                INSERT INTO "StoredFollowThroughs" ("Id", "Number", "IsOn")
                SELECT "Id", "Number", "Live" FROM "FollowThroughs" AS one
                WHERE "Number" = (SELECT MAX("Number") FROM "FollowThroughs" AS other WHERE other."Id" = one."Id")
                """);

            migrationBuilder.CreateTable(
                name: "FollowThroughVersions",
                columns: table => new
                {
                    FollowThroughId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    Content = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<long>(type: "INTEGER", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FollowThroughVersions", x => new { x.FollowThroughId, x.Number });
                    table.ForeignKey(
                        name: "FK_FollowThroughVersions_StoredFollowThroughs_FollowThroughId",
                        column: x => x.FollowThroughId,
                        principalTable: "StoredFollowThroughs",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.Sql(
                """
                INSERT INTO "FollowThroughVersions" ("FollowThroughId", "Number", "Content")
                SELECT "Id", "Number", "Content" FROM "FollowThroughs"
                """);

            migrationBuilder.DropForeignKey(
                name: "FK_Runs_FollowThroughs_FollowThroughId_FollowThroughNumber",
                table: "Runs");

            migrationBuilder.AlterColumn<Guid>(
                name: "InquiryId",
                table: "Runs",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AddColumn<string>(
                name: "Failure",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Tries",
                table: "Runs",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateIndex(
                name: "IX_Runs_FollowThroughId",
                table: "Runs",
                column: "FollowThroughId",
                filter: "\"Active\"");

            migrationBuilder.AddForeignKey(
                name: "FK_Runs_FollowThroughVersions_FollowThroughId_FollowThroughNumber",
                table: "Runs",
                columns: new[] { "FollowThroughId", "FollowThroughNumber" },
                principalTable: "FollowThroughVersions",
                principalColumns: new[] { "FollowThroughId", "Number" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("What was stored since then would be lost. Restore a backup instead.");
    }
}
