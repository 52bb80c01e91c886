using System.Globalization;
using Zeitplan.Core.Forms;

namespace Zeitplan.Core.Terms;

/// <summary>A run of positions a cohort has been given.</summary>
public sealed record GivenRun(
    IReadOnlyList<Position> Positions,
    Purpose Purpose = Purpose.New,
    DateOnly? Target = null
);

/// <summary>How a cohort is taught.</summary>
/// <param name="Pace">Its own pace factor, learned from planned against actual minutes.</param>
/// <param name="BothSides">The school teaches every posture that has sides on both.</param>
/// <param name="Layers">The layers its level expects on a posture, as they are said; what a known posture is taken up
/// again for.</param>
public sealed record TeachingWay(
    Mode Mode,
    TeachingPattern Pattern,
    decimal Pace = 1m,
    bool BothSides = false,
    Func<Guid, string>? Layers = null
)
{
    public static TeachingWay Of(Mode mode) => new(mode, Teaching.Default.For(mode));

    /// <summary>What teaching a posture on a side takes; null where it has no version for the mode.</summary>
    public Effort? EffortOf(PostureOutline posture, Side side) =>
        posture.In(Mode) is { } version
            ? new(Pattern, version.Counts, posture.Difficulty, Mode, Pace, BothSides && side != Side.Symmetric)
            : null;

    /// <summary>One smooth repetition of these positions, without those that have no version for the mode.</summary>
    public Seconds OnceThrough(IEnumerable<Position> positions, IReadOnlyDictionary<Guid, PostureOutline> postures) =>
        new(
            positions.Sum(position =>
                position.Repeats * (postures[position.PostureId].In(Mode)?.Counts ?? 0) * Forms.Pace.Smooth
            )
        );
}

/// <summary>What a cohort has been given as the units it still has to be taught, in teaching order: a drill before the
/// posture that needs it, a posture before its link (domain.md 4.3).</summary>
public sealed record SegmentMaterial(IReadOnlyList<TeachingUnit> Units, IReadOnlyList<Unteachable> Left)
{
    /// <param name="runs">In the order in which they are taught; a link is learned within a run, not between
    /// two.</param>
    /// <param name="known">What most of the cohort held before this term.</param>
    /// <param name="knownLinks">Ways from one posture to another that it has done before.</param>
    public static SegmentMaterial Of(
        IReadOnlyList<GivenRun> runs,
        IReadOnlyDictionary<Guid, PostureOutline> postures,
        IReadOnlySet<PostureSide> known,
        TeachingWay way,
        IReadOnlySet<(PostureSide From, PostureSide To)>? knownLinks = null
    ) => new Collected(postures, known, knownLinks, way).Of(runs);

