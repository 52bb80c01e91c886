using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Progress;

/// <summary>Corrections as they are read: with what was tried about each, and what could be tried next.</summary>
internal sealed class CorrectionViews
{
    /// <summary>More at once is no proposal.</summary>
    private const int MostCauses = 2;

    private readonly IReadOnlyDictionary<Guid, Principle> principles;
    private readonly ILookup<Guid, Helpful> helpful;
    private readonly KnownFaults faults;

    private CorrectionViews(
        IReadOnlyDictionary<Guid, Posture> postures,
        IReadOnlyDictionary<Guid, Principle> principles,
        ILookup<Guid, Helpful> helpful,
        KnownFaults faults
    ) => (Postures, this.principles, this.helpful, this.faults) = (postures, principles, helpful, faults);

    public IReadOnlyDictionary<Guid, Posture> Postures { get; }

    /// <param name="PrincipleId">The principle it breaks; null for none in particular.</param>
    /// <param name="InRunThroughs">How often, of <paramref name="TimesSeen"/>, inside a run-through.</param>
    /// <param name="Causes">Why it may happen, with what mends it then.</param>
    /// <param name="Tried">What was done about it, oldest first.</param>
    /// <param name="Next">What could be tried now, the first best; empty where it is cleared.</param>
    public sealed record CorrectionResponse(
        Guid? FaultId,
        Guid? PrincipleId,
        string Words,
        Weight Weight,
        CorrectionState State,
        DateOnly Since,
        DateOnly LastSeen,
        int TimesSeen,
        int InRunThroughs,
        bool Stuck,
        IReadOnlyList<Cause> Causes,
        IReadOnlyList<string> OtherWays,
        IReadOnlyList<TriedResponse> Tried,
        IReadOnlyList<NextResponse> Next
    );

    /// <param name="Helped">Null while nobody has looked since, or it is too early to say.</param>
    public sealed record TriedResponse(Way Way, string Cause, DateOnly Date, bool? Helped);

    /// <param name="Cause">A cause nobody has gone into yet, with its mend; null for a way.</param>
    /// <param name="Helped">How many of <paramref name="Others"/> with this fault it helped; null where too few are
    /// known.</param>
    public sealed record NextResponse(Cause? Cause, Way? Way, int? Helped, int? Others);

    /// <param name="KeyPoint">What to teach instead of each fault by itself.</param>
    /// <param name="PostureId">Where it weighs most, with <paramref name="Side"/>.</param>
    public sealed record HabitResponse(
        Guid PrincipleId,
        string Principle,
        string KeyPoint,
        IReadOnlyList<string> Where,
        Guid PostureId,
        Side Side,
        Weight Weight
    );

    /// <summary>A correction against a principle: one, in whatever postures it is seen.</summary>
    /// <param name="KeyPoint">What is asked in every posture.</param>
    /// <param name="PostureId">Where it was seen first, with <paramref name="Side"/>.</param>
    public sealed record AgainstResponse(
        Guid PrincipleId,
        string Principle,
        string KeyPoint,
        Guid PostureId,
        Side Side,
        CorrectionResponse Correction
    );

    public static async Task<CorrectionViews> LoadAsync(
        ProgressBooks.Loaded facts,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var open = facts
            .Students.SelectMany(student => facts.Book.CorrectionsOf(student.Id))
            .Where(its => its.Correction is { IsOpen: true, FaultId: not null })
            .Select(its => its.Correction.FaultId!.Value)
            .Distinct()
            .ToList();
        var postures = await db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        return new(
            postures,
            await db.Principles.AsNoTracking().ToDictionaryAsync(principle => principle.Id, cancel),
            await ProgressBooks.HelpfulAsync(db, open, facts.Today, cancel),
            new(postures, await db.Links.AsNoTracking().ToListAsync(cancel))
        );
    }

    /// <summary>A posture on its side, or a link, by its name.</summary>
    public string NameOf(UnitKey of) => of.NameWith(its => Postures[its.PostureId].NameOn(its.Side));

