using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class ProceduresHaveVersions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "photo",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    media_type = table.Column<string>(type: "TEXT", nullable: false),
                    content = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_photo", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "procedure_version",
                columns: table => new
                {
                    procedure = table.Column<string>(type: "TEXT", nullable: false),
                    version = table.Column<string>(type: "TEXT", nullable: false),
                    title = table.Column<string>(type: "TEXT", nullable: false),
                    file = table.Column<string>(type: "TEXT", nullable: false),
                    files = table.Column<string>(type: "TEXT", nullable: false),
                    states = table.Column<int>(type: "INTEGER", nullable: false),
                    published_at = table.Column<long>(type: "INTEGER", nullable: false),
                    published_by = table.Column<string>(type: "TEXT", nullable: false),
                    withdrawn_at = table.Column<long>(type: "INTEGER", nullable: true),
                    withdrawn_by = table.Column<string>(type: "TEXT", nullable: true),
                    withdrawn_because = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_procedure_version", x => new { x.procedure, x.version });
                });

            migrationBuilder.CreateTable(
                name: "step_time",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    nth = table.Column<int>(type: "INTEGER", nullable: false),
                    procedure = table.Column<string>(type: "TEXT", nullable: false),
                    version = table.Column<string>(type: "TEXT", nullable: false),
                    step = table.Column<string>(type: "TEXT", nullable: false),
                    seconds = table.Column<double>(type: "REAL", nullable: false),
                    branch = table.Column<string>(type: "TEXT", nullable: false),
                    overruled = table.Column<bool>(type: "INTEGER", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_step_time", x => new { x.ticket, x.nth });
                });

            migrationBuilder.CreateIndex(
                name: "ix_photo_ticket",
                table: "photo",
                column: "ticket");

            migrationBuilder.CreateIndex(
                name: "ix_step_time_procedure_at",
                table: "step_time",
                columns: new[] { "procedure", "at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "photo");

            migrationBuilder.DropTable(
                name: "procedure_version");

            migrationBuilder.DropTable(
                name: "step_time");
        }
    }
}
