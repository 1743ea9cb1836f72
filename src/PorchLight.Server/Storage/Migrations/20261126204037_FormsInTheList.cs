using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class FormsInTheList : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "Archived",
                table: "Forms",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Service",
                table: "Forms",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Archived",
                table: "Forms");

            migrationBuilder.DropColumn(
                name: "Service",
                table: "Forms");
        }
    }
}
