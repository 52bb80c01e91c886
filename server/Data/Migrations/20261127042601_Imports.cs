using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations
{
    /// <inheritdoc />
    public partial class Imports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "fact_ids",
                table: "imports",
                type: "jsonb",
                nullable: false,
                defaultValueSql: "'[]'::jsonb");

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

            migrationBuilder.DropTable(
                name: "import_words");

            migrationBuilder.DropColumn(
                name: "fact_ids",
                table: "imports");
        }
    }
}
