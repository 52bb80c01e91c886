using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Server.Demo;

/// <summary>A posture or a drill on a side, or the link into it.</summary>
/// <param name="From">Of a link, the posture it leads on from.</param>
internal sealed record Spot(string Posture, Side Side, string? From = null, Side FromSide = Side.Symmetric);

/// <summary>Something that was seen of somebody in a lesson, or done about it.</summary>
/// <param name="Who">By given name.</param>
/// <param name="At">For what is against a principle, where it was seen.</param>
internal sealed record Told(DateOnly On, string Who, Spot At)
{
    public Sign Sign { get; init; } = Sign.Fault;

    /// <summary>Which of the faults it is known for, from 0; null with own words or a principle.</summary>
    public int? Fault { get; init; }
    public string? Words { get; init; }
    public string? Principle { get; init; }
    public Stage? Stage { get; init; }

    /// <summary>In which mode, where that was not their usual one.</summary>
    public Mode? Mode { get; init; }
    public bool InRunThrough { get; init; }

    /// <summary>Not seen, but done about it.</summary>
    public Way? Way { get; init; }

    /// <summary>It was somebody else.</summary>
    public bool TakenBack { get; init; }
}

/// <summary>What happened to whom over two terms and a half: the stories every head knows.</summary>
/// <param name="start">Of the present term.</param>
internal sealed class DemoStories(DateOnly start)
{
    private static readonly Spot Whip = new("Single Whip", Side.Left);
    private static readonly Spot Knee = new("Brush Knee", Side.Left);
    private static readonly Spot Tiger = new("Embrace Tiger", Side.Right);
    private static readonly Spot Roll = new("Roll Back", Side.Right);
    private static readonly Spot Opening = new("Opening", Side.Symmetric);
    private static readonly Spot IntoKnee = new("Brush Knee", Side.Left, "Crane Cools Wings", Side.Left);
    private static readonly Spot IntoStroke = new("Shoulder Stroke", Side.Right, "Raise Hands", Side.Right);

    /// <summary>What the newer half of Fern studies, with the links it is known for.</summary>
    private static readonly Spot[] NewerFern =
    [
        new("Crane Cools Wings", Side.Left),
        IntoKnee,
        Knee,
        new("Play the Pipa", Side.Left, "Brush Knee", Side.Left),
        new("Play the Pipa", Side.Left),
        new("Brush Knee", Side.Left, "Play the Pipa", Side.Left),
        new("Brush Knee", Side.Right, "Brush Knee", Side.Left),
        new("Brush Knee", Side.Right),
        new("Brush Knee", Side.Left, "Brush Knee", Side.Right),
        new("Parry and Punch", Side.Left, "Brush Knee", Side.Left),
        new("Parry and Punch", Side.Left),
        new("Apparent Close", Side.Left, "Parry and Punch", Side.Left),
        new("Apparent Close", Side.Left),
        new("Cross Hands", Side.Right, "Apparent Close", Side.Left),
        new("Cross Hands", Side.Right),
    ];

    /// <summary>Who let the knee drift in Single Whip last spring, and what was done about it: the wall nearly always
    /// helped.</summary>
    private static readonly (string Name, Way Way, bool Helped)[] LastSpring =
    [
        ("Jorun", Way.AtTheWall, true),
        ("Kofi", Way.AtTheWall, true),
        ("Per", Way.AtTheWall, true),
        ("Anselm", Way.AtTheWall, true),
        ("Quentin", Way.AtTheWall, true),
        ("Lucia", Way.AtTheWall, false),
        ("Ines", Way.Image, false),
        ("Solveig", Way.Image, false),
    ];

    private static readonly string[] AwayFromTheTest = ["Matteo", "Yusuf"];

    private List<Told>? all;

    /// <summary>In the order of their days.</summary>
    public IReadOnlyList<Told> All => all ??= [.. Tell().OrderBy(told => told.On)];

    /// <summary>The day from which Roll Back is done otherwise.</summary>
    public DateOnly Changed => Before(6);

    /// <summary>The lesson in which Embrace Tiger is taught again.</summary>
    public DateOnly TaughtAgain => Lesson(3);

    /// <summary>The lesson that ran out of time.</summary>
    public DateOnly CutShort => Lesson(4);

    /// <summary>Who is away on a day, whatever the others do.</summary>
    public bool IsAway(string name, DateOnly day) =>
        name switch
        {
            "Vera" => day == Lesson(2),
            "Imke" or "Jorun" or "Bernd" => day == Lesson(4),
            // Away for weeks, and not overlooked.
            "Nils" => day >= Lesson(2),
            _ => day == Before(3) && AwayFromTheTest.Contains(name),
        };

    /// <summary>Who is there for certain: whoever something happens to, and who is there and overlooked.</summary>
    public bool IsThere(string name, DateOnly day) =>
        All.Any(told => told.Who == name && told.On == day)
        || (name is "Dai" or "Filippa" && (day == Lesson(3) || day == Lesson(4)));

    private DateOnly Lesson(int number) => start.AddDays((7 * number) - 1);

    private DateOnly Before(int weeks) => start.AddDays((-7 * weeks) - 1);