    private sealed class Collected(
        IReadOnlyDictionary<Guid, PostureOutline> postures,
        IReadOnlySet<PostureSide> known,
        IReadOnlySet<(PostureSide From, PostureSide To)>? knownLinks,
        TeachingWay way
    )
    {
        private readonly List<TeachingUnit> units = [];
        private readonly List<Unteachable> left = [];
        private readonly HashSet<PostureSide> met = [.. known];
        private readonly HashSet<(PostureSide From, PostureSide To)> links =
        [
            .. knownLinks ?? new HashSet<(PostureSide, PostureSide)>(),
        ];

        public SegmentMaterial Of(IReadOnlyList<GivenRun> runs)
        {
            foreach (var run in runs.Where(run => run.Purpose == Purpose.New))
            {
                AddNew(run);
            }

            var taken = new HashSet<PostureSide>(units.Where(unit => unit.CanBeShared).Select(unit => unit.Of));
            var refined = runs.Where(run => run.Purpose == Purpose.Refine)
                .SelectMany(run => run.Positions.Select(position => (Position: position, run.Target)))
                .Where(place => taken.Add(new(place.Position.PostureId, place.Position.Side)))
                .Select(place => Layer(place.Position, place.Target))
                .OfType<TeachingUnit>()
                .ToList();
            return new(Interleaved(units, refined), left);
        }

        private void AddNew(GivenRun run)
        {
            Position? before = null;
            foreach (var position in run.Positions)
            {
                var here = new PostureSide(position.PostureId, position.Side);
                if (postures[position.PostureId].In(way.Mode) is null)
                {
                    Leave(here);
                    continue;
                }

                var link =
                    before is not null && links.Add((new(before.PostureId, before.Side), here))
                        ? EffortOf(here).LinkSeconds
                        : 0;
                if (met.Add(here))
                {
                    AddNeeds(here, run.Target);
                    units.Add(Unit(here, link, run.Target));
                }
                else if (link > 0)
                {
                    units.Add(Link(new(before!.PostureId, before.Side), here, run.Target));
                }

                before = position;
            }
        }

        /// <summary>What a posture needs is taught before it, wherever it comes from; what cannot be taught in this
        /// mode is said.</summary>
        private void AddNeeds(PostureSide of, DateOnly? target)
        {
            foreach (
                var need in postures[of.PostureId]
                    .NeedsIn(way.Mode, postures)
                    .Where(need => !met.Any(posture => posture.PostureId == need))
            )
            {
                var outline = postures[need];
                var here = new PostureSide(need, outline.SideFor(of.Side));
                if (outline.In(way.Mode) is null)
                {
                    Leave(here);
                    continue;
                }

                met.Add(here);
                AddNeeds(here, target);
                units.Add(Unit(here, 0, target) with { NeededBy = postures[of.PostureId].NameOn(of.Side) });
            }
        }

        private void Leave(PostureSide of)
        {
            if (met.Add(of))
            {
                left.Add(
                    new(
                        of.PostureId,
                        of.Side,
                        postures[of.PostureId].NameOn(of.Side),
                        $"no {way.Mode.Name} version has been written"
                    )
                );
            }
        }

        private TeachingUnit Unit(PostureSide of, int link, DateOnly? target)
        {
            var (posture, effort) = (postures[of.PostureId], EffortOf(of));
            return new(
                of.PostureId,
                of.Side,
                posture.NameOn(of.Side),
                posture.Difficulty,
                effort.Counts,
                new(effort.IntroduceSeconds + link),
                effort.ReviewSeconds,
                effort.RunThroughSeconds,
                effort.Explain() + Linked(new(link))
            )
            {
                Kind = posture.IsDrill ? UnitKind.Drill : UnitKind.Posture,
                Target = target,
            };
        }

        private TeachingUnit Link(PostureSide from, PostureSide to, DateOnly? target)
        {
            var (posture, effort) = (postures[to.PostureId], EffortOf(to));
            var minutes = effort.LinkSeconds.Minutes;
            return new(
                to.PostureId,
                to.Side,
                new UnitKey(UnitKind.Link, to.PostureId, to.Side, from.PostureId, from.Side).NameWith(of =>
                    postures[of.PostureId].NameOn(of.Side)
                ),
                posture.Difficulty,
                Effort.CountsOfALink,
                effort.LinkSeconds,
                new((effort.LinkSeconds + 1) / 2),
                new(0),
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{minutes:0.0} min: the last count of one and the first of the next, by the whole pattern"
                )
            )
            {
                Kind = UnitKind.Link,
                From = from,
                Target = target,
            };
        }

        /// <summary>A known posture taken up again costs half its pattern; null where it cannot be done in this
        /// mode.</summary>
        private TeachingUnit? Layer(Position position, DateOnly? target)
        {
            var (of, posture) = (new PostureSide(position.PostureId, position.Side), postures[position.PostureId]);
            if (posture.In(way.Mode) is null)
            {
                Leave(of);
                return null;
            }

            var effort = EffortOf(of);
            var layers = way.Layers?.Invoke(of.PostureId) ?? "";
            return new(
                of.PostureId,
                of.Side,
                posture.NameOn(of.Side),
                posture.Difficulty,
                effort.Counts,
                effort.ReviewSeconds,
                effort.ReviewSeconds,
                effort.RunThroughSeconds,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{effort.ReviewSeconds.Minutes:0.0} min: half the pattern{(layers.Length > 0 ? $", for {layers}" : "")}"
                )
            )
            {
                Kind = UnitKind.Layer,
                Target = target,
            };
        }

        private Effort EffortOf(PostureSide of) => way.EffortOf(postures[of.PostureId], of.Side)!;
    }

    /// <summary>What is refined may come in any order, so it is spread evenly between what is new.</summary>
    private static List<TeachingUnit> Interleaved(List<TeachingUnit> fresh, List<TeachingUnit> refined)
    {
        List<TeachingUnit> all = [];
        var taken = 0;
        foreach (var (at, unit) in fresh.Index())
        {
            all.Add(unit);
            for (; taken < refined.Count * (at + 1) / fresh.Count; taken++)
            {
                all.Add(refined[taken]);
            }
        }

        return [.. all, .. refined.Skip(taken)];
    }

    private static string Linked(Seconds link) =>
        link == default ? "" : string.Create(CultureInfo.InvariantCulture, $"; its link {link.Minutes:0.0}");
}
