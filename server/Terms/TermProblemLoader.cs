using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Terms;

/// <summary>States a class's term as a problem for the planner, from what is assigned, known and taught.</summary>
internal static class TermProblemLoader
{
    /// <param name="instead">Segments to try for one cohort in place of what it has been given.</param>
    public static async Task<ClassMaterial> LoadAsync(
        SchoolContext db,
        Term term,
        SchoolClass schoolClass,
        DateOnly today,
        CancellationToken cancel,
        Assignment? instead = null
    )
    {
        var classes = await TermClasses.LoadAsync(db, term, [schoolClass], cancel);
        return State(await TermMaterial.LoadAsync(db, classes, today, cancel), schoolClass, today, instead);
    }

    /// <param name="of">Loaded for this class, with others or without.</param>
    public static ClassMaterial State(
        TermMaterial of,
        SchoolClass schoolClass,
        DateOnly today,
        Assignment? instead = null
    )
    {
        var (term, forms, postures) = (of.Classes.Term, of.Classes.Forms, of.Classes.Postures);
        var records = of.Records[schoolClass.Id].ToList();
        var recorded = records.Select(record => record.Date).ToHashSet();
        var calendar = LessonCalendar.Of(term, schoolClass);
        var days = calendar.Where(day => day.Closed is null).ToList();
        var lessons = days.Select(day =>
                Slot(day, schoolClass, of.Teaching, day.Date < today || recorded.Contains(day.Date)) with
                {
                    AgainSeconds = new(
                        of.Again.Where(again => again.ClassId == schoolClass.Id && again.Date == day.Date)
                            .Sum(again => again.Minutes * 60)
                    ),
                }
            )
            .ToList();
        var introduced = Introductions(records, days);

        List<CohortProblem> problems = [];
        Dictionary<Guid, IReadOnlyList<Unteachable>> left = [];
        Dictionary<Guid, TeachingWay> taught = [];
        foreach (var cohort in of.Classes.CohortsOf(schoolClass.Id))
        {
            var segments =
                instead?.CohortId == cohort.Id
                    ? instead.Segments
                    : of.Classes.Assignments.GetValueOrDefault(cohort.Id)?.Segments ?? [];
            var toHere = segments
                .Where(segment => segment.Purpose == Purpose.New)
                .SelectMany(segment =>
                    forms[segment.FormId].Positions.Take(forms[segment.FormId].IndexOf(segment.ToId) + 1)
                )
                .DistinctBy(position => position.Id)
                .ToList();
            var students = of.Before.In(cohort.Id);
            var known = KnownPostures.By(students, toHere.Select(Of), of.Before.Book);
            var way = new TeachingWay(cohort.Mode, of.Teaching.For(cohort.Mode)) with
            {
                BothSides = of.Ways.BothSides,
                Layers = cohort.SashId is { } sash
                    ? posture => of.Sashes[sash].Asks.For(posture, []).SayLayers()
                    : null,
            };
            List<GivenRun> runs =
            [
                .. segments.Select(segment => new GivenRun(
                    segment.PositionsOf(forms[segment.FormId]),
                    segment.Purpose,
                    segment.Target
                )),
            ];
            var material = SegmentMaterial.Of(runs, postures, known, way, LinksBefore(segments, forms, known));
            if (CohortPace.Of(cohort.Id, records, material.Units) is var pace && pace != 1)
            {
                way = way with { Pace = pace };
                material = SegmentMaterial.Of(runs, postures, known, way, LinksBefore(segments, forms, known));
            }

            taught[cohort.Id] = way;

            // Nothing is kept in a term that is over.
            var keep =
                of.Now is { } book && lessons.Exists(lesson => !lesson.Held)
                    ? WhatToKeep.Of(
                        runs,
                        postures,
                        of.Retired,
                        way,
                        students,
                        book.Book,
                        today,
                        ToldAnyway(cohort, lessons, of.Again)
                    )
                    : new(Keeping.Nothing, []);
            left[cohort.Id] = [.. material.Left, .. keep.Left];
            problems.Add(
                Problem(
                    cohort,
                    students.Count,
                    material.Units,
                    introduced,
                    lessons,
                    segments
                        .Where(segment => segment.Purpose != Purpose.Maintain)
                        .Max(segment => (DateOnly?)segment.Target)
                        ?? term.End,
                    of.Ways.NewPostures
                ) with
                {
                    Pace = way.Pace,
                    Again = AgainOf(cohort, lessons, of.Again),
                    Keeping = keep.Keeping,
                    Before = [.. toHere.Select(Of).Where(known.Contains).Distinct()],
                    BeforeSeconds = way.OnceThrough(toHere.Where(position => known.Contains(Of(position))), postures),
                }
            );
        }

        return new(
            new(lessons, problems)
            {
                Closed =
                [
                    .. calendar.Where(day => day.Closed is not null).Select(day => new Closure(day.Date, day.Closed!)),
                ],
            },
            left
        )
        {
            Ways = taught,
        };
    }

