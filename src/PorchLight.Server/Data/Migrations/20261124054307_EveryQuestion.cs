using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class EveryQuestion : Migration
    {
        // A page's questions became items, of which questions are one sort.
        private static string QuestionsToItems(string table, string column) => $$"""
            UPDATE "{{table}}" SET "{{column}}" = json_set("{{column}}", '$.pages', json((
                SELECT json_group_array(json(json_remove(json_set(page.value, '$.items', json((
                    SELECT json_group_array(json(json_set(question.value, '$.item', 'question')))
                    FROM json_each(page.value, '$.questions') AS question))), '$.questions')))
                FROM json_each("{{column}}", '$.pages') AS page)))
            """;

        private static string ItemsToQuestions(string table, string column) => $$"""
            UPDATE "{{table}}" SET "{{column}}" = json_set("{{column}}", '$.pages', json((
                SELECT json_group_array(json(json_remove(json_set(page.value, '$.questions', json((
                    SELECT json_group_array(json(json_remove(item.value, '$.item')))
                    FROM json_each(page.value, '$.items') AS item
                    WHERE json_extract(item.value, '$.item') = 'question'))), '$.items')))
                FROM json_each("{{column}}", '$.pages') AS page)))
            """;

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(QuestionsToItems("Forms", "Draft"));
            migrationBuilder.Sql(QuestionsToItems("FormVersions", "Content"));

            migrationBuilder.CreateTable(
                name: "LookUpLines",
                columns: table => new
                {
                    ListId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Position = table.Column<int>(type: "INTEGER", nullable: false),
                    Cells = table.Column<string>(type: "TEXT", nullable: false),
                    Folded = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LookUpLines", x => new { x.ListId, x.Key });
                });

            migrationBuilder.CreateTable(
                name: "LookUpLists",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false),
                    Lines = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LookUpLists", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "StoredFiles",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    StoredAs = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    Group = table.Column<string>(type: "TEXT", nullable: false),
                    ContentType = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Question = table.Column<string>(type: "TEXT", nullable: true),
                    Filling = table.Column<Guid>(type: "TEXT", nullable: true),
                    SubmissionId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_StoredFiles", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_StoredFiles_Filling",
                table: "StoredFiles",
                column: "Filling");

            migrationBuilder.CreateIndex(
                name: "IX_StoredFiles_SubmissionId",
                table: "StoredFiles",
                column: "SubmissionId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(ItemsToQuestions("Forms", "Draft"));
            migrationBuilder.Sql(ItemsToQuestions("FormVersions", "Content"));

            migrationBuilder.DropTable(
                name: "LookUpLines");

            migrationBuilder.DropTable(
                name: "LookUpLists");

            migrationBuilder.DropTable(
                name: "StoredFiles");
        }
    }
}
