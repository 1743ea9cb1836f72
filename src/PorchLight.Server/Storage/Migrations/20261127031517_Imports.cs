using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Imports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "ImportId",
                table: "Notes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "ImportId",
                table: "FieldValues",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "ImportId",
                table: "ClientTags",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "ImportId",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "ClientImports",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FileName = table.Column<string>(type: "TEXT", nullable: false),
                    Encoding = table.Column<string>(type: "TEXT", nullable: false),
                    Plan = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    ByUser = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Lines = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkedThrough = table.Column<int>(type: "INTEGER", nullable: false),
                    Made = table.Column<int>(type: "INTEGER", nullable: false),
                    Filled = table.Column<int>(type: "INTEGER", nullable: false),
                    LeftOut = table.Column<int>(type: "INTEGER", nullable: false),
                    Stayed = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientImports", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "ClientImportFiles",
                columns: table => new
                {
                    ImportId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Table = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientImportFiles", x => x.ImportId);
                    table.ForeignKey(
                        name: "FK_ClientImportFiles_ClientImports_ImportId",
                        column: x => x.ImportId,
                        principalTable: "ClientImports",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Notes_ImportId",
                table: "Notes",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_ImportId",
                table: "FieldValues",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_ClientTags_ImportId",
                table: "ClientTags",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_ImportId",
                table: "Clients",
                column: "ImportId",
                filter: "\"ImportId\" IS NOT NULL");

            migrationBuilder.AddForeignKey(
                name: "FK_Clients_ClientImports_ImportId",
                table: "Clients",
                column: "ImportId",
                principalTable: "ClientImports",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_ClientTags_ClientImports_ImportId",
                table: "ClientTags",
                column: "ImportId",
                principalTable: "ClientImports",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_FieldValues_ClientImports_ImportId",
                table: "FieldValues",
                column: "ImportId",
                principalTable: "ClientImports",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_Notes_ClientImports_ImportId",
                table: "Notes",
                column: "ImportId",
                principalTable: "ClientImports",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Clients_ClientImports_ImportId",
                table: "Clients");

            migrationBuilder.DropForeignKey(
                name: "FK_ClientTags_ClientImports_ImportId",
                table: "ClientTags");

            migrationBuilder.DropForeignKey(
                name: "FK_FieldValues_ClientImports_ImportId",
                table: "FieldValues");

            migrationBuilder.DropForeignKey(
                name: "FK_Notes_ClientImports_ImportId",
                table: "Notes");

            migrationBuilder.DropTable(
                name: "ClientImportFiles");

            migrationBuilder.DropTable(
                name: "ClientImports");

            migrationBuilder.DropIndex(
                name: "IX_Notes_ImportId",
                table: "Notes");

            migrationBuilder.DropIndex(
                name: "IX_FieldValues_ImportId",
                table: "FieldValues");

            migrationBuilder.DropIndex(
                name: "IX_ClientTags_ImportId",
                table: "ClientTags");

            migrationBuilder.DropIndex(
                name: "IX_Clients_ImportId",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "ImportId",
                table: "Notes");

            migrationBuilder.DropColumn(
                name: "ImportId",
                table: "FieldValues");

            migrationBuilder.DropColumn(
                name: "ImportId",
                table: "ClientTags");

            migrationBuilder.DropColumn(
                name: "ImportId",
                table: "Clients");
        }
    }
}
