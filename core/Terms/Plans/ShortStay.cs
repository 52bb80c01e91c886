using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>Somebody who comes for a few lessons and wants to take something whole home (domain.md 4.3, "Short
/// stay").</summary>
/// <param name="Lessons">How many.</param>
/// <param name="Minutes">How long each is, warm-up and settling included.</param>
/// <param name="Known">What they can do already.</param>
/// <param name="KnownLinks">Ways from one posture to the next they have done.</param>
/// <param name="MostNew">New postures a lesson.</param>
public sealed record ShortStayQuestion(
    Form Form,
    IReadOnlyDictionary<Guid, PostureOutline> Postures,
    TeachingWay Way,
    IReadOnlySet<PostureSide> Known,
    IReadOnlySet<(PostureSide From, PostureSide To)> KnownLinks,
    int Lessons,
    int Minutes,
    int MostNew
)
{
    public const int MostLessons = 60;

    public IEnumerable<Problem> Check() =>
        [
            .. Lessons is < 1 or > MostLessons
                ? [new Problem("lessons", $"Between 1 and {MostLessons} lessons.")]
                : Array.Empty<Problem>(),
            .. Minutes is < 30 or > 300
                ? [new Problem("minutes", "A lesson lasts between 30 and 300 minutes.")]
                : Array.Empty<Problem>(),
            .. MostNew is < 1 or > CohortProblem.MostNew
                ? [new Problem("mostNew", $"Between 1 and {CohortProblem.MostNew} new postures a lesson.")]
                : Array.Empty<Problem>(),
        ];
}

/// <summary>One lesson of a short stay: what is reviewed, what is new, and a run-through at the end of what is known by
/// then.</summary>
/// <param name="Seconds">All of it with own practice after what is new; at most what the lesson can teach.</param>
public sealed record StayLesson(
    IReadOnlyList<TeachingUnit> Reviewed,
    IReadOnlyList<TeachingUnit> New,
    Seconds RunThroughSeconds,
    Seconds Seconds
);

/// <summary>A position that is not learned, and why.</summary>
public sealed record LeftOut(Position Position, string Name, string Because);

/// <summary>What a visitor learns.</summary>
/// <param name="Positions">In form order.</param>
/// <param name="IsWhole">The form as it is.</param>
/// <param name="IsSegment">One run of the form; otherwise a form derived from it.</param>
public sealed record ShortStayPlan(
    IReadOnlyList<Position> Positions,
    bool IsWhole,
    bool IsSegment,
    int Different,
    IReadOnlyList<StayLesson> Lessons,
    IReadOnlyList<LeftOut> LeftOut
);

/// <summary>
/// Finds the most a visitor can learn. Everything is reviewed once after the lesson that brought it, the last lesson
/// brings nothing new, and every lesson ends with what is known run through. Among what fits, the most different
/// postures win; then what begins where the form begins; then a run of it before one with positions left out; then the
/// longest.
/// </summary>
public static class ShortStay
{
    public static ShortStayPlan Of(ShortStayQuestion asked)
    {
        var all = asked
            .Form.Positions.Where(position => asked.Postures[position.PostureId].In(asked.Way.Mode) is not null)
            .ToList();
        List<IReadOnlyList<Position>> found =
        [
            [],
        ];
        var to = 0;
        for (var from = 0; from < all.Count; from++)
        {
            // The run that begins one later reaches at least as far.
            to = Math.Max(to, from);
            while (to < all.Count && Schedule(asked, all[from..(to + 1)]) is not null)
            {
                to++;
            }

            found.Add(all[from..to]);
            found.Add(Derived(asked, all, from, to));
        }

        var best = found
            .Where(positions => Schedule(asked, positions) is not null)
            .Select(positions =>
                (Positions: positions, Different: Different(positions), IsRun: IsRun(asked.Form, positions))
            )
            .MaxBy(segment =>
                (
                    segment.Different,
                    segment.Positions.Count > 0 && segment.Positions[0] == all[0],
                    segment.IsRun,
                    segment.Positions.Count
                )
            );
        var chosen = best.Positions.Select(position => position.Id).ToHashSet();
        return new(
            best.Positions,
            best.Positions.Count == asked.Form.Positions.Count,
            best.IsRun,
            best.Different,
            Schedule(asked, best.Positions)!,
            [
                .. asked
                    .Form.Positions.Where(position => !chosen.Contains(position.Id))
                    .Select(position => LeftOut(asked, position, best.Positions)),
            ]
        );
    }

    /// <summary>Goes on past the end of a run and takes along whatever still fits.</summary>
    private static List<Position> Derived(ShortStayQuestion asked, List<Position> all, int from, int to)
    {
        var kept = all[from..to];
        foreach (var position in all.Skip(to + 1))
        {
            kept.Add(position);
            if (Schedule(asked, kept) is null)
            {
                kept.RemoveAt(kept.Count - 1);
            }
        }

        return kept;
    }

    private static int Different(IReadOnlyList<Position> positions) =>
        positions.Select(position => new PostureSide(position.PostureId, position.Side)).Distinct().Count();

    private static bool IsRun(Form form, IReadOnlyList<Position> positions) =>
        positions.Count == 0 || form.IndexOf(positions[^1].Id) - form.IndexOf(positions[0].Id) + 1 == positions.Count;

    /// <returns>The positions lesson by lesson, or null when they do not fit.</returns>
    private static List<StayLesson>? Schedule(ShortStayQuestion asked, IReadOnlyList<Position> positions)
    {
        var units = SegmentMaterial
            .Of([new(positions)], asked.Postures, asked.Known, asked.Way, asked.KnownLinks)
            .Units;
        var known = positions
            .Where(position => asked.Known.Contains(new(position.PostureId, position.Side)))
            .Sum(position => asked.Postures[position.PostureId].In(asked.Way.Mode)!.Counts * Pace.Smooth);
        var (room, next) = (LessonSlot.Teachable(asked.Minutes), 0);
        List<StayLesson> lessons = [];
        List<TeachingUnit> before = [];
        for (var lesson = 0; lesson < asked.Lessons; lesson++)
        {
            // With a single lesson there is no later one to review in.
            var (isLast, fresh) = (lesson == asked.Lessons - 1 && asked.Lessons > 1, new List<TeachingUnit>());
            var reviewed = before;
            var spent = reviewed.Sum(unit => unit.ReviewSeconds);
            while (!isLast && next < units.Count && fresh.Count(unit => unit.Kind == UnitKind.Posture) < asked.MostNew)
            {
                var (unit, review) = (units[next], asked.Lessons == 1 ? units[next].ReviewSeconds : 0);
                var through = known + units.Take(next + 1).Sum(unit => unit.RunThroughSeconds);
                var takes = unit.IntroduceSeconds + review + CohortProblem.OwnPracticeAfterNewSeconds;
                if (
                    spent + takes + through > room
                    || (fresh.Count > 0 && unit is { Kind: UnitKind.Posture, Difficulty: >= 3 })
                )
                {
                    break;
                }

                spent += takes;
                fresh.Add(unit);
                next++;
            }

            var runThrough = known + units.Take(next).Sum(unit => unit.RunThroughSeconds);
            if (spent + runThrough > room)
            {
                return null;
            }

            lessons.Add(new(asked.Lessons == 1 ? fresh : reviewed, fresh, new(runThrough), new(spent + runThrough)));
            before = fresh;
        }

        return next == units.Count ? lessons : null;
    }

    private static LeftOut LeftOut(ShortStayQuestion asked, Position position, IReadOnlyList<Position> kept)
    {
        var posture = asked.Postures[position.PostureId];
        var at = asked.Form.IndexOf(position.Id);
        var because =
            posture.In(asked.Way.Mode) is null ? $"No {asked.Way.Mode.Name} version has been written."
            : kept.Count > 0 && at < asked.Form.IndexOf(kept[0].Id) ? "Comes before the part that is learned."
            : kept.Count > 0 && at > asked.Form.IndexOf(kept[^1].Id) ? "Comes after the part that is learned."
            : "Takes more than the lessons have left.";
        return new(position, posture.NameOn(position.Side), because);
    }
}
