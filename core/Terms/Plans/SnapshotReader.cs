using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>From dates and units to indexes the planner works with.</summary>
internal sealed class SnapshotReader(PlanSnapshot kept)
{
    private readonly Dictionary<DateOnly, int> lessonOn = kept
        .Lessons.Index()
        .ToDictionary(lesson => lesson.Item.Date, lesson => lesson.Index);

    public SolvedTerm Read() =>
        new(
            new(
                [
                    .. kept.Lessons.Select(lesson => new LessonSlot(
                        lesson.Date,
                        new(lesson.TeachableSeconds),
                        lesson.Staff,
                        lesson.Kind,
                        lesson.Held,
                        new(lesson.TalkSeconds),
                        new(lesson.WatchSeconds),
                        new(lesson.AgainSeconds)
                    )),
                ],
                [.. kept.Cohorts.Select(Problem)],
                kept.MovePoints
            )
            {
                Closed = [.. kept.Closed.Select(day => new Closure(day.Date, day.Reason))],
            },
            new(
                [.. kept.Cohorts.Select(Plan)],
                [.. kept.Lessons.Select(lesson => new Seconds(lesson.LedSeconds))],
                [
                    .. kept.Shared.Select(block => new SharedBlock(
                        lessonOn[block.Date],
                        block.PostureId,
                        block.Side,
                        block.CohortIds,
                        new(block.Seconds),
                        new(block.SavedSeconds)
                    )),
                ],
                kept.UnsharedPoints
            )
        );

    private CohortProblem Problem(PlanSnapshot.Cohort cohort) =>
        new(
            cohort.Id,
            cohort.Name,
            People: cohort.People,
            Units: [.. cohort.Units.Select(Unit)],
            IntroducedIn: [.. cohort.Units.Select(unit => LessonOn(unit.Introduced)).OfType<int>()],
            MaxNew: cohort.MaxNew,
            AttendedLessons: cohort.AttendedLessons,
            TargetLesson: LessonOn(cohort.Target) ?? -1,
            Before: [.. cohort.Before.Select(Posture)],
            BeforeSeconds: new(cohort.BeforeSeconds)
        )
        {
            Mode = cohort.Mode,
            Pace = cohort.Pace ?? 1m,
            Again = cohort.Lessons.All(content => content.Again == 0)
                ? []
                : [.. cohort.Lessons.Select(content => new Seconds(content.Again))],
            Targets = [.. cohort.Units.Select(unit => LessonOn(unit.Target) ?? -1)],
            Pins = [.. Pins(cohort).Select(pin => pin.Pin)],
            Lost =
            [
                .. cohort
                    .Units.Index()
                    .Where(unit => unit.Item.Fixed?.Lost is not null)
                    .Select(unit => new LostPin(unit.Index, unit.Item.Fixed!.Date, unit.Item.Fixed.Lost!)),
            ],
            Announced = cohort.Units.All(unit => unit.Announced is null)
                ? []
                : [.. cohort.Units.Select(unit => LessonOn(unit.Announced))],
            Keeping = cohort.Kept is { } kept ? Kept(kept) : Keeping.Nothing,
        };

    private static TeachingUnit Unit(PlanSnapshot.Unit unit) =>
        new(
            unit.PostureId,
            unit.Side,
            unit.Name,
            Difficulty: unit.Difficulty,
            Counts: unit.Counts,
            IntroduceSeconds: new(unit.IntroduceSeconds),
            ReviewSeconds: new(unit.ReviewSeconds),
            RunThroughSeconds: new(unit.RunThroughSeconds),
            Effort: unit.Effort
        )
        {
            Kind = unit.Kind,
            From = unit.From is { } from ? Posture(from) : null,
            NeededBy = unit.NeededBy,
            Target = unit.SegmentTarget,
        };

