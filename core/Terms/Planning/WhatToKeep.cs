using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;

namespace Zeitplan.Core.Terms.Planning;

/// <summary>
/// What a cohort can do already and has been given to maintain, and what it learned before the school changed how it is
/// done (domain.md 4.1, 4.3).
/// </summary>
/// <param name="Left">What it has been given and cannot keep, and why.</param>
public sealed record WhatToKeep(Keeping Keeping, IReadOnlyList<Unteachable> Left)
{
    /// <summary>So many of a cohort are enough for it to be taught again: those it fades with, and those who hold the old
    /// way.</summary>
    private const int OneIn = 3;

    /// <param name="runs">All a cohort has been given.</param>
    /// <param name="retired">Postures that are not taught any more.</param>
    /// <param name="book">Of the cohort's students, on this day.</param>
    /// <param name="told">Whose difference a coming lesson tells already, as somebody put it there.</param>
    public static WhatToKeep Of(
        IReadOnlyList<GivenRun> runs,
        IReadOnlyDictionary<Guid, PostureOutline> postures,
        IReadOnlySet<Guid> retired,
        TeachingWay way,
        IReadOnlyList<Guid> students,
        ProgressBook book,
        DateOnly today,
        IReadOnlySet<PostureSide> told
    )
    {
        List<Unteachable> left = [];
        List<KeptPosture> kept = [];
        List<KeptRun> through = [];
        var fresh = runs.Where(run => run.Purpose == Purpose.New)
            .SelectMany(run => run.Positions)
            .Select(Side)
            .ToHashSet();
        foreach (var run in runs.Where(run => run.Purpose == Purpose.Maintain))
        {
            List<Position> positions = [.. run.Positions.Where(position => IsHeld(Side(position)))];
            List<PostureSide> held = [.. positions.Select(Side).Distinct()];
            kept.AddRange(held.Except(kept.Select(its => its.Of)).Select(Maintained));
            if (held.Count > 1)
            {
                through.Add(
                    new(
                        $"{NameOf(positions[0])} to {NameOf(positions[^1])}",
                        [.. held.Select(of => kept.FindIndex(its => its.Of == of))],
                        way.OnceThrough(positions, postures)
                    )
                );
            }
        }

        kept.AddRange(
            ToRelearn(postures, retired, way, students, book, today).Where(changed => !told.Contains(changed.Of))
        );
        return new(new(kept, through), left);

        bool IsHeld(PostureSide of)
        {
            // What is new this term is kept by its reviews.
            if (fresh.Contains(of))
            {
                return false;
            }

            var why = WhyNot(of);
            if (why is not null && left.TrueForAll(its => (its.PostureId, its.Side) != (of.PostureId, of.Side)))
            {
                left.Add(new(of.PostureId, of.Side, postures[of.PostureId].NameOn(of.Side), why));
            }

            return why is null;
        }

        KeptPosture Maintained(PostureSide of)
        {
            List<(DateOnly Due, int Days)> fading =
            [
                .. students.Select(student => Fades(student, of, book, today)).OfType<(DateOnly Due, int Days)>(),
            ];
            var third = (fading.Count - 1) / OneIn;
            return new(
                of,
                postures[of.PostureId].NameOn(of.Side),
                way.EffortOf(postures[of.PostureId], of.Side)!.ReviewSeconds,
                fading.Select(its => its.Due).Order().ElementAt(third),
                fading.Select(its => its.Days).Order().ElementAt(third)
            );
        }

        string NameOf(Position position) => postures[position.PostureId].NameOn(position.Side);

        string? WhyNot(PostureSide of)
        {
            if (postures[of.PostureId].In(way.Mode) is null)
            {
                return $"no {way.Mode.Name} version has been written";
            }

            var met = students.Count(student => Fades(student, of, book, today) is not null);
            return met * 2 > students.Count ? null : "most of the cohort have not met it, so there is nothing to keep";
        }
    }

    private static PostureSide Side(Position position) => new(position.PostureId, position.Side);

    private static IEnumerable<KeptPosture> ToRelearn(
        IReadOnlyDictionary<Guid, PostureOutline> postures,
        IReadOnlySet<Guid> retired,
        TeachingWay way,
        IReadOnlyList<Guid> students,
        ProgressBook book,
        DateOnly today
    ) =>
        from proposal in TeachTheDifference.Propose(
            Guid.Empty,
            students,
            students.SelectMany(book.MetBy),
            posture => retired.Contains(posture) ? [] : postures[posture].Changes,
            book,
            today
        )
        let outline = postures[proposal.Of.PostureId]
        where outline.In(way.Mode) is not null && proposal.Have * OneIn >= proposal.Met
        select new KeptPosture(
            proposal.Of,
            outline.NameOn(proposal.Of.Side),
            TeachTheDifference.Takes(way.EffortOf(outline, proposal.Of.Side)!.ReviewSeconds),
            proposal.Since.AddDays(7 * Standing.FadingWeeks),
            HoldsDays: null,
            Changed: new(proposal.Since, proposal.Difference)
        );

    /// <summary>The last day on which it has not faded with a student, and how long it holds with them; null for whoever
    /// has not met it. What somebody came with has been shown to nobody here, and is due at once.</summary>
    private static (DateOnly Due, int Days)? Fades(Guid student, PostureSide of, ProgressBook book, DateOnly today)
    {
        var standing = book.StandingOf(student, of);
        var days = 7 * (standing.Stage == Stage.Settled ? Standing.FadingWeeksWhenSettled : Standing.FadingWeeks);
        return standing.Stage == Stage.NotMet ? null : (standing.Touched?.AddDays(days) ?? today, days);
    }
}
