using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Checks;
using Zeitplan.Core.Forms.Floor;
using Zeitplan.Core.Forms.Notation;

namespace Zeitplan.Core.Forms;

public enum PostureKind
{
    Posture,
    Drill,
}

/// <summary>Everything a head writes about a posture or a drill, before it has been checked.</summary>
public sealed record PostureText
{
    public string Name { get; init; } = "";
    public IReadOnlyList<string> OtherNames { get; init; } = [];
    public PostureKind Kind { get; init; }
    public string Family { get; init; } = "";
    public Side WrittenSide { get; init; }
    public SideNamedBy NamedBy { get; init; }

    /// <summary>1 (easy) to 3 (hard); see <see cref="Terms.Effort"/>.</summary>
    public int Difficulty { get; init; } = 1;

    /// <summary>The one requirement that is kept when everything else gives way.</summary>
    public string KeyPoint { get; init; } = "";

    /// <summary>The parts of a compound posture in their order; it has no counts of its own then.</summary>
    public IReadOnlyList<Part> Parts { get; init; } = [];
    public BuiltFrom? BuiltFrom { get; init; }

    /// <summary>Postures and drills somebody should hold before this one is taught.</summary>
    public IReadOnlyList<Guid> Needs { get; init; } = [];

    /// <summary>Step notation that leads from feet together, facing the hips' zero, into the stand from which the first
    /// count starts.</summary>
    public string Entry { get; init; } = "";

    /// <summary>Body notation of how hands, trunk and gaze are before the first count.</summary>
    public string Start { get; init; } = "";
    public IReadOnlyList<Count> Counts { get; init; } = [];

    /// <summary>A coarser calling: each cue is called once for so many counts. Empty when there is none.</summary>
    public IReadOnlyList<MergedCall> Merged { get; init; } = [];

    /// <summary>How it ends, as its steps must bear out.</summary>
    public Footing? End { get; init; }
    public Loop? Loop { get; init; }
    public IReadOnlyList<Checkpoint> Checkpoints { get; init; } = [];
    public IReadOnlyList<Fault> Faults { get; init; } = [];
    public IReadOnlyList<string> Images { get; init; } = [];
    public string Application { get; init; } = "";

    /// <summary>Where the school's own recording of it is, in the school's words; empty where there is none.</summary>
    public string Recording { get; init; } = "";
    public IReadOnlyList<Simplification> Simplifications { get; init; } = [];

    /// <summary>What it asks of a body beyond what follows from its notation (<see cref="DerivedDemands"/>).</summary>
    public IReadOnlyList<Demand> Demands { get; init; } = [];

    /// <summary>What follows from its notation and is not asked for all the same.</summary>
    public IReadOnlyList<NotAsked> NotAsked { get; init; } = [];

    /// <summary>What to mind so that nobody is hurt (domain.md 6).</summary>
    public IReadOnlyList<string> Cautions { get; init; } = [];
    public IReadOnlyList<AdaptedVersion> Versions { get; init; } = [];

    /// <summary>What the checks find and the school keeps, each with its reason.</summary>
    public IReadOnlyList<OurWay> OurWays { get; init; } = [];

    /// <summary>Dated changes of how the school does it, the latest last.</summary>
    public IReadOnlyList<StandardChange> Changes { get; init; } = [];

