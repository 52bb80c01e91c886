using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Terms;

/// <summary>Who of a class is ready for the next sash, who nearly, and what they lack.</summary>
internal static class NextSashEndpoint
{
    /// <param name="People">Whoever is ready first, then as it will likely be; nobody who is at the top of the
    /// ladder.</param>
    public sealed record ClassNextSash(Guid ClassId, string Class, IReadOnlyList<Person> People);

    /// <param name="Since">Since when at the present level.</param>
    public sealed record Person(
        Guid StudentId,
        string Name,
        Guid CohortId,
        string Cohort,
        string Sash,
        string SashColour,
        Half Half,
        DateOnly Since,
        Step Next
    );

    /// <summary>The next level, or half, and what keeps somebody from it.</summary>
    /// <param name="IsUnsaid">The ladder does not say yet what their level studies: nobody can be judged by it.</param>
    /// <param name="Missing">Nothing for whoever is ready.</param>
    /// <param name="NotAsked">Postures there is no version of that they could do, or which it is settled they leave
    /// out.</param>
    /// <param name="Likely">When nothing will be missing; null for whoever is ready, and where it cannot be told
    /// yet.</param>
    /// <param name="LessonsAWeek">Attended lately.</param>
    public sealed record Step(
        string Sash,
        Half Half,
        string Colour,
        bool IsUnsaid,
        IReadOnlyList<Lack> Missing,
        IReadOnlyList<string> NotAsked,
        DateOnly? Likely,
        decimal LessonsAWeek
    );

    public enum LackKind
    {
        Weeks,
        Lessons,
        Correction,
        Posture,
        Link,
    }

    /// <param name="What">The posture, link or principle; empty for time.</param>
    /// <param name="Time">Of weeks and lessons.</param>
    /// <param name="ToClear">Of a correction.</param>
    /// <param name="ToSee">Of a posture or link.</param>
    public sealed record Lack(LackKind Kind, string What, Part? Time, Fault? ToClear, Goal? ToSee, DateOnly? Likely);

    public sealed record Part(int Count, int Asked);

    public sealed record Fault(string Words, Weight Weight);

    /// <param name="TakenOver">They came with it, and nobody here has seen it.</param>
    /// <param name="New">When they will likely meet it, where nobody has shown it to them.</param>
    public sealed record Goal(Side Side, Stage Has, bool TakenOver, Stage Asked, DateOnly? New);

    public static void Map(ByRank api)
    {
        var classes = api.Group("/classes/{classId:guid}").Each(classes => classes.OpensFirst());
        classes.Teacher.MapGet("/readiness", Read).WithName("nextSash");
        classes.Teacher.MapGet("/readiness.csv", Table).WithName("nextSashTable");
    }

    private static async Task<Ok<ClassNextSash>> Read([AsParameters] AskedClass asked, CancellationToken cancel)
    {
        var cohorts = await asked.CohortsAsync(cancel);
        var order = cohorts.Index().ToDictionary(cohort => cohort.Item.Id);
        var (facts, views, judged) = await JudgeAsync(asked, cohorts, cancel);
        return TypedResults.Ok(
            new ClassNextSash(
                asked.ClassId,
                asked.Class.Name,
                [
                    .. from its in judged
                    let cohort = order[facts.Cohorts[its.Student.Id]]
                    orderby its.Readiness.IsReady descending, its.Readiness.Likely
                        ?? DateOnly.MaxValue, cohort.Index, its.Student.GivenName
                    let sash = its.Readiness.Step.From
                    select new Person(
                        its.Student.Id,
                        its.Student.ShortName,
                        cohort.Item.Id,
                        cohort.Item.Name,
                        sash.Name,
                        sash.Colour,
                        its.Student.Half,
                        its.Student.SashSince,
                        views.Show(its.Readiness)
                    ),
                ]
            )
        );
    }

    /// <summary>A row for each thing somebody lacks, by name; one alone for whoever is ready
    /// (docs/formats/progress-tables.md).</summary>
    private static async Task<FileContentHttpResult> Table([AsParameters] AskedClass asked, CancellationToken cancel)
    {
        var (_, views, judged) = await JudgeAsync(asked, await asked.CohortsAsync(cancel), cancel);
        return CsvTable.Of(
            "readiness.csv",
            ["student", "sash", "next", "kind", "what", "has", "asked", "likely"],
            from its in judged
            orderby its.Student.GivenName, its.Student.FamilyName
            let step = its.Readiness.Step
            from lack in Rows(its.Readiness)
            select (string[])
                [
                    its.Student.FullName,
                    LevelOf(step.From.Name, its.Student.Half),
                    LevelOf(step.To.Name, step.ToHalf),
                    .. lack,
                ]
        );

        IEnumerable<string[]> Rows(Readiness readiness) =>
            readiness.Missing.Count > 0
                ? readiness.Missing.Select(lacking => Said(views.Show(lacking)))
                :
                [
                    [readiness.IsReady ? "ready" : "unsaid", "", "", "", ""],
                ];

        static string LevelOf(string sash, Half half) => half == Half.None ? sash : $"{sash}, {Word(half)}";

        static string[] Said(Lack lack)
        {
            var (what, has, wanted) = lack switch
            {
                { ToClear: { } fault } => ($"{lack.What}: {fault.Words}", Word(fault.Weight), "cleared"),
                { ToSee: { } goal } => (
                    lack.What,
                    goal.TakenOver ? $"{Word(goal.Has)}, taken over" : Word(goal.Has),
                    Word(goal.Asked)
                ),
                _ => ("", $"{lack.Time?.Count}", $"{lack.Time?.Asked}"),
            };
            return [Word(lack.Kind), what, has, wanted, lack.Likely is { } day ? $"{day:yyyy-MM-dd}" : ""];
        }

        static string Word(Enum word) => JsonNamingPolicy.KebabCaseLower.ConvertName(word.ToString());
    }

