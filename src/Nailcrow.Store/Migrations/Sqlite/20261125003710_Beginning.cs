using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class Beginning : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    full_name = table.Column<string>(type: "TEXT", nullable: false),
                    role_words = table.Column<string>(type: "TEXT", nullable: false),
                    user_name = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    normalized_user_name = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    email = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    normalized_email = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    email_confirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    password_hash = table.Column<string>(type: "TEXT", nullable: true),
                    security_stamp = table.Column<string>(type: "TEXT", nullable: true),
                    concurrency_stamp = table.Column<string>(type: "TEXT", nullable: true),
                    phone_number = table.Column<string>(type: "TEXT", nullable: true),
                    phone_number_confirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    two_factor_enabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    lockout_end = table.Column<long>(type: "INTEGER", nullable: true),
                    lockout_enabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    access_failed_count = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_users", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "appliance",
                columns: table => new
                {
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    site = table.Column<string>(type: "TEXT", nullable: false),
                    location = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: true),
                    arrays = table.Column<string>(type: "TEXT", nullable: false),
                    version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_appliance", x => x.asset);
                });

            migrationBuilder.CreateTable(
                name: "appliance_model",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_appliance_model", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "drive_place",
                columns: table => new
                {
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    holder_kind = table.Column<string>(type: "TEXT", nullable: false),
                    holder = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_place", x => new { x.serial, x.ticket });
                });

            migrationBuilder.CreateTable(
                name: "journal",
                columns: table => new
                {
                    position = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    clock_offset_ms = table.Column<long>(type: "INTEGER", nullable: false),
                    recorded_at = table.Column<long>(type: "INTEGER", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_journal", x => x.position);
                });

            migrationBuilder.CreateTable(
                name: "reference_change",
                columns: table => new
                {
                    id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    key = table.Column<string>(type: "TEXT", nullable: false),
                    before = table.Column<string>(type: "TEXT", nullable: true),
                    after = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_reference_change", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "site",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_site", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "ticket_line",
                columns: table => new
                {
                    number = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    customer = table.Column<string>(type: "TEXT", nullable: false),
                    site = table.Column<string>(type: "TEXT", nullable: false),
                    symptom = table.Column<string>(type: "TEXT", nullable: false),
                    bay = table.Column<string>(type: "TEXT", nullable: true),
                    serial = table.Column<string>(type: "TEXT", nullable: true),
                    serial_reversed = table.Column<string>(type: "TEXT", nullable: true),
                    stage = table.Column<string>(type: "TEXT", nullable: false),
                    ended = table.Column<bool>(type: "INTEGER", nullable: false),
                    margin = table.Column<int>(type: "INTEGER", nullable: true),
                    danger = table.Column<string>(type: "TEXT", nullable: false),
                    engineer = table.Column<string>(type: "TEXT", nullable: true),
                    next_who = table.Column<string>(type: "TEXT", nullable: false),
                    next = table.Column<string>(type: "TEXT", nullable: false),
                    next_room = table.Column<string>(type: "TEXT", nullable: false),
                    hold_reason = table.Column<string>(type: "TEXT", nullable: true),
                    escalated = table.Column<bool>(type: "INTEGER", nullable: false),
                    watched = table.Column<bool>(type: "INTEGER", nullable: false),
                    received_at = table.Column<long>(type: "INTEGER", nullable: false),
                    changed_at = table.Column<long>(type: "INTEGER", nullable: false),
                    head = table.Column<long>(type: "INTEGER", nullable: false),
                    head_hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ticket_line", x => x.number);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    user_id = table.Column<string>(type: "TEXT", nullable: false),
                    claim_type = table.Column<string>(type: "TEXT", nullable: true),
                    claim_value = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_asp_net_user_claims_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserLogins",
                columns: table => new
                {
                    login_provider = table.Column<string>(type: "TEXT", nullable: false),
                    provider_key = table.Column<string>(type: "TEXT", nullable: false),
                    provider_display_name = table.Column<string>(type: "TEXT", nullable: true),
                    user_id = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_logins", x => new { x.login_provider, x.provider_key });
                    table.ForeignKey(
                        name: "fk_asp_net_user_logins_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserTokens",
                columns: table => new
                {
                    user_id = table.Column<string>(type: "TEXT", nullable: false),
                    login_provider = table.Column<string>(type: "TEXT", nullable: false),
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    value = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_tokens", x => new { x.user_id, x.login_provider, x.name });
                    table.ForeignKey(
                        name: "fk_asp_net_user_tokens_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_user_claims_user_id",
                table: "AspNetUserClaims",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_user_logins_user_id",
                table: "AspNetUserLogins",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "AspNetUsers",
                column: "normalized_email");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "AspNetUsers",
                column: "normalized_user_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_appliance_serial",
                table: "appliance",
                column: "serial");

            migrationBuilder.CreateIndex(
                name: "ix_drive_place_ticket",
                table: "drive_place",
                column: "ticket");

            migrationBuilder.CreateIndex(
                name: "ix_journal_id",
                table: "journal",
                column: "id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_journal_ticket_seq",
                table: "journal",
                columns: new[] { "ticket", "seq" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_asset_number",
                table: "ticket_line",
                columns: new[] { "asset", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_ended_number",
                table: "ticket_line",
                columns: new[] { "ended", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_engineer_ended_number",
                table: "ticket_line",
                columns: new[] { "engineer", "ended", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_serial_number",
                table: "ticket_line",
                columns: new[] { "serial", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_serial_reversed_number",
                table: "ticket_line",
                columns: new[] { "serial_reversed", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_stage_number",
                table: "ticket_line",
                columns: new[] { "stage", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_watched",
                table: "ticket_line",
                column: "watched");

            // The journal only grows. Whoever opens the file by other means is held to that as well.
            migrationBuilder.Sql("CREATE TRIGGER journal_keeps_every_entry BEFORE DELETE ON journal BEGIN SELECT RAISE(ABORT, 'The journal is append-only: entries are never removed.'); END;");
            migrationBuilder.Sql("CREATE TRIGGER journal_keeps_what_was_written BEFORE UPDATE ON journal BEGIN SELECT RAISE(ABORT, 'The journal is append-only: entries are never changed.'); END;");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "AspNetUserClaims");

            migrationBuilder.DropTable(
                name: "AspNetUserLogins");

            migrationBuilder.DropTable(
                name: "AspNetUserTokens");

            migrationBuilder.DropTable(
                name: "appliance");

            migrationBuilder.DropTable(
                name: "appliance_model");

            migrationBuilder.DropTable(
                name: "drive_place");

            migrationBuilder.DropTable(
                name: "journal");

            migrationBuilder.DropTable(
                name: "reference_change");

            migrationBuilder.DropTable(
                name: "site");

            migrationBuilder.DropTable(
                name: "ticket_line");

            migrationBuilder.DropTable(
                name: "AspNetUsers");
        }
    }
}
