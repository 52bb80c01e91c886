using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>Whoever is with a cohort for one lesson though it is not theirs: students of other groups, and
/// visitors.</summary>
internal static class JoiningTonight
{
    /// <param name="Group">With whom they learn, as one says it: "Chair group", "Fern, Thursday evening"; empty for nobody
    /// yet.</param>
    public sealed record Person(Guid StudentId, string Name, string Group);

    public static void Map(ByRank api) =>
        api
            .Anyone.MapGroup("/classes/{classId:guid}/lessons/{date}")
            .OpensFirst()
            .MapGet("/who-could-join", Read)
            .WithName("whoCouldJoin");

    /// <returns>For each student the cohort.</returns>
    public static Dictionary<Guid, Guid> Of(IEnumerable<LessonEdit> edits) =>
        edits
            .Joining()
            .Where(joins => !joins.IsVisitor)
            .ToDictionary(joins => joins.Who, joins => joins.CohortId!.Value);

    public static async Task<IReadOnlyList<LessonEdit.Joins>> LoadAsync(AskedLesson asked, CancellationToken cancel) =>
        (
            await asked
                .Db.Arrangements.AsNoTracking()
                .SingleOrDefaultAsync(kept => kept.ClassId == asked.ClassId && kept.Date == asked.Date, cancel)
        )?.Edits.Joining() ?? [];

    /// <summary>What is asked for, with what the school knows of each student in it: no device has to know who is never
    /// left alone.</summary>
    /// <param name="kept">What is done to the lesson already, by whomever.</param>
    public static async Task<(IReadOnlyList<LessonEdit> Edits, IReadOnlyList<Problem> Problems)> KnowAsync(
        AskedLesson asked,
        IReadOnlyList<LessonEdit> edits,
        IReadOnlyList<LessonEdit> kept,
        CancellationToken cancel
    )
    {
        if (!edits.OfType<LessonEdit.Joins>().Any())
        {
            return (edits, []);
        }

        var cohorts = await asked.Db.Cohorts.AsNoTracking().ToDictionaryAsync(cohort => cohort.Id, cancel);
        var named = edits.OfType<LessonEdit.Joins>().Select(joins => joins.Who).ToList();
        var students = await asked
            .Db.Students.AsNoTracking()
            .Where(student => named.Contains(student.Id) && student.Erased == null)
            .ToDictionaryAsync(student => student.Id, cancel);
        var seen = await SeenAsync(asked, cohorts.Values, cancel);
        // What has been kept once stays, whoever has moved or been erased since.
        var before = kept.OfType<LessonEdit.Joins>().ToList();
        List<Problem> problems = [];
        List<LessonEdit> all =
        [
            .. edits.Index().Select(edit => edit.Item is LessonEdit.Joins joins ? Know(joins, edit.Index) : edit.Item),
        ];
        return (all, problems);

        LessonEdit.Joins Know(LessonEdit.Joins joins, int at)
        {
            var isKnown = before.Exists(its => its.Who == joins.Who);
            var isKept = before.Exists(its => (its.Who, its.CohortId) == (joins.Who, joins.CohortId));
            void Refuse(string field, string because) => problems.Add(new($"edits[{at}].{field}", because));
            if (!isKept && joins.CohortId is { } id && cohorts.GetValueOrDefault(id)?.ClassId != asked.ClassId)
            {
                Refuse("cohortId", "This cohort is not in the class.");
            }

            if (!students.TryGetValue(joins.Who, out var student))
            {
                if (!isKnown && string.IsNullOrWhiteSpace(joins.Name))
                {
                    Refuse("who", "The school knows nobody like that. A visitor has a name.");
                }

                return joins with
                {
                    Name = joins.Name.Trim(),
                    From = null,
                };
            }

            if (!isKnown && !seen(student))
            {
                Refuse("who", "They are in no class that you teach. Write them down as a visitor.");
            }

            var own = student.CohortIds.Select(its => cohorts.GetValueOrDefault(its)).OfType<Cohort>().ToList();
            var from = own.FirstOrDefault(cohort => cohort.ClassId == asked.ClassId)?.Id;
            if (!isKept && from is not null && from == joins.CohortId)
            {
                Refuse("cohortId", $"{student.ShortName} is in this group anyway.");
            }

            return joins with
            {
                Name = "",
                From = from,
                NeverAlone =
                    own.Any(cohort => cohort.MustBeAttended) || student.ModeIn(Mode.Standing).Support != Support.None,
            };
        }
    }

    private static async Task<Ok<IReadOnlyList<Person>>> Read(
        [AsParameters] AskedLesson asked,
        CancellationToken cancel
    )
    {
        var cohorts = await asked.Db.Cohorts.AsNoTracking().ToDictionaryAsync(cohort => cohort.Id, cancel);
        var classes = await asked.Db.Classes.AsNoTracking().ToDictionaryAsync(its => its.Id, its => its.Name, cancel);
        var seen = await SeenAsync(asked, cohorts.Values, cancel);
        var students = await asked
            .Db.Students.AsNoTracking()
            .Where(student => student.Erased == null && student.Left == null)
            .ToListAsync(cancel);
        return TypedResults.Ok<IReadOnlyList<Person>>([
            .. students
                .Where(seen)
                .OrderBy(student => student.ShortName, StringComparer.OrdinalIgnoreCase)
                .Select(student => new Person(
                    student.Id,
                    student.ShortName,
                    string.Join(
                        "; ",
                        student
                            .CohortIds.Select(id => cohorts.GetValueOrDefault(id))
                            .OfType<Cohort>()
                            .Select(cohort =>
                                cohort.ClassId == asked.ClassId
                                    ? cohort.Name
                                    : $"{cohort.Name}, {classes[cohort.ClassId]}"
                            )
                    )
                )),
        ]);
    }

    /// <summary>Heads know everybody, instructors whoever is in a class of theirs, assistants this class alone.</summary>
    private static async Task<Func<Student, bool>> SeenAsync(
        AskedLesson asked,
        IEnumerable<Cohort> cohorts,
        CancellationToken cancel
    )
    {
        var classes =
            asked.Actor.Role == StaffRole.Assistant
                ? [asked.ClassId]
                : (await asked.Actor.ClassesAsync(asked.Db, asked.Today, cancel)).Select(its => its.Id).ToHashSet();
        var known = cohorts.Where(cohort => classes.Contains(cohort.ClassId)).Select(cohort => cohort.Id).ToHashSet();
        return student => asked.Actor.IsHead || student.CohortIds.Any(known.Contains);
    }
}
