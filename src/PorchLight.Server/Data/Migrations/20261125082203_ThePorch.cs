using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class ThePorch : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "EmbedOn",
                table: "Forms",
                newName: "Settings");

            // The sites that may embed a form were words parted by blanks.
            migrationBuilder.Sql("""
                UPDATE "Forms" SET "Settings" = json_object('embedOn', json(
                    CASE WHEN trim("Settings") = '' THEN '[]' ELSE '["' || replace(trim("Settings"), ' ', '","') || '"]' END));
                """);

            migrationBuilder.AddColumn<Guid>(
                name: "PersonalLinkId",
                table: "Submissions",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ProofHash",
                table: "Submissions",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ReceiptHash",
                table: "Submissions",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            // What made no inquiry has no receipt anybody asks for; it only must not be that of another.
            migrationBuilder.Sql("""
                UPDATE "Submissions" SET "ReceiptHash" = coalesce(
                    (SELECT "ReceiptHash" FROM "Inquiries" WHERE "SubmissionId" = "Submissions"."Id"), hex(randomblob(32)));
                """);

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_ReceiptHash",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "ReceiptHash",
                table: "Inquiries");

            migrationBuilder.AlterColumn<Guid>(
                name: "ClientId",
                table: "OutgoingMail",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AddColumn<bool>(
                name: "Waits",
                table: "Inquiries",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "WantedMonth",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ContactLines",
                table: "Businesses",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "KeepUnfinishedDays",
                table: "Businesses",
                type: "INTEGER",
                nullable: false,
                defaultValue: 30);

            migrationBuilder.AddColumn<string>(
                name: "Lists",
                table: "Businesses",
                type: "TEXT",
                nullable: false,
                defaultValue: """{"services":[],"sources":[]}""");

            migrationBuilder.AddColumn<Guid>(
                name: "OwnerPhoto",
                table: "Businesses",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "KeptFillings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormVersion = table.Column<int>(type: "INTEGER", nullable: false),
                    SendKey = table.Column<Guid>(type: "TEXT", nullable: false),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    Page = table.Column<string>(type: "TEXT", nullable: false),
                    Answers = table.Column<string>(type: "TEXT", nullable: true),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false),
                    MailedTo = table.Column<string>(type: "TEXT", nullable: true),
                    Saved = table.Column<long>(type: "INTEGER", nullable: false),
                    GoodUntil = table.Column<long>(type: "INTEGER", nullable: false),
                    Ended = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_KeptFillings", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "OpenAgainWishes",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    EmailKey = table.Column<string>(type: "TEXT", nullable: false),
                    Site = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OpenAgainWishes", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PersonalLinks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    FormId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    GivenName = table.Column<string>(type: "TEXT", nullable: false),
                    FamilyName = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: true),
                    MadeBy = table.Column<string>(type: "TEXT", nullable: false),
                    Made = table.Column<long>(type: "INTEGER", nullable: false),
                    GoodUntil = table.Column<long>(type: "INTEGER", nullable: false),
                    Opened = table.Column<long>(type: "INTEGER", nullable: true),
                    SubmissionId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Used = table.Column<long>(type: "INTEGER", nullable: true),
                    CodeHash = table.Column<string>(type: "TEXT", nullable: true),
                    CodeSent = table.Column<long>(type: "INTEGER", nullable: true),
                    CodeTries = table.Column<int>(type: "INTEGER", nullable: false),
                    PassHash = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PersonalLinks", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Submissions_ProofHash",
                table: "Submissions",
                column: "ProofHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Submissions_ReceiptHash",
                table: "Submissions",
                column: "ReceiptHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_FormId_WantedMonth",
                table: "Inquiries",
                columns: new[] { "FormId", "WantedMonth" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_SubmissionId",
                table: "Inquiries",
                column: "SubmissionId");

            migrationBuilder.CreateIndex(
                name: "IX_KeptFillings_FormId_SendKey",
                table: "KeptFillings",
                columns: new[] { "FormId", "SendKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_KeptFillings_GoodUntil",
                table: "KeptFillings",
                column: "GoodUntil");

            migrationBuilder.CreateIndex(
                name: "IX_KeptFillings_LinkHash",
                table: "KeptFillings",
                column: "LinkHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_OpenAgainWishes_FormId_EmailKey",
                table: "OpenAgainWishes",
                columns: new[] { "FormId", "EmailKey" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PersonalLinks_LinkHash",
                table: "PersonalLinks",
                column: "LinkHash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "KeptFillings");

            migrationBuilder.DropTable(
                name: "OpenAgainWishes");

            migrationBuilder.DropTable(
                name: "PersonalLinks");

            migrationBuilder.DropIndex(
                name: "IX_Submissions_ProofHash",
                table: "Submissions");

            migrationBuilder.AddColumn<string>(
                name: "ReceiptHash",
                table: "Inquiries",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.Sql("""
                UPDATE "Inquiries" SET "ReceiptHash" = (SELECT "ReceiptHash" FROM "Submissions" WHERE "Id" = "Inquiries"."SubmissionId");
                """);

            migrationBuilder.DropIndex(
                name: "IX_Submissions_ReceiptHash",
                table: "Submissions");

            migrationBuilder.DropColumn(
                name: "ReceiptHash",
                table: "Submissions");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_FormId_WantedMonth",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_SubmissionId",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "PersonalLinkId",
                table: "Submissions");

            migrationBuilder.DropColumn(
                name: "ProofHash",
                table: "Submissions");

            migrationBuilder.DropColumn(
                name: "Waits",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "WantedMonth",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "ContactLines",
                table: "Businesses");

            migrationBuilder.DropColumn(
                name: "KeepUnfinishedDays",
                table: "Businesses");

            migrationBuilder.DropColumn(
                name: "Lists",
                table: "Businesses");

            migrationBuilder.DropColumn(
                name: "OwnerPhoto",
                table: "Businesses");

            migrationBuilder.Sql("""
                UPDATE "Forms" SET "Settings" = coalesce((SELECT group_concat(value, ' ') FROM json_each("Settings", '$.embedOn')), '');
                """);

            migrationBuilder.RenameColumn(
                name: "Settings",
                table: "Forms",
                newName: "EmbedOn");

            migrationBuilder.AlterColumn<Guid>(
                name: "ClientId",
                table: "OutgoingMail",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_ReceiptHash",
                table: "Inquiries",
                column: "ReceiptHash",
                unique: true);
        }
    }
}
