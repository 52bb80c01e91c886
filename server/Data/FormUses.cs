using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Data;

/// <summary>What later rooms have made of a form: parts of it that cohorts were given, and that the ladder asks
/// for.</summary>
internal sealed class FormUses
{
    private readonly IReadOnlyList<(string Cohort, AssignedSegment Segment)> given;
    private readonly IReadOnlyList<(string Sash, AssignedSegment Segment)> asked;

    private FormUses(
        IReadOnlyList<(string Cohort, AssignedSegment Segment)> given,
        IReadOnlyList<(string Sash, AssignedSegment Segment)> asked
    ) => (this.given, this.asked) = (given, asked);

    public static async Task<FormUses> LoadAsync(SchoolContext db, Guid formId, CancellationToken cancel)
    {
        var assigned = await (
            from assignment in db.Assignments.AsNoTracking()
            join cohort in db.Cohorts on assignment.CohortId equals cohort.Id
            orderby cohort.Order
            select new { cohort.Name, assignment.Segments }
        ).ToListAsync(cancel);
        var sashes = await db.Sashes.AsNoTracking().OrderBy(sash => sash.Order).ToListAsync(cancel);
        return new(
            [
                .. assigned.SelectMany(its =>
                    its.Segments.Where(segment => segment.FormId == formId).Select(segment => (its.Name, segment))
                ),
            ],
            [
                .. sashes.SelectMany(sash =>
                    sash.Asks.Studies.Where(study => study.FormId == formId)
                        .Select(study =>
                            (
                                sash.Name,
                                new AssignedSegment(
                                    Guid.Empty,
                                    formId,
                                    study.FromId,
                                    study.ToId,
                                    default,
                                    Purpose.New,
                                    []
                                )
                            )
                        )
                ),
            ]
        );
    }

    /// <summary>Why the form cannot go; empty when nothing uses it.</summary>
    public IEnumerable<string> Say()
    {
        if (given.Select(its => its.Cohort).Distinct().ToList() is { Count: > 0 } cohorts)
        {
            yield return $"{string.Join(", ", cohorts)} {(cohorts.Count == 1 ? "has" : "have")} been assigned a part of it.";
        }

        if (asked.Select(its => its.Sash).Distinct().ToList() is { Count: > 0 } sashes)
        {
            yield return $"{string.Join(", ", sashes)} {(sashes.Count == 1 ? "asks" : "ask")} for a part of it.";
        }
    }

    /// <summary>The parts that other positions would turn round or cut off.</summary>
    public IEnumerable<Problem> BrokenBy(IReadOnlyList<Position> positions) =>
        given
            .Where(its => !its.Segment.StillFits(positions))
            .Select(its => its.Cohort)
            .Distinct()
            .Select(cohort => new Problem(
                "positions",
                $"{cohort} has been assigned a segment that would end before it starts, or lose an end. Change its assignment first."
            ))
            .Concat(
                asked
                    .Where(its => !its.Segment.StillFits(positions))
                    .Select(its => new Problem(
                        "positions",
                        $"The sash {its.Sash} asks for a part that would end before it starts, or lose an end. Change what it asks for first."
                    ))
            );
}
