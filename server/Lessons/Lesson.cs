using Zeitplan.Core.People;
using Zeitplan.Core.Terms;

namespace Zeitplan.Server.Lessons;

/// <summary>A class on one date, found in its term.</summary>
internal sealed record Lesson(SchoolClass Class, Term Term, LessonDay Day)
{
    public DateOnly Date => Day.Date;
}
