using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class OutboxInOrder : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "ix_outbox_state_written_at_id",
                table: "outbox",
                columns: new[] { "state", "written_at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_outbox_ticket",
                table: "outbox",
                column: "ticket");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_outbox_state_written_at_id",
                table: "outbox");

            migrationBuilder.DropIndex(
                name: "ix_outbox_ticket",
                table: "outbox");
        }
    }
}
