using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.Lessons.Zones;
using Zeitplan.Core.People;
using Zeitplan.Server.Forms;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

namespace Zeitplan.Server.Lessons;

/// <summary>Who works where in the hall, stretch by stretch of a lesson as it is arranged.</summary>
internal static class FloorEndpoint
{
    /// <summary>Somebody who stays where they stand.</summary>
    private static readonly IReadOnlyList<FloorPart> OnTheSpot =
    [
        new("", new(-FloorNeed.ArmReach, -FloorNeed.ArmReach, FloorNeed.ArmReach, FloorNeed.ArmReach)),
    ];

    public sealed record Response(
        string Hall,
        double Width,
        double Depth,
        double Rail,
        Wall RailWall,
        bool Mirror,
        IReadOnlyList<Supported> Supported,
        IReadOnlyList<Stretch> Stretches
    );

    /// <summary>How many of a cohort that stands need a chair or the rail.</summary>
    public sealed record Supported(Guid CohortId, int Sitting, int Holding)
    {
        /// <summary>Of those who are there; whoever is not known by name is as the cohort is.</summary>
        public static Supported Of(CohortHere cohort, Mode mode, IReadOnlyList<TakesPart> there)
        {
            var unknown = Math.Max(0, cohort.People - there.Count);
            int Count(params Support[] which) =>
                there.Count(one => which.Contains(one.Mode.Support)) + (which.Contains(mode.Support) ? unknown : 0);
            return new(cohort.Id, Count(Support.Seat), Count(Support.Hold, Support.Touch));
        }
    }

    /// <param name="Holds">Everybody has their place.</param>
    public sealed record Stretch(
        int Start,
        int End,
        IReadOnlyList<Zone> Zones,
        IReadOnlyList<Guid> Moved,
        IReadOnlyList<string> Says,
        bool Holds
    );

    public static void Map(ByRank api) =>
        api.Group("/classes/{classId:guid}/lessons/{date}")
            .Each(lessons => lessons.OpensFirst())
            .Anyone.MapGet("/floor", Read)
            .TakesATurn()
            .WithName("floor");

    private static async Task<Results<Ok<Response>, ProblemHttpResult>> Read(
        [AsParameters] AskedLesson asked,
        Arrangements arrangements,
        CancellationToken cancel
    )
    {
        var plan = await asked.PlanAsync(cancel);
        if (
            await ArrangedLesson.OpenAsync(asked.Db, asked.Lesson, plan, asked.Today, arrangements, cancel)
            is not { ToArrange: var toArrange, Now: var now, Arrangement: var arrangement }
        )
        {
            return Refusals.NotFound("A plan of this lesson");
        }

        var hall = await asked.Db.Halls.AsNoTracking().SingleAsync(its => its.Id == asked.Lesson.Day.HallId, cancel);
        var modes = await asked
            .Db.Cohorts.AsNoTracking()
            .Where(cohort => cohort.ClassId == asked.ClassId)
            .ToDictionaryAsync(cohort => cohort.Id, cohort => cohort.Mode, cancel);
        var walks = await WalksAsync(asked, cancel);
        var travel = now.Cohorts.ToDictionary(cohort => cohort.Id, cohort => walks.Of([.. plan.Touches(cohort.Id)]));
        var floor = new HallFloor(
            (double)hall.Width,
            (double)hall.Depth,
            (double)hall.Rail,
            hall.RailWall,
            hall.Chairs
        );
        var absent = PeopleThere.Absent(asked, toArrange);
        var there = toArrange
            .Known.TakingPart(toArrange.Cohorts)
            .Where(one => !absent.Contains(one.Student.Id))
            .ToLookup(one => one.CohortId);
        var supported = now.Cohorts.ToDictionary(
            cohort => cohort.Id,
            cohort => Supported.Of(cohort, modes[cohort.Id], [.. there[cohort.Id]])
        );
        var stretches = ZonePlanner.Of(floor, [.. Times(now, arrangement, modes, supported, travel, walks)]);
        return TypedResults.Ok(
            new Response(
                hall.Name,
                floor.Width,
                floor.Depth,
                floor.Rail,
                floor.RailWall,
                hall.Mirror,
                [
                    .. supported.Values.Where(its =>
                        modes[its.CohortId].Support == Support.None && its.Sitting + its.Holding > 0
                    ),
                ],
                [
                    .. stretches.Select(stretch => new Stretch(
                        stretch.Start,
                        stretch.End,
                        stretch.Zones,
                        stretch.Moved,
                        stretch.Says,
                        stretch.Says.Count == 0
                    )),
                ]
            )
        );
    }

