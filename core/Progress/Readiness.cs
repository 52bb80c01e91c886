using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Half = Zeitplan.Core.People.Half;

namespace Zeitplan.Core.Progress;

/// <summary>One thing somebody lacks for the next sash.</summary>
/// <param name="Likely">When they will likely have it; null where there is nothing to reckon it from.</param>
public abstract record Lacking(DateOnly? Likely)
{
    /// <summary>A posture or a link nobody here has seen at the stage asked for.</summary>
    /// <param name="TakenOver">They came with it, and so it does not count yet.</param>
    public sealed record AtStage(UnitKey Of, Stage Has, bool TakenOver, Stage Asked, DateOnly? Likely) : Lacking(Likely)
    {
        /// <summary>When they will likely meet it, where nobody has shown it to them.</summary>
        public DateOnly? New { get; init; }
    }

    /// <summary>A correction that holds them back.</summary>
    /// <param name="Of">Null for what is against a principle.</param>
    public sealed record Clean(UnitKey? Of, Guid? PrincipleId, Correction Correction, DateOnly? Likely)
        : Lacking(Likely);

    public sealed record Lessons(int Attended, int Asked, DateOnly? Likely) : Lacking(Likely);

    public sealed record Weeks(int Been, int Asked, DateOnly Since)
        : Lacking(Since.AddDays(Asked * Readiness.DaysInAWeek));
}

/// <summary>How fast somebody comes on.</summary>
/// <param name="LessonsAWeek">Attended lately.</param>
/// <param name="NewALesson">Postures of the present step met for the first time, for each of those lessons.</param>
public sealed record LearningPace(double LessonsAWeek, double NewALesson);

/// <summary>
/// Whether somebody is ready for the next sash (domain.md 4.5): what is missing, each with the day they will likely have
/// it, and never a percentage. What they came with counts for nothing here until somebody has seen it.
/// </summary>
/// <param name="Step">What is asked of them.</param>
/// <param name="Missing">Time first, then corrections by weight, then postures, then links, the nearest first.</param>
/// <param name="NotAsked">Postures of the step for which there is no version they can do, or which it is settled they leave
/// out.</param>
public sealed record Readiness(
    StepUp Step,
    IReadOnlyList<Lacking> Missing,
    IReadOnlyList<PostureSide> NotAsked,
    LearningPace Pace
)
{
    internal const int DaysInAWeek = 7;

    /// <summary>Nobody is ready while the ladder does not say what for.</summary>
    public bool IsReady => Missing.Count == 0 && !IsUnsaid;

    /// <summary>The ladder does not say yet what their level studies.</summary>
    public bool IsUnsaid => Step.Units.Count == 0;

    /// <summary>When nothing will be missing any more; null while that cannot be reckoned for something.</summary>
    public DateOnly? Likely =>
        !IsUnsaid && Missing.All(its => its.Likely is not null) ? Missing.Max(its => its.Likely) : null;
}

