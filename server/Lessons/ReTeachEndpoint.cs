using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Progress;
using Zeitplan.Core.Terms.Planning;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;
using Zeitplan.Server.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>What many of a cohort have open, and what the school does otherwise than they learned it, each as a block of a
/// coming lesson (domain.md 4.5, 4.1): the lesson is arranged with it before it is offered, so that what it takes is
/// known.</summary>
internal static class ReTeachEndpoint
{
    /// <summary>What most people share, of each cohort; more is not taught again in one evening.</summary>
    private const int MostOfACohort = 1;

    /// <summary>What is worth a block of its own.</summary>
    private const int LeastMinutes = 3;

    /// <summary>Where the plan knows no review of it.</summary>
    private const int UsualMinutes = 5;

    /// <param name="Task">To be put into the lesson as it is.</param>
    /// <param name="Have">So many have it open, of those who were watched; or do it the old way, of those who have met
    /// it.</param>
    /// <param name="ChangedSince">When the school changed how it is done; null for what many share.</param>
    /// <param name="Way">How it is taught again; empty where only the difference is told.</param>
    /// <param name="GivesWay">What has no room then that has room now, in words; nothing where all has.</param>
    public sealed record Offer(
        LessonTask Task,
        string Cohort,
        int Have,
        int Observed,
        DateOnly? ChangedSince,
        string Way,
        IReadOnlyList<string> GivesWay
    );

    public static void Map(ByRank api) =>
        api.Group("/classes/{classId:guid}/lessons/{date}")
            .Each(lessons => lessons.OpensFirst())
            .Teacher.MapGet("/arrangement/re-teach", Read)
            .TakesATurn()
            .WithName("reTeachOffers");

    internal static async Task<Results<Ok<IReadOnlyList<Offer>>, ProblemHttpResult>> Read(
        [AsParameters] AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        if (await ArrangedLesson.OpenAsync(asked, arrangements, cancel) is not { } lesson)
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        // Nothing is put into a lesson that has been held.
        if (asked.Date < asked.Today)
        {
            return TypedResults.Ok<IReadOnlyList<Offer>>([]);
        }

        var plan = await asked.PlanAsync(cancel);
        var facts = await ProgressBooks.LoadAsync(
            asked.Db,
            [.. lesson.Now.Cohorts.Select(cohort => cohort.Id)],
            asked.Today,
            cancel
        );
        var postures = await asked.Db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var shared = lesson.Now.Cohorts.SelectMany(cohort => Shared(cohort, facts)).ToList();
        var helpful = await ProgressBooks.HelpfulAsync(
            asked.Db,
            [.. shared.Select(proposal => proposal.FaultId).OfType<Guid>()],
            asked.Today,
            cancel
        );
        var teaching = await Material.TeachingAsync(asked.Db, cancel);
        var modes = facts.Facts.Modes;
        var told = (await AgainInPlan.LoadAsync(asked.Db, asked.Lesson.Term, [asked.ClassId], cancel))
            .Where(again => again.Date >= asked.Today && again.Tells is not null)
            .Select(again => again.Key)
            .ToHashSet();
        var offers = shared
            .Select(proposal =>
            {
                var mode = modes[proposal.CohortId];
                var posture = postures[proposal.Of.PostureId];
                var fault = posture.Faults.FirstOrDefault(fault => fault.Id == proposal.FaultId);
                var way = AgainWay.Of(
                    teaching.AgainFor(mode),
                    fault is null ? null : posture.On(proposal.Of.Side, fault),
                    proposal.FaultId is { } id ? [.. helpful[id]] : []
                );
                return Show(
                    proposal,
                    lesson.Now.Cohorts.Single(cohort => cohort.Id == proposal.CohortId).Name,
                    posture,
                    way,
                    new Effort(
                        way.Pattern,
                        posture.CountsFor(mode)?.Count ?? 0,
                        posture.Text.Difficulty,
                        mode,
                        plan.AskedOf(proposal.CohortId)?.Pace ?? 1m
                    )
                );
            })
            .Concat(lesson.Now.Cohorts.SelectMany(cohort => Changed(cohort, plan, facts, postures)))
            .Where(offer => lesson.Now.Tasks.All(task => task.Key != offer.Task.Key) && !told.Contains(offer.Task.Key))
            .Select(offer => offer with { GivesWay = GivesWay(lesson, offer.Task, arrangements) })
            .ToList();
        return TypedResults.Ok<IReadOnlyList<Offer>>(offers);
    }

