using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class WhatLiesApart : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "apart",
                table: "part",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_part_apart_since",
                table: "part",
                columns: new[] { "apart", "since" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_part_apart_since",
                table: "part");

            migrationBuilder.DropColumn(
                name: "apart",
                table: "part");
        }
    }
}
