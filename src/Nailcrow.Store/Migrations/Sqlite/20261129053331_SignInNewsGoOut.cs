using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class SignInNewsGoOut : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "sign_in_letter",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    to = table.Column<string>(type: "TEXT", nullable: false),
                    says = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    due_at = table.Column<long>(type: "INTEGER", nullable: false),
                    tries = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_in_letter", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_sign_in_letter_due_at",
                table: "sign_in_letter",
                column: "due_at");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "sign_in_letter");
        }
    }
}
