using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class RecordsMove : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "never_given",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    numbers = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_never_given", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "record_place",
                columns: table => new
                {
                    id = table.Column<long>(type: "INTEGER", nullable: false),
                    why = table.Column<string>(type: "TEXT", nullable: false),
                    place = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false)
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
                name: "never_given");

            migrationBuilder.DropTable(
                name: "record_place");
        }
    }
}
