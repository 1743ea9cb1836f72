using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class SetAsideAndWrittenDown : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Aside",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Channel",
                table: "Inquiries",
                type: "TEXT",
                nullable: false,
                defaultValue: "Form");

            migrationBuilder.AddColumn<Guid>(
                name: "LooksAfterId",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "PromiseHours",
                table: "Inquiries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Stage",
                table: "Inquiries",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "WrittenDownBy",
                table: "Inquiries",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "AlwaysComesIn",
                table: "Clients",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "IsAside",
                table: "Clients",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "ToldAtNight",
                table: "AspNetUsers",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "ToldDailyAt",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            // Until now every inquiry was promised what the business promises.
            migrationBuilder.Sql("UPDATE Inquiries SET PromiseHours = (SELECT PromiseHours FROM Businesses)");
            migrationBuilder.Sql(
                """
                UPDATE Inquiries SET
                    Stage = (SELECT Stage FROM Projects WHERE Projects.Id = Inquiries.ProjectId),
                    LooksAfterId = (SELECT LooksAfterId FROM Projects WHERE Projects.Id = Inquiries.ProjectId)
                """
            );

            migrationBuilder.CreateTable(
                name: "Tellings",
                columns: table => new
                {
                    UserId = table.Column<Guid>(type: "TEXT", nullable: false),
                    InquiryId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Due = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Tellings", x => new { x.UserId, x.InquiryId });
                    table.ForeignKey(
                        name: "FK_Tellings_AspNetUsers_UserId",
                        column: x => x.UserId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Tellings_Inquiries_InquiryId",
                        column: x => x.InquiryId,
                        principalTable: "Inquiries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Fit_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Fit", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_LooksAfterId_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "LooksAfterId", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Service_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Service", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Source_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Source", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Inquiries_Stage_Need_Urgency_Id",
                table: "Inquiries",
                columns: new[] { "Stage", "Need", "Urgency", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Tellings_Due",
                table: "Tellings",
                column: "Due");

            migrationBuilder.AddForeignKey(
                name: "FK_Inquiries_AspNetUsers_LooksAfterId",
                table: "Inquiries",
                column: "LooksAfterId",
                principalTable: "AspNetUsers",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Inquiries_AspNetUsers_LooksAfterId",
                table: "Inquiries");

            migrationBuilder.DropTable(
                name: "Tellings");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Fit_Need_Urgency_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_LooksAfterId_Need_Urgency_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Service_Need_Urgency_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Source_Need_Urgency_Id",
                table: "Inquiries");

            migrationBuilder.DropIndex(
                name: "IX_Inquiries_Stage_Need_Urgency_Id",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Aside",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Channel",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "LooksAfterId",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "PromiseHours",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "Stage",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "WrittenDownBy",
                table: "Inquiries");

            migrationBuilder.DropColumn(
                name: "AlwaysComesIn",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "IsAside",
                table: "Clients");

            migrationBuilder.DropColumn(
                name: "ToldAtNight",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "ToldDailyAt",
                table: "AspNetUsers");
        }
    }
}
