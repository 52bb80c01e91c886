using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Progress;

/// <summary>All the facts about some students, and the judgements that follow from them.</summary>
public sealed class ProgressBook
{
    /// <summary>Whoever was not observed for more days than this has been unseen for too long (domain.md
    /// 4.5).</summary>
    public const int UnseenDays = 14;

    private readonly DateOnly today;
    private readonly Dictionary<Guid, Dictionary<UnitKey, Met>> metBy = [];
    private readonly Dictionary<Guid, Dictionary<Guid, Met>> against = [];
    private readonly Dictionary<Guid, DateOnly> lastSeen = [];
    private readonly IReadOnlyDictionary<Guid, IReadOnlyDictionary<PostureSide, Stage>> takenOver;
    private readonly IReadOnlyDictionary<Guid, Mode> usual;

    /// <param name="placesOf">Every cohort each student the book is about has been in: whoever moves keeps what was
    /// shown before.</param>
    /// <param name="attendance">All facts; the latest about a student and a lesson counts.</param>
    /// <param name="said">All that was said about what was taught; the latest about an item of a lesson counts.</param>
    /// <param name="observed">None withdrawn.</param>
    /// <param name="takenOver">What students came with, for those who came with something.</param>
    /// <param name="tried">What was done about corrections; the latest about a way and a day counts.</param>
    /// <param name="usual">The mode each takes part in, where that is not standing.</param>
    public ProgressBook(
        IReadOnlyDictionary<Guid, IReadOnlyList<Place>> placesOf,
        IEnumerable<Attendance> attendance,
        IEnumerable<TaughtFact> said,
        IEnumerable<Observation> observed,
        DateOnly today,
        IReadOnlyDictionary<Guid, IReadOnlyDictionary<PostureSide, Stage>>? takenOver = null,
        IEnumerable<WayTried>? tried = null,
        IReadOnlyDictionary<Guid, Mode>? usual = null
    )
    {
        this.today = today;
        this.usual = usual ?? new Dictionary<Guid, Mode>();
        this.takenOver = takenOver ?? new Dictionary<Guid, IReadOnlyDictionary<PostureSide, Stage>>();
        foreach (var observation in observed)
        {
            if (observation.Date <= today && placesOf.ContainsKey(observation.StudentId))
            {
                About(observation.StudentId, observation.Key, observation.PrincipleId).Seen.Add(observation);
                var last = lastSeen.GetValueOrDefault(observation.StudentId);
                lastSeen[observation.StudentId] = observation.Date > last ? observation.Date : last;
            }
        }

        foreach (var way in (tried ?? []).Where(way => placesOf.ContainsKey(way.StudentId)))
        {
            About(way.StudentId, way.Key, way.PrincipleId).Tried.Add(way);
        }

        Show(placesOf, Latest(attendance), Records(said));
    }

    public Standing StandingOf(Guid student, PostureSide of) => StandingOf(student, KeyOf(of));

    /// <param name="of">A posture on a side, or a link.</param>
    public Standing StandingOf(Guid student, UnitKey of)
    {
        var entered = Entered(student, of);
        return metBy.TryGetValue(student, out var met) && met.TryGetValue(of, out var its)
            ? its.Standing ??= Standing.Of(its.Shown, its.Seen, today, entered, its.Tried, UsualOf(student))
            : Standing.On(entered);
    }

    /// <summary>What a student was seen to do of a posture inside run-throughs alone; not met where they never
    /// were.</summary>
    public Stage StageInRunThroughs(Guid student, PostureSide of)
    {
        List<Observation> through =
            metBy.TryGetValue(student, out var met) && met.TryGetValue(KeyOf(of), out var its)
                ? its.Seen.FindAll(seen => seen.InRunThrough || seen.Stage == Stage.Flowing)
                : [];
        return through.Exists(seen => seen.Sign == Sign.Stage)
            ? Standing.StageOn(today, through, usual: UsualOf(student))
            : Stage.NotMet;
    }

    /// <summary>How a student came to where they stand.</summary>
    public Walk WalkOf(Guid student, UnitKey of)
    {
        if (!metBy.TryGetValue(student, out var met) || !met.TryGetValue(of, out var its))
        {
            return new(null, [], [], 0);
        }

        var reached = Reached(student, its, Entered(student, of));
        var corrections = StandingOf(student, of).Corrections;
        return new(
            reached.Count > 0 ? reached[0].On : null,
            reached,
            [.. corrections.SelectMany(correction => correction.Episodes).OrderBy(episode => episode.Opened)],
            corrections.Sum(correction => Math.Max(0, correction.Episodes.Count - 1))
        );
    }