    private IEnumerable<Told> Tell() =>
        [
            .. TheKneeInSingleWhip(),
            .. WhatManyShared(),
            .. InEveryPosture(),
            .. OnTheWayToTheNextSash(),
            .. Links(),
            .. InAnotherMode(),
            .. NotCalled(),
            .. Ordinary(),
        ];

    /// <summary>It comes back each term: most were rid of it in spring, in one it came back for a while and in another for
    /// good, and one has never been.</summary>
    private IEnumerable<Told> TheKneeInSingleWhip()
    {
        foreach (var (name, way, helped) in LastSpring)
        {
            yield return Fault(Before(30), name, Whip, 0);
            yield return Tried(Before(30), name, Whip, 0, way);
            if (helped)
            {
                yield return Fine(Before(28), name, Whip);
            }
            else
            {
                yield return Fault(Before(28), name, Whip, 0);
                yield return Fine(Before(23), name, Whip);
            }

            yield return Fine(Before(21), name, Whip);
        }

        yield return Fault(Before(5), "Jorun", Whip, 0);
        yield return Fine(Lesson(1), "Jorun", Whip);
        yield return Fine(Lesson(2), "Jorun", Whip);
        yield return Fault(Lesson(4), "Ines", Whip, 0);

        foreach (var day in new[] { Before(7), Before(5), Lesson(1), Lesson(3) })
        {
            yield return Fault(day, "Imke", Whip, 0);
        }

        yield return Tried(Before(5), "Imke", Whip, 0, Way.FeetOnly);
        yield return Tried(Lesson(1), "Imke", Whip, 0, Way.Image);
    }

    private IEnumerable<Told> WhatManyShared()
    {
        foreach (var name in new[] { "Emeka", "Goran", "Hanne", "Wilma" })
        {
            yield return Fault(Lesson(name == "Emeka" ? 3 : 4), name, Knee, 0);
        }

        yield return Tried(Lesson(4), "Goran", Knee, 0, Way.SlowerDrill);
        yield return Tried(Lesson(4), "Wilma", Knee, 0, Way.WithAPartner);

        // What half a cohort had was taught again: it helped two of the three.
        foreach (var name in new[] { "Ines", "Lucia", "Yusuf" })
        {
            yield return Fault(Lesson(2), name, Tiger, 0);
        }

        yield return Fine(Lesson(3), "Ines", Tiger);
        yield return Fine(Lesson(4), "Ines", Tiger);
        yield return Better(Lesson(4), "Lucia", Tiger, 0);
        yield return Fault(Lesson(4), "Yusuf", Tiger, 0);

        // What several had, and nobody since it is done otherwise.
        foreach (var name in new[] { "Solveig", "Quentin", "Kofi" })
        {
            yield return Fault(Before(23), name, Roll, 0);
            yield return Fine(Before(21), name, Roll);
            yield return Fine(Before(7), name, Roll);
        }

        // What two still had when the class went on to other things, and nobody has looked at since.
        yield return Fault(Before(6), "Vera", new("Stepping Back Walk", Side.Left), 0);
        yield return Fault(Before(4), "Jorun", new("Stepping Back Walk", Side.Left), 0);
    }

    private IEnumerable<Told> InEveryPosture()
    {
        // The same habit in three places, and nobody has drawn it together.
        yield return Fault(Lesson(3), "Oskar", Opening, 0);
        yield return Fault(Lesson(4), "Oskar", new("Crane Cools Wings", Side.Left), 1);
        yield return Fault(Lesson(4), "Oskar", Whip, 3);

        // One that has been, and comes on.
        const string shoulders = "Shoulders let go";
        yield return Broke(Before(7), "Solveig", new("Press", Side.Right), shoulders);
        yield return Broke(Before(5), "Solveig", new("Fan through the Back", Side.Left), shoulders);
        yield return new(Before(5), "Solveig", new("Fan through the Back", Side.Left))
        {
            Principle = shoulders,
            Way = Way.Image,
        };
        yield return Broke(Lesson(2), "Solveig", Whip, shoulders) with
        {
            Sign = Sign.Better,
        };

        // And one that is gone.
        yield return Broke(Before(12), "Anselm", Knee, "Gaze leads");
        yield return new(Before(12), "Anselm", Knee) { Principle = "Gaze leads", Way = Way.WithAPartner };
        yield return Broke(Before(11), "Anselm", Knee, "Gaze leads") with
        {
            Sign = Sign.Fine,
        };
        yield return Broke(Before(8), "Anselm", Whip, "Gaze leads") with
        {
            Sign = Sign.Fine,
        };
    }

    /// <summary>Two were away on the day of the test and showed all of it in one go since: one has everything, the other
    /// is held back by what was seen in <see cref="WhatManyShared"/>.</summary>
    private IEnumerable<Told> OnTheWayToTheNextSash() =>
        from name in AwayFromTheTest
        from at in NewerFern
        select Does(Lesson(3), name, at, Stage.Flowing);

