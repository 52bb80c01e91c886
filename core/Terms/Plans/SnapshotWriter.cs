using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>From indexes into today's problem to dates and units.</summary>
internal sealed class SnapshotWriter(SolvedTerm term)
{
    public PlanSnapshot Write() =>
        new(
            PlanSnapshot.Current,
            [
                .. term.Problem.Lessons.Select(
                    (slot, lesson) =>
                        new PlanSnapshot.Lesson(
                            slot.Date,
                            slot.TeachableSeconds,
                            slot.Staff,
                            slot.Kind,
                            slot.Held,
                            slot.TalkSeconds,
                            term.Plan.LedSeconds[lesson],
                            slot.WatchSeconds,
                            slot.AgainSeconds
                        )
                ),
            ],
            [.. term.Problem.Closed.Select(closure => new PlanSnapshot.ClosedDay(closure.Date, closure.Reason))],
            [.. term.Problem.Cohorts.Zip(term.Plan.Cohorts, Write)],
            [
                .. term.Plan.Shared.Select(block => new PlanSnapshot.Block(
                    term.DateOf(block.Lesson),
                    block.PostureId,
                    block.Side,
                    block.CohortIds,
                    block.Seconds,
                    block.SavedSeconds
                )),
            ],
            term.Problem.MovePoints,
            term.Plan.UnsharedPoints
        );

    private PlanSnapshot.Cohort Write(CohortProblem cohort, CohortPlan plan) =>
        new()
        {
            Id = cohort.Id,
            Name = cohort.Name,
            Mode = cohort.Mode,
            People = cohort.People,
            MaxNew = cohort.MaxNew,
            AttendedLessons = cohort.AttendedLessons,
            Target = TargetOn(cohort.TargetLesson),
            Before = [.. cohort.Before.Select(Write)],
            BeforeSeconds = cohort.BeforeSeconds,
            Pace = cohort.Pace == 1 ? null : cohort.Pace,
            Units = [.. cohort.Units.Select((unit, at) => Write(cohort, plan, unit, at))],
            Lessons = [.. plan.Lessons.Select((content, lesson) => Write(content, lesson, cohort.AgainIn(lesson)))],
            Kept = cohort.Keeping.Postures.Count == 0 ? null : Write(cohort.Keeping, plan.Kept),
            Exact = plan.Exact,
            Cost = plan.Cost,
        };

    private PlanSnapshot.Unit Write(CohortProblem cohort, CohortPlan plan, TeachingUnit unit, int at)
    {
        var placement = plan.Placements.FirstOrDefault(placement => placement.Unit == at);
        return new()
        {
            Kind = unit.Kind,
            PostureId = unit.PostureId,
            Side = unit.Side,
            From = unit.From is { } from ? Write(from) : null,
            Name = unit.Name,
            Difficulty = unit.Difficulty,
            Counts = unit.Counts,
            IntroduceSeconds = unit.IntroduceSeconds,
            ReviewSeconds = unit.ReviewSeconds,
            RunThroughSeconds = unit.RunThroughSeconds,
            Effort = unit.Effort,
            NeededBy = unit.NeededBy,
            SegmentTarget = unit.Target,
            Target = TargetOn(cohort.TargetOf(at)),
            Introduced = at < cohort.IntroducedIn.Count ? term.DateOf(cohort.IntroducedIn[at]) : null,
            Announced = cohort.Announced.Count > at && cohort.Announced[at] is { } announced ? DateOf(announced) : null,
            Fixed = FixedOn(cohort, plan, at),
            Place = placement is null ? null : term.DateOf(placement.Lesson),
            Because = placement?.Because ?? plan.LeftOver.First(left => left.Unit == at).Because,
            Reviews = [.. (placement?.Reviews ?? []).Select(Write)],
            Dropped =
            [
                .. plan
                    .Dropped.Where(dropped => dropped.Unit == at)
                    .Select(dropped => new PlanSnapshot.NotHeld(term.DateOf(dropped.DueLesson), dropped.Seconds)),
            ],
        };
    }

    private PlanSnapshot.Content Write(CohortLesson content, int lesson, Seconds again) =>
        new(
            term.DateOf(lesson),
            Introduce: content.IntroduceSeconds,
            Review: content.ReviewSeconds,
            RunThrough: content.RunThroughSeconds,
            Watch: content.WatchSeconds,
            LeadIn: content.LeadInSeconds,
            Own: content.OwnSeconds,
            Teacher: content.TeacherSeconds,
            Keep: content.KeepSeconds,
            Again: again
        );

    private PlanSnapshot.KeptMaterial Write(Keeping keeping, KeptPlan kept)
    {
        return new(
            [
                .. keeping.Postures.Select(
                    (posture, at) =>
                        new PlanSnapshot.KeptThing(
                            posture.Of.PostureId,
                            posture.Of.Side,
                            posture.Name,
                            posture.Seconds,
                            posture.Due,
                            posture.HoldsDays,
                            posture.Changed is { } changed ? new(changed.Since, changed.Difference) : null,
                            On(refresh => refresh.Posture == at),
                            [
                                .. kept
                                    .NotKept.Where(late => late.Posture == at)
                                    .Select(late => new PlanSnapshot.KeptLate(
                                        late.Due,
                                        late.Lesson is { } lesson ? term.DateOf(lesson) : null
                                    )),
                            ]
                        )
                ),
            ],
            [
                .. keeping.Runs.Select(
                    (run, at) =>
                        new PlanSnapshot.KeptStretch(
                            run.Name,
                            run.Postures,
                            run.Seconds,
                            On(refresh => refresh.Run == at)
                        )
                ),
            ],
            kept.Cost,
            kept.Exact
        );

        IReadOnlyList<PlanSnapshot.KeptOn> On(Func<Refresh, bool> of) =>
            [
                .. kept
                    .Refreshes.Where(of)
                    .Select(refresh => new PlanSnapshot.KeptOn(term.DateOf(refresh.Lesson), refresh.Because)),
            ];
    }

    private PlanSnapshot.Reviewed Write(Review review) =>
        new(term.DateOf(review.Lesson), review.WeeksAfter, review.Late, review.InRunThrough);

    private static PlanSnapshot.KnownPosture Write(PostureSide posture) => new(posture.PostureId, posture.Side);

    private PlanSnapshot.FixedOn? FixedOn(CohortProblem cohort, CohortPlan plan, int at)
    {
        if (cohort.Lost.FirstOrDefault(lost => lost.Unit == at) is { } lost)
        {
            return new(lost.Date, null, lost.Because);
        }

        return cohort.Pins.Where(pin => pin.Unit == at).Select(pin => (int?)pin.Lesson).FirstOrDefault() is { } lesson
            ? new(term.DateOf(lesson), plan.Refused.FirstOrDefault(refused => refused.Pin.Unit == at)?.Because, null)
            : null;
    }

    /// <summary>No lesson is later than the last, so a target past it asks no more than the last.</summary>
    private DateOnly? TargetOn(int lesson) => DateOf(Math.Min(lesson, term.Problem.Lessons.Count - 1));

    /// <returns>Null for a lesson before the first or past the last.</returns>
    private DateOnly? DateOf(int lesson) =>
        lesson >= 0 && lesson < term.Problem.Lessons.Count ? term.DateOf(lesson) : null;
}
