using Zeitplan.Arranger;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Lessons;

/// <summary>The arrangement of a lesson as it is read: who does what when, who looks at whom, who is there besides.</summary>
internal static class ArrangementView
{
    /// <param name="Minutes">How long the lesson lasts.</param>
    /// <param name="Begins">The minute at which the cohorts' own work begins.</param>
    /// <param name="Ends">The minute at which it is over.</param>
    /// <param name="Gap">How much better another arrangement could be at most, as a part of this one; 0 where it is proven
    /// best.</param>
    /// <param name="MeetsNeedsBest">It is proven that nobody can be led or looked at better, whatever else could be.</param>
    /// <param name="Looks">Who looks at whom in which block.</param>
    /// <param name="Unseen">Whoever has to be seen tonight and finds no look.</param>
    /// <param name="MissingMinutes">How many minutes of watching would see them.</param>
    /// <param name="Focus">The name of the principle the lesson is about above all; null where it is about none.</param>
    /// <param name="Joining">Who is with a cohort tonight that is not theirs.</param>
    /// <param name="BeforeClass">Who makes up for what before class.</param>
    /// <param name="Version">Of what has been done by hand; null while nothing has.</param>
    public sealed record Response(
        int Minutes,
        int Begins,
        int Ends,
        IReadOnlyList<Lane> Cohorts,
        IReadOnlyList<Teacher> Teachers,
        IReadOnlyList<BlockOf> Blocks,
        IReadOnlyList<Shortfall> Shortfalls,
        double Gap,
        bool MeetsNeedsBest,
        IReadOnlyList<LookAt> Looks,
        IReadOnlyList<LookAt> Unseen,
        int MissingMinutes,
        string? Focus,
        IReadOnlyList<Joined> Joining,
        IReadOnlyList<MakingUp.Booked> BeforeClass,
        IReadOnlyList<LessonEdit> Edits,
        uint? Version
    );

    /// <param name="Mode">The common name of the mode they take part in; null where nobody has said, of a visitor.</param>
    public sealed record Joined(Guid Who, string Name, Guid CohortId, string? Mode, bool NeverAlone);

    /// <param name="Start">The minute the block of it begins at; null where there is none.</param>
    /// <param name="Days">Since they were last observed; null for never.</param>
    public sealed record LookAt(
        int? Start,
        int? End,
        Guid? TeacherId,
        Guid CohortId,
        Guid StudentId,
        string Student,
        Guid PostureId,
        Side Side,
        string Posture,
        WatchReason Reason,
        int? Days
    );

    public sealed record Lane(Guid Id, string Name, int People, bool NeverAlone, string Practises);

    public sealed record Teacher(Guid Id, string Name, bool IsAssistant, IReadOnlyList<Guid> MayLead);

    /// <param name="CohortId">Null for what holds everybody.</param>
    /// <param name="Task">By which it is moved; null for own practice, visits and what the whole class does.</param>
    /// <param name="Fixed">A hand has fixed its minute or its teacher.</param>
    /// <param name="Pieces">Of a warm-up, in their order; nothing else has any.</param>
    /// <param name="Pairs">Who works with whom; null for whatever is no partner block.</param>
    public sealed record BlockOf(
        int Start,
        int End,
        Guid? CohortId,
        BlockKind Kind,
        string What,
        Guid? LedBy,
        IReadOnlyList<Guid> With,
        string Because,
        string? Task,
        bool Fixed,
        IReadOnlyList<PostureSide> Material,
        IReadOnlyList<WarmUpPart> Pieces,
        PairsTonight.Pairs? Pairs
    );

    /// <param name="kept">What has been done by hand; null while nothing has.</param>
    public static async Task<Response> OfAsync(
        AskedLesson asked,
        ToArrange toArrange,
        KeptArrangement? kept,
        Arrangement arrangement,
        CancellationToken cancel
    )
    {
        var now = toArrange.Problem.With(kept?.Edits ?? []);
        var looks = Looks.Of(
            now,
            arrangement,
            await PeopleThere.LoadAsync(asked, toArrange, now, cancel),
            toArrange.Facts.Book,
            toArrange.Facts.Today
        );
        var students = toArrange.Known.Students.ToDictionary(student => student.Id, student => student.ShortName);
        var joining = (kept?.Edits ?? []).Joining();
        var pairs = await PairsTonight.LoadAsync(asked, toArrange, arrangement, joining, cancel);
        return new(
            now.Minutes,
            now.Begins,
            now.Ends,
            [
                .. now.Cohorts.Select(cohort => new Lane(
                    cohort.Id,
                    cohort.Name,
                    cohort.People,
                    cohort.NeverAlone,
                    cohort.Practises
                )),
            ],
            [
                .. now.Teachers.Select(teacher => new Teacher(
                    teacher.Id,
                    teacher.Name,
                    !teacher.LeadsEverything,
                    [.. now.Cohorts.Where(teacher.MayLead).Select(cohort => cohort.Id)]
                )),
            ],
            [
                .. arrangement.Blocks.Select(block => new BlockOf(
                    block.Start,
                    block.End,
                    block.CohortId,
                    block.Kind,
                    block.What,
                    block.LedBy,
                    block.With,
                    block.Because,
                    block.Task,
                    now.Pins.Any(pin => pin.Key == block.Task),
                    block.Material,
                    PiecesOf(block, toArrange.WarmUp),
                    block.Task is { } task ? pairs.GetValueOrDefault(task) : null
                )),
            ],
            arrangement.Shortfalls,
            arrangement.Gap,
            arrangement.MeetsNeedsBest,
            [
                .. looks.All.Select(look =>
                    Show(look.At) with
                    {
                        Start = look.Start,
                        End = look.End,
                        TeacherId = look.TeacherId,
                    }
                ),
            ],
            [.. looks.Unseen.Select(Show)],
            looks.MissingMinutes(now.Rules),
            kept?.Edits.FocusOf()?.Name,
            [.. joining.Select(ShowJoining).OfType<Joined>()],
            await MakingUp.LoadAsync(asked, kept?.Edits ?? [], cancel),
            kept?.Edits ?? [],
            kept?.Version
        );

        Joined? ShowJoining(LessonEdit.Joins joins) =>
            now.Cohorts.All(cohort => cohort.Id != joins.CohortId) ? null
            : joins.IsVisitor ? new(joins.Who, joins.Name, joins.CohortId!.Value, null, joins.NeverAlone)
            : students.TryGetValue(joins.Who, out var name)
                ? new(
                    joins.Who,
                    name,
                    joins.CohortId!.Value,
                    toArrange.Known.Book.UsualOf(joins.Who).Name,
                    joins.NeverAlone
                )
            : null;

        LookAt Show(Watched at) =>
            new(
                null,
                null,
                null,
                toArrange.Known.Cohorts[at.StudentId],
                at.StudentId,
                students[at.StudentId],
                at.Of.PostureId,
                at.Of.Side,
                toArrange.Outlines[at.Of.PostureId].NameOn(at.Of.Side),
                at.Reason,
                at.Days
            );
    }

    /// <summary>What a lesson was arranged with before the school changed its warm-up is not told by the new one.</summary>
    private static IReadOnlyList<WarmUpPart> PiecesOf(ArrangedBlock block, IReadOnlyList<WarmUpPiece> pieces) =>
        block.Kind == BlockKind.WarmUp && block.What == WarmUp.Say(pieces)
            ? WarmUp.Within(pieces, block.Start, block.End)
            : [];
}
