using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class PartsHaveALedger : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "ledger",
                columns: table => new
                {
                    position = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ledger", x => x.position);
                });

            migrationBuilder.CreateTable(
                name: "part",
                columns: table => new
                {
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    serial_reversed = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    hours = table.Column<long>(type: "INTEGER", nullable: true),
                    holder_kind = table.Column<string>(type: "TEXT", nullable: false),
                    holder = table.Column<string>(type: "TEXT", nullable: false),
                    shelf = table.Column<string>(type: "TEXT", nullable: true),
                    asset = table.Column<string>(type: "TEXT", nullable: true),
                    since = table.Column<long>(type: "INTEGER", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: true),
                    reserved_for = table.Column<long>(type: "INTEGER", nullable: true),
                    going = table.Column<string>(type: "TEXT", nullable: true),
                    due_by = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    unwiped_from = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_part", x => x.serial);
                });

            migrationBuilder.CreateIndex(
                name: "ix_ledger_id",
                table: "ledger",
                column: "id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_ledger_serial_seq",
                table: "ledger",
                columns: new[] { "serial", "seq" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_ledger_ticket",
                table: "ledger",
                column: "ticket");

            migrationBuilder.CreateIndex(
                name: "ix_part_due_by",
                table: "part",
                column: "due_by");

            migrationBuilder.CreateIndex(
                name: "ix_part_holder_kind_holder_model_serial",
                table: "part",
                columns: new[] { "holder_kind", "holder", "model", "serial" });

            migrationBuilder.CreateIndex(
                name: "ix_part_holder_kind_reserved_for_bytes",
                table: "part",
                columns: new[] { "holder_kind", "reserved_for", "bytes" });

            migrationBuilder.CreateIndex(
                name: "ix_part_holder_kind_since",
                table: "part",
                columns: new[] { "holder_kind", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_part_reserved_for",
                table: "part",
                column: "reserved_for");

            migrationBuilder.CreateIndex(
                name: "ix_part_serial_reversed",
                table: "part",
                column: "serial_reversed");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ledger");

            migrationBuilder.DropTable(
                name: "part");
        }
    }
}