    private sealed record Judged(Student Student, Readiness Readiness);

    private static async Task<(ProgressBooks.Loaded Facts, Views Views, IReadOnlyList<Judged> Judged)> JudgeAsync(
        AskedClass asked,
        IReadOnlyList<Cohort> cohorts,
        CancellationToken cancel
    )
    {
        var (db, today) = (asked.Db, asked.Today);
        var facts = await ProgressBooks.LoadAsync(db, [.. cohorts.Select(cohort => cohort.Id)], today, cancel);
        var syllabus = facts.Facts.Syllabus;
        var judge = new ReadinessJudge(
            syllabus.Ladder,
            syllabus.Forms,
            syllabus.Outlines,
            (await Material.WaysAsync(db, cancel)).KeyPointDecides,
            facts.Book,
            TimeToStage.Of(facts.Students.Select(student => student.Id), facts.Book),
            today
        );
        var attended = ProgressBook
            .Latest(facts.Facts.Attendance)
            .Where(fact => fact.Present)
            .ToLookup(fact => fact.StudentId, fact => fact.Date);
        var learners = await ProgressBooks.LearnersAsync(db, facts, cancel);
        var plan = await PlanAsync(asked, cancel);
        var planned = cohorts.ToDictionary(
            cohort => cohort.Id,
            cohort => plan?.NewTo(cohort.Id) ?? new Dictionary<PostureSide, DateOnly>()
        );
        return (
            facts,
            new(syllabus.Outlines, await ProgressTables.PrinciplesAsync(db, cancel)),
            [
                .. from student in facts.Students
                let readiness = judge.Of(
                    learners[student.Id],
                    student.Levels[^1],
                    [.. attended[student.Id]],
                    planned[facts.Cohorts[student.Id]]
                )
                where readiness is not null
                select new Judged(student, readiness),
            ]
        );
    }

    private static async Task<SolvedTerm?> PlanAsync(AskedClass asked, CancellationToken cancel) =>
        await CurrentTerm.FindAsync(asked.Db, asked.Today, cancel) is { } term
            ? (await PlanEndpoints.AnnouncedAsync(asked.Db, term.Id, asked.ClassId, cancel))?.Solved
            : null;

    /// <summary>What is missing, by its names.</summary>
    private sealed record Views(
        IReadOnlyDictionary<Guid, PostureOutline> Outlines,
        IReadOnlyDictionary<Guid, string> Principles
    )
    {
        public Step Show(Readiness readiness) =>
            new(
                readiness.Step.To.Name,
                readiness.Step.ToHalf,
                readiness.Step.To.Colour,
                readiness.IsUnsaid,
                [.. readiness.Missing.Select(Show)],
                [.. readiness.NotAsked.Select(NameOf)],
                readiness.Likely,
                decimal.Round((decimal)readiness.Pace.LessonsAWeek, 1)
            );

        public Lack Show(Lacking lacking) =>
            lacking switch
            {
                Lacking.Weeks weeks => new(LackKind.Weeks, "", new(weeks.Been, weeks.Asked), null, null, weeks.Likely),
                Lacking.Lessons lessons => new(
                    LackKind.Lessons,
                    "",
                    new(lessons.Attended, lessons.Asked),
                    null,
                    null,
                    lessons.Likely
                ),
                Lacking.Clean clean => new(
                    LackKind.Correction,
                    clean.Of is { } of ? of.NameWith(NameOf) : Principles[clean.PrincipleId!.Value],
                    null,
                    new(clean.Correction.Words, clean.Correction.Weight),
                    null,
                    clean.Likely
                ),
                Lacking.AtStage its => new(
                    its.Of.Kind == UnitKind.Link ? LackKind.Link : LackKind.Posture,
                    its.Of.NameWith(NameOf),
                    null,
                    null,
                    new(its.Of.Side, its.Has, its.TakenOver, its.Asked, its.New),
                    its.Likely
                ),
                _ => throw new InvalidOperationException($"Nobody can lack {lacking}."),
            };

        private string NameOf(PostureSide of) => Outlines[of.PostureId].NameOn(of.Side);
    }
}