    /// <summary>Everything on the other side. What is written without left and right reads the same.</summary>
    public PostureText Mirror() =>
        this with
        {
            WrittenSide = Forms.Mirror.Of(WrittenSide),
            KeyPoint = Forms.Mirror.Of(KeyPoint),
            BuiltFrom = BuiltFrom is { } built ? built with { Mirrored = !built.Mirrored } : null,
            Parts = [.. Parts.Select(part => part with { Side = Forms.Mirror.Of(part.Side) })],
            Entry = StepNotation.Mirror(Entry),
            Start = BodyNotation.Mirror(Start),
            Counts = [.. Counts.Select(count => count.Mirror())],
            Merged = [.. Merged.Select(call => call with { Cue = Forms.Mirror.Of(call.Cue) })],
            End = End?.Mirror(),
            Loop = Loop?.Mirror(),
            Checkpoints =
            [
                .. Checkpoints.Select(point => new Checkpoint(
                    Forms.Mirror.Of(point.Here),
                    Forms.Mirror.Of(point.Against),
                    Forms.Mirror.Of(point.Tolerance),
                    Forms.Mirror.Of(point.SeenFrom),
                    MeasureNotation.Mirror(point.Measure)
                )),
            ],
            Faults = [.. Faults.Select(fault => fault.Mirror())],
            Images = [.. Images.Select(Forms.Mirror.Of)],
            Application = Forms.Mirror.Of(Application),
            Simplifications =
            [
                .. Simplifications.Select(aid => new Simplification(
                    Forms.Mirror.Of(aid.Says),
                    Forms.Mirror.Of(aid.GetsWrong),
                    Forms.Mirror.Of(aid.ReplaceWhen)
                )),
            ],
            Cautions = [.. Cautions.Select(Forms.Mirror.Of)],
            Versions = [.. Versions.Select(version => version.Mirror())],
            Changes = [.. Changes.Select(change => change with { Difference = Forms.Mirror.Of(change.Difference) })],
        };

    public IEnumerable<Problem> Check()
    {
        IEnumerable<Problem> problems =
        [
            .. Problem.WithName(Name, "name"),
            .. Problem.WithText(KeyPoint, "keyPoint", Problem.LongestText, "key point"),
            .. CheckSteps(Entry, "entry"),
            .. CheckBody(Start, "start"),
            .. Counts.SelectMany(
                (count, at) => CheckCount(count, $"counts[{at}]", BuiltFrom is not null && count.As > 0)
            ),
            .. CheckPictured(Counts, "counts"),
            .. Versions.SelectMany((version, at) => CheckPictured(version.Counts, $"versions[{at}].counts")),
            .. Fault.Check(Faults, "faults"),
            .. Checkpoints.SelectMany(
                (point, at) => Check(MeasureNotation.Parse(point.Measure).Problems, $"checkpoints[{at}].measure")
            ),
            .. CheckNotAsked(NotAsked, "notAsked"),
            .. Versions.SelectMany((version, at) => CheckNotAsked(version.NotAsked, $"versions[{at}].notAsked")),
            .. Versions.SelectMany(
                (version, at) =>
                    version
                        .Counts.SelectMany((count, of) => CheckCount(count, $"versions[{at}].counts[{of}]", false))
                        .Concat(CheckSteps(version.Entry, $"versions[{at}].entry"))
                        .Concat(CheckBody(version.Start, $"versions[{at}].start"))
            ),
            .. Loop is null ? [] : CheckSteps(Loop.Return, "loop.return").Concat(CheckBody(Loop.Body, "loop.body")),
        ];
        return problems
            .Concat(Difficulty is < 1 or > 3 ? [new("difficulty", "Difficulty is 1, 2 or 3.")] : [])
            .Concat(Counts.Count == 0 && Parts.Count == 0 ? [new("counts", "Write at least one count.")] : [])
            .Concat(
                Counts.Count > 0 && Parts.Count > 0
                    ? [new("parts", "A compound posture is its parts; it has no counts of its own.")]
                    : []
            )
            .Concat(
                Merged.Count > 0 && Merged.Sum(call => call.Counts) != Counts.Count
                    ?
                    [
                        new(
                            "merged",
                            $"The merged calling covers {Merged.Sum(call => call.Counts)} counts; there are {Counts.Count}."
                        ),
                    ]
                    : []
            )
            .Concat(
                (WrittenSide == Side.Symmetric) != (NamedBy == SideNamedBy.Nothing)
                    ?
                    [
                        new(
                            "namedBy",
                            WrittenSide == Side.Symmetric
                                ? "A symmetric posture has nothing that names its side."
                                : "Say what names the side."
                        ),
                    ]
                    : []
            )
            .Concat(
                Versions.GroupBy(version => version.Mode).Any(same => same.Count() > 1)
                    ? [new("versions", "Each mode has one version.")]
                    : []
            )
            .Concat(
                Versions.Any(version => !version.Mode.IsAdapted)
                    ? [new("versions", "The standing version is the posture itself.")]
                    : []
            );
    }

