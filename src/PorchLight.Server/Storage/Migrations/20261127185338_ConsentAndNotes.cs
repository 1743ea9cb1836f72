using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class ConsentAndNotes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Unsubscribe",
                table: "OutgoingMail",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "PracticeNotes",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    EffectKey = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Phone = table.Column<string>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeNotes", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PracticeNotes_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "UnsubscribeLinks",
                columns: table => new
                {
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Sealed = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_UnsubscribeLinks", x => x.ClientId);
                    table.ForeignKey(
                        name: "FK_UnsubscribeLinks_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_PracticeNotes_ClientId",
                table: "PracticeNotes",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_PracticeNotes_EffectKey",
                table: "PracticeNotes",
                column: "EffectKey",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_UnsubscribeLinks_Hash",
                table: "UnsubscribeLinks",
                column: "Hash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "PracticeNotes");

            migrationBuilder.DropTable(
                name: "UnsubscribeLinks");

            migrationBuilder.DropColumn(
                name: "Unsubscribe",
                table: "OutgoingMail");
        }
    }
}
