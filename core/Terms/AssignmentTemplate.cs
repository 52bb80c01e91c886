using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Terms;

/// <summary>Where the segments of a new term may come from.</summary>
public enum AssignmentTemplate
{
    /// <summary>What the cohort had last term.</summary>
    LastTerm,

    /// <summary>The section after the one it ended in last term.</summary>
    NextSection,

    /// <summary>What its level studies according to the ladder.</summary>
    Ladder,
}

/// <summary>What a template gives one cohort, and why it may give nothing.</summary>
public sealed record TemplateProposal(Guid CohortId, IReadOnlyList<AssignedSegment> Segments, string Because);

/// <summary>Segments for every cohort at once.</summary>
public static class AssignmentTemplates
{
    /// <param name="last">What each cohort had in the term before.</param>
    /// <param name="sashes">The ladder.</param>
    /// <param name="id">Names each new segment.</param>
    public static IReadOnlyList<TemplateProposal> Propose(
        AssignmentTemplate template,
        IReadOnlyList<Cohort> cohorts,
        IReadOnlyDictionary<Guid, IReadOnlyList<AssignedSegment>> last,
        IReadOnlyDictionary<Guid, Form> forms,
        IReadOnlyDictionary<Guid, SashLevel> sashes,
        DateOnly target,
        Func<Guid> id
    )
    {
        return
        [
            .. cohorts.Select(cohort =>
                (template, last.GetValueOrDefault(cohort.Id) ?? []) switch
                {
                    (AssignmentTemplate.Ladder, _) => FromLadder(cohort),
                    (_, { Count: 0 }) => new(cohort.Id, [], "It had nothing last term."),
                    (AssignmentTemplate.LastTerm, var had) => new(
                        cohort.Id,
                        [.. had.Select(segment => segment with { Id = id(), Target = target })],
                        "As last term."
                    ),
                    var (_, had) => Shifted(cohort, had[^1]),
                }
            ),
        ];

        TemplateProposal FromLadder(Cohort cohort)
        {
            if (cohort.SashId is not { } sashId || !sashes.TryGetValue(sashId, out var sash))
            {
                return new(cohort.Id, [], "It belongs to no level of the ladder.");
            }

            var studies = sash
                .Asks.Studies.Where(study => study.Half == People.Half.None || study.Half == cohort.Half)
                .ToList();
            return studies.Count == 0
                ? new(cohort.Id, [], $"The ladder does not say what {sash.Name} studies.")
                : new(
                    cohort.Id,
                    [
                        .. studies.Select(study => new AssignedSegment(
                            id(),
                            study.FormId,
                            study.FromId,
                            study.ToId,
                            target,
                            Purpose.New,
                            []
                        )),
                    ],
                    $"As the ladder says for {sash.Name}."
                );
        }

        TemplateProposal Shifted(Cohort cohort, AssignedSegment had)
        {
            var form = forms[had.FormId];
            var ended = form.Positions[form.IndexOf(had.ToId)].SectionId;
            var section = form.Sections.SkipWhile(section => section.Id != ended).Skip(1).FirstOrDefault();
            var positions = form.Positions.Where(position => position.SectionId == section?.Id).ToList();
            return positions.Count == 0
                ? new(cohort.Id, [], $"{form.Name} has no section after the one it was in.")
                : new(
                    cohort.Id,
                    [new(id(), form.Id, positions[0].Id, positions[^1].Id, target, Purpose.New, [])],
                    $"{section!.Name}, after the one it was in."
                );
        }
    }
}
