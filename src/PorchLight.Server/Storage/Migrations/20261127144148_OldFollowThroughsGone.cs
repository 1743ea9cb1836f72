using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PorchLight.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class OldFollowThroughsGone : Migration
    {
        /// <inheritdoc />
        // Only now does nothing point at them any more.
        protected override void Up(MigrationBuilder migrationBuilder) => migrationBuilder.DropTable(name: "FollowThroughs");

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("What was stored since then would be lost. Restore a backup instead.");
    }
}
