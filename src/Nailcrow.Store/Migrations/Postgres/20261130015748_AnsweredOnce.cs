using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Postgres
{
    /// <inheritdoc />
    public partial class AnsweredOnce : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "answered",
                columns: table => new
                {
                    hash = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    until = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_answered", x => x.hash);
                });

            migrationBuilder.CreateIndex(
                name: "ix_answered_until",
                table: "answered",
                column: "until");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "answered");
        }
    }
}