    private static LessonSlot Slot(LessonDay day, SchoolClass schoolClass, Teaching teaching, bool held)
    {
        var teachable = LessonSlot.Teachable(day.Minutes);
        var wanted = teaching.TalkSeconds(day.Number!.Value);
        var talk = wanted < teachable ? wanted : 0;
        return new(
            day.Date,
            new(teachable - talk),
            schoolClass.StaffOn(day.Date).Count,
            day.Kind,
            held,
            new(talk),
            new(day.WatchMinutes * 60)
        );
    }

    /// <summary>What the school does otherwise and a coming lesson tells a cohort, whatever the plan asks of it.</summary>
    private static HashSet<PostureSide> ToldAnyway(
        Cohort cohort,
        List<LessonSlot> lessons,
        IReadOnlyList<AgainInPlan> again
    ) =>
        [
            .. again
                .Where(one =>
                    one.CohortIds.Contains(cohort.Id)
                    && lessons.Exists(lesson => lesson.Date == one.Date && !lesson.Held)
                )
                .Select(one => one.Tells)
                .OfType<PostureSide>(),
        ];

    /// <summary>What a cohort is taught again, of its own time in each lesson; empty where nothing is.</summary>
    private static IReadOnlyList<Seconds> AgainOf(
        Cohort cohort,
        List<LessonSlot> lessons,
        IReadOnlyList<AgainInPlan> again
    ) =>
        again.Where(one => one.CohortIds.Contains(cohort.Id)).ToList() is { Count: > 0 } ofCohort
            ?
            [
                .. lessons.Select(lesson => new Seconds(
                    60 * ofCohort.Where(one => one.Date == lesson.Date).Sum(one => one.Minutes)
                )),
            ]
            : [];

    private static PostureSide Of(Position position) => new(position.PostureId, position.Side);

    /// <summary>The ways from one known posture to the next that the form goes before a segment begins: whoever holds
    /// the postures has done them.</summary>
    private static HashSet<(PostureSide, PostureSide)> LinksBefore(
        IReadOnlyList<AssignedSegment> segments,
        IReadOnlyDictionary<Guid, Form> forms,
        IReadOnlySet<PostureSide> known
    ) =>
        [
            .. segments
                .SelectMany(segment =>
                    forms[segment.FormId].Positions.Take(forms[segment.FormId].IndexOf(segment.FromId)) is var earlier
                        ? earlier.Zip(earlier.Skip(1), (position, next) => (Of(position), Of(next)))
                        : []
                )
                .Where(link => known.Contains(link.Item1) && known.Contains(link.Item2)),
        ];

    private static CohortProblem Problem(
        Cohort cohort,
        int people,
        IReadOnlyList<TeachingUnit> units,
        IReadOnlyDictionary<(Guid Cohort, UnitKey Of), int> introduced,
        List<LessonSlot> lessons,
        DateOnly target,
        int mostNew
    )
    {
        int? LessonOf(TeachingUnit unit) =>
            introduced.TryGetValue((cohort.Id, unit.Key), out var lesson) ? lesson : null;
        int LastUpTo(DateOnly date) => lessons.FindLastIndex(lesson => lesson.Date <= date);

        // What has been taught comes first, in the order it was taught in; the rest follows in teaching order.
        var ordered = units.OrderBy(unit => LessonOf(unit) ?? int.MaxValue).ToList();
        var careful = cohort.Beginners || cohort.Mode.IsAdapted;
        return new(
            cohort.Id,
            cohort.Name,
            people,
            ordered,
            [.. ordered.Select(LessonOf).OfType<int>()],
            MaxNew: careful ? 1 : mostNew,
            AttendedLessons: cohort.MustBeAttended ? int.MaxValue
                : cohort.Beginners ? CohortProblem.BeginnersAttended
                : 0,
            TargetLesson: LastUpTo(target),
            Before: [],
            BeforeSeconds: new(0)
        )
        {
            Mode = cohort.Mode,
            Targets = [.. ordered.Select(unit => LastUpTo(unit.Target ?? target))],
        };
    }

    /// <summary>For each cohort and unit, the first lesson that introduced it.</summary>
    private static Dictionary<(Guid, UnitKey), int> Introductions(List<LessonRecord> records, List<LessonDay> days)
    {
        Dictionary<(Guid, UnitKey), int> introduced = [];
        foreach (var record in records.OrderByDescending(record => record.Date))
        {
            var lesson = days.FindIndex(day => day.Date == record.Date);
            foreach (var item in record.Taught.Where(item => lesson >= 0 && item.How == TaughtHow.Introduced))
            {
                introduced[(item.CohortId, item.Key)] = lesson;
            }
        }

        return introduced;
    }
}
