using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.People;
using Zeitplan.Core.Terms;
using Zeitplan.Core.Terms.Plans;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.Lessons;

/// <summary>The day, and what is next in each class.</summary>
internal static class TodayEndpoint
{
    /// <param name="Teaches">Whether there is a class that whoever asks may see at all.</param>
    public sealed record Response(
        DateOnly Today,
        bool Teaches,
        string? Term,
        int? Week,
        IReadOnlyList<NextLesson> Next
    );

    /// <param name="Teaches">Cohort by cohort what is new.</param>
    /// <param name="Held">The last lesson of the class that is marked, to be looked back on; null where none is in this
    /// term.</param>
    public sealed record NextLesson(
        Guid ClassId,
        string Class,
        DateOnly Date,
        TimeOnly Start,
        int Minutes,
        string Hall,
        int Number,
        LessonKind Kind,
        bool Planned,
        IReadOnlyList<CohortNews> Teaches,
        DateOnly? Held
    );

    public sealed record CohortNews(string Cohort, string Colour, Half Half, IReadOnlyList<string> New);

    public static void Map(ByRank api) => api.Anyone.MapGet("/today", Read).WithName("today");

    private static async Task<Ok<Response>> Read(
        SchoolContext db,
        Actor actor,
        SchoolClock clock,
        CancellationToken cancel
    )
    {
        var today = await clock.TodayAsync(cancel);
        if (await RunningTerm.LoadAsync(db, actor, today, cancel) is not { Term: var term } running)
        {
            return TypedResults.Ok(new Response(today, false, null, null, []));
        }

        var halls = await db.Halls.ToDictionaryAsync(hall => hall.Id, hall => hall.Name, cancel);
        return TypedResults.Ok(
            new Response(
                today,
                running.Classes.Count > 0,
                term.Name,
                today < term.Start ? null : term.WeekOf(today),
                [
                    .. running
                        .Classes.Select(schoolClass => NextOf(schoolClass, running, halls, today))
                        .OfType<NextLesson>()
                        .OrderBy(lesson => lesson.Date)
                        .ThenBy(lesson => lesson.Start),
                ]
            )
        );
    }

    /// <returns>Null where no lesson is left in the term.</returns>
    private static NextLesson? NextOf(
        SchoolClass schoolClass,
        RunningTerm running,
        IReadOnlyDictionary<Guid, string> halls,
        DateOnly today
    )
    {
        var planned = running.Plans.GetValueOrDefault(schoolClass.Id);
        return running.Unmarked(schoolClass).FirstOrDefault(day => day.Date >= today) is { } day
            ? new(
                schoolClass.Id,
                schoolClass.Name,
                day.Date,
                day.Start,
                day.Minutes,
                halls[day.HallId],
                day.Number!.Value,
                day.Kind,
                planned is not null,
                News(planned, running.Taught.CohortsOf(schoolClass.Id), day.Date),
                running.Marked[schoolClass.Id].Where(date => date <= today).Select(date => (DateOnly?)date).Max()
            )
            : null;
    }

    private static List<CohortNews> News(PlannedTerm? planned, IEnumerable<Cohort> cohorts, DateOnly date) =>
        [
            .. cohorts.Select(cohort => new CohortNews(
                cohort.Name,
                cohort.Colour,
                cohort.Half,
                planned is null
                    ? []
                    :
                    [
                        .. from problem in planned.Problem.Cohorts.Where(c => c.Id == cohort.Id)
                        from placement in planned.Plan.Cohorts.Single(c => c.CohortId == cohort.Id).Placements
                        where planned.Problem.Lessons[placement.Lesson].Date == date
                        select problem.Units[placement.Unit].Name,
                    ]
            )),
        ];
}
