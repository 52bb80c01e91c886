namespace Zeitplan.Core.Forms;

/// <summary>What moving up to a form means for somebody who knows some material already (domain.md 4.1, "Moving
/// up").</summary>
/// <param name="NewPostures">A posture and side that is not known in any way.</param>
/// <param name="OtherSides">Known, but only on the other side.</param>
/// <param name="Variants">Built from a known posture, or done with a variant note: only the difference is new.</param>
/// <param name="NewLinks">Both postures are known, their join is not.</param>
/// <param name="Minutes">The learning load: minutes to introduce all of it.</param>
public sealed record FormComparison(
    IReadOnlyList<ComparedPosture> NewPostures,
    IReadOnlyList<ComparedPosture> OtherSides,
    IReadOnlyList<ComparedPosture> Variants,
    IReadOnlyList<ComparedLink> NewLinks,
    int Known,
    decimal Minutes
)
{
    /// <summary>What of a form is new to whoever knows these postures and joins.</summary>
    /// <param name="knownNotes">The variant notes under which a posture and side is known; a position with another note
    /// is a variant.</param>
    public static FormComparison Of(
        IReadOnlyList<Position> form,
        Knowledge known,
        IReadOnlyDictionary<Guid, Posture> postures,
        Mode mode,
        Teaching? teaching = null
    )
    {
        List<ComparedPosture> fresh = [],
            sides = [],
            variants = [];
        List<ComparedLink> links = [];
        HashSet<PostureSide> met = [.. known.Notes.Keys];
        HashSet<PostureSide> counted = [];
        var joins = known.Links.ToHashSet();
        var before = default(Position?);
        foreach (var position in form)
        {
            var posture = postures[position.PostureId];
            var here = new PostureSide(position.PostureId, position.Side);
            var effort = new Effort(
                (teaching ?? Teaching.Default).For(mode),
                (posture.CountsFor(mode) ?? posture.Counts).Count,
                posture.Difficulty,
                mode
            );
            var isNew = met.Add(here);
            if (isNew)
            {
                Add(position, posture, effort);
            }
            else if (
                known.Notes.TryGetValue(here, out var notes)
                && position.Note.Length > 0
                && !notes.Contains(position.Note)
                && counted.Add(here)
            )
            {
                variants.Add(
                    new(
                        position.Id,
                        posture.NameOn(position.Side),
                        [position.Note],
                        MinutesOf(effort with { Counts = 1 })
                    )
                );
            }

            if (before is not null && joins.Add((new(before.PostureId, before.Side), here)) && !isNew)
            {
                links.Add(
                    new(
                        position.Id,
                        postures[before.PostureId].NameOn(before.Side),
                        posture.NameOn(position.Side),
                        effort.LinkSeconds.Minutes
                    )
                );
            }

            before = position;
        }

        return new(
            fresh,
            sides,
            variants,
            links,
            known.Notes.Keys.Count(side =>
                form.Any(position => (position.PostureId, position.Side) == (side.PostureId, side.Side))
            ),
            fresh.Concat(sides).Concat(variants).Sum(item => item.Minutes) + links.Sum(link => link.Minutes)
        );

        void Add(Position position, Posture posture, Effort effort)
        {
            var name = posture.NameOn(position.Side);
            if (posture.Text.BuiltFrom is { } built && known.Notes.Keys.Any(side => side.PostureId == built.PostureId))
            {
                var own = posture.Text.Counts.Where(count => count.As == 0 || count.Cue.Length > 0).ToList();
                variants.Add(
                    new(
                        position.Id,
                        name,
                        [.. own.Select(count => posture.On(position.Side, count.Cue))],
                        MinutesOf(effort with { Counts = Math.Max(1, own.Count) })
                    )
                );
            }
            else if (known.Notes.Keys.Any(side => side.PostureId == position.PostureId))
            {
                sides.Add(new(position.Id, name, [], MinutesOf(effort)));
            }
            else
            {
                fresh.Add(new(position.Id, name, [], MinutesOf(effort)));
            }
        }
    }

    private static decimal MinutesOf(Effort effort) => effort.IntroduceSeconds.Minutes;
}

/// <summary>A posture of the form compared; <paramref name="Difference"/> is what is new about it when not all
/// is.</summary>
public sealed record ComparedPosture(Guid PositionId, string Name, IReadOnlyList<string> Difference, decimal Minutes);

/// <summary>A join of two known postures that is new.</summary>
public sealed record ComparedLink(Guid PositionId, string From, string To, decimal Minutes);

/// <summary>What is known: postures on a side, each with the variant notes it was met under, and the joins between
/// them.</summary>
public sealed record Knowledge(
    IReadOnlyDictionary<PostureSide, IReadOnlySet<string>> Notes,
    IReadOnlyCollection<(PostureSide From, PostureSide To)> Links
)
{
    /// <summary>All of a form.</summary>
    public static Knowledge OfForm(IReadOnlyList<Position> positions) =>
        OfSides([.. positions.Select(position => new PostureSide(position.PostureId, position.Side))], positions);

    /// <summary>Of a form's positions those on <paramref name="sides"/>; a join is known where both its ends
    /// are.</summary>
    public static Knowledge OfSides(IReadOnlyCollection<PostureSide> sides, IReadOnlyList<Position> positions)
    {
        var notes = sides
            .Distinct()
            .ToDictionary(
                side => side,
                side =>
                    (IReadOnlySet<string>)
                        positions
                            .Where(position => (position.PostureId, position.Side) == (side.PostureId, side.Side))
                            .Select(position => position.Note)
                            .ToHashSet()
            );
        var links = positions
            .Zip(
                positions.Skip(1),
                (from, to) => (new PostureSide(from.PostureId, from.Side), new PostureSide(to.PostureId, to.Side))
            )
            .Where(join => notes.ContainsKey(join.Item1) && notes.ContainsKey(join.Item2))
            .ToHashSet();
        return new(notes, links);
    }
}
