using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(PorchDb))]
    [Migration("20261202193727_MeetingAtSendOff")]
    public partial class MeetingAtSendOff : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Of the model there is no picture to make the table anew by, and none is needed to add a column.
            migrationBuilder.Sql(
                """ALTER TABLE "Meetings" ADD COLUMN "SubmissionId" TEXT NULL CONSTRAINT "FK_Meetings_Submissions_SubmissionId" REFERENCES "Submissions" ("Id") ON DELETE SET NULL"""
            );

            migrationBuilder.CreateIndex(
                name: "IX_Meetings_SubmissionId",
                table: "Meetings",
                column: "SubmissionId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Meetings_SubmissionId",
                table: "Meetings");

            migrationBuilder.Sql("""ALTER TABLE "Meetings" DROP COLUMN "SubmissionId" """);
        }
    }
}
