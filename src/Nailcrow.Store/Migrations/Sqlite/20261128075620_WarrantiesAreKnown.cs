using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class WarrantiesAreKnown : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "warranty",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    serial = table.Column<string>(type: "TEXT", nullable: true),
                    model = table.Column<string>(type: "TEXT", nullable: true),
                    until = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    from = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    terms = table.Column<string>(type: "TEXT", nullable: true),
                    source = table.Column<string>(type: "TEXT", nullable: true),
                    said_at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_warranty", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_warranty_model",
                table: "warranty",
                column: "model");

            migrationBuilder.CreateIndex(
                name: "ix_warranty_until_id",
                table: "warranty",
                columns: new[] { "until", "id" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "warranty");
        }
    }
}
