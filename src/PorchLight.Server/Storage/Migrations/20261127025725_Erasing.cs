using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Erasing : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "IsErased",
                table: "Submissions",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "EraseOn",
                table: "Clients",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "KeepClientsMonths",
                table: "Businesses",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Clients_EraseOn",
                table: "Clients",
                column: "EraseOn",
                filter: "\"EraseOn\" IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Clients_EraseOn",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "IsErased",
                table: "Submissions");

            migrationBuilder.DropColumn(
                name: "EraseOn",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "KeepClientsMonths",
                table: "Businesses");
        }
    }
}
