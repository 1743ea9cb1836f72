using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class InquiryColumns : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Budget",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<double>(
                name: "BudgetAmount",
                table: "Inquiries",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Service",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SortName",
                table: "Inquiries",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Source",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_BudgetAmount_Id",
                table: "Inquiries",
                columns: new[] { "BudgetAmount", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_SortName_Id",
                table: "Inquiries",
                columns: new[] { "SortName", "Id" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Inquiries_BudgetAmount_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_SortName_Id",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Budget",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "BudgetAmount",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Service",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "SortName",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Source",
                table: "Inquiries");
        }
    }
}
