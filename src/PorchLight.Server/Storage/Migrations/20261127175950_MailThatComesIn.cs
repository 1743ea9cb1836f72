using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class MailThatComesIn : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "InReplyTo",
                table: "OutgoingMail",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Imap",
                table: "Businesses",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "IncomingMail",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    MessageId = table.Column<string>(type: "TEXT", nullable: false),
                    ClientId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    From = table.Column<string>(type: "TEXT", nullable: false),
                    Subject = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    AnswersId = table.Column<Guid>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_IncomingMail", x => x.Id);
                    table.ForeignKey(
                        name: "FK_IncomingMail_Clients_ClientId",
                        column: x => x.ClientId,
                        principalTable: "Clients",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_IncomingMail_OutgoingMail_AnswersId",
                        column: x => x.AnswersId,
                        principalTable: "OutgoingMail",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.SetNull);
                });

            migrationBuilder.CreateTable(
                name: "MailboxPositions",
                columns: table => new
                {
                    Mailbox = table.Column<string>(type: "TEXT", nullable: false),
                    Validity = table.Column<long>(type: "INTEGER", nullable: false),
                    Last = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_MailboxPositions", x => x.Mailbox);
                });

            migrationBuilder.CreateIndex(
                name: "IX_IncomingMail_ClientId",
                table: "IncomingMail",
                column: "ClientId");

            migrationBuilder.CreateIndex(
                name: "IX_IncomingMail_MessageId",
                table: "IncomingMail",
                column: "MessageId",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "IncomingMail");

            migrationBuilder.DropTable(
                name: "MailboxPositions");

            migrationBuilder.DropColumn(
                name: "InReplyTo",
                table: "OutgoingMail");

            migrationBuilder.DropColumn(
                name: "Imap",
                table: "Businesses");
        }
    }
}
