using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Nailcrow.Store.Migrations.Postgres
{
    /// <inheritdoc />
    public partial class JournalAndIntakeLieInParts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Nodes of the release before write and read meanwhile. Whoever of them has the one table and asks for the other would wait for this and
            // this for them, so it lets go of both after a moment and asks again.
            migrationBuilder.Sql(
                """
                DO $do$ BEGIN
                  PERFORM set_config('lock_timeout', '300ms', true);
                  FOR tried IN 1..300 LOOP
                    BEGIN
                      LOCK TABLE journal, intake IN ACCESS EXCLUSIVE MODE;
                      EXIT;
                    EXCEPTION WHEN lock_not_available THEN
                      IF tried = 300 THEN RAISE; END IF;
                      PERFORM pg_sleep(0.05);
                    END;
                  END LOOP;
                  PERFORM set_config('lock_timeout', '0', true);
                END $do$;
                """
            );
            // What there is becomes the first part, as it lies; its indexes are made anew, which takes some seconds for each million entries.
            // What tells whose number of a ticket is none lies by itself, and is in no part's way. A key over parts has to name what they
            // are parted by: that an id is on one ticket only, whichever part that lies in, is held by a trigger instead.
            migrationBuilder.Sql(
                """
                DO $do$
                DECLARE
                  upto bigint; next bigint; guards text[]; one text;
                BEGIN
                  SELECT (coalesce(max(ticket), 0) / 100000 + 1) * 100000 INTO upto FROM journal WHERE ticket < 1000000000000;
                  SELECT coalesce(max(position), 0) + 1 INTO next FROM journal;
                  next := greatest(next, nextval(pg_get_serial_sequence('journal', 'position')));
                  SELECT array_agg(pg_get_triggerdef(oid)) INTO guards FROM pg_trigger
                    WHERE tgrelid = 'journal'::regclass AND NOT tgisinternal;
                  FOR one IN SELECT tgname FROM pg_trigger WHERE tgrelid = 'journal'::regclass AND NOT tgisinternal LOOP
                    EXECUTE format('DROP TRIGGER %I ON journal', one);
                  END LOOP;
                  ALTER TABLE journal RENAME TO journal_first;
                  ALTER TABLE journal_first ALTER COLUMN position DROP IDENTITY, DROP CONSTRAINT pk_journal;
                  DROP INDEX ix_journal_id, ix_journal_ticket_seq;
                  CREATE TABLE journal (LIKE journal_first) PARTITION BY RANGE (ticket);
                  CREATE SEQUENCE journal_position_seq OWNED BY journal.position;
                  PERFORM setval('journal_position_seq', next, false);
                  ALTER TABLE journal ALTER COLUMN position SET DEFAULT nextval('journal_position_seq');
                  ALTER TABLE journal ADD CONSTRAINT pk_journal PRIMARY KEY (position, ticket);
                  CREATE UNIQUE INDEX ix_journal_id ON journal (id, ticket);
                  CREATE UNIQUE INDEX ix_journal_ticket_seq ON journal (ticket, seq);
                  CREATE TABLE journal_else PARTITION OF journal DEFAULT;
                  WITH odd AS (DELETE FROM journal_first WHERE ticket >= upto RETURNING *) INSERT INTO journal_else SELECT * FROM odd;
                  EXECUTE format('ALTER TABLE journal ATTACH PARTITION journal_first FOR VALUES FROM (MINVALUE) TO (%s)', upto);
                  FOREACH one IN ARRAY coalesce(guards, '{}') LOOP
                    EXECUTE one;
                  END LOOP;
                END $do$;
                -- Its plan is made once for a connection, perhaps while the tables are empty, and has to be good for a million.
                CREATE FUNCTION journal_has_each_id_once() RETURNS trigger LANGUAGE plpgsql SET enable_seqscan = off AS $$ DECLARE ids uuid[]; BEGIN
                  SELECT array_agg(id) INTO ids FROM given;
                  IF (SELECT count(*) FROM journal WHERE id = ANY(ids)) > cardinality(ids) THEN
                    RAISE unique_violation USING MESSAGE = 'An entry of this id is on another ticket.', TABLE = 'journal', CONSTRAINT = 'ix_journal_id';
                  END IF;
                  RETURN NULL;
                END $$;
                CREATE TRIGGER journal_has_each_id_once AFTER INSERT ON journal REFERENCING NEW TABLE AS given
                  FOR EACH STATEMENT EXECUTE FUNCTION journal_has_each_id_once();
                """
            );
            // Likewise; which message came already is asked by whoever keeps one, in a turn that is theirs alone.
            migrationBuilder.Sql(
                """
                DO $do$
                DECLARE
                  upto timestamptz;
                BEGIN
                  upto := date_trunc('month', now() AT TIME ZONE 'UTC') AT TIME ZONE 'UTC';
                  ALTER TABLE intake RENAME TO intake_first;
                  ALTER TABLE intake_first DROP CONSTRAINT pk_intake;
                  DROP INDEX ix_intake_outcome_received_at;
                  CREATE TABLE intake (LIKE intake_first) PARTITION BY RANGE (received_at);
                  ALTER TABLE intake ADD CONSTRAINT pk_intake PRIMARY KEY (id, received_at);
                  CREATE INDEX ix_intake_outcome_received_at ON intake (outcome, received_at);
                  CREATE TABLE intake_else PARTITION OF intake DEFAULT;
                  EXECUTE format('CREATE TABLE %I PARTITION OF intake FOR VALUES FROM (%L) TO (%L)',
                    'intake_' || to_char(upto AT TIME ZONE 'UTC', 'YYYY_MM'), upto, upto + interval '1 month');
                  WITH newer AS (DELETE FROM intake_first WHERE received_at >= upto RETURNING *) INSERT INTO intake SELECT * FROM newer;
                  EXECUTE format('ALTER TABLE intake ATTACH PARTITION intake_first FOR VALUES FROM (MINVALUE) TO (%L)', upto);
                END $do$;
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                LOCK TABLE journal, intake IN ACCESS EXCLUSIVE MODE;
                ALTER TABLE intake RENAME TO intake_in_parts;
                CREATE TABLE intake (LIKE intake_in_parts);
                INSERT INTO intake SELECT * FROM intake_in_parts;
                DROP TABLE intake_in_parts;
                ALTER TABLE intake ADD CONSTRAINT pk_intake PRIMARY KEY (id);
                CREATE INDEX ix_intake_outcome_received_at ON intake (outcome, received_at);
                ALTER TABLE journal RENAME TO journal_in_parts;
                DROP TRIGGER journal_has_each_id_once ON journal_in_parts;
                DROP FUNCTION journal_has_each_id_once();
                CREATE TABLE journal (LIKE journal_in_parts);
                INSERT INTO journal SELECT * FROM journal_in_parts;
                DROP TABLE journal_in_parts;
                ALTER TABLE journal ALTER COLUMN position ADD GENERATED BY DEFAULT AS IDENTITY;
                SELECT setval(pg_get_serial_sequence('journal', 'position'), (SELECT coalesce(max(position), 0) + 1 FROM journal), false);
                ALTER TABLE journal ADD CONSTRAINT pk_journal PRIMARY KEY (position);
                CREATE UNIQUE INDEX ix_journal_id ON journal (id);
                CREATE UNIQUE INDEX ix_journal_ticket_seq ON journal (ticket, seq);
                CREATE TRIGGER journal_is_counted AFTER INSERT ON journal REFERENCING NEW TABLE AS given
                  FOR EACH STATEMENT EXECUTE FUNCTION counts_what_is_given();
                """
            );
        }
    }
}
