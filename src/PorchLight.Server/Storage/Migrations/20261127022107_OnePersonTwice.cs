using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class OnePersonTwice : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Clients_EmailKey",
                table: "Clients");

            migrationBuilder.AddColumn<Guid>(
                name: "MergedIntoId",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "ClientKeys",
                columns: table => new
                {
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientKeys", x => new { x.ClientId, x.Key });
                    table.ForeignKey(
                        name: "FK_ClientKeys_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientMerges",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    KeptId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OtherId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Memory = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Split = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientMerges", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ClientMerges_Clients_KeptId",
                        column: x => x.KeptId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ClientMerges_Clients_OtherId",
                        column: x => x.OtherId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientPairs",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OneId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OtherId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Likeness = table.Column<string>(type: "TEXT", nullable: false),
                    AreTwo = table.Column<long>(type: "INTEGER", nullable: true),
                    DecidedBy = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientPairs", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ClientPairs_Clients_OneId",
                        column: x => x.OneId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ClientPairs_Clients_OtherId",
                        column: x => x.OtherId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Clients_EmailKey",
                table: "Clients",
                column: "EmailKey");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients",
                column: "MergedIntoId");

            migrationBuilder.CreateIndex(
                name: "IX_ClientKeys_Key",
                table: "ClientKeys",
                column: "Key");

            migrationBuilder.CreateIndex(
                name: "IX_ClientMerges_KeptId",
                table: "ClientMerges",
                column: "KeptId");

            migrationBuilder.CreateIndex(
                name: "IX_ClientPairs_OneId_OtherId",
                table: "ClientPairs",
                columns: new[] { "OneId", "OtherId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ClientPairs_OtherId",
                table: "ClientPairs",
                column: "OtherId");

            migrationBuilder.AddForeignKey(
                name: "FK_Clients_Clients_MergedIntoId",
                table: "Clients",
                column: "MergedIntoId",
                principalTable: "Clients",
                principalColumn: "Id",
                onDelete: ReferentialAction.Cascade);

            // Whoever is here already is looked at once.
            migrationBuilder.Sql("UPDATE \"Clients\" SET \"IsUnindexed\" = 1");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Clients_Clients_MergedIntoId",
                table: "Clients");

            migrationBuilder.DropTable(
                name: "ClientKeys");

            migrationBuilder.DropTable(
                name: "ClientMerges");

            migrationBuilder.DropTable(
                name: "ClientPairs");

            migrationBuilder.DropIndex(
                name: "IX_Clients_EmailKey",
                table: "Clients");

            migrationBuilder.DropIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "MergedIntoId",
                table: "Clients");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_EmailKey",
                table: "Clients",
                column: "EmailKey",
                unique: true);
        }
    }
}
