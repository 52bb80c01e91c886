namespace Zeitplan.Core.People;

/// <summary>A change that would settle a concern; what it does not change stays.</summary>
/// <param name="StaffOutId">Who would teach something else.</param>
/// <param name="StaffInId">Who would teach instead.</param>
public sealed record WayOut(
    string Label,
    Guid? HallId = null,
    TimeOnly? Start = null,
    Guid? StaffOutId = null,
    Guid? StaffInId = null
);

/// <summary>Something about a class that collides with the rest of the school.</summary>
/// <param name="Blocks">Two things at once cannot be kept; what is merely tight can.</param>
public sealed record ClassConcern(string Field, bool Blocks, string Message, IReadOnlyList<WayOut> Ways);

/// <summary>
/// Whether a class gets on with the school's other classes and its hall (domain.md 4.1, "Floor"): hall and staff in one
/// place at a time, opening hours, and room for everybody's footprint. Each concern comes with ways out that were
/// tried.
/// </summary>
public static class ClassCheck
{
    /// <summary>Reach all round somebody who stands: 0.75 m, so a square of this side; metres.</summary>
    public const double StandingRoom = 1.5;
    public const double SeatWidth = 1.5;
    public const double SeatDepth = 1.4;
    private const int Quarter = 15;

    /// <param name="others">The school's other classes that go on, without this one.</param>
    /// <param name="standing">How many people of its cohorts stand, and how many sit.</param>
    public static IReadOnlyList<ClassConcern> Of(
        ClassText text,
        IReadOnlyList<SchoolClass> others,
        IReadOnlyList<Hall> halls,
        IReadOnlyList<StaffMember> staff,
        int standing,
        int seated
    )
    {
        if (text.Minutes <= 0 || halls.FirstOrDefault(hall => hall.Id == text.HallId) is not { } hall)
        {
            return [];
        }

        var school = new Timetable(text, others, halls, standing, seated);
        List<ClassConcern> concerns = [];
        foreach (var other in others.Where(other => Overlaps(text, text.Start, other)))
        {
            var when = $"at that time ({other.Start:HH:mm} to {other.End:HH:mm})";
            if (other.HallId == hall.Id)
            {
                concerns.Add(
                    new(
                        "hallId",
                        true,
                        $"{other.Name} has {hall.Name} {when}.",
                        [.. school.OtherHalls(), .. school.OtherTimes(text.StaffIds)]
                    )
                );
            }

            concerns.AddRange(
                from place in text.StaffIds.Index()
                where other.StaffIds.Contains(place.Item)
                let name = staff.FirstOrDefault(member => member.Id == place.Item)?.Name ?? "This person"
                select new ClassConcern(
                    $"staffIds[{place.Index}]",
                    true,
                    $"{name} teaches {other.Name} {when}.",
                    [.. school.OtherStaff(place.Item, staff), .. school.OtherTimes(text.StaffIds)]
                )
            );
        }

        var leading = staff.Where(member => text.StaffIds.Contains(member.Id)).ToList();
        if (leading.Count > 0 && leading.All(member => member.Role == StaffRole.Assistant))
        {
            concerns.Add(
                new(
                    "staffIds[0]",
                    false,
                    "Only assistants would lead it: nobody in it may say what was taught, or knows of anybody's limits.",
                    [
                        .. school.OtherStaff(
                            text.StaffIds[0],
                            [.. staff.Where(member => member.Role != StaffRole.Assistant)]
                        ),
                    ]
                )
            );
        }

        if (!hall.IsOpen(text.Weekday, text.Start, text.End))
        {
            var hours = hall
                .Hours.Where(open => open.Weekday == text.Weekday)
                .Select(open => $"{open.From:HH:mm} to {open.To:HH:mm}")
                .ToList();
            concerns.Add(
                new(
                    "start",
                    false,
                    hours.Count == 0
                        ? $"{hall.Name} is closed that day."
                        : $"{hall.Name} is open from {string.Join(" and ", hours)} that day.",
                    [.. school.OtherTimes(text.StaffIds), .. school.OtherHalls()]
                )
            );
        }

        if (hall.Allowed < standing + seated)
        {
            concerns.Add(
                new(
                    "hallId",
                    false,
                    $"{standing + seated} people are in this class; {hall.Allowed} are allowed in {hall.Name}.",
                    [.. school.OtherHalls()]
                )
            );
        }
        else if (!HasRoom(hall, standing, seated))
        {
            concerns.Add(
                new(
                    "hallId",
                    false,
                    $"{hall.Name} has room for {Capacity(hall, seated)} standing{(seated > 0 ? $" beside {seated} seated" : "")}; {standing} stand in this class.",
                    [.. school.OtherHalls()]
                )
            );
        }

        if (seated > hall.Chairs)
        {
            concerns.Add(
                new(
                    "hallId",
                    false,
                    $"{seated} sit and {hall.Name} has {hall.Chairs} firm chairs.",
                    [.. school.OtherHalls()]
                )
            );
        }

        return concerns;
    }

