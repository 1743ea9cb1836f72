using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class NodsOfRuns : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "NodStatus",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Runs_NodStatus",
                table: "Runs",
                column: "NodStatus",
                filter: "\"NodStatus\" IS NOT NULL");

            // What stands in the state of each run stands beside it, too.
            migrationBuilder.Sql(
                """
                UPDATE "Runs" SET "NodStatus" = (
                    SELECT CASE json_extract(step.value, '$.status') WHEN 'waiting' THEN 'Waiting' ELSE 'Approved' END
                    FROM json_each(COALESCE(json_extract("State", '$.value.steps'), json_extract("State", '$.steps'))) step
                    WHERE json_extract(step.value, '$.status') IN ('waiting', 'approved')
                    LIMIT 1)
                WHERE "Active" AND COALESCE(json_extract("State", '$.value.status'), json_extract("State", '$.status'), 'active') = 'active';
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Runs_NodStatus",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "NodStatus",
                table: "Runs");
        }
    }
}
