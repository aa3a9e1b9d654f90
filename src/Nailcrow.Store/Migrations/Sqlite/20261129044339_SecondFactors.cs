using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class SecondFactors : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "passkey",
                columns: table => new
                {
                    credential_id = table.Column<byte[]>(type: "BLOB", maxLength: 1023, nullable: false),
                    user_id = table.Column<string>(type: "TEXT", nullable: false),
                    data = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_passkey", x => x.credential_id);
                    table.ForeignKey(
                        name: "fk_passkey_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "second_factor",
                columns: table => new
                {
                    person = table.Column<string>(type: "TEXT", nullable: false),
                    code_key = table.Column<string>(type: "TEXT", nullable: true),
                    codes_since = table.Column<long>(type: "INTEGER", nullable: true),
                    last_step = table.Column<long>(type: "INTEGER", nullable: false),
                    offered_key = table.Column<string>(type: "TEXT", nullable: true),
                    offered_at = table.Column<long>(type: "INTEGER", nullable: true),
                    recovery_salt = table.Column<byte[]>(type: "BLOB", nullable: true),
                    recovery_hashes = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_second_factor", x => x.person);
                });

            migrationBuilder.CreateIndex(
                name: "ix_passkey_user_id",
                table: "passkey",
                column: "user_id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "passkey");

            migrationBuilder.DropTable(
                name: "second_factor");
        }
    }
}
