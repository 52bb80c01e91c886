using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Lessons;

/// <summary>Whether what is said of a lesson is about what there is: its people, its material, its day.</summary>
internal static class RegisterChecks
{
    public static async Task<IEnumerable<Problem>> PrinciplesAsync(
        SchoolContext db,
        IReadOnlyList<Guid?> named,
        CancellationToken cancel
    )
    {
        var ids = named.OfType<Guid>().Distinct().ToList();
        var known =
            ids.Count == 0
                ? []
                : await db
                    .Principles.Where(principle => ids.Contains(principle.Id))
                    .Select(principle => principle.Id)
                    .ToListAsync(cancel);
        return named
            .Index()
            .Where(mark => mark.Item is { } id && !known.Contains(id))
            .Select(mark => new Problem($"marks[{mark.Index}].principleId", "The school has no such principle."));
    }

    /// <summary>What was watched is there to be watched, and its fault is known.</summary>
    public static async Task<IReadOnlyList<Problem>> AboutAsync(
        IReadOnlyList<(PostureSide Of, PostureSide? From, Guid? FaultId)> marks,
        SchoolContext db,
        CancellationToken cancel
    )
    {
        var postures = await PosturesAsync(
            db,
            marks.SelectMany(mark => new[] { mark.Of.PostureId, mark.From?.PostureId ?? mark.Of.PostureId }),
            cancel
        );
        var faults = new KnownFaults(
            postures,
            marks.Any(mark => mark is { From: not null, FaultId: not null })
                ? await db.Links.AsNoTracking().ToListAsync(cancel)
                : []
        );
        return
        [
            .. marks
                .Index()
                .Where(mark => !IsThere(mark.Item.Of))
                .Select(mark => new Problem(
                    $"marks[{mark.Index}].postureId",
                    "The school has no such posture on this side."
                )),
            .. marks
                .Index()
                .Where(mark => mark.Item.From is { } from && !IsThere(from))
                .Select(mark => new Problem(
                    $"marks[{mark.Index}].from",
                    "A link leads on from a posture of the school."
                )),
            .. marks
                .Index()
                .Where(mark =>
                    mark.Item.FaultId is { } fault
                    && IsThere(mark.Item.Of)
                    && faults.Find(KeyOf(mark.Item.Of, mark.Item.From), fault) is null
                )
                .Select(mark => new Problem(
                    $"marks[{mark.Index}].faultId",
                    mark.Item.From is null
                        ? "This is no known fault of the posture."
                        : "This is no known fault of the link."
                )),
        ];

        static UnitKey KeyOf(PostureSide of, PostureSide? from) =>
            new(from is null ? UnitKind.Posture : UnitKind.Link, of.PostureId, of.Side, from?.PostureId, from?.Side);
        bool IsThere(PostureSide of) => postures.TryGetValue(of.PostureId, out var posture) && posture.HasSide(of.Side);
    }

    public static Task<List<Guid>> CohortsAsync(SchoolContext db, Guid classId, CancellationToken cancel) =>
        db.Cohorts.Where(cohort => cohort.ClassId == classId).Select(cohort => cohort.Id).ToListAsync(cancel);

    private static async Task<Dictionary<Guid, Posture>> PosturesAsync(
        SchoolContext db,
        IEnumerable<Guid> named,
        CancellationToken cancel
    )
    {
        var ids = named.Distinct().ToList();
        return await db
            .Postures.AsNoTracking()
            .Where(posture => ids.Contains(posture.Id))
            .ToDictionaryAsync(posture => posture.Id, cancel);
    }

    /// <summary>Whoever was in the class on the day, or is by now, and whoever joins it for once: a late mark may be about
    /// somebody who has moved.</summary>
    public static async Task<IEnumerable<Problem>> StudentsAsync(
        AskedLesson asked,
        IEnumerable<Guid> students,
        CancellationToken cancel
    )
    {
        var cohorts = await CohortsAsync(asked.Db, asked.ClassId, cancel);
        var joining = JoiningTonight.Of(await JoiningTonight.LoadAsync(asked, cancel));
        var named = students.ToList();
        var known = await asked
            .Db.Students.AsNoTracking()
            .Where(student => named.Contains(student.Id) && student.Erased == null)
            .Select(student => new
            {
                student.Id,
                student.CohortIds,
                student.Places,
            })
            .ToListAsync(cancel);
        var there = known
            .Where(student =>
                joining.ContainsKey(student.Id)
                || student.CohortIds.Concat(Place.On(student.Places, asked.Date)).Any(cohorts.Contains)
            )
            .Select(student => student.Id)
            .ToHashSet();
        return named
            .Index()
            .Where(student => !there.Contains(student.Item))
            .Select(student => new Problem($"marks[{student.Index}].studentId", "This student is not in the class."));
    }

    public static IEnumerable<Problem> Held(AskedLesson asked) =>
        asked.Date > asked.Today ? [new("date", "This lesson has not been held yet.")] : [];
}