/// <summary>Judges who is ready for the next sash.</summary>
/// <param name="ladder">Lowest first or not.</param>
/// <param name="forms">Those the ladder studies.</param>
/// <param name="outlines">Of all postures.</param>
/// <param name="keyPointDecides">Whether lighter corrections hold nobody back (domain.md 5).</param>
/// <param name="book">Of everybody who is judged.</param>
/// <param name="times">How long it takes from meeting a posture to a stage.</param>
public sealed class ReadinessJudge(
    IReadOnlyList<SashLevel> ladder,
    IReadOnlyDictionary<Guid, Form> forms,
    IReadOnlyDictionary<Guid, PostureOutline> outlines,
    bool keyPointDecides,
    ProgressBook book,
    TimeToStage times,
    DateOnly today
)
{
    /// <summary>What is longer ago says little about how somebody comes on now.</summary>
    public const int PaceWeeks = 12;

    /// <summary>What lies farther ahead is no date anybody could plan with.</summary>
    public const int LongestWeeks = 3 * 52;

    private readonly Dictionary<(Guid, Half), StepUp?> steps = [];

    /// <param name="level">The one they are at.</param>
    /// <param name="attended">The day of every lesson they were in.</param>
    /// <param name="planned">When the plan brings what is new to them.</param>
    /// <returns>Null at the top of the ladder.</returns>
    public Readiness? Of(
        Learner learner,
        Level level,
        IReadOnlyCollection<DateOnly> attended,
        IReadOnlyDictionary<PostureSide, DateOnly> planned
    )
    {
        if (StepFrom(level) is not { } step)
        {
            return null;
        }

        List<PostureSide> notAsked =
        [
            .. step
                .Units.Where(asked => asked.Of.Kind == UnitKind.Posture)
                .Select(asked => Done(asked.Of))
                .Where(of => !CanDo(learner, of)),
        ];
        List<AskedUnit> asked =
        [
            .. step.Units.Where(unit =>
                !notAsked.Contains(Done(unit.Of)) && !(unit.Of.From() is { } from && notAsked.Contains(from))
            ),
        ];
        var pace = PaceOf(learner.StudentId, asked, attended);
        return new(
            step,
            [
                .. Time(step, level.Since, attended, pace),
                .. Corrections(learner.StudentId, step, pace),
                .. Stages(learner.StudentId, asked, planned, pace),
            ],
            notAsked,
            pace
        );
    }

    private StepUp? StepFrom(Level level)
    {
        if (!steps.TryGetValue((level.SashId, level.Half), out var step))
        {
            steps[(level.SashId, level.Half)] = step = StepUp.Of(ladder, level.SashId, level.Half, forms);
        }

        return step;
    }

    private static PostureSide Done(UnitKey of) => new(of.PostureId, of.Side);

    private bool CanDo(Learner learner, PostureSide of) =>
        outlines.TryGetValue(of.PostureId, out var outline) && learner.Does(of, outline) is not null;

    private LearningPace PaceOf(Guid student, IReadOnlyList<AskedUnit> asked, IReadOnlyCollection<DateOnly> attended)
    {
        var lately = today.AddDays(-PaceWeeks * Readiness.DaysInAWeek);
        var lessons = attended.Where(day => day > lately && day <= today).ToList();
        if (lessons.Count == 0)
        {
            return new(0, 0);
        }

        // Somebody who came a month ago has come for a month.
        var first = attended.Min() <= lately ? lately : lessons.Min();
        return new(
            lessons.Count / Math.Max(1, (today.DayNumber - first.DayNumber) / (double)Readiness.DaysInAWeek),
            asked.Count(unit =>
                unit.Of.Kind == UnitKind.Posture && book.FirstMet(student, Done(unit.Of)) is { } met && met > lately
            ) / (double)lessons.Count
        );
    }

    private IEnumerable<Lacking> Time(
        StepUp step,
        DateOnly since,
        IReadOnlyCollection<DateOnly> attended,
        LearningPace pace
    )
    {
        var weeks = Math.Max(0, today.DayNumber - since.DayNumber) / Readiness.DaysInAWeek;
        if (weeks < step.Weeks)
        {
            yield return new Lacking.Weeks(weeks, step.Weeks, since);
        }

        var here = attended.Count(day => day >= since && day <= today);
        if (here < step.Lessons)
        {
            yield return new Lacking.Lessons(here, step.Lessons, After(step.Lessons - here, pace));
        }
    }

    private IEnumerable<Lacking> Corrections(Guid student, StepUp step, LearningPace pace)
    {
        var asked = step.Units.Select(unit => unit.Of).ToHashSet();
        var ofUnits = book.CorrectionsOf(student)
            .Where(its => HoldsBack(step.From.Asks, its.Of.PostureId, its.Correction, asked.Contains(its.Of)))
            .Select(its => new Lacking.Clean(its.Of, null, its.Correction, ClearedBy(its.Correction, pace)));
        var ofPrinciples = book.AgainstPrinciples(student)
            .Where(its => HoldsBack(step.From.Asks, null, its.Correction, isAsked: true))
            .Select(its => new Lacking.Clean(null, its.PrincipleId, its.Correction, ClearedBy(its.Correction, pace)));
        return ofUnits
            .Concat(ofPrinciples)
            .OrderByDescending(lacking => lacking.Correction.Weight)
            .ThenBy(lacking => lacking.Correction.Since);
    }

    /// <summary>A key point wherever it is open; what is lighter only in what the step asks, and where it counts.</summary>
    private bool HoldsBack(SashAsks asks, Guid? posture, Correction correction, bool isAsked) =>
        correction.IsOpen
        && !asks.IsAccepted(posture, correction.FaultId, correction.Weight)
        && (correction.Weight == Weight.KeyPoint || (isAsked && !keyPointDecides));

    /// <summary>It has to be seen clean on two days, or on one more.</summary>
    private DateOnly? ClearedBy(Correction correction, LearningPace pace) =>
        Looked(correction.State == CorrectionState.Easing ? 1 : Correction.CleanDaysToClear, pace);

    private List<Lacking.AtStage> Stages(
        Guid student,
        IReadOnlyList<AskedUnit> asked,
        IReadOnlyDictionary<PostureSide, DateOnly> planned,
        LearningPace pace
    )
    {
        var ahead = MetAhead(student, asked, planned, pace);
        List<Lacking.AtStage> missing = [];
        // When a link is likely follows from the postures it joins: those come first.
        foreach (var unit in asked.OrderBy(unit => unit.Of.Kind == UnitKind.Link))
        {
            var (has, takenOver) = StandOn(student, unit.Of);
            if (has >= unit.Stage && !takenOver)
            {
                continue;
            }

            var its = new Lacking.AtStage(unit.Of, has, takenOver, unit.Stage, null);
            missing.Add(
                unit.Of.From() is { } from
                    ? its with
                    {
                        Likely = WithItsEnds(unit.Of, from, missing, pace),
                    }
                    : its with
                    {
                        New = ahead.TryGetValue(Done(unit.Of), out var day) ? day : null,
                        Likely = ReachedBy(student, its, ahead, pace),
                    }
            );
        }

        return [.. missing.OrderBy(its => its.Of.Kind == UnitKind.Link).ThenByDescending(its => its.Has)];
    }

    private (Stage Stage, bool TakenOver) StandOn(Guid student, UnitKey of)
    {
        var its = book.StandingOf(student, of);
        if (of.From() is not { } from || its.Stage > Stage.Shown)
        {
            return (its.Stage, its.TakenOver);
        }

        // Whoever goes through both ends in a run-through has gone through the link between them.
        var through = (Stage)
            Math.Min((int)book.StageInRunThroughs(student, from), (int)book.StageInRunThroughs(student, Done(of)));
        return (through > its.Stage ? through : its.Stage, false);
    }

    /// <summary>When they will likely meet what nobody has shown them: as the plan has it, and beyond it as they have met
    /// new postures lately.</summary>
    private Dictionary<PostureSide, DateOnly> MetAhead(
        Guid student,
        IReadOnlyList<AskedUnit> asked,
        IReadOnlyDictionary<PostureSide, DateOnly> planned,
        LearningPace pace
    )
    {
        List<PostureSide> unmet =
        [
            .. asked
                .Where(unit => unit.Of.Kind == UnitKind.Posture)
                .Select(unit => Done(unit.Of))
                .Where(of => book.FirstMet(student, of) is null),
        ];
        var ahead = unmet
            .Where(of => planned.TryGetValue(of, out var day) && day >= today)
            .ToDictionary(of => of, of => planned[of]);
        var (last, more) = (ahead.Values.Append(today).Max(), 0);
        foreach (var of in unmet.Where(of => !ahead.ContainsKey(of)).ToList())
        {
            more++;
            if (pace.NewALesson > 0 && After(more / pace.NewALesson, pace, last) is { } day)
            {
                ahead[of] = day;
            }
        }

        return ahead;
    }

    private DateOnly? ReachedBy(
        Guid student,
        Lacking.AtStage its,
        Dictionary<PostureSide, DateOnly> ahead,
        LearningPace pace
    )
    {
        var seen = Looked(1, pace);
        // What they do as well as is asked has only to be seen.
        if (its.Has >= its.Asked)
        {
            return seen;
        }

        var of = Done(its.Of);
        DateOnly? from = book.FirstMet(student, of) ?? (ahead.TryGetValue(of, out var day) ? day : null);
        return seen is not null && from is not null && times.Days(student, its.Asked) is { } days
            ? Within(Later(seen.Value, from.Value.AddDays(days)))
            : null;
    }

    /// <summary>A link comes with what it joins, and is seen when somebody goes through it.</summary>
    private DateOnly? WithItsEnds(UnitKey link, PostureSide from, List<Lacking.AtStage> postures, LearningPace pace)
    {
        List<Lacking.AtStage> ends =
        [
            .. postures.Where(its =>
                its.Of.Kind == UnitKind.Posture && (Done(its.Of) == from || Done(its.Of) == Done(link))
            ),
        ];
        return ends.TrueForAll(its => its.Likely is not null)
            ? ends.Select(its => its.Likely).Append(Looked(1, pace)).Max()
            : null;
    }

    /// <summary>Everybody is truly seen once in two lessons (domain.md 4.5).</summary>
    private DateOnly? Looked(int times, LearningPace pace) => After(times * FairEyes.Lessons, pace);

    private DateOnly? After(double lessons, LearningPace pace) => After(lessons, pace, today);

    /// <summary>The day after so many more lessons, as often as they come.</summary>
    private DateOnly? After(double lessons, LearningPace pace, DateOnly from) =>
        pace.LessonsAWeek > 0 && lessons / pace.LessonsAWeek is <= LongestWeeks and var weeks
            ? Within(from.AddDays((int)Math.Ceiling(weeks * Readiness.DaysInAWeek)))
            : null;

    private DateOnly? Within(DateOnly day) => day <= today.AddDays(LongestWeeks * Readiness.DaysInAWeek) ? day : null;

    private static DateOnly Later(DateOnly day, DateOnly other) => day > other ? day : other;
}