    private static IEnumerable<Problem> CheckNotAsked(IReadOnlyList<NotAsked> demands, string path) =>
        demands.SelectMany(
            (not, at) => Problem.WithText(not.Reason, $"{path}[{at}].reason", Problem.LongestText, "reason")
        );

    private static IEnumerable<Problem> CheckPictured(IReadOnlyList<Count> counts, string path) =>
        counts
            .Index()
            .Where(count => count.Item.Pictured)
            .Skip(1)
            .Select(count => new Problem($"{path}[{count.Index}].pictured", "Small pictures show one count."));

    private static IEnumerable<Problem> CheckCount(Count count, string path, bool lent) =>
        [
            .. lent && count.Cue.Length == 0 ? [] : Problem.WithName(count.Cue, $"{path}.cue"),
            .. CheckSteps(count.Feet, $"{path}.feet"),
            .. CheckBody(count.Body, $"{path}.body"),
        ];

    internal static IEnumerable<Problem> CheckSteps(string steps, string path) =>
        Check(StepNotation.Parse(steps).Problems, path);

    internal static IEnumerable<Problem> CheckBody(string body, string path) =>
        Check(BodyNotation.Parse(body).Problems, path);

    private static IEnumerable<Problem> Check(IReadOnlyList<NotationProblem> problems, string path) =>
        problems.Select(problem => new Problem(
            path,
            $"Line {problem.Line}, column {problem.Column}: {problem.Message}"
        ));
}

/// <summary>One part of a compound posture.</summary>
public sealed record Part(Guid PostureId, Side Side);

/// <summary>One cue called for several counts.</summary>
public sealed record MergedCall(string Cue, int Counts);

/// <summary>A comparison to make on the end shape: this landmark against that one, how far it may be off, and from
/// where it is best seen.</summary>
/// <param name="Measure">The same as a measure (<see cref="MeasureNotation"/>), which the end shape has to fulfil; empty where
/// only an eye can judge it.</param>
public sealed record Checkpoint(string Here, string Against, string Tolerance, string SeenFrom, string Measure = "");

/// <summary>A teaching aid that is not quite true: what it says, what that gets wrong, and when to replace
/// it.</summary>
public sealed record Simplification(string Says, string GetsWrong, string ReplaceWhen);

/// <summary>The school does a posture differently from a date on: only the difference (domain.md 4.1).</summary>
public sealed record StandardChange(Guid Id, DateOnly From, string Difference);

/// <summary>The posture this one is built from, perhaps on its other side. Counts say which of its counts lend them
/// what they leave empty.</summary>
public sealed record BuiltFrom(Guid PostureId, bool Mirrored = false)
{
    /// <summary>The counts with what <paramref name="basis"/> lends them.</summary>
    public static IReadOnlyList<Count> Resolve(PostureText text, Posture? basis) =>
        basis is null || text.BuiltFrom is not { } built
            ? text.Counts
            :
            [
                .. text.Counts.Select(count =>
                    count.As is > 0 and var number && number <= basis.Counts.Count
                        ? Lend(count, built.Mirrored ? basis.Counts[number - 1].Mirror() : basis.Counts[number - 1])
                        : count
                ),
            ];

    private static Count Lend(Count count, Count from) =>
        count with
        {
            Cue = Or(count.Cue, from.Cue),
            Feet = Or(count.Feet, from.Feet),
            Body = Or(count.Body, from.Body),
            Waist = Or(count.Waist, from.Waist),
            Hands = Or(count.Hands, from.Hands),
            Gaze = Or(count.Gaze, from.Gaze),
            Breath = Or(count.Breath, from.Breath),
            Shape = Or(count.Shape, from.Shape),
        };

    private static string Or(string own, string lent) => own.Length > 0 ? own : lent;
}