    private static IEnumerable<Offer> Changed(
        CohortHere cohort,
        LessonPlan plan,
        ProgressBooks.Loaded facts,
        IReadOnlyDictionary<Guid, Posture> postures
    )
    {
        var people = facts.In(cohort.Id);
        return TeachTheDifference
            .Propose(
                cohort.Id,
                people,
                people.SelectMany(facts.Book.MetBy),
                id => postures[id].Retired ? [] : postures[id].Text.Changes,
                facts.Book,
                facts.Today
            )
            .Where(proposal => !plan.TellsTheDifference(cohort.Id, proposal.Of, facts.Today))
            .Take(MostOfACohort)
            .Select(proposal => new Offer(
                new(
                    PlannedLesson.KeyOfADifference(cohort.Id, proposal.Of, proposal.Since),
                    BlockKind.ReTeach,
                    [cohort.Id],
                    TeachTheDifference.Takes(new(60 * Minutes(plan, cohort.Id, proposal.Of))) / 60,
                    $"{postures[proposal.Of.PostureId].NameOn(proposal.Of.Side)}: {proposal.Difference}",
                    $"It is done so since {proposal.Since.ToString("d MMMM", CultureInfo.InvariantCulture)}; {proposal.Have} of the {proposal.Met} who know it learned it before."
                )
                {
                    Material = [proposal.Of],
                },
                cohort.Name,
                proposal.Have,
                proposal.Met,
                proposal.Since,
                "",
                []
            ));
    }

    /// <summary>What most of a cohort share.</summary>
    private static IEnumerable<ReTeach> Shared(CohortHere cohort, ProgressBooks.Loaded facts)
    {
        var people = facts.In(cohort.Id);
        var met = people.SelectMany(facts.Book.MetBy).Distinct();
        return ReTeach
            .Propose(cohort.Id, people, met, facts.Book)
            .OrderByDescending(proposal => proposal.Have)
            .Take(MostOfACohort);
    }

    /// <summary>What a block that teaches this again is called in a lesson.</summary>
    internal static string KeyOf(ReTeach proposal) =>
        $"re-teach {proposal.CohortId} {proposal.Of.PostureId} {proposal.Of.Side} {proposal.Words}";

    private static Offer Show(ReTeach proposal, string cohort, Posture posture, AgainWay way, Effort effort) =>
        new(
            new(
                KeyOf(proposal),
                BlockKind.ReTeach,
                [proposal.CohortId],
                Math.Max(LeastMinutes, (effort.AgainSeconds + 59) / 60),
                $"{posture.NameOn(proposal.Of.Side)}: {proposal.Words}",
                $"{proposal.Have} of the {proposal.Observed} who were watched have it open. {way.Says}."
            )
            {
                Material = [proposal.Of],
            },
            cohort,
            proposal.Have,
            proposal.Observed,
            null,
            way.Says,
            []
        );

    /// <summary>As long as a review of it.</summary>
    private static int Minutes(LessonPlan plan, Guid cohort, PostureSide of) =>
        plan.AskedOf(cohort)?.Units.FirstOrDefault(unit => unit.Kind != UnitKind.Link && unit.Of == of) is { } unit
            ? Math.Max(1, (unit.ReviewSeconds + 59) / 60)
            : UsualMinutes;

    private static List<string> GivesWay(ArrangedLesson lesson, LessonTask task, Arrangements arrangements)
    {
        // What has no room anyway is not said again, though it may be for other minutes.
        var now = lesson.Arrangement.Shortfalls.Select(shortfall => (shortfall.CohortId, shortfall.Task)).ToHashSet();
        var then = arrangements.Tried(lesson.Now.With(new LessonEdit.Add(task)));
        return
        [
            .. then
                .Shortfalls.Where(shortfall => !now.Contains((shortfall.CohortId, shortfall.Task)))
                .Select(shortfall => shortfall.Says),
        ];
    }
}
