using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class CustomersAreAList : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "customer",
                table: "site",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "customer",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_customer", x => x.name);
                });

            migrationBuilder.CreateIndex(
                name: "ix_site_customer",
                table: "site",
                column: "customer");

            // Whoever owns a site is a customer from now on, of whom nothing else is known yet.
            migrationBuilder.Sql("UPDATE site SET customer = coalesce(json_extract(body, '$.customer'), '')");
            migrationBuilder.Sql(
                "INSERT INTO customer (name, body) SELECT DISTINCT customer, json_object('name', customer) FROM site"
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "customer");

            migrationBuilder.DropIndex(
                name: "ix_site_customer",
                table: "site");

            migrationBuilder.DropColumn(
                name: "customer",
                table: "site");
        }
    }
}