    /// <summary>Every time somebody begins something else.</summary>
    private static IEnumerable<FloorTime> Times(
        LessonProblem lesson,
        Arrangement arrangement,
        Dictionary<Guid, Mode> modes,
        Dictionary<Guid, Supported> supported,
        Dictionary<Guid, IReadOnlyList<FloorPart>> travel,
        Walks walks
    )
    {
        var blocks = arrangement.Blocks.Where(block => block.Kind != BlockKind.Visit).ToList();
        // What is practised after it was new is what was new.
        var known = blocks
            .Where(block => block.Material.Count > 0)
            .DistinctBy(block => block.What)
            .ToDictionary(block => block.What);
        IReadOnlyList<PostureSide> Practised(ArrangedBlock block) =>
            block.Material.Count > 0 ? block.Material : known.GetValueOrDefault(block.What)?.Material ?? [];
        var begins = blocks.Select(block => block.Start).Append(lesson.Minutes).Distinct().Order().ToList();
        IReadOnlyList<FloorPart> Parts(Guid cohort, int minute) =>
            blocks.FirstOrDefault(block => block.CohortId == cohort && block.Start <= minute && block.End > minute)
                is not { } block
                ? OnTheSpot
            : Practised(block) is { Count: > 0 } material
                ?
                [
                    .. walks
                        .Of(material)
                        .Take(
                            block.Kind is BlockKind.Watch or BlockKind.RunThrough or BlockKind.OwnPractice
                                ? int.MaxValue
                                : 1
                        ),
                ]
            : travel[cohort];
        static double Size(FloorPart part) => part.Reach.Width * part.Reach.Depth;
        // Two who face each other move as one.
        bool InPairs(Guid cohort, int minute) =>
            blocks.Any(block =>
                block.Kind == BlockKind.Partner
                && block.CohortId == cohort
                && block.Start <= minute
                && block.End > minute
            );
        foreach (var (start, end) in begins.Zip(begins.Skip(1)))
        {
            var together = blocks.FirstOrDefault(block =>
                block.CohortId is null && block.Start <= start && block.End > start
            );
            var standing = lesson.Cohorts.Where(cohort => modes[cohort.Id].Support == Support.None).ToList();
            yield return new(
                start,
                end,
                [
                    .. lesson
                        .Cohorts.Where(cohort => together is null || modes[cohort.Id].Support != Support.None)
                        .Select(cohort => new FloorAsk(
                            cohort.Id,
                            cohort.Name,
                            InPairs(cohort.Id, start) ? (cohort.People + 1) / 2 : cohort.People,
                            modes[cohort.Id].Support,
                            InPairs(cohort.Id, start) ? [new("", PartnerWork.Reach)] : Parts(cohort.Id, start)
                        )
                        {
                            Sitting = supported[cohort.Id].Sitting,
                            Holding = supported[cohort.Id].Holding,
                        }),
                    .. together is not null && standing.Count > 0
                        ?
                        [
                            new FloorAsk(
                                Guid.Empty,
                                "Everybody",
                                standing.Sum(cohort => cohort.People),
                                Support.None,
                                together.Kind is BlockKind.Together or BlockKind.RunThrough or BlockKind.Test
                                    ? standing.Select(cohort => travel[cohort.Id]).MaxBy(parts => Size(parts[0]))!
                                    : OnTheSpot
                            )
                            {
                                Sitting = standing.Sum(cohort => supported[cohort.Id].Sitting),
                                Holding = standing.Sum(cohort => supported[cohort.Id].Holding),
                            },
                        ]
                        : Array.Empty<FloorAsk>(),
                ]
            );
        }
    }

    private static async Task<Walks> WalksAsync(AskedLesson asked, CancellationToken cancel)
    {
        var material = await Material.LoadAsync(asked.Db, cancel);
        var forms = await asked.Db.Forms.AsNoTracking().ToListAsync(cancel);
        return new(
            [.. forms.Select(form => (form.Positions, FloorWalk.Of(form.Positions, material.Postures, material.Ways)))],
            material.Postures,
            (double)material.Ways.FootMetres
        );
    }

    /// <summary>The school's forms on the floor.</summary>
    private sealed class Walks(
        List<(IReadOnlyList<Position> Positions, FloorWalk Walk)> forms,
        IReadOnlyDictionary<Guid, Posture> postures,
        double foot
    )
    {
        private readonly Dictionary<(int Form, int From, int To), FloorPart> known = [];

        /// <summary>What somebody needs who goes from the first to the last of these, in the form that has most of them; then
        /// the second half of that, and so on to its last.</summary>
        public IReadOnlyList<FloorPart> Of(IReadOnlyList<PostureSide> material)
        {
            var (form, places) = forms
                .Index()
                .Select(form => (form.Index, Places: Places(form.Item.Positions, material)))
                .OrderByDescending(form => form.Places.Count)
                .FirstOrDefault((0, []));
            if (places.Count == 0)
            {
                return [OnTheSpot[0] with { Reach = OnTheSpot[0].Reach.Grow(0.25) }];
            }

            List<FloorPart> parts = [];
            var (from, to) = (places.Min(), places.Max());
            for (; from <= to; from += Math.Max(1, (to - from + 1) / 2))
            {
                parts.Add(Part(form, from, to));
            }

            return parts;
        }

        private FloorPart Part(int form, int from, int to)
        {
            if (!known.TryGetValue((form, from, to), out var part))
            {
                var (positions, whole) = forms[form];
                var walk = whole.Part(from, to);
                string Name(int at) => postures[positions[at].PostureId].NameOn(positions[at].Side);
                known[(form, from, to)] = part = new(
                    PlannedLesson.Range(from == to ? [Name(to)] : [Name(from), "", Name(to)]),
                    FromItsStart(walk, FloorNeed.Of(walk, foot).Reach)
                );
            }

            return part;
        }

        private Area FromItsStart(FloorWalk walk, Area reach)
        {
            var (right, ahead) = (walk.Start.Middle.Right * foot, walk.Start.Middle.Ahead * foot);
            return new(reach.Left - right, reach.Back - ahead, reach.Right - right, reach.Front - ahead);
        }

        /// <summary>The first place of each in a form.</summary>
        private static List<int> Places(IReadOnlyList<Position> positions, IReadOnlyList<PostureSide> material) =>
            [
                .. material
                    .Select(of =>
                        positions
                            .Index()
                            .Where(position => position.Item.PostureId == of.PostureId && position.Item.Side == of.Side)
                            .Select(position => position.Index)
                            .FirstOrDefault(-1)
                    )
                    .Where(place => place >= 0),
            ];
    }
}
