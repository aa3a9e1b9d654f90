using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class SuppliesAreCounted : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "serial_reversed",
                table: "warranty",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "supply",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    key = table.Column<string>(type: "TEXT", nullable: false),
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    holder_kind = table.Column<string>(type: "TEXT", nullable: false),
                    holder = table.Column<string>(type: "TEXT", nullable: false),
                    count = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_supply", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_warranty_serial",
                table: "warranty",
                column: "serial");

            migrationBuilder.CreateIndex(
                name: "ix_warranty_serial_reversed",
                table: "warranty",
                column: "serial_reversed");

            migrationBuilder.CreateIndex(
                name: "ix_supply_holder_kind_holder",
                table: "supply",
                columns: new[] { "holder_kind", "holder" });

            migrationBuilder.CreateIndex(
                name: "ix_supply_key_holder_kind",
                table: "supply",
                columns: new[] { "key", "holder_kind" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "supply");

            migrationBuilder.DropIndex(
                name: "ix_warranty_serial",
                table: "warranty");

            migrationBuilder.DropIndex(
                name: "ix_warranty_serial_reversed",
                table: "warranty");

            migrationBuilder.DropColumn(
                name: "serial_reversed",
                table: "warranty");
        }
    }
}
