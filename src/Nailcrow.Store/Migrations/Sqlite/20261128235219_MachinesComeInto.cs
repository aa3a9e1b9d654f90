using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class MachinesComeInto : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "machine_access",
                columns: table => new
                {
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    origin = table.Column<string>(type: "TEXT", nullable: true),
                    name = table.Column<string>(type: "TEXT", nullable: true),
                    secret = table.Column<string>(type: "TEXT", nullable: true),
                    secret_file = table.Column<string>(type: "TEXT", nullable: true),
                    way = table.Column<string>(type: "TEXT", nullable: true),
                    given_by = table.Column<string>(type: "TEXT", nullable: true),
                    given_at = table.Column<long>(type: "INTEGER", nullable: true),
                    stamp = table.Column<Guid>(type: "TEXT", nullable: true),
                    trusted_sha256 = table.Column<string>(type: "TEXT", nullable: true),
                    trusted_subject = table.Column<string>(type: "TEXT", nullable: true),
                    trusted_from = table.Column<long>(type: "INTEGER", nullable: true),
                    trusted_until = table.Column<long>(type: "INTEGER", nullable: true),
                    trusted_by = table.Column<string>(type: "TEXT", nullable: true),
                    trusted_at = table.Column<long>(type: "INTEGER", nullable: true),
                    offered_sha256 = table.Column<string>(type: "TEXT", nullable: true),
                    offered_subject = table.Column<string>(type: "TEXT", nullable: true),
                    offered_from = table.Column<long>(type: "INTEGER", nullable: true),
                    offered_until = table.Column<long>(type: "INTEGER", nullable: true),
                    offered_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machine_access", x => x.asset);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "machine_access");
        }
    }
}
