using System.Globalization;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>A class's term as it was asked and as it was answered.</summary>
public sealed record SolvedTerm(TermProblem Problem, TermPlan Plan)
{
    public CohortProblem? Asked(Guid cohort) => Problem.Cohorts.FirstOrDefault(asked => asked.Id == cohort);

    public CohortPlan? Answered(Guid cohort) => Plan.Cohorts.FirstOrDefault(answered => answered.CohortId == cohort);

    public DateOnly DateOf(int lesson) => Problem.Lessons[lesson].Date;

    /// <summary>The postures that are new to a cohort, with the day of each.</summary>
    public IReadOnlyDictionary<PostureSide, DateOnly> NewTo(Guid cohort) =>
        Asked(cohort) is { } asked && Answered(cohort) is { } answered
            ? answered
                .Placements.Where(placement => asked.Units[placement.Unit].Kind == UnitKind.Posture)
                .GroupBy(placement => asked.Units[placement.Unit].Of, placement => DateOf(placement.Lesson))
                .ToDictionary(same => same.Key, same => same.Min())
            : new Dictionary<PostureSide, DateOnly>();

    /// <summary>What is new on a date, a line for each cohort: "Fern, newer: Brush Knee, left; Play the Pipa,
    /// left".</summary>
    public IReadOnlyList<string> NewOn(DateOnly date) =>
        [
            .. from cohort in Problem.Cohorts
            let names = Answered(cohort.Id)!
                .Placements.Where(placement => DateOf(placement.Lesson) == date)
                .Select(placement => cohort.Units[placement.Unit].Name)
                .ToList()
            where names.Count > 0
            select $"{cohort.Name}: {string.Join("; ", names)}",
        ];
}

/// <summary>
/// Planning again (domain.md 4.3): what the head fixed stays, and what was announced stays unless something outweighs
/// it. Lessons may have come or gone and units may have changed since, so both are carried over by what they are and by
/// date.
/// </summary>
public static class Replanning
{
    /// <param name="fixedIn">The plan the head last worked on: its pins stay.</param>
    /// <param name="announced">The plan people know; null before there is one.</param>
    public static TermProblem Continue(TermProblem now, TermProblem? fixedIn, SolvedTerm? announced)
    {
        var lessonOn = now.Lessons.Index().ToDictionary(lesson => lesson.Item.Date, lesson => lesson.Index);
        return now with
        {
            MovePoints = announced is null ? 0 : PlanCost.MoveWhenMending,
            Cohorts = [.. now.Cohorts.Select(Fixed)],
        };

        CohortProblem Fixed(CohortProblem cohort)
        {
            var unitOf = UnitsOf(cohort);
            var wanted = fixedIn?.Cohorts.FirstOrDefault(before => before.Id == cohort.Id) is not { } before
                ? []
                : before
                    .Pins.Select(pin => (before.Units[pin.Unit].Key, fixedIn.Lessons[pin.Lesson].Date))
                    .Concat(before.Lost.Select(lost => (before.Units[lost.Unit].Key, lost.Date)))
                    .Where(pin => unitOf.TryGetValue(pin.Key, out var unit) && unit >= cohort.IntroducedIn.Count)
                    .Select(pin => (Unit: unitOf[pin.Key], pin.Date))
                    .OrderBy(pin => pin.Unit)
                    .ToList();
            return cohort with
            {
                Pins =
                [
                    .. wanted
                        .Where(pin => WhyLost(pin.Date) is null)
                        .Select(pin => new Pin(pin.Unit, lessonOn[pin.Date])),
                ],
                Lost =
                [
                    .. wanted
                        .Select(pin => (pin.Unit, pin.Date, Because: WhyLost(pin.Date)))
                        .Where(pin => pin.Because is not null)
                        .Select(pin => new LostPin(pin.Unit, pin.Date, pin.Because!)),
                ],
                Announced = Announced(cohort),
            };
        }

        string? WhyLost(DateOnly date) =>
            lessonOn.TryGetValue(date, out var lesson)
                ? now.Lessons[lesson].Held
                    ? $"{Day(date)} was held without it."
                    : null
                : now.Closed.FirstOrDefault(closure => closure.Date == date) is { } closure
                    ? $"{Day(date)} is closed: {closure.Reason}."
                    : $"There is no lesson on {Day(date)} any more.";

        List<int?> Announced(CohortProblem cohort)
        {
            if (announced?.Asked(cohort.Id) is not { } before || announced.Answered(cohort.Id) is not { } plan)
            {
                return [];
            }

            var dateOf = plan.Placements.ToDictionary(
                placement => before.Units[placement.Unit].Key,
                placement => announced.DateOf(placement.Lesson)
            );
            return
            [
                .. cohort.Units.Select(unit =>
                    dateOf.TryGetValue(unit.Key, out var date) && lessonOn.TryGetValue(date, out var lesson)
                        ? (int?)lesson
                        : null
                ),
            ];
        }
    }

    /// <summary>An earlier plan to begin with, or null where it was made for other cohorts, lessons or units.</summary>
    public static TermPlan? Carried(TermProblem now, SolvedTerm? before) =>
        before is not null
        && before.Problem.Lessons.Select(lesson => lesson.Date).SequenceEqual(now.Lessons.Select(lesson => lesson.Date))
        && before.Problem.Cohorts.Count == now.Cohorts.Count
        && before
            .Problem.Cohorts.Zip(now.Cohorts)
            .All(pair =>
                pair.First.Id == pair.Second.Id
                && pair.First.Units.Select(unit => unit.Key).SequenceEqual(pair.Second.Units.Select(unit => unit.Key))
            )
        && before
            .Plan.Cohorts.Zip(now.Cohorts)
            .All(pair =>
                pair.First.Placements.Select(placement => placement.Lesson)
                    .Take(pair.Second.IntroducedIn.Count)
                    .SequenceEqual(pair.Second.IntroducedIn)
            )
            ? before.Plan
            : null;

    /// <summary>The cohort's units by what they are.</summary>
    public static IReadOnlyDictionary<UnitKey, int> UnitsOf(CohortProblem cohort) =>
        cohort.Units.Index().ToDictionary(unit => unit.Item.Key, unit => unit.Index);

    /// <summary>Fixes a unit in a lesson, in place of wherever it was fixed; a null lesson frees it.</summary>
    public static TermProblem WithPin(TermProblem problem, Guid cohort, int unit, int? lesson) =>
        problem with
        {
            Cohorts =
            [
                .. problem.Cohorts.Select(asked =>
                    asked.Id != cohort
                        ? asked
                        : asked with
                        {
                            Lost = [.. asked.Lost.Where(lost => lost.Unit != unit)],
                            Pins =
                            [
                                .. asked
                                    .Pins.Where(pin => pin.Unit != unit)
                                    .Concat(lesson is { } at ? [new Pin(unit, at)] : [])
                                    .OrderBy(pin => pin.Unit),
                            ],
                        }
                ),
            ],
        };

    private static string Day(DateOnly date) => date.ToString("d MMMM", CultureInfo.InvariantCulture);
}
