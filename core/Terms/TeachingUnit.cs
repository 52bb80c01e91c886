using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Terms;

/// <summary>
/// What is introduced in one go: a posture on a side that the cohort has not met, with the links into it and into the known positions that follow it.
/// </summary>
/// <param name="Counts">Counts of the posture in the cohort's mode.</param>
/// <param name="IntroduceSeconds">Posture and links.</param>
public sealed record TeachingUnit(Guid PostureId, Side Side, string Name, int Difficulty, int Counts, int IntroduceSeconds, int ReviewSeconds, int RunThroughSeconds, string Effort);

/// <summary>A posture of an assigned segment that cannot be planned, and why.</summary>
public sealed record Unteachable(Guid PostureId, Side Side, string Name, string Because);

/// <summary>A posture on one side: what a student knows or does not.</summary>
public readonly record struct PostureSide(Guid PostureId, Side Side);

/// <summary>A segment as the units a cohort still has to be taught, in teaching order.</summary>
public sealed record SegmentMaterial(IReadOnlyList<TeachingUnit> Units, IReadOnlyList<Unteachable> Left)
{
    /// <summary>A pattern for a cohort: seated and supported groups begin with the weight (domain.md 4.2).</summary>
    public static TeachingPattern PatternFor(Mode mode) =>
        mode.Support == Support.None ? TeachingPattern.ShowTogetherWatch : TeachingPattern.WeightFirst;

    /// <param name="segments">Runs of positions in the order in which they are taught; a link is learned within a run, not between two.</param>
    /// <param name="known">What most of the cohort held before this assignment.</param>
    /// <param name="bothSides">The school teaches every posture that has sides on both.</param>
    public static SegmentMaterial Of(IReadOnlyList<IReadOnlyList<Position>> segments, IReadOnlyDictionary<Guid, PostureOutline> postures, IReadOnlySet<PostureSide> known, Mode mode, bool bothSides = false)
    {
        List<TeachingUnit> units = [];
        List<Unteachable> left = [];
        HashSet<PostureSide> met = [.. known];
        HashSet<(PostureSide From, PostureSide To)> links = [];
        foreach (var segment in segments)
        {
            Position? before = null;
            foreach (var position in segment)
            {
                var posture = postures[position.PostureId];
                var here = new PostureSide(position.PostureId, position.Side);
                if (posture.In(mode) is not { } version)
                {
                    if (met.Add(here))
                    {
                        left.Add(new(here.PostureId, here.Side, posture.NameOn(here.Side), $"no {mode.Name} version has been written"));
                    }

                    continue;
                }

                var effort = new Effort(PatternFor(mode), version.Counts, posture.Difficulty, mode, BothSides: bothSides && position.Side != Side.Symmetric);
                var link = before is not null && links.Add((new(before.PostureId, before.Side), here)) ? effort.LinkSeconds : 0;
                if (met.Add(here))
                {
                    units.Add(new(here.PostureId, here.Side, posture.NameOn(here.Side), posture.Difficulty, version.Counts, effort.IntroduceSeconds + link, effort.ReviewSeconds, effort.RunThroughSeconds, effort.Explain() + Linked(link)));
                }
                else if (link > 0 && units.Count > 0)
                {
                    units[^1] = units[^1] with { IntroduceSeconds = units[^1].IntroduceSeconds + link, Effort = units[^1].Effort + Linked(link) };
                }

                before = position;
            }
        }

        return new(units, left);
    }

    private static string Linked(int seconds) => seconds == 0 ? "" : string.Create(System.Globalization.CultureInfo.InvariantCulture, $"; its link {seconds / 60m:0.0}");
}
