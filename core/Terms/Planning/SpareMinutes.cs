namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// What the teachers have left once all is planned goes to lead-ins, then to run-throughs, then to watching: where it
/// is short, the same to everybody. Nothing that is introduced or reviewed changes by it, and no lesson is overdrawn.
/// </summary>
internal sealed class SpareMinutes(ClassLedger ledger)
{
    private TermProblem Problem => ledger.Problem;

    public TermPlan GivenOut(CohortPlan?[] plans)
    {
        var used = ledger.Used(plans);
        var lessons = plans.Select(plan => plan!.Lessons.ToArray()).ToArray();
        foreach (var lesson in ledger.Open)
        {
            var beside = Enumerable
                .Range(0, plans.Length)
                .Where(cohort => !Problem.Cohorts[cohort].IsAttended(lesson))
                .ToList();
            var before = beside.Select(cohort => lessons[cohort][lesson]).ToList();
            var spare = Problem.Lessons[lesson].TeacherSeconds - used[lesson];
            var after = GivenOut(spare, before);
            foreach (var (at, cohort) in beside.Index())
            {
                lessons[cohort][lesson] = after[at] with { TeacherSeconds = after[at].LedSeconds };
                used[lesson] += after[at].LedSeconds - before[at].TeacherSeconds;
            }
        }

        return new(
            [.. plans.Select((plan, cohort) => plan! with { Lessons = lessons[cohort] })],
            [.. used.Select(seconds => new Seconds(seconds))],
            ledger.Shared.Of(plans),
            ledger.Shared.UnsharedPoints(plans)
        );
    }

    /// <summary>One lesson's contents, each with its part of what is spare.</summary>
    private static List<CohortLesson> GivenOut(int spare, List<CohortLesson> contents)
    {
        // Where something is led, the lead-in to it is promised already.
        var leadIns = Spread(
            spare,
            [.. contents.Select(content => content.TeacherSeconds > 0 ? 0 : content.LeadInSeconds)]
        );
        spare -= leadIns.Sum();
        var runThroughs = Spread(spare, [.. contents.Select(content => content.RunThroughSeconds)]);
        spare -= runThroughs.Sum();
        var watches = Spread(
            spare,
            [
                .. contents.Select(
                    (content, at) => runThroughs[at] < content.RunThroughSeconds ? 0 : content.WatchSeconds
                ),
            ]
        );
        return
        [
            .. contents.Select(
                (content, at) =>
                    content with
                    {
                        LeadInSeconds = new(content.TeacherSeconds > 0 ? content.LeadInSeconds : leadIns[at]),
                        RunThroughSeconds = new(runThroughs[at]),
                        WatchSeconds = new(watches[at]),
                    }
            ),
        ];
    }

    /// <summary>So much for each of what it wants that the sum stays within what is there, the least wish
    /// first.</summary>
    private static int[] Spread(int seconds, IReadOnlyList<int> wanted)
    {
        var given = new int[wanted.Count];
        var (left, waiting) = (seconds, wanted.Count);
        foreach (var (at, wish) in wanted.Index().OrderBy(want => want.Item).ThenBy(want => want.Index))
        {
            given[at] = Math.Min(wish, left / waiting);
            left -= given[at];
            waiting--;
        }

        return given;
    }
}
