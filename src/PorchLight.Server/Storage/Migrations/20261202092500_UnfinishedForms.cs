using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(PorchDb))]
    [Migration("20261202092500_UnfinishedForms")]
    public partial class UnfinishedForms : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            DropIndexes(migrationBuilder, "SavedDrafts", "SavedDraftId");
            migrationBuilder.RenameTable(name: "SavedDrafts", newName: "UnfinishedForms");
            migrationBuilder.RenameColumn(name: "SavedDraftId", table: "Runs", newName: "UnfinishedFormId");
            migrationBuilder.RenameColumn(name: "SavedDraftId", table: "TeamChat", newName: "UnfinishedFormId");
            migrationBuilder.RenameColumn(name: "Place", table: "Fields", newName: "Position");
            CreateIndexes(migrationBuilder, "UnfinishedForms", "UnfinishedFormId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            DropIndexes(migrationBuilder, "UnfinishedForms", "UnfinishedFormId");
            migrationBuilder.RenameTable(name: "UnfinishedForms", newName: "SavedDrafts");
            migrationBuilder.RenameColumn(name: "UnfinishedFormId", table: "Runs", newName: "SavedDraftId");
            migrationBuilder.RenameColumn(name: "UnfinishedFormId", table: "TeamChat", newName: "SavedDraftId");
            migrationBuilder.RenameColumn(name: "Position", table: "Fields", newName: "Place");
            CreateIndexes(migrationBuilder, "SavedDrafts", "SavedDraftId");
        }

        private static void DropIndexes(MigrationBuilder migrationBuilder, string table, string column)
        {
            migrationBuilder.DropIndex(name: $"IX_{table}_FormId_SendKey", table: table);
            migrationBuilder.DropIndex(name: $"IX_{table}_GoodUntil", table: table);
            migrationBuilder.DropIndex(name: $"IX_{table}_LinkHash", table: table);
            migrationBuilder.DropIndex(name: $"IX_Runs_{column}", table: "Runs");
            migrationBuilder.DropIndex(name: $"IX_TeamChat_{column}", table: "TeamChat");
        }

        private static void CreateIndexes(MigrationBuilder migrationBuilder, string table, string column)
        {
            migrationBuilder.CreateIndex(
                name: $"IX_{table}_FormId_SendKey",
                table: table,
                columns: new[] { "FormId", "SendKey" },
                unique: true
            );
            migrationBuilder.CreateIndex(name: $"IX_{table}_GoodUntil", table: table, column: "GoodUntil");
            migrationBuilder.CreateIndex(name: $"IX_{table}_LinkHash", table: table, column: "LinkHash", unique: true);
            migrationBuilder.CreateIndex(
                name: $"IX_Runs_{column}",
                table: "Runs",
                column: column,
                filter: $"\"{column}\" IS NOT NULL"
            );
            migrationBuilder.CreateIndex(name: $"IX_TeamChat_{column}", table: "TeamChat", column: column);
        }
    }
}