    /// <summary>What was seen, as it is called: a principle, and in what.</summary>
    public string NameOf(Observation seen) =>
        seen.PrincipleId is { } id ? $"{principles[id].Text.Name}, in {NameOf(seen.Key)}" : NameOf(seen.Key);

    public CorrectionResponse Show(UnitKey of, Correction correction)
    {
        var fault = faults.Find(of, correction.FaultId);
        return Show(correction, fault?.PrincipleId, fault?.Causes ?? [], fault?.OtherWays ?? []);
    }

    private CorrectionResponse Show(
        Correction correction,
        Guid? principle,
        IReadOnlyList<Cause> causes,
        IReadOnlyList<string> otherWays
    ) =>
        new(
            correction.FaultId,
            principle,
            correction.Words,
            correction.Weight,
            correction.State,
            correction.Since,
            correction.LastSeen,
            correction.TimesSeen,
            correction.InRunThroughs,
            correction.Stuck,
            causes,
            otherWays,
            Tried(correction),
            correction.IsOpen ? Next(correction, causes) : []
        );

    public static IReadOnlyList<TriedResponse> Tried(Correction correction) =>
        [.. correction.Tried.Select(way => new TriedResponse(way.Way, way.Cause, way.Date, way.Helped))];

    /// <summary>What could be one correction each, and is not yet.</summary>
    public IReadOnlyList<HabitResponse> HabitsOf(Guid student, ProgressBook book)
    {
        var already = book.AgainstPrinciples(student)
            .Where(its => its.Correction.IsOpen)
            .Select(its => its.PrincipleId)
            .ToHashSet();
        return
        [
            .. Habit
                .Of(
                    book.CorrectionsOf(student)
                        .Select(its =>
                            (its.Of, its.Correction, faults.Find(its.Of, its.Correction.FaultId)?.PrincipleId)
                        )
                )
                .Where(habit => principles.ContainsKey(habit.PrincipleId) && !already.Contains(habit.PrincipleId))
                .Select(habit => new HabitResponse(
                    habit.PrincipleId,
                    principles[habit.PrincipleId].Text.Name,
                    principles[habit.PrincipleId].Text.KeyPoint,
                    [.. habit.Where.Select(its => $"{NameOf(its.Of)}: {its.Correction.Words}")],
                    habit.Where[0].Of.PostureId,
                    habit.Where[0].Of.Side,
                    habit.Where[0].Correction.Weight
                )),
        ];
    }

    /// <summary>The corrections against principles, the open ones first.</summary>
    public IReadOnlyList<AgainstResponse> AgainstOf(Guid student, ProgressBook book) =>
        [
            .. from its in book.AgainstPrinciples(student)
            let text = principles[its.PrincipleId].Text
            let seenIn = book.SeenIn(student, its.PrincipleId)
            orderby its.Correction.IsOpen descending, its.Correction.Weight descending, its.Correction.Since
            select new AgainstResponse(
                its.PrincipleId,
                text.Name,
                text.KeyPoint,
                seenIn.PostureId,
                seenIn.Side,
                Show(
                    its.Correction,
                    its.PrincipleId,
                    [.. text.Faults.SelectMany(fault => fault.Causes)],
                    [.. text.Faults.SelectMany(fault => fault.OtherWays)]
                )
            ),
        ];

    /// <summary>The next causes, and the next way. Before a correction is stuck, another way is worth a word only where it is
    /// known to help.</summary>
    private List<NextResponse> Next(Correction correction, IReadOnlyList<Cause> causes)
    {
        var steps = NextStep.With(correction, causes, correction.FaultId is { } known ? [.. helpful[known]] : []);
        return
        [
            .. steps
                .Where(step => step.Cause is not null)
                .Take(MostCauses)
                .Concat(
                    steps
                        .Where(step => step.Way is not null && (correction.Stuck || step.Others is { Helped: > 0 }))
                        .Take(1)
                )
                .Select(step => new NextResponse(step.Cause, step.Way, step.Others?.Helped, step.Others?.Tried)),
        ];
    }
}
