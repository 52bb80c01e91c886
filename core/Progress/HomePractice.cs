using Zeitplan.Core.Forms;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.People;

namespace Zeitplan.Core.Progress;

/// <summary>
/// Chooses what a student practises at home (domain.md 4.5): the newest posture, the most important correction and a
/// run-through of what flows, each in a mode that asks nothing of them they must not be asked for.
/// </summary>
/// <param name="outlines">Of all postures, with what the school's forms ask for on the way into them.</param>
/// <param name="occasions">The moments of the day the school knows.</param>
public sealed class HomePractice(
    IReadOnlyDictionary<Guid, Posture> postures,
    IReadOnlyDictionary<Guid, PostureOutline> outlines,
    IReadOnlyCollection<Form> forms,
    KnownFaults faults,
    IReadOnlyDictionary<Guid, Principle> principles,
    IReadOnlyList<HouseholdOccasion> occasions
)
{
    public const int NewestTimes = 4;
    public const int CorrectionTimes = 6;

    /// <summary>Of one posture, and of the run-through.</summary>
    public const int MostMinutesOfOne = 4;
    public const int MostMinutesOfRun = 6;
    public const int ShortestRun = 3;

    /// <summary>What the focus is of somebody who has nothing new and nothing to correct.</summary>
    public const string FlowFocus = "one even pace from beginning to end, without a stop";

    /// <param name="last">What they were handed last: what still holds of it stays, so that a sheet changes only where
    /// something has changed.</param>
    /// <returns>Null while there is nothing they could practise.</returns>
    public HomeSheet? For(Learner learner, ProgressBook book, HomeSheet? last = null)
    {
        var correction = MostImportant(learner, book, last);
        var newest = NewestOf(learner, book);
        // One posture is on the sheet once: what is new and to be corrected is practised for its correction.
        if (correction is not null && newest is not null && correction.Thing.Postures.Contains(newest.Postures[0]))
        {
            newest = null;
        }

        var flow = RunThrough(learner, book, last);
        List<HomeThing> things = [.. new[] { newest, correction?.Thing, flow }.OfType<HomeThing>()];
        if (things.Count == 0)
        {
            return null;
        }

        var focus =
            correction is not null ? correction.Focus
            : Broken(learner, book) is [var principle, ..] ? principle.Text.KeyPoint
            : newest is not null ? KeyPoint(newest.Postures[0])
            : FlowFocus;
        return new(things, focus, Occasion(learner, [correction?.Thing, newest, flow], last));
    }

    private HomeThing? NewestOf(Learner learner, ProgressBook book) =>
        book.MetBy(learner.StudentId)
            .Select(of => (Of: of, Standing: book.StandingOf(learner.StudentId, of)))
            .Where(met => met.Standing is { Stage: >= Stage.Shown and < Stage.Flowing, TakenOver: false })
            .OrderByDescending(met => book.FirstMet(learner.StudentId, met.Of))
            .ThenBy(met => met.Standing.Stage)
            .ThenBy(met => met.Of.PostureId)
            .ThenBy(met => met.Of.Side)
            .Select(met => AsDone(learner, met.Of))
            .OfType<HomePosture>()
            .Select(posture => Slowly(HomeKind.Newest, [posture], NewestTimes))
            .FirstOrDefault();

    private sealed record Corrected(HomeThing Thing, string Focus);

    private Corrected? MostImportant(Learner learner, ProgressBook book, HomeSheet? last)
    {
        var open = book.CorrectionsOf(learner.StudentId)
            .Where(its => its.Correction.IsOpen)
            .OrderByDescending(its => its.Correction.Weight)
            .ThenByDescending(its => its.Correction.Stuck)
            .ThenBy(its => its.Correction.Since)
            .ThenBy(its => its.Of.PostureId)
            .ThenBy(its => its.Of.Side)
            .ToList();
        var habits = Habit.Of(
            open.Select(its => (its.Of, its.Correction, faults.Find(its.Of, its.Correction.FaultId)?.PrincipleId))
        );
        var broken = Broken(learner, book).Select(principle => principle.Id).ToHashSet();
        var before = last?.Things.FirstOrDefault(thing => thing.Kind == HomeKind.Correction);
        return open.Select(its => (Its: its, Postures: AsDone(learner, its.Of)))
            .Where(its => its.Postures.Count > 0)
            // What they are at work on stays, unless something heavier has come up.
            .OrderByDescending(its => its.Its.Correction.Weight)
            .ThenByDescending(its =>
                before is not null
                && before.Correction == its.Its.Correction.Key
                && before.Postures.SequenceEqual(its.Postures)
            )
            .Select(its => Correct(its.Its.Of, its.Its.Correction, its.Postures, habits, broken))
            .FirstOrDefault();
    }

    private Corrected Correct(
        UnitKey of,
        Correction correction,
        IReadOnlyList<HomePosture> done,
        IReadOnlyList<Habit> habits,
        HashSet<Guid> broken
    )
    {
        var fault = faults.Find(of, correction.FaultId);
        var causes = fault?.Causes ?? [];
        var gone = correction.Tried.Select(way => way.Cause).ToHashSet();
        // The cause the teachers have gone into last, or else the first that is mended without anybody else.
        var alone = causes.Where(cause => IsMendedAlone(cause.Mend)).ToList();
        var mend = (alone.FindLast(cause => gone.Contains(cause.Why)) ?? alone.FirstOrDefault())?.Mend ?? "";
        var habit = habits.FirstOrDefault(habit =>
            habit.Where.Any(its => its.Of == of && its.Correction.Key == correction.Key)
        );
        var its = habit?.PrincipleId ?? (fault?.PrincipleId is { } said && broken.Contains(said) ? said : null);
        var principle = its is { } id ? principles.GetValueOrDefault(id) : null;
        return new(
            Slowly(HomeKind.Correction, done, CorrectionTimes) with
            {
                Seen = correction.Words,
                Mend = mend,
                Correction = correction.Key,
            },
            principle?.Text.KeyPoint ?? (mend.Length > 0 ? mend : KeyPoint(done[^1]))
        );
    }

    /// <summary>The principles there is a correction against, the heaviest first.</summary>
    private IReadOnlyList<Principle> Broken(Learner learner, ProgressBook book) =>
        [
            .. book.AgainstPrinciples(learner.StudentId)
                .Where(its => its.Correction.IsOpen)
                .OrderByDescending(its => its.Correction.Weight)
                .ThenBy(its => its.Correction.Since)
                .ThenBy(its => its.PrincipleId)
                .Select(its => principles.GetValueOrDefault(its.PrincipleId))
                .OfType<Principle>(),
        ];

    /// <summary>At home there is no partner and no teacher.</summary>
    private static bool IsMendedAlone(string mend) =>
        !mend.Contains("partner", StringComparison.OrdinalIgnoreCase)
        && !mend.Contains("teacher", StringComparison.OrdinalIgnoreCase)
        && !mend.Contains("somebody", StringComparison.OrdinalIgnoreCase);

    /// <summary>A run of a form they can do without anybody to copy: what has not been touched for longest, as much of it as
    /// there is time for.</summary>
    private HomeThing? RunThrough(Learner learner, ProgressBook book, HomeSheet? last)
    {
        var best = forms
            .SelectMany(form => Runs(form, learner, book))
            .OrderByDescending(run => run.Fading)
            .ThenByDescending(run => run.Postures.Count)
            .ThenByDescending(run => run.Untouched)
            .FirstOrDefault();
        if (best is null)
        {
            return null;
        }

        var before = last?.Things.FirstOrDefault(thing => thing.Kind == HomeKind.Flow);
        var stays =
            before is not null
            && best.Fading <= before.Postures.Count(posture => book.StandingOf(learner.StudentId, posture.Of).Fading)
            && before.Postures.All(posture =>
                CanDo(learner, book, posture.Of) && AsDone(learner, posture.Of) == posture
            );
        return stays ? before : new(HomeKind.Flow, best.Postures, 1, Minutes(best.Postures, 1, Pace.Smooth));
    }

    /// <param name="Fading">How many of its postures are.</param>
    /// <param name="Untouched">Greater the longer one of them has not been touched.</param>
    private sealed record Run(IReadOnlyList<HomePosture> Postures, int Fading, int Untouched);

    /// <summary>From each place on as far as they can go, within the minutes of a run-through.</summary>
    private IEnumerable<Run> Runs(Form form, Learner learner, ProgressBook book)
    {
        var able = form
            .Positions.Select(position => new PostureSide(position.PostureId, position.Side))
            .Select(of => CanDo(learner, book, of) ? AsDone(learner, of) : null)
            .ToList();
        for (var from = 0; from < able.Count; from++)
        {
            List<HomePosture> run = [];
            var positions = 0;
            for (var at = from; at < able.Count && able[at] is { } posture; at++)
            {
                List<HomePosture> more = [.. Enumerable.Repeat(posture, form.Positions[at].Repeats)];
                if (Minutes([.. run, .. more], 1, Pace.Smooth) > MostMinutesOfRun)
                {
                    break;
                }

                run.AddRange(more);
                positions++;
            }

            if (positions >= ShortestRun)
            {
                var standings = run.Select(posture => book.StandingOf(learner.StudentId, posture.Of)).ToList();
                yield return new(
                    run,
                    standings.Count(standing => standing.Fading),
                    -standings.Min(standing => standing.Touched?.DayNumber ?? 0)
                );
            }
        }
    }

    private static bool CanDo(Learner learner, ProgressBook book, PostureSide of) =>
        book.StandingOf(learner.StudentId, of).Stage >= Stage.Alone;

    private List<HomePosture> AsDone(Learner learner, UnitKey of)
    {
        List<PostureSide> all =
        [
            .. of.From() is { } from ? [from] : Array.Empty<PostureSide>(),
            new(of.PostureId, of.Side),
        ];
        var done = all.Select(posture => AsDone(learner, posture)).OfType<HomePosture>().ToList();
        return done.Count == all.Count ? done : [];
    }

    /// <returns>Null where there is no written way of doing it that is right for them.</returns>
    private HomePosture? AsDone(Learner learner, PostureSide of) =>
        outlines.TryGetValue(of.PostureId, out var outline)
        && learner.Does(of, outline) is var (mode, words)
        && Counts(of.PostureId, mode) > 0
            ? new(of.PostureId, of.Side, mode) { Words = words }
            : null;

    private int Counts(Guid posture, Mode mode) =>
        postures.TryGetValue(posture, out var found) ? found.CountsFor(mode)?.Count ?? 0 : 0;

    private HomeThing Slowly(HomeKind kind, IReadOnlyList<HomePosture> done, int times)
    {
        while (times > 2 && Minutes(done, times, Pace.CuesOnly) > MostMinutesOfOne)
        {
            times--;
        }

        return new(kind, done, times, Minutes(done, times, Pace.CuesOnly));
    }

    private int Minutes(IReadOnlyList<HomePosture> done, int times, int secondsACount) =>
        ((done.Sum(posture => Counts(posture.PostureId, posture.Mode)) * times * secondsACount) + 59) / 60;

    private string KeyPoint(HomePosture done)
    {
        var posture = postures[done.PostureId];
        return posture.On(done.Side, posture.KeyPoint);
    }

    private string Occasion(Learner learner, IReadOnlyList<HomeThing?> byWeight, HomeSheet? last)
    {
        var trains = byWeight
            .OfType<HomeThing>()
            .Take(1)
            .SelectMany(thing => thing.Postures)
            .Distinct()
            .SelectMany(Trains)
            .CountBy(training => training)
            .OrderByDescending(training => training.Value)
            .Select(training => training.Key)
            .ToList();
        var suiting = occasions.Suiting(learner.Mode, learner.Limits, trains).ToList();
        if (suiting.Find(occasion => occasion.Id == last?.Occasion) is { } same)
        {
            return same.Id;
        }

        // Of what trains the same, not everybody gets the same: people tell one another.
        var best = suiting.Where(occasion => occasion.Trains == suiting[0].Trains).ToList();
        return best.Count == 0 ? "" : best[learner.StudentId.ToByteArray()[^1] % best.Count].Id;
    }

    private IEnumerable<Training> Trains(HomePosture done) =>
        PostureBody.Of(postures[done.PostureId], done.Side, done.Mode, Conventions.Default, Physique.Standard)
            is { } walk
            ? TrainedBy.Of(walk)
            : [Training.StandingStill];
}
