using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;

namespace Zeitplan.Server.Progress;

/// <summary>
/// What was seen over the years is kept in memory once it has been read, and so is what follows from it while the day
/// lasts. Facts are only ever added: as many of somebody as there were are the same ones, and only of those about whom there
/// are more is anything read and reckoned again.
/// </summary>
internal sealed class SeenBefore : IDisposable
{
    /// <summary>Observations of all schools together; what has not been asked for longest goes first.</summary>
    private const int MostKept = 150_000;

    private readonly MemoryCache kept = new(new MemoryCacheOptions { SizeLimit = MostKept });

    /// <param name="Corrections">Every one, cleared ones too, as it stands on the day asked about.</param>
    public sealed record Seen(
        IReadOnlyList<(UnitKey Of, Correction Correction)> Corrections,
        IReadOnlyList<Looked> Looked
    );

    /// <summary>That somebody was watched in something.</summary>
    /// <param name="Days">The last first, and as many as it takes to know in which cohorts.</param>
    public sealed record Looked(Guid StudentId, UnitKey Of, IReadOnlyList<DateOnly> Days);

    /// <summary>Of so many people, of all schools together.</summary>
    public int People => kept.Count;

    /// <summary>How many facts there are of somebody, and what else decides which of them are read.</summary>
    private readonly record struct Extent(int Observed, int Withdrawn, int Tried, bool HasMoved);

    /// <summary>What was read about somebody, and what followed from it on the day it was last asked for.</summary>
    /// <param name="observations">What makes up corrections: stages only where something was tried.</param>
    private sealed class Facts(
        Guid student,
        Extent extent,
        IReadOnlyList<Observation> observations,
        IReadOnlyList<WayTried> tried,
        IReadOnlyList<Looked> looked
    )
    {
        private sealed record Reckoned(DateOnly Today, Seen Seen);

        private Reckoned? last;

        public Extent Extent => extent;

        /// <summary>What is kept, in observations.</summary>
        public int Size => 1 + observations.Count;

        public Seen On(DateOnly today)
        {
            // Whoever reckons it at the same moment comes to the same.
            var reckoned = last;
            if (reckoned?.Today != today)
            {
                var book = new ProgressBook(
                    new Dictionary<Guid, IReadOnlyList<Place>> { [student] = [] },
                    [],
                    [],
                    observations,
                    today,
                    tried: tried
                );
                last = reckoned = new(today, new([.. book.CorrectionsOf(student)], looked));
            }

            return reckoned.Seen;
        }
    }

    /// <returns>For each of these students what was seen of them.</returns>
    public async Task<IReadOnlyDictionary<Guid, Seen>> OfAsync(
        SchoolContext db,
        SchoolDatabase school,
        IReadOnlyCollection<Student> students,
        DateOnly today,
        CancellationToken cancel
    )
    {
        // A database of the same name may be another one, such as after a restore.
        var database = await db
            .Database.SqlQuery<long>(
                $"""SELECT oid::bigint AS "Value" FROM pg_database WHERE datname = current_database()"""
            )
            .SingleAsync(cancel);
        var extents = await ExtentsAsync(db, students, cancel);
        Dictionary<Guid, Facts> facts = [];
        List<Student> changed = [];
        foreach (var student in students)
        {
            if (kept.TryGetValue((database, student.Id), out Facts? found) && found!.Extent == extents[student.Id])
            {
                facts[student.Id] = found;
            }
            else
            {
                changed.Add(student);
            }
        }

        if (changed.Count > 0)
        {
            foreach (var (id, its) in await ReadAsync(db, school, changed, extents, cancel))
            {
                facts[id] = its;
                kept.Set((database, id), its, new MemoryCacheEntryOptions { Size = its.Size });
            }
        }

        // Everybody's are reckoned by themselves: over the years that is most of the work.
        return facts
            .AsParallel()
            .Select(its => (its.Key, Seen: its.Value.On(today)))
            .ToDictionary(its => its.Key, its => its.Seen);
    }

