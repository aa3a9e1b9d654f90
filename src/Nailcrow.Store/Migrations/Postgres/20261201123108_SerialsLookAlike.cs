using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Postgres
{
    /// <inheritdoc />
    public partial class SerialsLookAlike : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "looks",
                table: "part",
                type: "text",
                nullable: true,
                collation: "C");

            migrationBuilder.CreateIndex(
                name: "ix_part_looks",
                table: "part",
                column: "looks");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_part_looks",
                table: "part");

            migrationBuilder.DropColumn(
                name: "looks",
                table: "part");
        }
    }
}
