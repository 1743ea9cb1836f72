using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class WorkOfProjects : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Stage",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: "new");

            // Before there were stages a project was open or closed, and nothing more.
            migrationBuilder.Sql("UPDATE \"Projects\" SET \"Stage\" = 'finished' WHERE \"Closed\" IS NOT NULL;");

            migrationBuilder.AlterColumn<Guid>(
                name: "FormId",
                table: "Projects",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(Guid),
                oldType: "TEXT");

            migrationBuilder.AddColumn<Guid>(
                name: "LooksAfterId",
                table: "Projects",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Corrected",
                table: "Differences",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CorrectedBy",
                table: "Differences",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Arrangements",
                columns: table => new
                {
                    Scope = table.Column<string>(type: "TEXT", nullable: false),
                    Service = table.Column<string>(type: "TEXT", nullable: false),
                    Arrangement = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Arrangements", x => new { x.Scope, x.Service });
                });

            migrationBuilder.CreateTable(
                name: "ClientTasks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ProjectId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    IsDate = table.Column<bool>(type: "INTEGER", nullable: false),
                    On = table.Column<string>(type: "TEXT", nullable: true),
                    ForId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Done = table.Column<long>(type: "INTEGER", nullable: true),
                    DoneBy = table.Column<string>(type: "TEXT", nullable: true),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClientTasks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ClientTasks_AspNetUsers_ForId",
                        column: x => x.ForId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                    table.ForeignKey(
                        name: "FK_ClientTasks_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_ClientTasks_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_ClientTasks_ClientId",
                table: "ClientTasks",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_ClientTasks_On",
                table: "ClientTasks",
                column: "On",
                filter: "\"Done\" IS NULL");

            migrationBuilder.AddForeignKey(
                name: "FK_Projects_AspNetUsers_LooksAfterId",
                table: "Projects",
                column: "LooksAfterId",
                principalTable: "AspNetUsers",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Projects_AspNetUsers_LooksAfterId",
                table: "Projects");

            migrationBuilder.DropTable(
                name: "Arrangements");

            migrationBuilder.DropTable(
                name: "ClientTasks");

            migrationBuilder.DropColumn(
                name: "LooksAfterId",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Stage",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Corrected",
                table: "Differences");

            migrationBuilder.DropColumn(
                name: "CorrectedBy",
                table: "Differences");

            migrationBuilder.AlterColumn<Guid>(
                name: "FormId",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: new Guid("00000000-0000-0000-0000-000000000000"),
                oldClrType: typeof(Guid),
                oldType: "TEXT",
                oldNullable: true);
        }
    }
}