    /// <summary>How many people can stand in a hall, side by side and behind each other, beside rows of so many
    /// seated.</summary>
    public static int Capacity(Hall hall, int seated)
    {
        var abreast = Math.Max(1, (int)((double)hall.Width / SeatWidth));
        var depth = (double)hall.Depth - (((seated + abreast - 1) / abreast) * SeatDepth);
        return Math.Max(0, (int)((double)hall.Width / StandingRoom)) * Math.Max(0, (int)(depth / StandingRoom));
    }

    private static bool HasRoom(Hall hall, int standing, int seated) =>
        Capacity(hall, seated) >= standing && (standing > 0 || Capacity(hall, seated) >= 0);

    private static bool Overlaps(ClassText text, TimeOnly start, SchoolClass other) =>
        other.Weekday == text.Weekday
        && start.ToTimeSpan() < other.Start.ToTimeSpan() + TimeSpan.FromMinutes(other.Minutes)
        && other.Start.ToTimeSpan() < start.ToTimeSpan() + TimeSpan.FromMinutes(text.Minutes);

    /// <summary>Where and when else the class could meet.</summary>
    private sealed class Timetable(
        ClassText text,
        IReadOnlyList<SchoolClass> others,
        IReadOnlyList<Hall> halls,
        int standing,
        int seated
    )
    {
        public IEnumerable<WayOut> OtherHalls() =>
            from hall in halls
            where
                hall.Id != text.HallId
                && IsFree(hall, text.Start)
                && HasRoom(hall, standing, seated)
                && !(hall.Allowed < standing + seated)
                && hall.Chairs >= seated
            orderby hall.Width * hall.Depth
            select new WayOut($"Meet in {hall.Name}", HallId: hall.Id);

        public IEnumerable<WayOut> OtherStaff(Guid away, IReadOnlyList<StaffMember> staff) =>
            from member in staff
            where
                !text.StaffIds.Contains(member.Id)
                && !others.Any(other => other.StaffIds.Contains(member.Id) && Overlaps(text, text.Start, other))
            orderby member.Role descending, member.Name
            select new WayOut($"{member.Name} teaches instead", StaffOutId: away, StaffInId: member.Id);

        /// <summary>The nearest earlier and later start on the same day at which hall and staff are free.</summary>
        public IEnumerable<WayOut> OtherTimes(IReadOnlyList<Guid> staffIds)
        {
            if (halls.FirstOrDefault(hall => hall.Id == text.HallId) is not { } hall)
            {
                return [];
            }

            var latest = (24 * 60) - text.Minutes;
            var wanted = (int)text.Start.ToTimeSpan().TotalMinutes;
            var starts = Enumerable
                .Range(0, (latest / Quarter) + 1)
                .Select(at => at * Quarter)
                .Where(start => start != wanted && start >= 6 * 60 && start <= 21 * 60)
                .Where(start =>
                    new TimeOnly(start / 60, start % 60) is var time
                    && IsFree(hall, time)
                    && !others.Any(other => other.StaffIds.Intersect(staffIds).Any() && Overlaps(text, time, other))
                )
                .ToList();
            int?[] nearest =
            [
                starts.Where(start => start < wanted).Select(start => (int?)start).LastOrDefault(),
                starts.Where(start => start > wanted).Select(start => (int?)start).FirstOrDefault(),
            ];
            return nearest
                .OfType<int>()
                .Select(start => new TimeOnly(start / 60, start % 60))
                .Select(time => new WayOut($"Start at {time:HH:mm}", Start: time));
        }

        private bool IsFree(Hall hall, TimeOnly start) =>
            hall.IsOpen(text.Weekday, start, start.AddMinutes(text.Minutes))
            && !others.Any(other => other.HallId == hall.Id && Overlaps(text, start, other));
    }
}
