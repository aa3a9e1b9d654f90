using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class WhatCameBackIsLookedAt : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "to_inspect",
                table: "part",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_part_to_inspect_since",
                table: "part",
                columns: new[] { "to_inspect", "since" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_part_to_inspect_since",
                table: "part");

            migrationBuilder.DropColumn(
                name: "to_inspect",
                table: "part");
        }
    }
}
