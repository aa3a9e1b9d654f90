using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class TicketsInOrder : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_ticket_line_serial_reversed_number",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "serial_reversed",
                table: "ticket_line");

            migrationBuilder.AddColumn<long>(
                name: "due_order",
                table: "ticket_line",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<double>(
                name: "urgency",
                table: "ticket_line",
                type: "REAL",
                nullable: false,
                defaultValue: 0.0);

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_due_order_number",
                table: "ticket_line",
                columns: new[] { "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_ended_due_order_number",
                table: "ticket_line",
                columns: new[] { "ended", "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_ended_urgency_number",
                table: "ticket_line",
                columns: new[] { "ended", "urgency", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_urgency_number",
                table: "ticket_line",
                columns: new[] { "urgency", "number" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_ticket_line_due_order_number",
                table: "ticket_line");

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_ended_due_order_number",
                table: "ticket_line");

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_ended_urgency_number",
                table: "ticket_line");

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_urgency_number",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "due_order",
                table: "ticket_line");

            migrationBuilder.DropColumn(
                name: "urgency",
                table: "ticket_line");

            migrationBuilder.AddColumn<string>(
                name: "serial_reversed",
                table: "ticket_line",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_serial_reversed_number",
                table: "ticket_line",
                columns: new[] { "serial_reversed", "number" });
        }
    }
}