    /// <summary>How somebody came on who met it here: from that day on, each change of stage. Empty for what they came with,
    /// and while nobody has seen them at a stage.</summary>
    public IReadOnlyList<StageReached> LearnedHere(Guid student, PostureSide of) =>
        Entered(student, KeyOf(of)) <= Stage.Shown
        && metBy.TryGetValue(student, out var met)
        && met.TryGetValue(KeyOf(of), out var its)
        && its.Seen.Exists(seen => seen.Sign == Sign.Stage)
            ? Reached(student, its, Stage.NotMet)
            : [];

    private List<StageReached> Reached(Guid student, Met met, Stage entered)
    {
        // To be there again changes no stage.
        var days = met
            .Shown.Order()
            .Take(1)
            .Concat(met.Seen.Select(observation => observation.Date))
            .Distinct()
            .Order();
        List<StageReached> reached = [];
        foreach (var day in days)
        {
            var stage = Standing.StageOn(day, met.Seen, entered, UsualOf(student));
            if (reached.Count == 0 || reached[^1].Stage != stage)
            {
                reached.Add(new(day, stage));
            }
        }

        return reached;
    }

    /// <summary>The mode a student takes part in.</summary>
    public Mode UsualOf(Guid student) => usual.GetValueOrDefault(student, Mode.Standing);

    /// <summary>The stages seen in other modes than the usual one, each as it would stand in that mode.</summary>
    public IReadOnlyList<(Mode Mode, Stage Stage)> StagesInOtherModes(Guid student, UnitKey of) =>
        metBy.TryGetValue(student, out var met) && met.TryGetValue(of, out var its)
            ?
            [
                .. its
                    .Seen.Where(observation => observation.Sign == Sign.Stage)
                    .Select(observation => observation.Mode)
                    .OfType<Mode>()
                    .Where(mode => mode.Name != UsualOf(student).Name)
                    .DistinctBy(mode => mode.Name)
                    .OrderBy(mode => mode.Adapted)
                    .Select(mode => (mode, Standing.Of(its.Shown, its.Seen, today, usual: mode).Stage)),
            ]
            : [];

    /// <summary>Every correction of a student, cleared ones too, with what it is about.</summary>
    public IEnumerable<(UnitKey Of, Correction Correction)> CorrectionsOf(Guid student) =>
        metBy.TryGetValue(student, out var met)
            ? met.Where(its => its.Value.Seen.Exists(observation => observation.Sign == Sign.Fault))
                .SelectMany(its => StandingOf(student, its.Key).Corrections.Select(correction => (its.Key, correction)))
            : [];

    /// <summary>Every correction of a student against a principle, cleared ones too: whatever posture it was seen in, it is one
    /// (domain.md 2).</summary>
    public IEnumerable<(Guid PrincipleId, Correction Correction)> AgainstPrinciples(Guid student) =>
        against.TryGetValue(student, out var its)
            ? its.SelectMany(one => OfPrinciple(one.Value).Corrections.Select(correction => (one.Key, correction)))
            : [];

    /// <summary>How many corrections of a student are not cleared: of postures, links and drills, and against
    /// principles.</summary>
    public int OpenCorrections(Guid student) =>
        CorrectionsOf(student).Count(its => its.Correction.IsOpen)
        + AgainstPrinciples(student).Count(its => its.Correction.IsOpen);

    /// <summary>The posture in which a principle was first seen broken; there is a correction against it.</summary>
    public PostureSide SeenIn(Guid student, Guid principle) =>
        against[student][principle].Seen.MinBy(seen => (seen.Date, seen.At, seen.Id)) is { } first
            ? new(first.PostureId, first.Side)
            : throw new InvalidOperationException("Nobody saw this principle broken.");

    private Standing OfPrinciple(Met met) => met.Standing ??= Standing.Of([], met.Seen, today, tried: met.Tried);

    private Stage Entered(Guid student, UnitKey of) =>
        of.Kind != UnitKind.Link && takenOver.TryGetValue(student, out var held)
            ? held.GetValueOrDefault(new(of.PostureId, of.Side))
            : Stage.NotMet;

    private static UnitKey KeyOf(PostureSide of) => new(UnitKind.Posture, of.PostureId, of.Side);

    /// <summary>Every posture and side a student has met here in any way; not what they came with.</summary>
    public IEnumerable<PostureSide> MetBy(Guid student) =>
        metBy.TryGetValue(student, out var met)
            ? met.Keys.Where(of => of.Kind != UnitKind.Link).Select(of => new PostureSide(of.PostureId, of.Side))
            : [];

    /// <summary>The day a student first met something here, shown or seen; null when they have not.</summary>
    public DateOnly? FirstMet(Guid student, PostureSide of) =>
        metBy.TryGetValue(student, out var met) && met.TryGetValue(KeyOf(of), out var its)
            ? its
                .Shown.Concat(its.Seen.Select(observation => observation.Date))
                .Select(date => (DateOnly?)date)
                .DefaultIfEmpty(null)
                .Min()
            : null;

