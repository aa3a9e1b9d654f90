using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Postgres
{
    /// <inheritdoc />
    public partial class NodesTellTheirRelease : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string[]>(
                name: "reads",
                table: "node",
                type: "text[]",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "release",
                table: "node",
                type: "text",
                nullable: true,
                collation: "C");

            migrationBuilder.AddColumn<string>(
                name: "tables",
                table: "node",
                type: "text",
                nullable: true,
                collation: "C");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "reads",
                table: "node");

            migrationBuilder.DropColumn(
                name: "release",
                table: "node");

            migrationBuilder.DropColumn(
                name: "tables",
                table: "node");
        }
    }
}
