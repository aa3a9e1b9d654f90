using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Postgres
{
    /// <inheritdoc />
    public partial class RecordsMove : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "record_place",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false),
                    why = table.Column<string>(type: "text", nullable: false),
                    place = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_record_place", x => x.id);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "record_place");
        }
    }
}