    /// <summary>When a student was last seen to do something, in whatever stage, or clean of its faults; null for never.</summary>
    public DateOnly? LastDone(Guid student, PostureSide of) =>
        Latest(
            student,
            of,
            met => met.Seen.Where(seen => seen.Sign is Sign.Stage or Sign.Fine).Select(seen => seen.Date)
        );

    /// <summary>When a student was last there while something was taught by itself, which no run-through does; null for
    /// never.</summary>
    public DateOnly? LastTaught(Guid student, PostureSide of) => Latest(student, of, met => met.Taught);

    private DateOnly? Latest(Guid student, PostureSide of, Func<Met, IEnumerable<DateOnly>> days) =>
        metBy.TryGetValue(student, out var met) && met.TryGetValue(KeyOf(of), out var its)
            ? days(its).Select(day => (DateOnly?)day).Max()
            : null;

    /// <summary>Every link a student has met here in any way.</summary>
    public IEnumerable<UnitKey> LinksMetBy(Guid student) =>
        metBy.TryGetValue(student, out var met) ? met.Keys.Where(of => of.Kind == UnitKind.Link) : [];

    /// <summary>Every posture and side a student came with.</summary>
    public IEnumerable<PostureSide> TakenOverBy(Guid student) =>
        takenOver.TryGetValue(student, out var held) ? held.Keys : [];

    /// <param name="days">Since the last observation; null for never.</param>
    public static bool IsLongUnseen(int? days) => days is null or > UnseenDays;

    /// <summary>The day somebody last watched this student, or null.</summary>
    public DateOnly? LastSeen(Guid student) => lastSeen.TryGetValue(student, out var date) ? date : null;

    /// <summary>The latest fact about each student in each lesson.</summary>
    public static IEnumerable<Attendance> Latest(IEnumerable<Attendance> attendance) =>
        attendance
            .GroupBy(fact => (fact.ClassId, fact.Date, fact.StudentId))
            .Select(facts => facts.MaxBy(fact => (fact.At, fact.Id))!);

    /// <summary>Each lesson something was said about, with the latest about each of its items.</summary>
    public static IEnumerable<LessonRecord> Records(IEnumerable<TaughtFact> said) =>
        from fact in said
        group fact by (fact.ClassId, fact.Date) into lesson
        let latest = lesson
            .GroupBy(fact => (fact.CohortId, fact.Item.Key))
            .Select(same => same.MaxBy(fact => (fact.At, fact.Id))!)
            .ToList()
        select new LessonRecord(
            lesson.Key.ClassId,
            lesson.Key.Date,
            latest,
            [.. latest.Where(fact => fact.Taught).Select(fact => fact.Item)]
        );

    private void Show(
        IReadOnlyDictionary<Guid, IReadOnlyList<Place>> placesOf,
        IEnumerable<Attendance> attendance,
        IEnumerable<LessonRecord> records
    )
    {
        // A link shows the end of one posture and the beginning of the next, and neither of them whole.
        var taught = records.ToDictionary(
            record => (record.ClassId, record.Date),
            record => record.Taught.ToLookup(item => item.CohortId)
        );
        foreach (var fact in attendance.Where(fact => fact.Present))
        {
            if (
                placesOf.TryGetValue(fact.StudentId, out var places)
                && taught.TryGetValue((fact.ClassId, fact.Date), out var items)
            )
            {
                foreach (
                    var same in Place
                        .On(places, fact.Date)
                        .SelectMany(cohort => items[cohort])
                        .GroupBy(item => item.Key.AsWatched())
                )
                {
                    var known = Known(fact.StudentId, same.Key);
                    known.Shown.Add(fact.Date);
                    if (same.Any(item => item.How != TaughtHow.RunThrough))
                    {
                        known.Taught.Add(fact.Date);
                    }
                }
            }
        }
    }

    private Met Known(Guid student, UnitKey of) => In(In(metBy, student), of);

    /// <summary>What is against a principle is about no posture, wherever it was seen.</summary>
    private Met About(Guid student, UnitKey of, Guid? principle) =>
        principle is { } its ? In(In(against, student), its) : Known(student, of);

    private static TValue In<TKey, TValue>(Dictionary<TKey, TValue> all, TKey key)
        where TKey : notnull
        where TValue : new()
    {
        if (!all.TryGetValue(key, out var found))
        {
            all[key] = found = new();
        }

        return found;
    }

    /// <summary>What is known of one student and one posture.</summary>
    private sealed class Met
    {
        public List<DateOnly> Shown { get; } = [];

        /// <summary>Of those, the days on which it was taught by itself.</summary>
        public List<DateOnly> Taught { get; } = [];
        public List<Observation> Seen { get; } = [];
        public List<WayTried> Tried { get; } = [];

        /// <summary>Judged once: several proposals ask for it.</summary>
        public Standing? Standing { get; set; }
    }
}
