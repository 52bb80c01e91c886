using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Progress;

/// <summary>The same principle broken in three postures or more: proposed as one correction against the principle
/// (domain.md 4.5).</summary>
/// <param name="Where">The open corrections it shows in, the heaviest first.</param>
public sealed record Habit(Guid PrincipleId, IReadOnlyList<(UnitKey Of, Correction Correction)> Where)
{
    public const int FewestPostures = 3;

    /// <param name="open">Corrections of one student, each with the principle its fault breaks.</param>
    public static IReadOnlyList<Habit> Of(IEnumerable<(UnitKey Of, Correction Correction, Guid? PrincipleId)> open) =>
        [
            .. from its in open
            where its.PrincipleId is not null && its.Correction.IsOpen
            group its by its.PrincipleId!.Value into same
            // Both sides of a posture are one posture.
            let postures = same.Select(its => its.Of.PostureId).Distinct().Count()
            where postures >= FewestPostures
            orderby postures descending
            select new Habit(
                same.Key,
                [
                    .. same.OrderByDescending(its => its.Correction.Weight)
                        .ThenBy(its => its.Correction.Since)
                        .Select(its => (its.Of, its.Correction)),
                ]
            ),
        ];
}
