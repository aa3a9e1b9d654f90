using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class SignInElsewhere : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "elsewhere",
                table: "session",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "elsewhere",
                table: "session");
        }
    }
}
