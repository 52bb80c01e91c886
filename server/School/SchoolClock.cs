using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.School;

/// <summary>The date on the school's wall: the clock in the school's time zone.</summary>
internal sealed class SchoolClock(SchoolContext db, SchoolTime time)
{
    public DateTimeOffset Now => time.GetUtcNow();

    public async Task<DateOnly> TodayAsync(CancellationToken cancel) =>
        DateOnly.FromDateTime(await AtSchoolAsync(Now, cancel));

    /// <summary>What the school's wall shows at a moment.</summary>
    public async Task<DateTime> AtSchoolAsync(DateTimeOffset moment, CancellationToken cancel)
    {
        var zone =
            await db.Schools.Select(school => school.TimeZone).SingleOrDefaultAsync(cancel)
            ?? Core.School.ZoneUntilChosen;
        return TimeZoneInfo.ConvertTime(moment, TimeZoneInfo.FindSystemTimeZoneById(zone)).DateTime;
    }
}

/// <summary>The system's clock, or one set to noon of a given day: <c>ZEITPLAN_TODAY</c>, for tests and
/// pictures.</summary>
internal class SchoolTime(DateOnly? today) : TimeProvider
{
    private readonly TimeSpan shift = today is { } day
        ? new DateTimeOffset(day, new(12, 0), TimeSpan.Zero) - System.GetUtcNow()
        : TimeSpan.Zero;

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() + shift;

    /// <exception cref="FormatException"><c>ZEITPLAN_TODAY</c> is no date.</exception>
    public static SchoolTime From(IConfiguration configuration) =>
        configuration["ZEITPLAN_TODAY"] is { Length: > 0 } text
            ? DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
                ? new(day)
                : throw new FormatException($"ZEITPLAN_TODAY is '{text}'; write a date as 2026-11-24.")
            : new(null);
}
