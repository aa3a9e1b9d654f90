using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class IntakePlanningAndDrives : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "array",
                table: "ticket_line",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "at_worst",
                table: "ticket_line",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "due",
                table: "ticket_line",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "due_at",
                table: "ticket_line",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "help",
                table: "ticket_line",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "visit_from",
                table: "ticket_line",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "visit_to",
                table: "ticket_line",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "expansions",
                table: "appliance",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "sends_as",
                table: "appliance",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "drive",
                columns: table => new
                {
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    serial_reversed = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: true),
                    bay = table.Column<string>(type: "TEXT", nullable: true),
                    depot = table.Column<string>(type: "TEXT", nullable: true),
                    hours = table.Column<int>(type: "INTEGER", nullable: true),
                    used_in = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive", x => x.serial);
                });

            migrationBuilder.CreateTable(
                name: "drive_life",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    nth = table.Column<int>(type: "INTEGER", nullable: false),
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    bay = table.Column<string>(type: "TEXT", nullable: true),
                    sentence = table.Column<string>(type: "TEXT", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_life", x => new { x.ticket, x.nth });
                });

            migrationBuilder.CreateTable(
                name: "drive_model",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_model", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "event_sender",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    secret = table.Column<string>(type: "TEXT", nullable: false),
                    added_at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_event_sender", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "intake",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    received_at = table.Column<long>(type: "INTEGER", nullable: false),
                    via = table.Column<string>(type: "TEXT", nullable: false),
                    sender = table.Column<string>(type: "TEXT", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    app = table.Column<string>(type: "TEXT", nullable: true),
                    outcome = table.Column<string>(type: "TEXT", nullable: false),
                    rule = table.Column<string>(type: "TEXT", nullable: true),
                    asset = table.Column<string>(type: "TEXT", nullable: true),
                    ticket = table.Column<long>(type: "INTEGER", nullable: true),
                    pending = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "intake_rule",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake_rule", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "qualified",
                columns: table => new
                {
                    appliance_model = table.Column<string>(type: "TEXT", nullable: false),
                    drive_model = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_qualified", x => new { x.appliance_model, x.drive_model });
                });

            migrationBuilder.CreateTable(
                name: "snapshot",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    source = table.Column<string>(type: "TEXT", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_snapshot", x => new { x.ticket, x.seq });
                });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_engineer_visit_from",
                table: "ticket_line",
                columns: new[] { "engineer", "visit_from" });

            migrationBuilder.CreateIndex(
                name: "ix_appliance_sends_as",
                table: "appliance",
                column: "sends_as");

            migrationBuilder.CreateIndex(
                name: "ix_appliance_site",
                table: "appliance",
                column: "site");

            migrationBuilder.CreateIndex(
                name: "ix_drive_asset_bay",
                table: "drive",
                columns: new[] { "asset", "bay" });

            migrationBuilder.CreateIndex(
                name: "ix_drive_depot",
                table: "drive",
                column: "depot");

            migrationBuilder.CreateIndex(
                name: "ix_drive_serial_reversed",
                table: "drive",
                column: "serial_reversed");

            migrationBuilder.CreateIndex(
                name: "ix_drive_life_serial_at",
                table: "drive_life",
                columns: new[] { "serial", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_intake_outcome_received_at",
                table: "intake",
                columns: new[] { "outcome", "received_at" });

            migrationBuilder.CreateIndex(
                name: "ix_snapshot_asset_at",
                table: "snapshot",
                columns: new[] { "asset", "at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "drive");

            migrationBuilder.DropTable(
                name: "drive_life");

            migrationBuilder.DropTable(
                name: "drive_model");

            migrationBuilder.DropTable(
                name: "event_sender");

            migrationBuilder.DropTable(
                name: "intake");

            migrationBuilder.DropTable(
                name: "intake_rule");

            migrationBuilder.DropTable(
                name: "qualified");

            migrationBuilder.DropTable(
                name: "snapshot");

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_engineer_visit_from",
                table: "ticket_line");

            migrationBuilder.DropIndex(
                name: "ix_appliance_sends_as",
                table: "appliance");

            migrationBuilder.DropIndex(
                name: "ix_appliance_site",
                table: "appliance");

            migrationBuilder.DropColumn(
                name: "array",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "at_worst",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "due",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "due_at",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "help",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "visit_from",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "visit_to",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "expansions",
                table: "appliance");

            migrationBuilder.DropColumn(
                name: "sends_as",
                table: "appliance");
        }
    }
}
