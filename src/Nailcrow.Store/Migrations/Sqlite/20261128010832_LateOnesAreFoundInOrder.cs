using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class LateOnesAreFoundInOrder : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_part_due_by",
                table: "part");

            migrationBuilder.CreateIndex(
                name: "ix_part_due_by_serial",
                table: "part",
                columns: new[] { "due_by", "serial" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_part_due_by_serial",
                table: "part");

            migrationBuilder.CreateIndex(
                name: "ix_part_due_by",
                table: "part",
                column: "due_by");
        }
    }
}
