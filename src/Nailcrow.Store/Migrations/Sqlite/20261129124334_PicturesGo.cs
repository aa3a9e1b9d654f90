using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class PicturesGo : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "picture_period",
                columns: table => new
                {
                    customer = table.Column<string>(type: "TEXT", nullable: false),
                    months = table.Column<long>(type: "INTEGER", nullable: false),
                    since = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_picture_period", x => x.customer);
                });
            // Guards are made at each start; the one of an earlier release lets no picture go.
            migrationBuilder.Sql("DROP TRIGGER IF EXISTS photo_keeps_every_picture");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "picture_period");
            migrationBuilder.Sql("DROP TRIGGER IF EXISTS photo_keeps_every_picture");
        }
    }
}
