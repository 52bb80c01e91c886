using System;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    [DbContext(typeof(SchoolContext))]
    [Migration("20261127062247_OneInstallation")]
    public partial class OneInstallation : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateOnly>(
                name: "closed",
                table: "staff",
                type: "date",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "student_id",
                table: "staff",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "second_factor_for_heads",
                table: "schools",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "fact_ids",
                table: "imports",
                type: "jsonb",
                nullable: false,
                defaultValueSql: "'[]'::jsonb");

            migrationBuilder.AlterColumn<string>(
                name: "phone_number",
                table: "accounts",
                type: "character varying(256)",
                maxLength: 256,
                nullable: true,
                oldClrType: typeof(string),
                oldType: "text",
                oldNullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "locked",
                table: "accounts",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AlterColumn<string>(
                name: "name",
                table: "account_tokens",
                type: "character varying(128)",
                maxLength: 128,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AlterColumn<string>(
                name: "login_provider",
                table: "account_tokens",
                type: "character varying(128)",
                maxLength: 128,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AlterColumn<string>(
                name: "provider_key",
                table: "account_logins",
                type: "character varying(128)",
                maxLength: 128,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.AlterColumn<string>(
                name: "login_provider",
                table: "account_logins",
                type: "character varying(128)",
                maxLength: 128,
                nullable: false,
                oldClrType: typeof(string),
                oldType: "text");

            migrationBuilder.CreateTable(
                name: "account_passkeys",
                columns: table => new
                {
                    credential_id = table.Column<byte[]>(type: "bytea", maxLength: 1024, nullable: false),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    data = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_account_passkeys", x => x.credential_id);
                    table.ForeignKey(
                        name: "fk_account_passkeys_accounts_user_id",
                        column: x => x.user_id,
                        principalTable: "accounts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "import_words",
                columns: table => new
                {
                    field = table.Column<string>(type: "character varying(20)", maxLength: 20, nullable: false),
                    word = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false),
                    meaning = table.Column<string>(type: "character varying(120)", maxLength: 120, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_import_words", x => new { x.field, x.word });
                });

            migrationBuilder.CreateTable(
                name: "journal",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<Guid>(type: "uuid", nullable: false),
                    act = table.Column<string>(type: "text", nullable: false),
                    about = table.Column<Guid>(type: "uuid", nullable: true),
                    text = table.Column<string>(type: "character varying(600)", maxLength: 600, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_journal", x => x.id);
                    table.CheckConstraint("journal_act_can_be", "\"act\" IN ('Account', 'Promotion', 'Erasure', 'Ladder', 'Settings')");
                    table.ForeignKey(
                        name: "fk_journal_staff_by",
                        column: x => x.by,
                        principalTable: "staff",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "letters",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    account_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    to = table.Column<string>(type: "text", nullable: false),
                    subject = table.Column<string>(type: "text", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false),
                    written = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    until = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    sent = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    failure = table.Column<string>(type: "character varying(300)", maxLength: 300, nullable: true),
                    next_try = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    tries = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_letters", x => x.id);
                    table.CheckConstraint("letters_kind_can_be", "\"kind\" IN ('Invitation', 'Reset')");
                    table.ForeignKey(
                        name: "fk_letters_accounts_account_id",
                        column: x => x.account_id,
                        principalTable: "accounts",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_staff_student_id",
                table: "staff",
                column: "student_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_account_passkeys_user_id",
                table: "account_passkeys",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_journal_at_id",
                table: "journal",
                columns: new[] { "at", "id" });

            migrationBuilder.CreateIndex(
                name: "ix_journal_by",
                table: "journal",
                column: "by");

            migrationBuilder.CreateIndex(
                name: "ix_letters_account_id",
                table: "letters",
                column: "account_id");

            migrationBuilder.CreateIndex(
                name: "ix_letters_next_try",
                table: "letters",
                column: "next_try",
                filter: "sent IS NULL");

            migrationBuilder.CreateIndex(
                name: "ix_letters_written",
                table: "letters",
                column: "written");

            migrationBuilder.AddForeignKey(
                name: "fk_staff_students_student_id",
                table: "staff",
                column: "student_id",
                principalTable: "students",
                principalColumn: "id",
                onDelete: ReferentialAction.Restrict);

            migrationBuilder.Sql(
                """
                CREATE FUNCTION journal_stays() RETURNS trigger LANGUAGE plpgsql AS $$
                BEGIN
                    IF TG_OP = 'DELETE' AND OLD.at < now() - interval '3 years' THEN
                        RETURN OLD;
                    END IF;
                    RAISE EXCEPTION 'What heads did stays as it was written.' USING ERRCODE = 'ZP001';
                END $$;
                CREATE TRIGGER journal_stays BEFORE UPDATE OR DELETE ON journal
                    FOR EACH ROW EXECUTE FUNCTION journal_stays();
                """);

            migrationBuilder.Sql(
                """
                CREATE OR REPLACE FUNCTION facts_stay() RETURNS trigger LANGUAGE plpgsql AS $$
                BEGIN
                    -- Whoever is erased takes their words with them (domain.md 7), and nothing else.
                    IF TG_OP = 'UPDATE' AND current_setting('zeitplan.erasing', true) = 'on' THEN
                        RETURN NEW;
                    END IF;
                    -- An import that is taken back takes what its file said with it.
                    IF TG_OP = 'DELETE' AND TG_TABLE_NAME = 'taken_over_facts' AND current_setting('zeitplan.taking_back', true) = 'on' THEN
                        RETURN OLD;
                    END IF;
                    RAISE EXCEPTION 'A fact of % stays as it was written.', TG_TABLE_NAME USING ERRCODE = 'ZP001';
                END $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TRIGGER journal_stays ON journal; DROP FUNCTION journal_stays;");

            migrationBuilder.Sql(
                """
                CREATE OR REPLACE FUNCTION facts_stay() RETURNS trigger LANGUAGE plpgsql AS $$
                BEGIN
                    -- Whoever is erased takes their words with them (domain.md 7), and nothing else.
                    IF TG_OP = 'UPDATE' AND current_setting('zeitplan.erasing', true) = 'on' THEN
                        RETURN NEW;
                    END IF;
                    RAISE EXCEPTION 'A fact of % stays as it was written.', TG_TABLE_NAME USING ERRCODE = 'ZP001';
                END $$;
                """);

            migrationBuilder.DropForeignKey(
                name: "fk_staff_students_student_id",
                table: "staff");

            migrationBuilder.DropTable(
                name: "account_passkeys");

            migrationBuilder.DropTable(
                name: "import_words");

            migrationBuilder.DropTable(
                name: "journal");

            migrationBuilder.DropTable(
                name: "letters");

            migrationBuilder.DropIndex(
                name: "ix_staff_student_id",
                table: "staff");

            migrationBuilder.DropColumn(
                name: "closed",
                table: "staff");

            migrationBuilder.DropColumn(
                name: "student_id",
                table: "staff");

            migrationBuilder.DropColumn(
                name: "second_factor_for_heads",
                table: "schools");

            migrationBuilder.DropColumn(
                name: "fact_ids",
                table: "imports");

            migrationBuilder.DropColumn(
                name: "locked",
                table: "accounts");

            migrationBuilder.AlterColumn<string>(
                name: "phone_number",
                table: "accounts",
                type: "text",
                nullable: true,
                oldClrType: typeof(string),
                oldType: "character varying(256)",
                oldMaxLength: 256,
                oldNullable: true);

            migrationBuilder.AlterColumn<string>(
                name: "name",
                table: "account_tokens",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(128)",
                oldMaxLength: 128);

            migrationBuilder.AlterColumn<string>(
                name: "login_provider",
                table: "account_tokens",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(128)",
                oldMaxLength: 128);

            migrationBuilder.AlterColumn<string>(
                name: "provider_key",
                table: "account_logins",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(128)",
                oldMaxLength: 128);

            migrationBuilder.AlterColumn<string>(
                name: "login_provider",
                table: "account_logins",
                type: "text",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "character varying(128)",
                oldMaxLength: 128);
        }
    }
}
