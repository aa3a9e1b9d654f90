using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class AsWritten : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // The old table is only set aside: JournalUpgrade puts each entry's text together from it, and drops it when it has all.
            migrationBuilder.Sql("DROP TRIGGER journal_keeps_every_entry");
            migrationBuilder.Sql("DROP TRIGGER journal_keeps_what_was_written");
            migrationBuilder.DropIndex(name: "ix_journal_id", table: "journal");
            migrationBuilder.DropIndex(name: "ix_journal_ticket_seq", table: "journal");
            migrationBuilder.RenameTable(name: "journal", newName: "journal_before");
            migrationBuilder.CreateTable(
                name: "journal",
                columns: table => new
                {
                    position = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    id = table.Column<System.Guid>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    recorded_at = table.Column<long>(type: "INTEGER", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_journal", x => x.position);
                });
            migrationBuilder.CreateIndex(name: "ix_journal_id", table: "journal", column: "id", unique: true);
            migrationBuilder.CreateIndex(name: "ix_journal_ticket_seq", table: "journal", columns: new[] { "ticket", "seq" }, unique: true);

            migrationBuilder.AddColumn<int>(
                name: "rules",
                table: "ticket_line",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "seal",
                columns: table => new
                {
                    number = table.Column<long>(type: "INTEGER", nullable: false),
                    entries = table.Column<long>(type: "INTEGER", nullable: false),
                    position = table.Column<long>(type: "INTEGER", nullable: false),
                    block_position = table.Column<long>(type: "INTEGER", nullable: false),
                    sealed_at = table.Column<long>(type: "INTEGER", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_seal", x => x.number);
                });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_rules",
                table: "ticket_line",
                column: "rules");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            throw new System.NotSupportedException("What was put together is not taken apart again; restore a backup of the release before.");
        }
    }
}
