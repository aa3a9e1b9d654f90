using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Sqlite
{
    /// <inheritdoc />
    public partial class Begin : Migration
    {
        // All that release 0.1.0 knew, in one. Records of 0.1.0 have it: this is the name of the last change that they saw.
        public const string Known = "20261130015744_AnsweredOnce";

        // What they saw before it, one after the other. A record that begins here has seen it as well, so that 0.1.0 can go back to it.
        private static readonly string[] Before =
        [
            "20261125003710_Beginning",
            "20261125103924_NextMoveInsteadOfRoom",
            "20261125115949_IntakePlanningAndDrives",
            "20261125154744_ProceduresHaveVersions",
            "20261126022652_AsWritten",
            "20261126211226_ProcedureIsProvedAnew",
            "20261126214928_TicketsInOrder",
            "20261126215017_TicketsByAnyPart",
            "20261126235332_TicketsByPriority",
            "20261127103427_ProceduresAreBroughtBack",
            "20261127154945_CustomersAreAList",
            "20261127210250_PartsHaveALedger",
            "20261128010832_LateOnesAreFoundInOrder",
            "20261128012429_WhatIsKnownNotToWork",
            "20261128034710_CarriersAndMakersAreAsked",
            "20261128075620_WarrantiesAreKnown",
            "20261128082402_WhatCameBackIsLookedAt",
            "20261128133753_WhatLiesApart",
            "20261128154421_SuppliesAreCounted",
            "20261128194055_PeopleComeAndGo",
            "20261128235219_MachinesComeInto",
            "20261129011716_FirstPasswordsRunOut",
            "20261129044339_SecondFactors",
            "20261129053331_SignInNewsGoOut",
            "20261129085031_SignInElsewhere",
            "20261129124334_PicturesGo",
            "20261130001020_RecordsMove",
            "20261130012522_OutboxInOrder",
        ];

        // Groups of three characters of what a ticket is found by, kept by triggers; a line between them, so that no part spans two.
        private const string Text =
            "{0}.asset || char(10) || coalesce({0}.serial, '') || char(10) || {0}.site || char(10) || {0}.customer";

        private static string TextOf(string row) => string.Format(System.Globalization.CultureInfo.InvariantCulture, Text, row);

        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    full_name = table.Column<string>(type: "TEXT", nullable: false),
                    role_words = table.Column<string>(type: "TEXT", nullable: false),
                    disabled_at = table.Column<long>(type: "INTEGER", nullable: true),
                    disabled_because = table.Column<string>(type: "TEXT", nullable: true),
                    must_change = table.Column<bool>(type: "INTEGER", nullable: false),
                    first_until = table.Column<long>(type: "INTEGER", nullable: true),
                    user_name = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    normalized_user_name = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    email = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    normalized_email = table.Column<string>(type: "TEXT", maxLength: 256, nullable: true),
                    email_confirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    password_hash = table.Column<string>(type: "TEXT", nullable: true),
                    security_stamp = table.Column<string>(type: "TEXT", nullable: true),
                    concurrency_stamp = table.Column<string>(type: "TEXT", nullable: true),
                    phone_number = table.Column<string>(type: "TEXT", nullable: true),
                    phone_number_confirmed = table.Column<bool>(type: "INTEGER", nullable: false),
                    two_factor_enabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    lockout_end = table.Column<long>(type: "INTEGER", nullable: true),
                    lockout_enabled = table.Column<bool>(type: "INTEGER", nullable: false),
                    access_failed_count = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_users", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "answered",
                columns: table => new
                {
                    hash = table.Column<string>(type: "TEXT", nullable: false),
                    until = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_answered", x => x.hash);
                });

            migrationBuilder.CreateTable(
                name: "appliance",
                columns: table => new
                {
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    site = table.Column<string>(type: "TEXT", nullable: false),
                    location = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: true),
                    arrays = table.Column<string>(type: "TEXT", nullable: false),
                    expansions = table.Column<string>(type: "TEXT", nullable: true),
                    sends_as = table.Column<string>(type: "TEXT", nullable: true),
                    version = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_appliance", x => x.asset);
                });

            migrationBuilder.CreateTable(
                name: "appliance_model",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_appliance_model", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "customer",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_customer", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "drive",
                columns: table => new
                {
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    serial_reversed = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: true),
                    bay = table.Column<string>(type: "TEXT", nullable: true),
                    depot = table.Column<string>(type: "TEXT", nullable: true),
                    hours = table.Column<long>(type: "INTEGER", nullable: true),
                    used_in = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive", x => x.serial);
                });

            migrationBuilder.CreateTable(
                name: "drive_life",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    nth = table.Column<long>(type: "INTEGER", nullable: false),
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    bay = table.Column<string>(type: "TEXT", nullable: true),
                    sentence = table.Column<string>(type: "TEXT", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_life", x => new { x.ticket, x.nth });
                });

            migrationBuilder.CreateTable(
                name: "drive_model",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_model", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "drive_place",
                columns: table => new
                {
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    holder_kind = table.Column<string>(type: "TEXT", nullable: false),
                    holder = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_drive_place", x => new { x.serial, x.ticket });
                });

            migrationBuilder.CreateTable(
                name: "event_sender",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    secret = table.Column<string>(type: "TEXT", nullable: false),
                    added_at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_event_sender", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "intake",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    received_at = table.Column<long>(type: "INTEGER", nullable: false),
                    via = table.Column<string>(type: "TEXT", nullable: false),
                    sender = table.Column<string>(type: "TEXT", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    app = table.Column<string>(type: "TEXT", nullable: true),
                    outcome = table.Column<string>(type: "TEXT", nullable: false),
                    rule = table.Column<string>(type: "TEXT", nullable: true),
                    asset = table.Column<string>(type: "TEXT", nullable: true),
                    ticket = table.Column<long>(type: "INTEGER", nullable: true),
                    pending = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "intake_rule",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake_rule", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "journal",
                columns: table => new
                {
                    position = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
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

            migrationBuilder.CreateTable(
                name: "ledger",
                columns: table => new
                {
                    position = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ledger", x => x.position);
                });

            migrationBuilder.CreateTable(
                name: "machine_access",
                columns: table => new
                {
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    origin = table.Column<string>(type: "TEXT", nullable: true),
                    name = table.Column<string>(type: "TEXT", nullable: true),
                    secret = table.Column<string>(type: "TEXT", nullable: true),
                    secret_file = table.Column<string>(type: "TEXT", nullable: true),
                    way = table.Column<string>(type: "TEXT", nullable: true),
                    given_by = table.Column<string>(type: "TEXT", nullable: true),
                    given_at = table.Column<long>(type: "INTEGER", nullable: true),
                    stamp = table.Column<Guid>(type: "TEXT", nullable: true),
                    trusted_sha256 = table.Column<string>(type: "TEXT", nullable: true),
                    trusted_subject = table.Column<string>(type: "TEXT", nullable: true),
                    trusted_from = table.Column<long>(type: "INTEGER", nullable: true),
                    trusted_until = table.Column<long>(type: "INTEGER", nullable: true),
                    trusted_by = table.Column<string>(type: "TEXT", nullable: true),
                    trusted_at = table.Column<long>(type: "INTEGER", nullable: true),
                    offered_sha256 = table.Column<string>(type: "TEXT", nullable: true),
                    offered_subject = table.Column<string>(type: "TEXT", nullable: true),
                    offered_from = table.Column<long>(type: "INTEGER", nullable: true),
                    offered_until = table.Column<long>(type: "INTEGER", nullable: true),
                    offered_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machine_access", x => x.asset);
                });

            migrationBuilder.CreateTable(
                name: "never_given",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    numbers = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_never_given", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "outbox",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    partner = table.Column<string>(type: "TEXT", nullable: false),
                    about = table.Column<Guid>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    written_at = table.Column<long>(type: "INTEGER", nullable: false),
                    state = table.Column<string>(type: "TEXT", nullable: false),
                    due_at = table.Column<long>(type: "INTEGER", nullable: true),
                    tries = table.Column<long>(type: "INTEGER", nullable: false),
                    says = table.Column<string>(type: "TEXT", nullable: true),
                    label = table.Column<string>(type: "TEXT", nullable: true),
                    follow_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_outbox", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "part",
                columns: table => new
                {
                    serial = table.Column<string>(type: "TEXT", nullable: false),
                    serial_reversed = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    bytes = table.Column<long>(type: "INTEGER", nullable: false),
                    hours = table.Column<long>(type: "INTEGER", nullable: true),
                    holder_kind = table.Column<string>(type: "TEXT", nullable: false),
                    holder = table.Column<string>(type: "TEXT", nullable: false),
                    shelf = table.Column<string>(type: "TEXT", nullable: true),
                    asset = table.Column<string>(type: "TEXT", nullable: true),
                    since = table.Column<long>(type: "INTEGER", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: true),
                    reserved_for = table.Column<long>(type: "INTEGER", nullable: true),
                    going = table.Column<string>(type: "TEXT", nullable: true),
                    due_by = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    unwiped_from = table.Column<string>(type: "TEXT", nullable: true),
                    to_inspect = table.Column<string>(type: "TEXT", nullable: true),
                    apart = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_part", x => x.serial);
                });

            migrationBuilder.CreateTable(
                name: "partner",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: false),
                    secret = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_partner", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "photo",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    media_type = table.Column<string>(type: "TEXT", nullable: false),
                    content = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_photo", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "picture_period",
                columns: table => new
                {
                    customer = table.Column<string>(type: "TEXT", nullable: false),
                    months = table.Column<long>(type: "INTEGER", nullable: false),
                    since = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_picture_period", x => x.customer);
                });

            migrationBuilder.CreateTable(
                name: "procedure_version",
                columns: table => new
                {
                    procedure = table.Column<string>(type: "TEXT", nullable: false),
                    version = table.Column<string>(type: "TEXT", nullable: false),
                    title = table.Column<string>(type: "TEXT", nullable: false),
                    file = table.Column<string>(type: "TEXT", nullable: false),
                    files = table.Column<string>(type: "TEXT", nullable: false),
                    states = table.Column<long>(type: "INTEGER", nullable: false),
                    proved_under = table.Column<long>(type: "INTEGER", nullable: false, defaultValue: 1L),
                    published_at = table.Column<long>(type: "INTEGER", nullable: false),
                    published_by = table.Column<string>(type: "TEXT", nullable: false),
                    withdrawn_at = table.Column<long>(type: "INTEGER", nullable: true),
                    withdrawn_by = table.Column<string>(type: "TEXT", nullable: true),
                    withdrawn_because = table.Column<string>(type: "TEXT", nullable: true),
                    earlier = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_procedure_version", x => new { x.procedure, x.version });
                });

            migrationBuilder.CreateTable(
                name: "qualified",
                columns: table => new
                {
                    appliance_model = table.Column<string>(type: "TEXT", nullable: false),
                    drive_model = table.Column<string>(type: "TEXT", nullable: false),
                    not_because = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_qualified", x => new { x.appliance_model, x.drive_model });
                });

            migrationBuilder.CreateTable(
                name: "record_place",
                columns: table => new
                {
                    id = table.Column<long>(type: "INTEGER", nullable: false),
                    why = table.Column<string>(type: "TEXT", nullable: false),
                    place = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_record_place", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "reference_change",
                columns: table => new
                {
                    id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    key = table.Column<string>(type: "TEXT", nullable: false),
                    before = table.Column<string>(type: "TEXT", nullable: true),
                    after = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_reference_change", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "script_key",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    person = table.Column<string>(type: "TEXT", nullable: false),
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false),
                    role_words = table.Column<string>(type: "TEXT", nullable: false),
                    read_only = table.Column<bool>(type: "INTEGER", nullable: false),
                    since = table.Column<long>(type: "INTEGER", nullable: false),
                    until = table.Column<long>(type: "INTEGER", nullable: false),
                    last_used = table.Column<long>(type: "INTEGER", nullable: true),
                    ended_at = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_script_key", x => x.id);
                });

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

            migrationBuilder.CreateTable(
                name: "security_line",
                columns: table => new
                {
                    seq = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false),
                    kind = table.Column<string>(type: "TEXT", nullable: false),
                    text = table.Column<string>(type: "TEXT", nullable: false),
                    hash = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_security_line", x => x.seq);
                });

            migrationBuilder.CreateTable(
                name: "session",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "TEXT", nullable: false),
                    person = table.Column<string>(type: "TEXT", nullable: false),
                    since = table.Column<long>(type: "INTEGER", nullable: false),
                    until = table.Column<long>(type: "INTEGER", nullable: false),
                    last_seen = table.Column<long>(type: "INTEGER", nullable: false),
                    device = table.Column<string>(type: "TEXT", nullable: false),
                    address = table.Column<string>(type: "TEXT", nullable: false),
                    ended_at = table.Column<long>(type: "INTEGER", nullable: true),
                    elsewhere = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_session", x => x.id);
                });

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

            migrationBuilder.CreateTable(
                name: "site",
                columns: table => new
                {
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    customer = table.Column<string>(type: "TEXT", nullable: false),
                    body = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_site", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "snapshot",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    seq = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false),
                    source = table.Column<string>(type: "TEXT", nullable: false),
                    by = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_snapshot", x => new { x.ticket, x.seq });
                });

            migrationBuilder.CreateTable(
                name: "step_time",
                columns: table => new
                {
                    ticket = table.Column<long>(type: "INTEGER", nullable: false),
                    nth = table.Column<long>(type: "INTEGER", nullable: false),
                    procedure = table.Column<string>(type: "TEXT", nullable: false),
                    version = table.Column<string>(type: "TEXT", nullable: false),
                    step = table.Column<string>(type: "TEXT", nullable: false),
                    seconds = table.Column<double>(type: "REAL", nullable: false),
                    branch = table.Column<string>(type: "TEXT", nullable: false),
                    overruled = table.Column<bool>(type: "INTEGER", nullable: false),
                    at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_step_time", x => new { x.ticket, x.nth });
                });

            migrationBuilder.CreateTable(
                name: "supply",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    key = table.Column<string>(type: "TEXT", nullable: false),
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    holder_kind = table.Column<string>(type: "TEXT", nullable: false),
                    holder = table.Column<string>(type: "TEXT", nullable: false),
                    count = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_supply", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "ticket_line",
                columns: table => new
                {
                    number = table.Column<long>(type: "INTEGER", nullable: false),
                    asset = table.Column<string>(type: "TEXT", nullable: false),
                    model = table.Column<string>(type: "TEXT", nullable: false),
                    customer = table.Column<string>(type: "TEXT", nullable: false),
                    site = table.Column<string>(type: "TEXT", nullable: false),
                    symptom = table.Column<string>(type: "TEXT", nullable: false),
                    bay = table.Column<string>(type: "TEXT", nullable: true),
                    serial = table.Column<string>(type: "TEXT", nullable: true),
                    stage = table.Column<string>(type: "TEXT", nullable: false),
                    ended = table.Column<bool>(type: "INTEGER", nullable: false),
                    margin = table.Column<long>(type: "INTEGER", nullable: true),
                    urgency = table.Column<double>(type: "REAL", nullable: false),
                    due_order = table.Column<long>(type: "INTEGER", nullable: false),
                    danger = table.Column<string>(type: "TEXT", nullable: false),
                    engineer = table.Column<string>(type: "TEXT", nullable: true),
                    next_who = table.Column<string>(type: "TEXT", nullable: false),
                    next = table.Column<string>(type: "TEXT", nullable: false),
                    next_move = table.Column<string>(type: "TEXT", nullable: false),
                    hold_reason = table.Column<string>(type: "TEXT", nullable: true),
                    at_worst = table.Column<long>(type: "INTEGER", nullable: true),
                    help = table.Column<string>(type: "TEXT", nullable: false),
                    due_at = table.Column<long>(type: "INTEGER", nullable: true),
                    due = table.Column<string>(type: "TEXT", nullable: true),
                    visit_from = table.Column<long>(type: "INTEGER", nullable: true),
                    visit_to = table.Column<long>(type: "INTEGER", nullable: true),
                    array = table.Column<string>(type: "TEXT", nullable: true),
                    escalated = table.Column<bool>(type: "INTEGER", nullable: false),
                    watched = table.Column<bool>(type: "INTEGER", nullable: false),
                    received_at = table.Column<long>(type: "INTEGER", nullable: false),
                    changed_at = table.Column<long>(type: "INTEGER", nullable: false),
                    head = table.Column<long>(type: "INTEGER", nullable: false),
                    head_hash = table.Column<string>(type: "TEXT", nullable: false),
                    rules = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ticket_line", x => x.number);
                });

            migrationBuilder.CreateTable(
                name: "warranty",
                columns: table => new
                {
                    id = table.Column<string>(type: "TEXT", nullable: false),
                    serial = table.Column<string>(type: "TEXT", nullable: true),
                    serial_reversed = table.Column<string>(type: "TEXT", nullable: true),
                    model = table.Column<string>(type: "TEXT", nullable: true),
                    until = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    from = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    terms = table.Column<string>(type: "TEXT", nullable: true),
                    source = table.Column<string>(type: "TEXT", nullable: true),
                    said_at = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_warranty", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    user_id = table.Column<string>(type: "TEXT", nullable: false),
                    claim_type = table.Column<string>(type: "TEXT", nullable: true),
                    claim_value = table.Column<string>(type: "TEXT", nullable: true)
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
                    login_provider = table.Column<string>(type: "TEXT", nullable: false),
                    provider_key = table.Column<string>(type: "TEXT", nullable: false),
                    provider_display_name = table.Column<string>(type: "TEXT", nullable: true),
                    user_id = table.Column<string>(type: "TEXT", nullable: false)
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
                    user_id = table.Column<string>(type: "TEXT", nullable: false),
                    login_provider = table.Column<string>(type: "TEXT", nullable: false),
                    name = table.Column<string>(type: "TEXT", nullable: false),
                    value = table.Column<string>(type: "TEXT", nullable: true)
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
                name: "ix_answered_until",
                table: "answered",
                column: "until");

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
                name: "ix_outbox_state_written_at_id",
                table: "outbox",
                columns: new[] { "state", "written_at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_outbox_ticket",
                table: "outbox",
                column: "ticket");

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

            migrationBuilder.Sql(
                "CREATE VIRTUAL TABLE ticket_part USING fts5(text, content='', contentless_delete=1, tokenize='trigram')"
            );
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

            foreach (var seen in Before)
                migrationBuilder.Sql($"INSERT INTO \"__EFMigrationsHistory\" (migration_id, product_version) VALUES ('{seen}', '10.0.9')");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TABLE ticket_part");

            migrationBuilder.DropTable(
                name: "AspNetUserClaims");

            migrationBuilder.DropTable(
                name: "AspNetUserLogins");

            migrationBuilder.DropTable(
                name: "AspNetUserTokens");

            migrationBuilder.DropTable(
                name: "answered");

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
                name: "ledger");

            migrationBuilder.DropTable(
                name: "machine_access");

            migrationBuilder.DropTable(
                name: "never_given");

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
                name: "record_place");

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