    private IEnumerable<Told> Links()
    {
        yield return Fault(Lesson(2), "Hanne", IntoKnee, 0);
        yield return Tried(Lesson(2), "Hanne", IntoKnee, 0, Way.FeetOnly);
        yield return Better(Lesson(4), "Hanne", IntoKnee, 0);
        yield return new(Lesson(4), "Vera", IntoStroke) { Words = "the step is looked for with the eyes" };

        // What was missed is made up for.
        yield return Does(Lesson(3), "Vera", new("Needle at Sea Bottom", Side.Left), Stage.Follows);
    }

    private IEnumerable<Told> InAnotherMode()
    {
        // A stiff ankle for an evening; as it was settled; more than they usually do; less.
        yield return Does(Lesson(4), "Tomasz", new("Brush Knee", Side.Right), Stage.Alone, Mode.Supported);
        yield return Does(Lesson(4), "Yusuf", new("Step Back", Side.Left), Stage.Follows, Mode.Seated);
        yield return Does(Lesson(4), "Rosalind", new("Ward Off", Side.Right), Stage.Follows, Mode.Standing);
        yield return Does(Lesson(4), "Pauline", Opening, Stage.Alone, Mode.Supported);
        yield return Does(Lesson(3), "Edda", new("Raise Hands", Side.Right), Stage.Alone, Mode.Seated);
    }

    /// <summary>The level still accepts it, or the lesson was about something else.</summary>
    private IEnumerable<Told> NotCalled()
    {
        yield return Noted(Lesson(3), "Carys", new("Raise Hands", Side.Right), 1);
        yield return Noted(Lesson(4), "Gwen", new("Ward Off", Side.Left), 2);
        yield return Noted(Lesson(3), "Per", new("Needle at Sea Bottom", Side.Left), 1);
    }

    private IEnumerable<Told> Ordinary()
    {
        // The last time anybody looked, one thing was missing.
        yield return Does(Lesson(2), "Filippa", new("Crane Cools Wings", Side.Left), Stage.Alone);
        yield return Does(Lesson(2), "Filippa", Knee, Stage.Alone);
        yield return Does(Lesson(2), "Filippa", new("Play the Pipa", Side.Left), Stage.Follows);

        // By itself it is right, and is lost in the flow.
        yield return Fault(Lesson(2), "Kofi", new("Step Back", Side.Left), 1) with
        {
            InRunThrough = true,
        };
        yield return Fault(Lesson(4), "Kofi", new("Step Back", Side.Left), 1) with
        {
            InRunThrough = true,
        };
        yield return Fault(Lesson(4), "Kofi", Roll, 2);
        yield return Fault(Lesson(3), "Per", new("Press", Side.Right), 0);
        yield return Fine(Lesson(4), "Per", new("Press", Side.Right));
        yield return Fault(Lesson(2), "Lucia", new("Cross Hands", Side.Right), 0);
        yield return Fine(Lesson(3), "Lucia", new("Cross Hands", Side.Right));
        yield return Fine(Lesson(4), "Lucia", new("Cross Hands", Side.Right));
        yield return Fault(Lesson(3), "Goran", new("Stance Walking", Side.Right), 1);
        yield return Fault(Lesson(3), "Adaeze", Opening, 0);
        yield return Fault(Lesson(4), "Ruben", new("Raise Hands", Side.Right), 0);
        yield return Fault(Lesson(4), "Elif", new("Raise Hands", Side.Right), 0) with
        {
            TakenBack = true,
        };
        yield return Fault(Lesson(4), "Anselm", new("Slant Flying", Side.Right), 1);
        yield return Fault(Lesson(3), "Marta", new("Ward Off", Side.Left), 0);
        yield return Better(Lesson(4), "Marta", new("Ward Off", Side.Left), 0);
        yield return Fault(Lesson(4), "Conrad", Opening, 2);
        yield return Tried(Lesson(4), "Conrad", Opening, 2, Way.EasierMode);
        yield return Fault(Lesson(4), "Beatrix", new("Push", Side.Right), 2);

        // Nobody had it listed, and now the school knows it.
        yield return Fault(Lesson(4), "Oskar", new("Fist under Elbow", Side.Left), 3);
    }

    private static Told Fault(DateOnly on, string who, Spot at, int fault) => new(on, who, at) { Fault = fault };

    private static Told Better(DateOnly on, string who, Spot at, int fault) =>
        Fault(on, who, at, fault) with
        {
            Sign = Sign.Better,
        };

    private static Told Noted(DateOnly on, string who, Spot at, int fault) =>
        Fault(on, who, at, fault) with
        {
            Sign = Sign.Noted,
        };

    private static Told Fine(DateOnly on, string who, Spot at) => new(on, who, at) { Sign = Sign.Fine };

    private static Told Broke(DateOnly on, string who, Spot at, string principle) =>
        new(on, who, at) { Principle = principle };

    private static Told Tried(DateOnly on, string who, Spot at, int fault, Way way) =>
        Fault(on, who, at, fault) with
        {
            Way = way,
        };

    /// <summary>Whatever flows was seen in a run-through.</summary>
    private static Told Does(DateOnly on, string who, Spot at, Stage stage, Mode? mode = null) =>
        new(on, who, at)
        {
            Sign = Sign.Stage,
            Stage = stage,
            Mode = mode,
        };
}
