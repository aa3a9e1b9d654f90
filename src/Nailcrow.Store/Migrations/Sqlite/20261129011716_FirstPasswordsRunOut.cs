using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class FirstPasswordsRunOut : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "first_until",
                table: "AspNetUsers",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_machine_access_waits",
                table: "machine_access",
                column: "asset",
                filter: "offered_sha256 IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_machine_access_waits",
                table: "machine_access");

            migrationBuilder.DropColumn(
                name: "first_until",
                table: "AspNetUsers");
        }
    }
}
