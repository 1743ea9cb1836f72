using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class OwnFields : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "IsLatest",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AlterColumn<Guid>(
                name: "InquiryId",
                table: "Notes",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AddColumn<bool>(
                name: "IsPinned",
                table: "Notes",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AlterColumn<string>(
                name: "Value",
                table: "FieldValues",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(string),
                oldType: "TEXT");

            migrationBuilder.AlterColumn<string>(
                name: "Question",
                table: "FieldValues",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(string),
                oldType: "TEXT");

            migrationBuilder.AlterColumn<Guid>(
                name: "InquiryId",
                table: "FieldValues",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AlterColumn<int>(
                name: "FormVersion",
                table: "FieldValues",
                type: "INTEGER",
                nullable: true,
                oldClrType: typeof(int),
                oldType: "INTEGER");

            migrationBuilder.AlterColumn<Guid>(
                name: "FormId",
                table: "FieldValues",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AddColumn<bool>(
                name: "IsCurrent",
                table: "FieldValues",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "IsListed",
                table: "FieldValues",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<double>(
                name: "OrderNumber",
                table: "FieldValues",
                type: "REAL",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "OrderText",
                table: "FieldValues",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Origin",
                table: "FieldValues",
                type: "TEXT",
                nullable: false,
                defaultValue: "Inquiry");

            migrationBuilder.AddColumn<long>(
                name: "SettledAt",
                table: "Differences",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "SettledBy",
                table: "Differences",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Settlement",
                table: "Differences",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "WrittenNoteId",
                table: "Differences",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "WrittenValueId",
                table: "Differences",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "IsUnindexed",
                table: "Clients",
                type: "INTEGER",
                nullable: false,
                defaultValue: true);

            migrationBuilder.AddColumn<string>(
                name: "SortName",
                table: "Clients",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.Sql(
                """
                UPDATE Projects SET IsLatest = Id =
                    (SELECT p.Id FROM Projects AS p WHERE p.ClientId = Projects.ClientId ORDER BY p.Opened DESC, p.Id DESC LIMIT 1)
                """);

            // The words of everybody's records; which row is whose stands in ClientSearchRows.
            migrationBuilder.Sql(
                "CREATE VIRTUAL TABLE ClientWords USING fts5(words, tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3')");

            migrationBuilder.CreateTable(
                name: "ClientSearchRows",
                columns: table => new
                {
                    Row = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientSearchRows", x => x.Row);
                    table.ForeignKey(
                        name: "FK_ClientSearchRows_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "ClientTags",
                columns: table => new
                {
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Tag = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientTags", x => new { x.ClientId, x.Tag });
                    table.ForeignKey(
                        name: "FK_ClientTags_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Fields",
                columns: table => new
                {
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Place = table.Column<int>(type: "INTEGER", nullable: false),
                    Field = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Fields", x => x.Key);
                });

            migrationBuilder.CreateTable(
                name: "NoteRevisions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    NoteId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_NoteRevisions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_NoteRevisions_Notes_NoteId",
                        column: x => x.NoteId,
                        principalTable: "Notes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "SavedViews",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SavedViews", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Latest",
                table: "Projects",
                column: "ClientId",
                unique: true,
                filter: "\"IsLatest\"");

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_Field_OrderNumber_ClientId",
                table: "FieldValues",
                columns: new[] { "Field", "OrderNumber", "ClientId" },
                filter: "\"IsListed\" AND \"OrderNumber\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_FieldValues_Field_OrderText_ClientId",
                table: "FieldValues",
                columns: new[] { "Field", "OrderText", "ClientId" },
                filter: "\"IsListed\" AND \"OrderText\" IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Differences_ClientId",
                table: "Differences",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_IsUnindexed",
                table: "Clients",
                column: "IsUnindexed",
                filter: "\"IsUnindexed\"");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_Since",
                table: "Clients",
                column: "Since");

            migrationBuilder.CreateIndex(
                name: "IX_Clients_SortName",
                table: "Clients",
                column: "SortName");

            migrationBuilder.CreateIndex(
                name: "IX_ClientSearchRows_ClientId",
                table: "ClientSearchRows",
                column: "ClientId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ClientTags_Tag",
                table: "ClientTags",
                column: "Tag");

            migrationBuilder.CreateIndex(
                name: "IX_NoteRevisions_NoteId",
                table: "NoteRevisions",
                column: "NoteId");

            migrationBuilder.AddForeignKey(
                name: "FK_Differences_FieldValues_WrittenValueId",
                table: "Differences",
                column: "WrittenValueId",
                principalTable: "FieldValues",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);

            migrationBuilder.AddForeignKey(
                name: "FK_Differences_Notes_WrittenNoteId",
                table: "Differences",
                column: "WrittenNoteId",
                principalTable: "Notes",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TABLE ClientWords");

            migrationBuilder.DropForeignKey(
                name: "FK_Differences_FieldValues_WrittenValueId",
                table: "Differences");

            migrationBuilder.DropForeignKey(
                name: "FK_Differences_Notes_WrittenNoteId",
                table: "Differences");

            migrationBuilder.DropTable(
                name: "ClientSearchRows");

            migrationBuilder.DropTable(
                name: "ClientTags");

            migrationBuilder.DropTable(
                name: "Fields");

            migrationBuilder.DropTable(
                name: "NoteRevisions");

            migrationBuilder.DropTable(
                name: "SavedViews");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Latest",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_FieldValues_Field_OrderNumber_ClientId",
                table: "FieldValues");

            migrationBuilder.DropIndex(
                name: "IX_FieldValues_Field_OrderText_ClientId",
                table: "FieldValues");

            migrationBuilder.DropIndex(
                name: "IX_Differences_ClientId",
                table: "Differences");

            migrationBuilder.DropIndex(
                name: "IX_Clients_IsUnindexed",
                table: "Clients");

            migrationBuilder.DropIndex(
                name: "IX_Clients_Since",
                table: "Clients");

            migrationBuilder.DropIndex(
                name: "IX_Clients_SortName",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "IsLatest",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "IsPinned",
                table: "Notes");

            migrationBuilder.DropColumn(
                name: "IsCurrent",
                table: "FieldValues");

            migrationBuilder.DropColumn(
                name: "IsListed",
                table: "FieldValues");

            migrationBuilder.DropColumn(
                name: "OrderNumber",
                table: "FieldValues");

            migrationBuilder.DropColumn(
                name: "OrderText",
                table: "FieldValues");

            migrationBuilder.DropColumn(
                name: "Origin",
                table: "FieldValues");

            migrationBuilder.DropColumn(
                name: "SettledAt",
                table: "Differences");

            migrationBuilder.DropColumn(
                name: "SettledBy",
                table: "Differences");

            migrationBuilder.DropColumn(
                name: "Settlement",
                table: "Differences");

            migrationBuilder.DropColumn(
                name: "WrittenNoteId",
                table: "Differences");

            migrationBuilder.DropColumn(
                name: "WrittenValueId",
                table: "Differences");

            migrationBuilder.DropColumn(
                name: "IsUnindexed",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "SortName",
                table: "Clients");

            migrationBuilder.AlterColumn<Guid>(
                name: "InquiryId",
                table: "Notes",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<string>(
                name: "Value",
                table: "FieldValues",
                type: "TEXT",
                nullable: false,
                defaultValue: "",
                oldClrType: typeof(string),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<string>(
                name: "Question",
                table: "FieldValues",
                type: "TEXT",
                nullable: false,
                defaultValue: "",
                oldClrType: typeof(string),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<Guid>(
                name: "InquiryId",
                table: "FieldValues",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<int>(
                name: "FormVersion",
                table: "FieldValues",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0,
                oldClrType: typeof(int),
                oldType: "INTEGER",
                oldNullable: true);

            migrationBuilder.AlterColumn<Guid>(
                name: "FormId",
                table: "FieldValues",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);
        }
    }
}