    private CohortPlan Plan(PlanSnapshot.Cohort cohort)
    {
        var units = cohort.Units.Index().ToList();
        return new(
            cohort.Id,
            [.. units.Where(unit => unit.Item.Place is not null).Select(unit => Placed(unit.Item, unit.Index))],
            [
                .. cohort.Lessons.Select(content => new CohortLesson(
                    IntroduceSeconds: new(content.Introduce),
                    ReviewSeconds: new(content.Review),
                    RunThroughSeconds: new(content.RunThrough),
                    WatchSeconds: new(content.Watch),
                    LeadInSeconds: new(content.LeadIn),
                    OwnSeconds: new(content.Own),
                    TeacherSeconds: new(content.Teacher),
                    KeepSeconds: new(content.Keep)
                )),
            ],
            [
                .. units
                    .Where(unit => unit.Item.Place is null)
                    .Select(unit => new LeftOver(unit.Index, new(unit.Item.IntroduceSeconds), unit.Item.Because)),
            ],
            [
                .. units.SelectMany(unit =>
                    unit.Item.Dropped.Select(dropped => new DroppedReview(
                        unit.Index,
                        lessonOn[dropped.Due],
                        new(dropped.Seconds)
                    ))
                ),
            ],
            cohort.Exact,
            cohort.Cost
        )
        {
            Kept = cohort.Kept is { } kept ? Refreshed(kept) : KeptPlan.Nothing,
            Refused =
            [
                .. Pins(cohort)
                    .Where(pin => pin.Refused is not null)
                    .Select(pin => new RefusedPin(pin.Pin, pin.Refused!)),
            ],
        };
    }

    private static Keeping Kept(PlanSnapshot.KeptMaterial kept) =>
        new(
            [
                .. kept.Postures.Select(posture => new KeptPosture(
                    new(posture.PostureId, posture.Side),
                    posture.Name,
                    new(posture.Seconds),
                    posture.Due,
                    posture.HoldsDays,
                    posture.Changed is { } changed ? new(changed.Since, changed.Difference) : null
                )),
            ],
            [.. kept.Runs.Select(run => new KeptRun(run.Name, run.Postures, new(run.Seconds)))]
        );

    private KeptPlan Refreshed(PlanSnapshot.KeptMaterial kept) =>
        new(
            [
                .. kept
                    .Runs.SelectMany(
                        (run, at) =>
                            run.RunThrough.Select(on => new Refresh(
                                lessonOn[on.Date],
                                null,
                                at,
                                new(run.Seconds),
                                on.Because
                            ))
                    )
                    .Concat(
                        kept.Postures.SelectMany(
                            (posture, at) =>
                                posture.Refreshed.Select(on => new Refresh(
                                    lessonOn[on.Date],
                                    at,
                                    null,
                                    new(posture.Seconds),
                                    on.Because
                                ))
                        )
                    )
                    .OrderBy(refresh => refresh.Lesson),
            ],
            [
                .. kept.Postures.SelectMany(
                    (posture, at) => posture.Late.Select(late => new NotKept(at, late.Due, LessonOn(late.Date)))
                ),
            ],
            kept.Cost,
            kept.Exact
        );

    private Placement Placed(PlanSnapshot.Unit unit, int at) =>
        new(
            at,
            lessonOn[unit.Place!.Value],
            [
                .. unit.Reviews.Select(review => new Review(
                    lessonOn[review.Date],
                    review.WeeksAfter,
                    review.Late,
                    review.InRunThrough
                )),
            ],
            unit.Because,
            unit.Fixed is { Lost: null } pin && pin.Date == unit.Place
        );

    private IEnumerable<(Pin Pin, string? Refused)> Pins(PlanSnapshot.Cohort cohort) =>
        cohort
            .Units.Index()
            .Where(unit => unit.Item.Fixed is { Lost: null })
            .Select(unit => (new Pin(unit.Index, lessonOn[unit.Item.Fixed!.Date]), unit.Item.Fixed.Refused));

    private static PostureSide Posture(PlanSnapshot.KnownPosture known) => new(known.PostureId, known.Side);

    private int? LessonOn(DateOnly? date) => date is { } day ? lessonOn[day] : null;
}