    /// <summary>Counted before anything is read: what comes in between is read again the next time.</summary>
    private static async Task<Dictionary<Guid, Extent>> ExtentsAsync(
        SchoolContext db,
        IReadOnlyCollection<Student> students,
        CancellationToken cancel
    )
    {
        var ids = students.Select(student => student.Id).ToList();
        var observed = await Counted(db.Observations.Select(seen => seen.StudentId));
        var withdrawn = await Counted(
            db.Withdrawals.Join(
                db.Observations,
                withdrawal => withdrawal.ObservationId,
                seen => seen.Id,
                (_, seen) => seen.StudentId
            )
        );
        var tried = await Counted(db.WaysTried.Select(way => way.StudentId));
        return students.ToDictionary(
            student => student.Id,
            student => new Extent(
                observed.GetValueOrDefault(student.Id),
                withdrawn.GetValueOrDefault(student.Id),
                tried.GetValueOrDefault(student.Id),
                student.Places.Count > 1
            )
        );

        Task<Dictionary<Guid, int>> Counted(IQueryable<Guid> of) =>
            of.Where(id => ids.Contains(id))
                .GroupBy(id => id)
                .Select(same => new { same.Key, Count = same.Count() })
                .ToDictionaryAsync(same => same.Key, same => same.Count, cancel);
    }

    private static async Task<Dictionary<Guid, Facts>> ReadAsync(
        SchoolContext db,
        SchoolDatabase school,
        List<Student> students,
        Dictionary<Guid, Extent> extents,
        CancellationToken cancel
    )
    {
        var ids = students.Select(student => student.Id).ToList();
        // Whether a way helped hangs on all that was seen since.
        var whole = ids.Where(id => extents[id].Tried > 0).ToList();
        // All that was ever seen is gone through twice: at the same time, on a connection each.
        await using var beside = school.Open();
        var looking = LookedAsync(beside, ids, [.. ids.Where(id => extents[id].HasMoved)], cancel);
        var observing = db
            .StandingObservations.AsNoTracking()
            .Where(seen => ids.Contains(seen.StudentId))
            .Where(seen => seen.Sign != Sign.Stage || whole.Contains(seen.StudentId))
            .ToListAsync(cancel);
        await Task.WhenAll(looking, observing);
        var (looked, observed) = (
            (await looking).ToLookup(seen => seen.StudentId),
            (await observing).ToLookup(seen => seen.StudentId)
        );
        var tried = (
            await db.WaysTried.AsNoTracking().Where(way => whole.Contains(way.StudentId)).ToListAsync(cancel)
        ).ToLookup(way => way.StudentId);
        return ids.ToDictionary(
            id => id,
            id => new Facts(id, extents[id], [.. observed[id]], [.. tried[id]], [.. looked[id]])
        );
    }

    /// <summary>Without the observations themselves: most are stages, and make up no correction.</summary>
    private static async Task<List<Looked>> LookedAsync(
        SchoolContext db,
        List<Guid> students,
        HashSet<Guid> moved,
        CancellationToken cancel
    )
    {
        // All of them are gone through: what has been withdrawn is looked up once, and not for each.
        var seen = db.Observations.Where(seen =>
            seen.PrincipleId == null
            && students.Contains(seen.StudentId)
            && !db.Withdrawals.Select(withdrawal => withdrawal.ObservationId).Contains(seen.Id)
        );
        var all = await seen.GroupBy(seen => new
            {
                seen.StudentId,
                seen.PostureId,
                seen.Side,
                seen.FromId,
                seen.FromSide,
            })
            .Select(of => new
            {
                of.Key,
                First = of.Min(seen => seen.Date),
                Last = of.Max(seen => seen.Date),
            })
            .ToListAsync(cancel);
        // Whoever was always in one place was watched there.
        var between = (
            await seen.Where(seen => moved.Contains(seen.StudentId))
                .Select(seen => new
                {
                    seen.StudentId,
                    seen.PostureId,
                    seen.Side,
                    seen.FromId,
                    seen.FromSide,
                    seen.Date,
                })
                .Distinct()
                .ToListAsync(cancel)
        ).ToLookup(seen => (seen.StudentId, Observation.KeyOf(seen.PostureId, seen.Side, seen.FromId, seen.FromSide)));
        return
        [
            .. all.Select(its =>
            {
                var of = Observation.KeyOf(its.Key.PostureId, its.Key.Side, its.Key.FromId, its.Key.FromSide);
                return new Looked(
                    its.Key.StudentId,
                    of,
                    [its.Last, its.First, .. between[(its.Key.StudentId, of)].Select(seen => seen.Date)]
                );
            }),
        ];
    }

    public void Dispose() => kept.Dispose();
}
