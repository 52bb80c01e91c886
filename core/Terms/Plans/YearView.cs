using Zeitplan.Core.Forms;
using Zeitplan.Core.Terms.Planning;
using Half = Zeitplan.Core.People.Half;

namespace Zeitplan.Core.Terms.Plans;

/// <summary>What a level, or one half of it, asks of whoever comes to it.</summary>
/// <param name="Units">What it studies that no level before it does, in teaching order.</param>
/// <param name="MostNew">New postures a lesson.</param>
/// <param name="SecondsForNew">What a middling lesson has for what is new.</param>
/// <param name="LeastWeeks">Weeks at the level before the next.</param>
/// <param name="LeastLessons">Lessons attended at the level before the next.</param>
public sealed record LadderStep(
    Guid SashId,
    string Name,
    Half Half,
    string Colour,
    IReadOnlyList<TeachingUnit> Units,
    int MostNew,
    int SecondsForNew,
    int LeastWeeks,
    int LeastLessons
);

/// <param name="LessonsAWeek">Over the year, holidays and closures counted in.</param>
/// <param name="LessonsForNew">The share of lessons that bring something new; the others are tests and what comes
/// before them.</param>
public sealed record YearQuestion(
    IReadOnlyList<LadderStep> Steps,
    DateOnly From,
    double LessonsAWeek,
    double LessonsForNew,
    double Attendance
);

/// <summary>When somebody who begins at a level today's way is through with it.</summary>
/// <param name="Lessons">Held while they are at it.</param>
/// <param name="Bound">What decides it: the material, the weeks or the lessons asked for.</param>
public sealed record LadderStretch(LadderStep Step, DateOnly From, DateOnly To, int Lessons, StretchBound Bound);

public enum StretchBound
{
    Material,
    Weeks,
    Lessons,
}

/// <summary>The way up the ladder from today, at this pace: when does today's beginner stand at the last level
/// (domain.md 4.3).</summary>
public static class YearView
{
    /// <returns>One stretch for every step but those of the last level, where the way ends.</returns>
    public static IReadOnlyList<LadderStretch> Of(YearQuestion asked)
    {
        if (asked.Steps.Count == 0 || asked.LessonsAWeek <= 0)
        {
            return [];
        }

        var last = asked.Steps[^1].SashId;
        List<LadderStretch> way = [];
        var days = 0.0;
        foreach (var step in asked.Steps.TakeWhile(step => step.SashId != last))
        {
            var (material, asks) = (
                Math.Ceiling(LessonsToIntroduce(step) / asked.LessonsForNew),
                Math.Ceiling(step.LeastLessons / Math.Max(0.1, asked.Attendance))
            );
            var weeks = Math.Max(step.LeastWeeks, Math.Max(material, asks) / asked.LessonsAWeek);
            var bound =
                weeks * asked.LessonsAWeek <= material ? StretchBound.Material
                : weeks * asked.LessonsAWeek <= asks ? StretchBound.Lessons
                : StretchBound.Weeks;
            var from = days;
            days += weeks * 7;
            way.Add(
                new(
                    step,
                    asked.From.AddDays((int)Math.Round(from)),
                    asked.From.AddDays((int)Math.Round(days)),
                    (int)Math.Round(weeks * asked.LessonsAWeek),
                    bound
                )
            );
        }

        return way;
    }

    /// <summary>Lessons it takes to bring in everything of a level, each as full as it may be.</summary>
    public static int LessonsToIntroduce(LadderStep step)
    {
        var (lessons, left, postures, hard) = (0, 0, 0, false);
        foreach (var unit in step.Units)
        {
            var isPosture = unit.Kind == UnitKind.Posture;
            var takes = unit.IntroduceSeconds + CohortProblem.OwnPracticeAfterNewSeconds;
            if (
                lessons == 0
                || takes > left
                || (isPosture && (postures == step.MostNew || (postures > 0 && (hard || unit.Difficulty >= 3))))
            )
            {
                (lessons, left, postures, hard) = (lessons + 1, step.SecondsForNew, 0, false);
            }

            left -= takes;
            postures += isPosture ? 1 : 0;
            hard |= isPosture && unit.Difficulty >= 3;
        }

        return lessons;
    }
}
