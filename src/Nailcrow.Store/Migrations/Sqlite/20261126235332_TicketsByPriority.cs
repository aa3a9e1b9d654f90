using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class TicketsByPriority : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // What was kept there orders nothing any more; until the lists are told anew, no open ticket may be missing from them.
            migrationBuilder.Sql(
                "UPDATE ticket_line SET urgency = CASE WHEN ended THEN -1 WHEN hold_reason IS NOT NULL THEN 0 "
                    + "WHEN help IN ('NoRedundancy', 'TooManyLost') OR margin <= 0 THEN 100 WHEN margin IS NULL THEN 60 "
                    + "WHEN at_worst < 0 THEN 80 WHEN margin = 1 THEN 45 ELSE 20 END"
            );

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_ended_urgency_number",
                table: "ticket_line");

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_urgency_number",
                table: "ticket_line");

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_next_who_urgency_due_order_number",
                table: "ticket_line",
                columns: new[] { "next_who", "urgency", "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_urgency_due_order_number",
                table: "ticket_line",
                columns: new[] { "urgency", "due_order", "number" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_ticket_line_next_who_urgency_due_order_number",
                table: "ticket_line");

            migrationBuilder.DropIndex(
                name: "ix_ticket_line_urgency_due_order_number",
                table: "ticket_line");

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_ended_urgency_number",
                table: "ticket_line",
                columns: new[] { "ended", "urgency", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_urgency_number",
                table: "ticket_line",
                columns: new[] { "urgency", "number" });
        }
    }
}
