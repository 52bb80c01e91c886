using Zeitplan.Core.Forms;

namespace Zeitplan.Core.People;

/// <summary>A posture on a side, or a link, at the stage that is asked for.</summary>
public sealed record AskedUnit(UnitKey Of, Stage Stage);

/// <summary>One step up the ladder, from a level or half of one to the next, and what it asks (domain.md 4.5,
/// "Readiness").</summary>
/// <param name="Weeks">At the level, at least.</param>
/// <param name="Lessons">Attended at the level, at least.</param>
/// <param name="Units">In the order of the forms, each link after the posture it leads to.</param>
public sealed record StepUp(
    SashLevel From,
    SashLevel To,
    Half ToHalf,
    int Weeks,
    int Lessons,
    IReadOnlyList<AskedUnit> Units
)
{
    /// <summary>
    /// From the newer half to the senior one: what the newer half studies, in half the time. From the senior half, or
    /// from a level without halves, to the next level: all it studies.
    /// </summary>
    /// <param name="ladder">Lowest first or not.</param>
    /// <param name="forms">Those the ladder studies.</param>
    /// <returns>Null at the top.</returns>
    public static StepUp? Of(
        IReadOnlyList<SashLevel> ladder,
        Guid sashId,
        Half half,
        IReadOnlyDictionary<Guid, Form> forms
    )
    {
        var inOrder = ladder.OrderBy(sash => sash.Order).ToList();
        var from = inOrder.Single(sash => sash.Id == sashId);
        var asks = from.Asks;
        var (newerWeeks, newerLessons) = (asks.Weeks / 2, asks.Lessons / 2);
        return (from.HasHalves ? half : Half.None) switch
        {
            Half.Newer => new(
                from,
                from,
                Half.Senior,
                newerWeeks,
                newerLessons,
                UnitsOf(asks, study => study.Half == Half.Newer, forms)
            ),
            var its when Ladder.Next(inOrder, from) is { } next => new(
                from,
                next,
                next.HasHalves ? Half.Newer : Half.None,
                its == Half.Senior ? asks.Weeks - newerWeeks : asks.Weeks,
                its == Half.Senior ? asks.Lessons - newerLessons : asks.Lessons,
                UnitsOf(asks, _ => true, forms)
            ),
            _ => null,
        };
    }

    private static IReadOnlyList<AskedUnit> UnitsOf(
        SashAsks asks,
        Func<Study, bool> which,
        IReadOnlyDictionary<Guid, Form> forms
    ) =>
        [
            .. asks.RunsOf(which, forms)
                .SelectMany(run =>
                    run.SelectMany(
                        (position, at) =>
                            asks.SidesOf(position)
                                .Select(of => new AskedUnit(
                                    new(UnitKind.Posture, of.PostureId, of.Side),
                                    StageOn(asks, position)
                                ))
                                .Concat(at == 0 ? [] : [Link(asks, run[at - 1], position)])
                    )
                )
                .DistinctBy(asked => asked.Of),
        ];

    /// <summary>Nobody is asked to do a link better than what it joins.</summary>
    private static AskedUnit Link(SashAsks asks, Position from, Position to) =>
        new(
            new(UnitKind.Link, to.PostureId, to.Side, from.PostureId, from.Side),
            (Stage)Math.Min((int)StageOn(asks, from), (int)StageOn(asks, to))
        );

    private static Stage StageOn(SashAsks asks, Position position) => asks.For(position.PostureId, []).Stage;
}
