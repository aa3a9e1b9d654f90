using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class TicketsByAnyPart : Migration
    {
        // Groups of three characters of what a ticket is found by, kept by triggers; a line between them, so that no part spans two.
        private const string Text =
            "{0}.asset || char(10) || coalesce({0}.serial, '') || char(10) || {0}.site || char(10) || {0}.customer";

        private static string TextOf(string row) => string.Format(System.Globalization.CultureInfo.InvariantCulture, Text, row);

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                "CREATE VIRTUAL TABLE ticket_part USING fts5(text, content='', contentless_delete=1, tokenize='trigram')"
            );
            migrationBuilder.Sql($"INSERT INTO ticket_part (rowid, text) SELECT number, {TextOf("ticket_line")} FROM ticket_line");
            migrationBuilder.Sql(
                $"CREATE TRIGGER ticket_part_added AFTER INSERT ON ticket_line BEGIN INSERT INTO ticket_part (rowid, text) VALUES (new.number, {TextOf("new")}); END"
            );
            migrationBuilder.Sql(
                "CREATE TRIGGER ticket_part_changed AFTER UPDATE OF asset, serial, site, customer ON ticket_line "
                    + $"WHEN {TextOf("new")} <> {TextOf("old")} BEGIN "
                    + "DELETE FROM ticket_part WHERE rowid = old.number; "
                    + $"INSERT INTO ticket_part (rowid, text) VALUES (new.number, {TextOf("new")}); END"
            );
            migrationBuilder.Sql(
                "CREATE TRIGGER ticket_part_removed AFTER DELETE ON ticket_line BEGIN DELETE FROM ticket_part WHERE rowid = old.number; END"
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TRIGGER ticket_part_added");
            migrationBuilder.Sql("DROP TRIGGER ticket_part_changed");
            migrationBuilder.Sql("DROP TRIGGER ticket_part_removed");
            migrationBuilder.Sql("DROP TABLE ticket_part");
        }
    }
}
