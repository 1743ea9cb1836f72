using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(PorchDb))]
    [Migration("20261202182612_OutsideCalendars")]
    public partial class OutsideCalendars : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "CalendarFeeds",
                columns: table => new
                {
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LinkHash = table.Column<string>(type: "TEXT", nullable: false),
                    LinkSealed = table.Column<string>(type: "TEXT", nullable: false),
                    HasNames = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CalendarFeeds", x => x.UserId);
                    table.ForeignKey(
                        name: "FK_CalendarFeeds_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "OutsideCalendars",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    AddressSealed = table.Column<string>(type: "TEXT", nullable: true),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Read = table.Column<long>(type: "INTEGER", nullable: false),
                    Fault = table.Column<string>(type: "TEXT", nullable: true),
                    Faults = table.Column<string>(type: "TEXT", nullable: false),
                    Expanded = table.Column<long>(type: "INTEGER", nullable: false),
                    Next = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OutsideCalendars", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OutsideCalendars_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "PracticeCalendarEntries",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    Email = table.Column<string>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    Start = table.Column<long>(type: "INTEGER", nullable: false),
                    Minutes = table.Column<int>(type: "INTEGER", nullable: false),
                    IsWeekly = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PracticeCalendarEntries", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "OutsideEntries",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    CalendarId = table.Column<Guid>(type: "TEXT", nullable: false),
                    From = table.Column<long>(type: "INTEGER", nullable: false),
                    To = table.Column<long>(type: "INTEGER", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OutsideEntries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_OutsideEntries_OutsideCalendars_CalendarId",
                        column: x => x.CalendarId,
                        principalTable: "OutsideCalendars",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_CalendarFeeds_LinkHash",
                table: "CalendarFeeds",
                column: "LinkHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_OutsideCalendars_Next",
                table: "OutsideCalendars",
                column: "Next");

            migrationBuilder.CreateIndex(
                name: "IX_OutsideEntries_CalendarId_From",
                table: "OutsideEntries",
                columns: new[] { "CalendarId", "From" });

            migrationBuilder.CreateIndex(
                name: "IX_PracticeCalendarEntries_Email",
                table: "PracticeCalendarEntries",
                column: "Email");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "CalendarFeeds");

            migrationBuilder.DropTable(
                name: "OutsideEntries");

            migrationBuilder.DropTable(
                name: "PracticeCalendarEntries");

            migrationBuilder.DropTable(
                name: "OutsideCalendars");
        }
    }
}
