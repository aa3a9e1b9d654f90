using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class PeopleComeAndGo : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "disabled_at",
                table: "AspNetUsers",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "disabled_because",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "must_change",
                table: "AspNetUsers",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "script_key",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    person = table.Column<string>(type: "TEXT", nullable: false),
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false),
                    role_words = table.Column<string>(type: "TEXT", nullable: false),
                    read_only = table.Column<bool>(type: "INTEGER", nullable: false),
                    since = table.Column<long>(type: "INTEGER", nullable: false),
                    until = table.Column<long>(type: "INTEGER", nullable: false),
                    last_used = table.Column<long>(type: "INTEGER", nullable: true),
                    ended_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_script_key", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "security_line",
                columns: table => new
                {
                    seq = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_security_line", x => x.seq);
                });

            migrationBuilder.CreateTable(
                name: "session",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    person = table.Column<string>(type: "TEXT", nullable: false),
                    since = table.Column<long>(type: "INTEGER", nullable: false),
                    until = table.Column<long>(type: "INTEGER", nullable: false),
                    last_seen = table.Column<long>(type: "INTEGER", nullable: false),
                    device = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: false),
                    ended_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_session", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_script_key_person_since",
                table: "script_key",
                columns: new[] { "person", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_security_line_by_seq",
                table: "security_line",
                columns: new[] { "by", "seq" });

            migrationBuilder.CreateIndex(
                name: "ix_security_line_kind_seq",
                table: "security_line",
                columns: new[] { "kind", "seq" });

            migrationBuilder.CreateIndex(
                name: "ix_session_person_since",
                table: "session",
                columns: new[] { "person", "since" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "script_key");

            migrationBuilder.DropTable(
                name: "security_line");

            migrationBuilder.DropTable(
                name: "session");

            migrationBuilder.DropColumn(
                name: "disabled_at",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "disabled_because",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "must_change",
                table: "AspNetUsers");
        }
    }
}
