using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class ClientListIndexes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients",
                column: "MergedIntoId",
                filter: "\"MergedIntoId\" IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_MergedIntoId",
                table: "Clients",
                column: "MergedIntoId");
        }
    }
}
