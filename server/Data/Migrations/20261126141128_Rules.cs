using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261126141128_Rules")]
    public partial class Rules : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(Mend);

            migrationBuilder.DropIndex(
                name: "ix_observations_class_id",
                table: "observations");

            migrationBuilder.CreateTable(
                name: "sign_ins",
                columns: table => new
                {
                    key = table.Column<string>(type: "character varying(64)", maxLength: 64, nullable: false),
                    ticket = table.Column<byte[]>(type: "bytea", nullable: false),
                    until = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_ins", x => x.key);
                });

            migrationBuilder.AddCheckConstraint(
                name: "terms_dates_can_be",
                table: "terms",
                sql: "start <= \"end\"");

            migrationBuilder.AddCheckConstraint(
                name: "taught_facts_from_side_can_be",
                table: "taught_facts",
                sql: "\"from_side\" IN ('Symmetric', 'Left', 'Right')");

            migrationBuilder.AddCheckConstraint(
                name: "taught_facts_how_can_be",
                table: "taught_facts",
                sql: "\"how\" IN ('Introduced', 'Reviewed', 'RunThrough')");

            migrationBuilder.AddCheckConstraint(
                name: "taught_facts_kind_can_be",
                table: "taught_facts",
                sql: "\"kind\" IN ('Posture', 'Drill', 'Link', 'Layer')");

            migrationBuilder.AddCheckConstraint(
                name: "taught_facts_says_can_be",
                table: "taught_facts",
                sql: "(minutes IS NULL OR minutes > 0) AND (kind = 'Link') = (from_id IS NOT NULL AND from_side IS NOT NULL)");

            migrationBuilder.AddCheckConstraint(
                name: "taught_facts_side_can_be",
                table: "taught_facts",
                sql: "\"side\" IN ('Symmetric', 'Left', 'Right')");

            migrationBuilder.AddCheckConstraint(
                name: "students_half_can_be",
                table: "students",
                sql: "\"half\" IN ('None', 'Newer', 'Senior')");

            migrationBuilder.AddCheckConstraint(
                name: "staff_role_can_be",
                table: "staff",
                sql: "\"role\" IN ('Assistant', 'Instructor', 'Head')");

            migrationBuilder.AddCheckConstraint(
                name: "sashes_place_can_be",
                table: "sashes",
                sql: "\"order\" >= 1 AND colour ~ '^#[0-9A-Fa-f]{6}$'");

            migrationBuilder.AddCheckConstraint(
                name: "plans_announced_can_be",
                table: "plans",
                sql: "(number IS NULL) = (announced_at IS NULL) AND (number IS NULL OR number >= 1)");

            migrationBuilder.CreateIndex(
                name: "ix_observations_class_id_date",
                table: "observations",
                columns: new[] { "class_id", "date" });

            migrationBuilder.AddCheckConstraint(
                name: "observations_says_can_be",
                table: "observations",
                sql: "(sign <> 'Stage' OR stage IN ('Follows', 'Alone', 'Flowing')) AND (sign <> 'Fault' OR weight IS NOT NULL)");

            migrationBuilder.AddCheckConstraint(
                name: "observations_side_can_be",
                table: "observations",
                sql: "\"side\" IN ('Symmetric', 'Left', 'Right')");

            migrationBuilder.AddCheckConstraint(
                name: "observations_sign_can_be",
                table: "observations",
                sql: "\"sign\" IN ('Stage', 'Fault', 'Better', 'Fine')");

            migrationBuilder.AddCheckConstraint(
                name: "observations_stage_can_be",
                table: "observations",
                sql: "\"stage\" IN ('NotMet', 'Shown', 'Follows', 'Alone', 'Flowing', 'Settled')");

            migrationBuilder.AddCheckConstraint(
                name: "observations_weight_can_be",
                table: "observations",
                sql: "\"weight\" IN ('Finesse', 'Shape', 'KeyPoint')");

            migrationBuilder.CreateIndex(
                name: "ix_halls_name",
                table: "halls",
                column: "name",
                unique: true);

            migrationBuilder.AddCheckConstraint(
                name: "halls_size_can_be",
                table: "halls",
                sql: "width > 0 AND depth > 0 AND chairs >= 0 AND rail >= 0");

            migrationBuilder.CreateIndex(
                name: "ix_forms_name",
                table: "forms",
                column: "name",
                unique: true);

            migrationBuilder.AddCheckConstraint(
                name: "cohorts_half_can_be",
                table: "cohorts",
                sql: "\"half\" IN ('None', 'Newer', 'Senior')");

            migrationBuilder.AddCheckConstraint(
                name: "cohorts_looks_can_be",
                table: "cohorts",
                sql: "colour ~ '^#[0-9A-Fa-f]{6}$'");

            migrationBuilder.AddCheckConstraint(
                name: "classes_length_can_be",
                table: "classes",
                sql: "minutes BETWEEN 1 AND 1440");

            migrationBuilder.AddCheckConstraint(
                name: "classes_weekday_can_be",
                table: "classes",
                sql: "\"weekday\" IN ('Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday')");

            migrationBuilder.AddCheckConstraint(
                name: "access_log_kind_can_be",
                table: "access_log",
                sql: "\"kind\" IN ('Read', 'Changed')");

            migrationBuilder.CreateIndex(
                name: "ix_sign_ins_until",
                table: "sign_ins",
                column: "until");

            migrationBuilder.Sql(Keep);
        }

        /// <summary>What an earlier version let in: names that stand twice, and words of which two had been added up.</summary>
        private const string Mend = """
            UPDATE halls SET name = left(name, 70) || ' (' || again.at || ')'
            FROM (SELECT id, row_number() OVER (PARTITION BY name ORDER BY id) AS at FROM halls) AS again
            WHERE again.id = halls.id AND again.at > 1;
            UPDATE forms SET name = left(name, 70) || ' (' || again.at || ')'
            FROM (SELECT id, row_number() OVER (PARTITION BY name ORDER BY id) AS at FROM forms) AS again
            WHERE again.id = forms.id AND again.at > 1;
            DELETE FROM withdrawals WHERE observation_id IN (SELECT id FROM observations WHERE side ~ '^[0-9]');
            DELETE FROM observations WHERE side ~ '^[0-9]';
            DELETE FROM taught_facts WHERE side ~ '^[0-9]' OR from_side ~ '^[0-9]';
            UPDATE staff SET role = 'Assistant' WHERE role ~ '^[0-9]';
            UPDATE students SET half = 'None' WHERE half ~ '^[0-9]';
            UPDATE cohorts SET half = 'None' WHERE half ~ '^[0-9]';
            """;

        /// <summary>Rules that Entity Framework has no words for.</summary>
        private const string Keep = """
            CREATE UNIQUE INDEX one_school ON schools ((true));
            ALTER TABLE terms ADD CONSTRAINT terms_do_not_overlap
                EXCLUDE USING gist (daterange(start, "end", '[]') WITH &&);
            -- A ladder is rearranged as a whole: looked at when it is.
            ALTER TABLE sashes ADD CONSTRAINT ix_sashes_order UNIQUE ("order") DEFERRABLE INITIALLY DEFERRED;

            ALTER TABLE attendance ADD CONSTRAINT fk_attendance_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE taught_facts ADD CONSTRAINT fk_taught_facts_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE observations ADD CONSTRAINT fk_observations_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE withdrawals ADD CONSTRAINT fk_withdrawals_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE adaptations ADD CONSTRAINT fk_adaptations_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE plans ADD CONSTRAINT fk_plans_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE imports ADD CONSTRAINT fk_imports_staff FOREIGN KEY (by) REFERENCES staff (id);
            ALTER TABLE access_log ADD CONSTRAINT fk_access_log_staff FOREIGN KEY (by) REFERENCES staff (id);

            CREATE FUNCTION facts_stay() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                -- Whoever is erased takes their words with them (domain.md 7), and nothing else.
                IF TG_OP = 'UPDATE' AND current_setting('zeitplan.erasing', true) = 'on' THEN
                    RETURN NEW;
                END IF;
                RAISE EXCEPTION 'A fact of % stays as it was written.', TG_TABLE_NAME USING ERRCODE = 'ZP001';
            END $$;
            CREATE TRIGGER attendance_stays BEFORE UPDATE OR DELETE ON attendance
                FOR EACH ROW EXECUTE FUNCTION facts_stay();
            CREATE TRIGGER taught_facts_stay BEFORE UPDATE OR DELETE ON taught_facts
                FOR EACH ROW EXECUTE FUNCTION facts_stay();
            CREATE TRIGGER observations_stay BEFORE UPDATE OR DELETE ON observations
                FOR EACH ROW EXECUTE FUNCTION facts_stay();
            CREATE TRIGGER withdrawals_stay BEFORE UPDATE OR DELETE ON withdrawals
                FOR EACH ROW EXECUTE FUNCTION facts_stay();
            """;

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                DROP TRIGGER attendance_stays ON attendance;
                DROP TRIGGER taught_facts_stay ON taught_facts;
                DROP TRIGGER observations_stay ON observations;
                DROP TRIGGER withdrawals_stay ON withdrawals;
                DROP FUNCTION facts_stay;
                ALTER TABLE attendance DROP CONSTRAINT fk_attendance_staff;
                ALTER TABLE taught_facts DROP CONSTRAINT fk_taught_facts_staff;
                ALTER TABLE observations DROP CONSTRAINT fk_observations_staff;
                ALTER TABLE withdrawals DROP CONSTRAINT fk_withdrawals_staff;
                ALTER TABLE adaptations DROP CONSTRAINT fk_adaptations_staff;
                ALTER TABLE plans DROP CONSTRAINT fk_plans_staff;
                ALTER TABLE imports DROP CONSTRAINT fk_imports_staff;
                ALTER TABLE access_log DROP CONSTRAINT fk_access_log_staff;
                ALTER TABLE sashes DROP CONSTRAINT ix_sashes_order;
                ALTER TABLE terms DROP CONSTRAINT terms_do_not_overlap;
                DROP INDEX one_school;
                """
            );
            migrationBuilder.DropTable(
                name: "sign_ins");

            migrationBuilder.DropCheckConstraint(
                name: "terms_dates_can_be",
                table: "terms");

            migrationBuilder.DropCheckConstraint(
                name: "taught_facts_from_side_can_be",
                table: "taught_facts");

            migrationBuilder.DropCheckConstraint(
                name: "taught_facts_how_can_be",
                table: "taught_facts");

            migrationBuilder.DropCheckConstraint(
                name: "taught_facts_kind_can_be",
                table: "taught_facts");

            migrationBuilder.DropCheckConstraint(
                name: "taught_facts_says_can_be",
                table: "taught_facts");

            migrationBuilder.DropCheckConstraint(
                name: "taught_facts_side_can_be",
                table: "taught_facts");

            migrationBuilder.DropCheckConstraint(
                name: "students_half_can_be",
                table: "students");

            migrationBuilder.DropCheckConstraint(
                name: "staff_role_can_be",
                table: "staff");

            migrationBuilder.DropCheckConstraint(
                name: "sashes_place_can_be",
                table: "sashes");

            migrationBuilder.DropCheckConstraint(
                name: "plans_announced_can_be",
                table: "plans");

            migrationBuilder.DropIndex(
                name: "ix_observations_class_id_date",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_says_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_side_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_sign_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_stage_can_be",
                table: "observations");

            migrationBuilder.DropCheckConstraint(
                name: "observations_weight_can_be",
                table: "observations");

            migrationBuilder.DropIndex(
                name: "ix_halls_name",
                table: "halls");

            migrationBuilder.DropCheckConstraint(
                name: "halls_size_can_be",
                table: "halls");

            migrationBuilder.DropIndex(
                name: "ix_forms_name",
                table: "forms");

            migrationBuilder.DropCheckConstraint(
                name: "cohorts_half_can_be",
                table: "cohorts");

            migrationBuilder.DropCheckConstraint(
                name: "cohorts_looks_can_be",
                table: "cohorts");

            migrationBuilder.DropCheckConstraint(
                name: "classes_length_can_be",
                table: "classes");

            migrationBuilder.DropCheckConstraint(
                name: "classes_weekday_can_be",
                table: "classes");

            migrationBuilder.DropCheckConstraint(
                name: "access_log_kind_can_be",
                table: "access_log");

            migrationBuilder.CreateIndex(
                name: "ix_observations_class_id",
                table: "observations",
                column: "class_id");
        }
    }
}
