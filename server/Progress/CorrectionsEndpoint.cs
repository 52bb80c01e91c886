using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Progress;

/// <summary>Everything that is to be corrected in a class: what is stuck, what is easing, what was tried, and what could be
/// tried next.</summary>
internal static class CorrectionsEndpoint
{
    /// <param name="People">Whoever has something open; whoever is stuck first.</param>
    public sealed record ClassCorrections(Guid ClassId, string Class, IReadOnlyList<Person> People);

    /// <param name="Habits">Principles that are broken in several postures.</param>
    /// <param name="Against">Open corrections against principles.</param>
    /// <param name="Corrections">Those that are not cleared: stuck ones first, then the heaviest.</param>
    public sealed record Person(
        Guid StudentId,
        string Name,
        Guid CohortId,
        string Cohort,
        string SashColour,
        Half Half,
        IReadOnlyList<CorrectionViews.HabitResponse> Habits,
        IReadOnlyList<CorrectionViews.AgainstResponse> Against,
        IReadOnlyList<About> Corrections
    );

    /// <param name="From">Of a link, the posture it leads on from.</param>
    public sealed record About(
        Guid PostureId,
        Side Side,
        PostureSide? From,
        string Name,
        CorrectionViews.CorrectionResponse Correction
    );

    public static void Map(ByRank api) =>
        api.Group("/classes/{classId:guid}")
            .Each(classes => classes.OpensFirst())
            .Anyone.MapGet("/corrections", Read)
            .WithName("corrections");

    private static async Task<Ok<ClassCorrections>> Read([AsParameters] AskedClass asked, CancellationToken cancel)
    {
        var (db, today, cohorts) = (asked.Db, asked.Today, await asked.CohortsAsync(cancel));
        var sashes = await db.Sashes.AsNoTracking().ToDictionaryAsync(sash => sash.Id, cancel);
        var facts = await ProgressBooks.LoadAsync(db, [.. cohorts.Select(cohort => cohort.Id)], today, cancel);
        var views = await CorrectionViews.LoadAsync(facts, db, cancel);
        var order = cohorts.Index().ToDictionary(cohort => cohort.Item.Id);
        return TypedResults.Ok(
            new ClassCorrections(
                asked.ClassId,
                asked.Class.Name,
                [
                    .. from student in facts.Students
                    let open = facts
                        .Book.CorrectionsOf(student.Id)
                        .Where(its => its.Correction.IsOpen)
                        .OrderByDescending(its => its.Correction.Stuck)
                        .ThenByDescending(its => its.Correction.Weight)
                        .ThenBy(its => its.Correction.Since)
                        .ToList()
                    let against = views
                        .AgainstOf(student.Id, facts.Book)
                        .Where(its => its.Correction.State != CorrectionState.Cleared)
                        .ToList()
                    where open.Count + against.Count > 0
                    let cohort = order[facts.Cohorts[student.Id]]
                    let habits = views.HabitsOf(student.Id, facts.Book)
                    let first = open.Select(its => its.Correction).FirstOrDefault()
                    // What a teacher should see first comes first.
                    orderby against.Exists(its => its.Correction.Stuck)
                        || first?.Stuck == true descending, against.Count + habits.Count
                        > 0 descending, first?.Weight descending, cohort.Index, student.GivenName
                    select new Person(
                        student.Id,
                        student.ShortName,
                        cohort.Item.Id,
                        cohort.Item.Name,
                        sashes[student.SashId].Colour,
                        student.Half,
                        habits,
                        against,
                        [
                            .. open.Select(its => new About(
                                its.Of.PostureId,
                                its.Of.Side,
                                its.Of.From(),
                                views.NameOf(its.Of),
                                views.Show(its.Of, its.Correction)
                            )),
                        ]
                    ),
                ]
            )
        );
    }
}
