using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zeitplan.Server.Data.Migrations;

/// <summary>Plans were kept as the planner's own types, units and lessons by their place in a list; from here on they are
/// snapshots by unit and date. Every plan is written anew in that shape, and none is lost.</summary>
[DbContext(typeof(SchoolContext))]
    [Migration("20261126181002_PlanSnapshots")]
    public partial class PlanSnapshots : Migration
{
    protected override void Up(MigrationBuilder migrationBuilder)
    {
        migrationBuilder.AddColumn<string>(name: "snapshot", table: "plans", type: "jsonb", nullable: true);
        migrationBuilder.Sql(
            """
            -- The date of a lesson; a target past the last lesson is the last, one before the first is none.
            CREATE FUNCTION pg_temp.date_of(lessons jsonb, lesson jsonb) RETURNS jsonb LANGUAGE sql AS $$
                SELECT CASE WHEN jsonb_typeof(lesson) IS DISTINCT FROM 'number' THEN NULL
                    WHEN lesson::int < 0 THEN NULL
                    ELSE lessons -> least(lesson::int, jsonb_array_length(lessons) - 1) -> 'date' END
            $$;
            CREATE FUNCTION pg_temp.found(list jsonb, unit int) RETURNS jsonb LANGUAGE sql AS $$
                SELECT item FROM jsonb_array_elements(coalesce(list, '[]')) item WHERE (item -> 'unit')::int = unit LIMIT 1
            $$;
            CREATE FUNCTION pg_temp.unit_kept(lessons jsonb, cohort jsonb, plan jsonb, unit jsonb, at int) RETURNS jsonb LANGUAGE sql AS $$
                SELECT jsonb_strip_nulls(jsonb_build_object(
                    'kind', unit -> 'kind', 'postureId', unit -> 'postureId', 'side', unit -> 'side', 'from', unit -> 'from',
                    'name', unit -> 'name', 'difficulty', unit -> 'difficulty', 'counts', unit -> 'counts',
                    'introduceSeconds', unit -> 'introduceSeconds', 'reviewSeconds', unit -> 'reviewSeconds',
                    'runThroughSeconds', unit -> 'runThroughSeconds', 'effort', unit -> 'effort',
                    'neededBy', unit -> 'neededBy', 'segmentTarget', unit -> 'target',
                    'target', pg_temp.date_of(lessons, coalesce(cohort -> 'targets' -> at, cohort -> 'targetLesson')),
                    'introduced', pg_temp.date_of(lessons, cohort -> 'introducedIn' -> at),
                    'announced', pg_temp.date_of(lessons, cohort -> 'announced' -> at),
                    'fixed', CASE
                        WHEN lost IS NOT NULL THEN jsonb_build_object('date', lost -> 'date', 'lost', lost -> 'because')
                        WHEN pin IS NOT NULL THEN jsonb_build_object('date', pg_temp.date_of(lessons, pin -> 'lesson'), 'refused',
                            (SELECT item -> 'because' FROM jsonb_array_elements(coalesce(plan -> 'refused', '[]')) item
                             WHERE (item -> 'pin' -> 'unit')::int = at LIMIT 1)) END,
                    'place', pg_temp.date_of(lessons, place -> 'lesson'),
                    'because', coalesce(place -> 'because', pg_temp.found(plan -> 'leftOver', at) -> 'because', '""'),
                    'reviews', (SELECT coalesce(jsonb_agg(jsonb_build_object('date', pg_temp.date_of(lessons, review -> 'lesson'),
                            'weeksAfter', review -> 'weeksAfter', 'late', review -> 'late',
                            'inRunThrough', coalesce(review -> 'inRunThrough', 'false')) ORDER BY place_in_list), '[]')
                        FROM jsonb_array_elements(coalesce(place -> 'reviews', '[]')) WITH ORDINALITY list (review, place_in_list)),
                    'dropped', (SELECT coalesce(jsonb_agg(jsonb_build_object('due', pg_temp.date_of(lessons, item -> 'dueLesson'),
                            'seconds', item -> 'seconds') ORDER BY place_in_list), '[]')
                        FROM jsonb_array_elements(coalesce(plan -> 'dropped', '[]')) WITH ORDINALITY list (item, place_in_list)
                        WHERE (item -> 'unit')::int = at)))
                FROM (SELECT pg_temp.found(cohort -> 'lost', at) lost, pg_temp.found(cohort -> 'pins', at) pin, pg_temp.found(plan -> 'placements', at) place) found
            $$;
            CREATE FUNCTION pg_temp.cohort_kept(lessons jsonb, cohort jsonb, plan jsonb) RETURNS jsonb LANGUAGE sql AS $$
                SELECT jsonb_strip_nulls(jsonb_build_object(
                    'id', cohort -> 'id', 'name', cohort -> 'name', 'mode', cohort -> 'mode', 'people', cohort -> 'people',
                    'maxNew', cohort -> 'maxNew', 'attendedLessons', cohort -> 'attendedLessons',
                    'target', pg_temp.date_of(lessons, cohort -> 'targetLesson'),
                    'before', (SELECT coalesce(jsonb_agg(jsonb_build_object('postureId', known -> 'postureId', 'side', known -> 'side') ORDER BY place_in_list), '[]')
                        FROM jsonb_array_elements(coalesce(cohort -> 'before', '[]')) WITH ORDINALITY list (known, place_in_list)),
                    'beforeSeconds', cohort -> 'beforeSeconds',
                    'units', (SELECT coalesce(jsonb_agg(pg_temp.unit_kept(lessons, cohort, plan, unit, place_in_list::int - 1) ORDER BY place_in_list), '[]')
                        FROM jsonb_array_elements(cohort -> 'units') WITH ORDINALITY list (unit, place_in_list)),
                    'lessons', (SELECT coalesce(jsonb_agg(jsonb_build_object('date', lessons -> (place_in_list::int - 1) -> 'date',
                            'introduce', item -> 'introduceSeconds', 'review', item -> 'reviewSeconds', 'runThrough', item -> 'runThroughSeconds',
                            'watch', item -> 'watchSeconds', 'leadIn', item -> 'leadInSeconds', 'own', item -> 'ownSeconds',
                            'teacher', item -> 'teacherSeconds') ORDER BY place_in_list), '[]')
                        FROM jsonb_array_elements(plan -> 'lessons') WITH ORDINALITY list (item, place_in_list)),
                    'exact', plan -> 'exact', 'cost', plan -> 'cost'))
            $$;
            UPDATE plans SET snapshot = jsonb_build_object(
                'version', 1,
                'lessons', (SELECT coalesce(jsonb_agg(jsonb_build_object('date', slot -> 'date', 'teachableSeconds', slot -> 'teachableSeconds',
                        'staff', slot -> 'staff', 'kind', slot -> 'kind', 'held', slot -> 'held', 'talkSeconds', coalesce(slot -> 'talkSeconds', '0'),
                        'ledSeconds', plan -> 'ledSeconds' -> (place_in_list::int - 1)) ORDER BY place_in_list), '[]')
                    FROM jsonb_array_elements(problem -> 'lessons') WITH ORDINALITY list (slot, place_in_list)),
                'closed', coalesce(problem -> 'closed', '[]'),
                'cohorts', (SELECT coalesce(jsonb_agg(pg_temp.cohort_kept(problem -> 'lessons', cohort, plan -> 'cohorts' -> (place_in_list::int - 1)) ORDER BY place_in_list), '[]')
                    FROM jsonb_array_elements(problem -> 'cohorts') WITH ORDINALITY list (cohort, place_in_list)),
                'shared', (SELECT coalesce(jsonb_agg(jsonb_build_object('date', pg_temp.date_of(problem -> 'lessons', block -> 'lesson'),
                        'postureId', block -> 'postureId', 'side', block -> 'side', 'cohortIds', block -> 'cohortIds',
                        'seconds', block -> 'seconds', 'savedSeconds', block -> 'savedSeconds') ORDER BY place_in_list), '[]')
                    FROM jsonb_array_elements(coalesce(plan -> 'shared', '[]')) WITH ORDINALITY list (block, place_in_list)),
                'movePoints', coalesce(problem -> 'movePoints', '0'),
                'unsharedPoints', plan -> 'unsharedPoints');
            DROP FUNCTION pg_temp.cohort_kept(jsonb, jsonb, jsonb);
            DROP FUNCTION pg_temp.unit_kept(jsonb, jsonb, jsonb, jsonb, int);
            DROP FUNCTION pg_temp.found(jsonb, int);
            DROP FUNCTION pg_temp.date_of(jsonb, jsonb);
            ALTER TABLE plans ALTER COLUMN snapshot SET NOT NULL;
            """
        );
        migrationBuilder.DropColumn(name: "problem", table: "plans");
        migrationBuilder.DropColumn(name: "plan", table: "plans");
    }

    /// <summary>A snapshot says less than the planner's types once said: there is no way back but a backup.</summary>
    protected override void Down(MigrationBuilder migrationBuilder) =>
        throw new System.NotSupportedException("Plans cannot be brought back into their earlier shape; restore a backup.");
}
