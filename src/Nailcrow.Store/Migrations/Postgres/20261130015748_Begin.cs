using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Nailcrow.Store.Migrations.Postgres
{
    /// <inheritdoc />
    public partial class Begin : Migration
    {
        // All that release 0.1.0 knew, in one. Records of 0.1.0 have it: this is the name of the last change that they saw.
        public const string Known = "20261130015748_AnsweredOnce";

        // What they saw before it, one after the other. A record that begins here has seen it as well, so that 0.1.0 can go back to it.
        private static readonly string[] Before =
        [
            "20261129210650_Begin",
            "20261130001024_RecordsMove",
            "20261130012528_OutboxInOrder",
        ];

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AlterDatabase()
                .Annotation("Npgsql:PostgresExtension:pg_trgm", ",,");

            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    full_name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    role_words = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    disabled_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    disabled_because = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    must_change = table.Column<bool>(type: "boolean", nullable: false),
                    first_until = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    normalized_user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    normalized_email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true, collation: "C"),
                    email_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    password_hash = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    security_stamp = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    phone_number = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    phone_number_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    two_factor_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    lockout_end = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    lockout_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    access_failed_count = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_users", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "appliance",
                columns: table => new
                {
                    asset = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    serial = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    model = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    site = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    location = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    address = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    arrays = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    expansions = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    sends_as = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    version = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_appliance", x => x.asset);
                });

            migrationBuilder.CreateTable(
                name: "appliance_model",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    body = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_appliance_model", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "customer",
                columns: table => new
                {
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    body = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_customer", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "drive",
                columns: table => new
                {
                    serial = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    serial_reversed = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    model = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    bytes = table.Column<long>(type: "bigint", nullable: false),
                    asset = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    bay = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    depot = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    hours = table.Column<int>(type: "integer", nullable: true),
                    used_in = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive", x => x.serial);
                });

            migrationBuilder.CreateTable(
                name: "drive_life",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    nth = table.Column<int>(type: "integer", nullable: false),
                    serial = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    asset = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    bay = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    sentence = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    by = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_life", x => new { x.ticket, x.nth });
                });

            migrationBuilder.CreateTable(
                name: "drive_model",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    body = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_model", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "drive_place",
                columns: table => new
                {
                    serial = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    asset = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    holder_kind = table.Column<string>(type: "text", nullable: false),
                    holder = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_place", x => new { x.serial, x.ticket });
                });

            migrationBuilder.CreateTable(
                name: "event_sender",
                columns: table => new
                {
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    secret = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    added_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_event_sender", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "intake",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    received_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    via = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    sender = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    text = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    app = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    outcome = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    rule = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    asset = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    ticket = table.Column<long>(type: "bigint", nullable: true),
                    pending = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "intake_rule",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    body = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake_rule", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "journal",
                columns: table => new
                {
                    position = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    seq = table.Column<long>(type: "bigint", nullable: false),
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    recorded_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    kind = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    text = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    hash = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_journal", x => x.position);
                });

            migrationBuilder.CreateTable(
                name: "lease",
                columns: table => new
                {
                    work = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    node = table.Column<Guid>(type: "uuid", nullable: true),
                    turn = table.Column<long>(type: "bigint", nullable: false),
                    until = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_lease", x => x.work);
                });

            migrationBuilder.CreateTable(
                name: "ledger",
                columns: table => new
                {
                    position = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    serial = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    seq = table.Column<long>(type: "bigint", nullable: false),
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    ticket = table.Column<long>(type: "bigint", nullable: true),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    hash = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ledger", x => x.position);
                });

            migrationBuilder.CreateTable(
                name: "machine_access",
                columns: table => new
                {
                    asset = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    origin = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    name = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    secret = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    secret_file = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    way = table.Column<string>(type: "text", nullable: true),
                    given_by = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    given_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    stamp = table.Column<Guid>(type: "uuid", nullable: true),
                    trusted_sha256 = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    trusted_subject = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    trusted_from = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    trusted_until = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    trusted_by = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    trusted_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    offered_sha256 = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    offered_subject = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    offered_from = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    offered_until = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    offered_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machine_access", x => x.asset);
                });

            migrationBuilder.CreateTable(
                name: "node",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    since = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    seen_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_node", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "outbox",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    partner = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    about = table.Column<Guid>(type: "uuid", nullable: false),
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    written_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    state = table.Column<string>(type: "text", nullable: false),
                    due_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    says = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    label = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    follow_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_outbox", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "part",
                columns: table => new
                {
                    serial = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    serial_reversed = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    model = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    bytes = table.Column<long>(type: "bigint", nullable: false),
                    hours = table.Column<int>(type: "integer", nullable: true),
                    holder_kind = table.Column<string>(type: "text", nullable: false),
                    holder = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    shelf = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    asset = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    since = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    ticket = table.Column<long>(type: "bigint", nullable: true),
                    reserved_for = table.Column<long>(type: "bigint", nullable: true),
                    going = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    due_by = table.Column<DateOnly>(type: "date", nullable: true),
                    unwiped_from = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    to_inspect = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    apart = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_part", x => x.serial);
                });

            migrationBuilder.CreateTable(
                name: "partner",
                columns: table => new
                {
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    kind = table.Column<string>(type: "text", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    secret = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_partner", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "photo",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    media_type = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    content = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_photo", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "picture_period",
                columns: table => new
                {
                    customer = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    months = table.Column<int>(type: "integer", nullable: false),
                    since = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_picture_period", x => x.customer);
                });

            migrationBuilder.CreateTable(
                name: "procedure_version",
                columns: table => new
                {
                    procedure = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    version = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    title = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    file = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    files = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    states = table.Column<int>(type: "integer", nullable: false),
                    proved_under = table.Column<int>(type: "integer", nullable: false, defaultValue: 1),
                    published_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    published_by = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    withdrawn_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    withdrawn_by = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    withdrawn_because = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    earlier = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_procedure_version", x => new { x.procedure, x.version });
                });

            migrationBuilder.CreateTable(
                name: "qualified",
                columns: table => new
                {
                    appliance_model = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    drive_model = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    not_because = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_qualified", x => new { x.appliance_model, x.drive_model });
                });

            migrationBuilder.CreateTable(
                name: "reference_change",
                columns: table => new
                {
                    id = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    kind = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    before = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    after = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_reference_change", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "script_key",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    person = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    hash = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    role_words = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    read_only = table.Column<bool>(type: "boolean", nullable: false),
                    since = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    until = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    last_used = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    ended_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_script_key", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "seal",
                columns: table => new
                {
                    number = table.Column<long>(type: "bigint", nullable: false),
                    entries = table.Column<long>(type: "bigint", nullable: false),
                    position = table.Column<long>(type: "bigint", nullable: false),
                    block_position = table.Column<long>(type: "bigint", nullable: false),
                    sealed_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_seal", x => x.number);
                });

            migrationBuilder.CreateTable(
                name: "second_factor",
                columns: table => new
                {
                    person = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    code_key = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    codes_since = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    last_step = table.Column<long>(type: "bigint", nullable: false),
                    offered_key = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    offered_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    recovery_salt = table.Column<byte[]>(type: "bytea", nullable: true),
                    recovery_hashes = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_second_factor", x => x.person);
                });

            migrationBuilder.CreateTable(
                name: "security_line",
                columns: table => new
                {
                    seq = table.Column<long>(type: "bigint", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    kind = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    text = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    hash = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_security_line", x => x.seq);
                });

            migrationBuilder.CreateTable(
                name: "session",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    person = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    since = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    until = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    last_seen = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    device = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    address = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    ended_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    elsewhere = table.Column<bool>(type: "boolean", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_session", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "shared_key",
                columns: table => new
                {
                    kind = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    text = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shared_key", x => new { x.kind, x.name });
                });

            migrationBuilder.CreateTable(
                name: "sign_in_letter",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    to = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    says = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    address = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    due_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    tries = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_in_letter", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "site",
                columns: table => new
                {
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    customer = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    body = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_site", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "snapshot",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    seq = table.Column<long>(type: "bigint", nullable: false),
                    asset = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    source = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    by = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_snapshot", x => new { x.ticket, x.seq });
                });

            migrationBuilder.CreateTable(
                name: "step_time",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "bigint", nullable: false),
                    nth = table.Column<int>(type: "integer", nullable: false),
                    procedure = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    version = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    step = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    seconds = table.Column<double>(type: "double precision", nullable: false),
                    branch = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    overruled = table.Column<bool>(type: "boolean", nullable: false),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_step_time", x => new { x.ticket, x.nth });
                });

            migrationBuilder.CreateTable(
                name: "supply",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    holder_kind = table.Column<string>(type: "text", nullable: false),
                    holder = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    count = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_supply", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "ticket_line",
                columns: table => new
                {
                    number = table.Column<long>(type: "bigint", nullable: false),
                    asset = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    model = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    customer = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    site = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    symptom = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    bay = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    serial = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    stage = table.Column<string>(type: "text", nullable: false),
                    ended = table.Column<bool>(type: "boolean", nullable: false),
                    margin = table.Column<int>(type: "integer", nullable: true),
                    urgency = table.Column<double>(type: "double precision", nullable: false),
                    due_order = table.Column<long>(type: "bigint", nullable: false),
                    danger = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    engineer = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    next_who = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    next = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    next_move = table.Column<string>(type: "text", nullable: false),
                    hold_reason = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    at_worst = table.Column<int>(type: "integer", nullable: true),
                    help = table.Column<string>(type: "text", nullable: false),
                    due_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    due = table.Column<string>(type: "text", nullable: true),
                    visit_from = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    visit_to = table.Column<DateTime>(type: "timestamp with time zone", nullable: true),
                    array = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    escalated = table.Column<bool>(type: "boolean", nullable: false),
                    watched = table.Column<bool>(type: "boolean", nullable: false),
                    received_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    changed_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false),
                    head = table.Column<long>(type: "bigint", nullable: false),
                    head_hash = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    rules = table.Column<int>(type: "integer", nullable: false),
                    found_by = table.Column<string>(type: "text", nullable: true, computedColumnSql: "lower((asset || chr(10) || coalesce(serial, '') || chr(10) || site || chr(10) || customer) COLLATE \"und-x-icu\")", stored: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ticket_line", x => x.number);
                });

            migrationBuilder.CreateTable(
                name: "warranty",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    serial = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    serial_reversed = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    model = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    until = table.Column<DateOnly>(type: "date", nullable: false),
                    from = table.Column<DateOnly>(type: "date", nullable: true),
                    terms = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    source = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    said_at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_warranty", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    user_id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    claim_type = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    claim_value = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_asp_net_user_claims_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserLogins",
                columns: table => new
                {
                    login_provider = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    provider_key = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    provider_display_name = table.Column<string>(type: "text", nullable: true, collation: "C"),
                    user_id = table.Column<string>(type: "text", nullable: false, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_logins", x => new { x.login_provider, x.provider_key });
                    table.ForeignKey(
                        name: "fk_asp_net_user_logins_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserTokens",
                columns: table => new
                {
                    user_id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    login_provider = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    name = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    value = table.Column<string>(type: "text", nullable: true, collation: "C")
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_tokens", x => new { x.user_id, x.login_provider, x.name });
                    table.ForeignKey(
                        name: "fk_asp_net_user_tokens_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "passkey",
                columns: table => new
                {
                    credential_id = table.Column<byte[]>(type: "bytea", maxLength: 1023, nullable: false),
                    user_id = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    data = table.Column<string>(type: "jsonb", nullable: false)
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

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_user_claims_user_id",
                table: "AspNetUserClaims",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_asp_net_user_logins_user_id",
                table: "AspNetUserLogins",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "AspNetUsers",
                column: "normalized_email");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "AspNetUsers",
                column: "normalized_user_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_appliance_sends_as",
                table: "appliance",
                column: "sends_as");

            migrationBuilder.CreateIndex(
                name: "ix_appliance_serial",
                table: "appliance",
                column: "serial");

            migrationBuilder.CreateIndex(
                name: "ix_appliance_site",
                table: "appliance",
                column: "site");

            migrationBuilder.CreateIndex(
                name: "ix_drive_asset_bay",
                table: "drive",
                columns: new[] { "asset", "bay" });

            migrationBuilder.CreateIndex(
                name: "ix_drive_depot",
                table: "drive",
                column: "depot");

            migrationBuilder.CreateIndex(
                name: "ix_drive_serial_reversed",
                table: "drive",
                column: "serial_reversed");

            migrationBuilder.CreateIndex(
                name: "ix_drive_life_serial_at",
                table: "drive_life",
                columns: new[] { "serial", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_drive_place_ticket",
                table: "drive_place",
                column: "ticket");

            migrationBuilder.CreateIndex(
                name: "ix_intake_outcome_received_at",
                table: "intake",
                columns: new[] { "outcome", "received_at" });

            migrationBuilder.CreateIndex(
                name: "ix_journal_id",
                table: "journal",
                column: "id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_journal_ticket_seq",
                table: "journal",
                columns: new[] { "ticket", "seq" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_ledger_id",
                table: "ledger",
                column: "id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_ledger_serial_seq",
                table: "ledger",
                columns: new[] { "serial", "seq" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_ledger_ticket",
                table: "ledger",
                column: "ticket");

            migrationBuilder.CreateIndex(
                name: "ix_machine_access_waits",
                table: "machine_access",
                column: "asset",
                filter: "offered_sha256 IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_follow_at",
                table: "outbox",
                column: "follow_at");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_label",
                table: "outbox",
                column: "label");

            migrationBuilder.CreateIndex(
                name: "ix_outbox_state_due_at",
                table: "outbox",
                columns: new[] { "state", "due_at" });

            migrationBuilder.CreateIndex(
                name: "ix_part_apart_since",
                table: "part",
                columns: new[] { "apart", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_part_due_by_serial",
                table: "part",
                columns: new[] { "due_by", "serial" });

            migrationBuilder.CreateIndex(
                name: "ix_part_holder_kind_holder_model_serial",
                table: "part",
                columns: new[] { "holder_kind", "holder", "model", "serial" });

            migrationBuilder.CreateIndex(
                name: "ix_part_holder_kind_reserved_for_bytes",
                table: "part",
                columns: new[] { "holder_kind", "reserved_for", "bytes" });

            migrationBuilder.CreateIndex(
                name: "ix_part_holder_kind_since",
                table: "part",
                columns: new[] { "holder_kind", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_part_reserved_for",
                table: "part",
                column: "reserved_for");

            migrationBuilder.CreateIndex(
                name: "ix_part_serial_reversed",
                table: "part",
                column: "serial_reversed");

            migrationBuilder.CreateIndex(
                name: "ix_part_to_inspect_since",
                table: "part",
                columns: new[] { "to_inspect", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_passkey_user_id",
                table: "passkey",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_photo_ticket",
                table: "photo",
                column: "ticket");

            migrationBuilder.CreateIndex(
                name: "ix_script_key_person_since",
                table: "script_key",
                columns: new[] { "person", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_security_line_by_seq",
                table: "security_line",
                columns: new[] { "by", "seq" });

            migrationBuilder.CreateIndex(
                name: "ix_security_line_kind_seq",
                table: "security_line",
                columns: new[] { "kind", "seq" });

            migrationBuilder.CreateIndex(
                name: "ix_session_person_since",
                table: "session",
                columns: new[] { "person", "since" });

            migrationBuilder.CreateIndex(
                name: "ix_sign_in_letter_due_at",
                table: "sign_in_letter",
                column: "due_at");

            migrationBuilder.CreateIndex(
                name: "ix_site_customer",
                table: "site",
                column: "customer");

            migrationBuilder.CreateIndex(
                name: "ix_snapshot_asset_at",
                table: "snapshot",
                columns: new[] { "asset", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_step_time_procedure_at",
                table: "step_time",
                columns: new[] { "procedure", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_supply_holder_kind_holder",
                table: "supply",
                columns: new[] { "holder_kind", "holder" });

            migrationBuilder.CreateIndex(
                name: "ix_supply_key_holder_kind",
                table: "supply",
                columns: new[] { "key", "holder_kind" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_asset_number",
                table: "ticket_line",
                columns: new[] { "asset", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_due_order_number",
                table: "ticket_line",
                columns: new[] { "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_ended_due_order_number",
                table: "ticket_line",
                columns: new[] { "ended", "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_ended_number",
                table: "ticket_line",
                columns: new[] { "ended", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_engineer_ended_number",
                table: "ticket_line",
                columns: new[] { "engineer", "ended", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_engineer_visit_from",
                table: "ticket_line",
                columns: new[] { "engineer", "visit_from" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_found_by",
                table: "ticket_line",
                column: "found_by")
                .Annotation("Npgsql:IndexMethod", "gin")
                .Annotation("Npgsql:IndexOperators", new[] { "gin_trgm_ops" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_next_who_urgency_due_order_number",
                table: "ticket_line",
                columns: new[] { "next_who", "urgency", "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_rules",
                table: "ticket_line",
                column: "rules");

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_serial_number",
                table: "ticket_line",
                columns: new[] { "serial", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_stage_number",
                table: "ticket_line",
                columns: new[] { "stage", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_urgency_due_order_number",
                table: "ticket_line",
                columns: new[] { "urgency", "due_order", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_ticket_line_watched",
                table: "ticket_line",
                column: "watched");

            migrationBuilder.CreateIndex(
                name: "ix_warranty_model",
                table: "warranty",
                column: "model");

            migrationBuilder.CreateIndex(
                name: "ix_warranty_serial",
                table: "warranty",
                column: "serial");

            migrationBuilder.CreateIndex(
                name: "ix_warranty_serial_reversed",
                table: "warranty",
                column: "serial_reversed");

            migrationBuilder.CreateIndex(
                name: "ix_warranty_until_id",
                table: "warranty",
                columns: new[] { "until", "id" });

            // What SQLite remembers by itself: how many rows were ever given to what is only added to.
            migrationBuilder.Sql(
                """
                CREATE TABLE ever_given (name text COLLATE "C" PRIMARY KEY, number bigint NOT NULL);
                INSERT INTO ever_given VALUES ('journal', 0), ('ledger', 0), ('security_line', 0);
                CREATE FUNCTION counts_what_is_given() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
                  UPDATE ever_given SET number = number + (SELECT count(*) FROM given) WHERE name = TG_TABLE_NAME; RETURN NULL;
                END $$;
                CREATE TRIGGER journal_is_counted AFTER INSERT ON journal REFERENCING NEW TABLE AS given
                  FOR EACH STATEMENT EXECUTE FUNCTION counts_what_is_given();
                CREATE TRIGGER ledger_is_counted AFTER INSERT ON ledger REFERENCING NEW TABLE AS given
                  FOR EACH STATEMENT EXECUTE FUNCTION counts_what_is_given();
                CREATE TRIGGER security_line_is_counted AFTER INSERT ON security_line REFERENCING NEW TABLE AS given
                  FOR EACH STATEMENT EXECUTE FUNCTION counts_what_is_given();
                """
            );

            migrationBuilder.CreateTable(
                name: "record_place",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false),
                    why = table.Column<string>(type: "text", nullable: false),
                    place = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    at = table.Column<DateTime>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_record_place", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_outbox_state_written_at_id",
                table: "outbox",
                columns: new[] { "state", "written_at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_outbox_ticket",
                table: "outbox",
                column: "ticket");

            migrationBuilder.CreateTable(
                name: "answered",
                columns: table => new
                {
                    hash = table.Column<string>(type: "text", nullable: false, collation: "C"),
                    until = table.Column<long>(type: "bigint", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_answered", x => x.hash);
                });

            migrationBuilder.CreateIndex(
                name: "ix_answered_until",
                table: "answered",
                column: "until");

            foreach (var seen in Before)
                migrationBuilder.Sql($"INSERT INTO \"__EFMigrationsHistory\" (migration_id, product_version) VALUES ('{seen}', '10.0.9')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "answered");

            migrationBuilder.DropTable(
                name: "record_place");

            migrationBuilder.DropTable(
                name: "AspNetUserClaims");

            migrationBuilder.DropTable(
                name: "AspNetUserLogins");

            migrationBuilder.DropTable(
                name: "AspNetUserTokens");

            migrationBuilder.DropTable(
                name: "appliance");

            migrationBuilder.DropTable(
                name: "appliance_model");

            migrationBuilder.DropTable(
                name: "customer");

            migrationBuilder.DropTable(
                name: "drive");

            migrationBuilder.DropTable(
                name: "drive_life");

            migrationBuilder.DropTable(
                name: "drive_model");

            migrationBuilder.DropTable(
                name: "drive_place");

            migrationBuilder.DropTable(
                name: "event_sender");

            migrationBuilder.DropTable(
                name: "intake");

            migrationBuilder.DropTable(
                name: "intake_rule");

            migrationBuilder.DropTable(
                name: "journal");

            migrationBuilder.DropTable(
                name: "lease");

            migrationBuilder.DropTable(
                name: "ledger");

            migrationBuilder.DropTable(
                name: "machine_access");

            migrationBuilder.DropTable(
                name: "node");

            migrationBuilder.DropTable(
                name: "outbox");

            migrationBuilder.DropTable(
                name: "part");

            migrationBuilder.DropTable(
                name: "partner");

            migrationBuilder.DropTable(
                name: "passkey");

            migrationBuilder.DropTable(
                name: "photo");

            migrationBuilder.DropTable(
                name: "picture_period");

            migrationBuilder.DropTable(
                name: "procedure_version");

            migrationBuilder.DropTable(
                name: "qualified");

            migrationBuilder.DropTable(
                name: "reference_change");

            migrationBuilder.DropTable(
                name: "script_key");

            migrationBuilder.DropTable(
                name: "seal");

            migrationBuilder.DropTable(
                name: "second_factor");

            migrationBuilder.DropTable(
                name: "security_line");

            migrationBuilder.DropTable(
                name: "session");

            migrationBuilder.DropTable(
                name: "shared_key");

            migrationBuilder.DropTable(
                name: "sign_in_letter");

            migrationBuilder.DropTable(
                name: "site");

            migrationBuilder.DropTable(
                name: "snapshot");

            migrationBuilder.DropTable(
                name: "step_time");

            migrationBuilder.DropTable(
                name: "supply");

            migrationBuilder.DropTable(
                name: "ticket_line");

            migrationBuilder.DropTable(
                name: "warranty");

            migrationBuilder.DropTable(
                name: "AspNetUsers");
        }
    }
}
