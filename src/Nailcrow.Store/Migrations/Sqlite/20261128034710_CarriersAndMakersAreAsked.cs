using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class CarriersAndMakersAreAsked : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "outbox",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    partner = table.Column<string>(type: "TEXT", nullable: false),
                    about = table.Column<Guid>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    written_at = table.Column<long>(type: "INTEGER", nullable: false),
                    state = table.Column<string>(type: "TEXT", nullable: false),
                    due_at = table.Column<long>(type: "INTEGER", nullable: true),
                    tries = table.Column<long>(type: "INTEGER", nullable: false),
                    says = table.Column<string>(type: "TEXT", nullable: true),
                    label = table.Column<string>(type: "TEXT", nullable: true),
                    follow_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_outbox", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "partner",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: false),
                    secret = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_partner", x => x.name);
                });

            migrationBuilder.CreateIndex(
                name: "ix_outbox_follow_at",
                table: "outbox",
                column: "follow_at");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_label",
                table: "outbox",
                column: "label");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_state_due_at",
                table: "outbox",
                columns: new[] { "state", "due_at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "outbox");

            migrationBuilder.DropTable(
                name: "partner");
        }
    }
}
