using Zeitplan.Core.Forms;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Progress;

/// <summary>All the facts about some students, and the judgements that follow from them.</summary>
public sealed class ProgressBook
{
    private static readonly DateOnly[] Never = [];

    private readonly DateOnly today;
    private readonly Dictionary<(Guid Student, PostureSide Of), List<Observation>> observations;
    private readonly Dictionary<(Guid Student, PostureSide Of), List<DateOnly>> shown;
    private readonly Dictionary<Guid, DateOnly> lastSeen;

    /// <param name="placesOf">Every cohort each student the book is about has been in: whoever moves keeps what was
    /// shown before.</param>
    /// <param name="attendance">All facts; the latest about a student and a lesson counts.</param>
    /// <param name="said">All that was said about what was taught; the latest about an item of a lesson counts.</param>
    /// <param name="observed">None withdrawn.</param>
    public ProgressBook(
        IReadOnlyDictionary<Guid, IReadOnlyList<Place>> placesOf,
        IEnumerable<Attendance> attendance,
        IEnumerable<TaughtFact> said,
        IEnumerable<Observation> observed,
        DateOnly today
    )
    {
        this.today = today;
        var own = observed
            .Where(observation => observation.Date <= today && placesOf.ContainsKey(observation.StudentId))
            .ToList();
        observations = own.GroupBy(observation => (observation.StudentId, observation.Of))
            .ToDictionary(group => group.Key, group => group.ToList());
        lastSeen = own.GroupBy(observation => observation.StudentId)
            .ToDictionary(group => group.Key, group => group.Max(observation => observation.Date));
        shown = Shown(placesOf, Latest(attendance), Records(said));
    }

    public Standing StandingOf(Guid student, PostureSide of) =>
        Standing.Of(
            shown.GetValueOrDefault((student, of)) ?? (IReadOnlyCollection<DateOnly>)Never,
            observations.GetValueOrDefault((student, of)) ?? [],
            today
        );

    /// <summary>Every posture and side a student has met in any way.</summary>
    public IEnumerable<PostureSide> MetBy(Guid student) =>
        shown.Keys.Concat(observations.Keys).Where(key => key.Student == student).Select(key => key.Of).Distinct();

    /// <summary>The day somebody last watched this student, or null.</summary>
    public DateOnly? LastSeen(Guid student) => lastSeen.TryGetValue(student, out var date) ? date : null;

    /// <summary>The latest fact about each student in each lesson.</summary>
    public static IEnumerable<Attendance> Latest(IEnumerable<Attendance> attendance) =>
        attendance
            .GroupBy(fact => (fact.ClassId, fact.Date, fact.StudentId))
            .Select(facts => facts.OrderBy(fact => fact.At).ThenBy(fact => fact.Id).Last());

    /// <summary>Each lesson something was said about, with the latest about each of its items.</summary>
    public static IEnumerable<LessonRecord> Records(IEnumerable<TaughtFact> said) =>
        from fact in said
        group fact by (fact.ClassId, fact.Date) into lesson
        let latest = lesson
            .GroupBy(fact => (fact.CohortId, fact.Item.Key))
            .Select(same => same.OrderBy(fact => fact.At).ThenBy(fact => fact.Id).Last())
            .ToList()
        select new LessonRecord(
            lesson.Key.ClassId,
            lesson.Key.Date,
            latest,
            [.. latest.Where(fact => fact.Taught).Select(fact => fact.Item)]
        );

    private static Dictionary<(Guid, PostureSide), List<DateOnly>> Shown(
        IReadOnlyDictionary<Guid, IReadOnlyList<Place>> placesOf,
        IEnumerable<Attendance> attendance,
        IEnumerable<LessonRecord> records
    )
    {
        // A link shows the end of one posture and the beginning of the next, and neither of them whole.
        var taught = records.ToDictionary(
            record => (record.ClassId, record.Date),
            record =>
                record
                    .Taught.Where(item => item.Kind != UnitKind.Link)
                    .ToLookup(item => item.CohortId, item => new PostureSide(item.PostureId, item.Side))
        );
        Dictionary<(Guid, PostureSide), List<DateOnly>> shown = [];
        foreach (var fact in attendance.Where(fact => fact.Present))
        {
            if (
                placesOf.TryGetValue(fact.StudentId, out var places)
                && taught.TryGetValue((fact.ClassId, fact.Date), out var items)
            )
            {
                foreach (var of in Place.On(places, fact.Date).SelectMany(cohort => items[cohort]).Distinct())
                {
                    if (!shown.TryGetValue((fact.StudentId, of), out var dates))
                    {
                        shown[(fact.StudentId, of)] = dates = [];
                    }

                    dates.Add(fact.Date);
                }
            }
        }

        return shown;
    }
}
