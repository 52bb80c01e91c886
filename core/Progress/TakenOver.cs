using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Half = Zeitplan.Core.People.Half;

namespace Zeitplan.Core.Progress;

/// <summary>
/// A head's word on what somebody held when they came, in place of what their sash says. The latest about a posture and
/// side counts; none is deleted.
/// </summary>
/// <param name="Stage">Not met, shown or alone: more nobody takes over from what nobody here has seen.</param>
public sealed record TakenOverFact(
    Guid Id,
    Guid StudentId,
    Guid PostureId,
    Side Side,
    Stage Stage,
    Guid By,
    DateTimeOffset At
) : IFact<TakenOverFact>
{
    public PostureSide Of => new(PostureId, Side);

    /// <inheritdoc/>
    public bool SaysTheSame(TakenOverFact other) => this with { By = other.By, At = other.At } == other;

    public IEnumerable<Problem> Check(string path)
    {
        if (Stage is not (Stage.NotMet or Stage.Shown or Stage.Alone))
        {
            yield return new(
                $"{path}.stage",
                "Taken over is not met, shown or alone; what is more has to be seen here."
            );
        }
    }
}

/// <summary>
/// What somebody is held to know on entering with a sash, seen by nobody here (domain.md 4.5): what the ladder asks
/// below it is alone, the present level shown. Whoever begins at the bottom brings nothing.
/// </summary>
/// <param name="ladder">Lowest first or not.</param>
/// <param name="forms">Those the ladder studies.</param>
public sealed class TakenOver(
    IReadOnlyList<SashLevel> ladder,
    IReadOnlyDictionary<Guid, Form> forms,
    IReadOnlyDictionary<Guid, PostureOutline> postures
)
{
    private static readonly Dictionary<PostureSide, Stage> Nothing = [];

    private readonly List<SashLevel> ladder = [.. ladder.OrderBy(sash => sash.Order)];
    private readonly Dictionary<(Guid, Half), IReadOnlyDictionary<PostureSide, Stage>> byLevel = [];

    /// <param name="entered">The level somebody entered with.</param>
    /// <param name="corrected">What the head has said about this person.</param>
    /// <returns>Shown or alone; what is not there is not met.</returns>
    public IReadOnlyDictionary<PostureSide, Stage> By(Level? entered, IReadOnlyCollection<TakenOverFact> corrected)
    {
        var asked = entered is null ? Nothing : AskedBy(entered.SashId, entered.Half);
        if (corrected.Count == 0)
        {
            return asked;
        }

        Dictionary<PostureSide, Stage> held = new(asked);
        foreach (var fact in corrected.OrderBy(fact => fact.At).ThenBy(fact => fact.Id))
        {
            held[fact.Of] = fact.Stage;
        }

        return held.Where(of => of.Value != Stage.NotMet).ToDictionary();
    }

    private IReadOnlyDictionary<PostureSide, Stage> AskedBy(Guid sashId, Half half)
    {
        if (!byLevel.TryGetValue((sashId, half), out var held))
        {
            byLevel[(sashId, half)] = held = Ask(sashId, half);
        }

        return held;
    }

    private Dictionary<PostureSide, Stage> Ask(Guid sashId, Half half)
    {
        var at = ladder.FindIndex(sash => sash.Id == sashId);
        if (at < 0 || (at == 0 && half != Half.Senior))
        {
            return Nothing;
        }

        var present = ladder[at];
        HashSet<PostureSide> alone =
        [
            .. ladder.Take(at).SelectMany(sash => StudiedBy(sash, _ => true)),
            .. half == Half.Senior ? StudiedBy(present, study => study.Half == Half.Newer) : [],
        ];
        foreach (var of in alone.ToList())
        {
            AddNeeds(of, alone);
        }

        var held = alone.ToDictionary(of => of, _ => Stage.Alone);
        foreach (var of in StudiedBy(present, study => study.Half == Half.None || study.Half == half))
        {
            held.TryAdd(of, Stage.Shown);
        }

        return held;
    }

    private IEnumerable<PostureSide> StudiedBy(SashLevel sash, Func<Study, bool> which) =>
        sash.Asks.RunsOf(which, forms).SelectMany(run => run).SelectMany(sash.Asks.SidesOf);

    /// <summary>Whoever does a posture alone does what it needs.</summary>
    private void AddNeeds(PostureSide of, HashSet<PostureSide> held)
    {
        if (!postures.TryGetValue(of.PostureId, out var posture))
        {
            return;
        }

        foreach (var need in posture.NeedsIn(Mode.Standing, postures))
        {
            var needed = new PostureSide(need, postures[need].SideFor(of.Side));
            if (held.Add(needed))
            {
                AddNeeds(needed, held);
            }
        }
    }
}
