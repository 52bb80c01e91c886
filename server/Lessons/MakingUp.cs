using Microsoft.EntityFrameworkCore;
using Zeitplan.Core;
using Zeitplan.Core.Forms;
using Zeitplan.Core.Lessons.Arranging;
using Zeitplan.Core.People;

namespace Zeitplan.Server.Lessons;

/// <summary>Who makes up for what before a lesson begins, and with whom (domain.md 4.5).</summary>
internal static class MakingUp
{
    /// <param name="Minutes">They begin so long before class.</param>
    public sealed record Booked(
        Guid Id,
        IReadOnlyList<Guid> StudentIds,
        IReadOnlyList<string> Students,
        Guid PostureId,
        Side Side,
        PostureSide? From,
        string What,
        Guid TeacherId,
        string Teacher,
        int Minutes
    );

    /// <summary>What is booked anew is about somebody, something and a teacher the class has; what has been kept once
    /// stays.</summary>
    public static async Task<IReadOnlyList<Problem>> CheckAsync(
        AskedLesson asked,
        IReadOnlyList<LessonEdit> edits,
        IReadOnlyList<LessonEdit> kept,
        CancellationToken cancel
    )
    {
        var known = kept.OfType<LessonEdit.MakesUp>().ToList();
        var booked = edits
            .Index()
            .Where(edit => edit.Item is LessonEdit.MakesUp its && !known.Exists(its.SaysTheSame))
            .Select(edit => (edit.Index, MakesUp: (LessonEdit.MakesUp)edit.Item))
            .ToList();
        if (booked.Count == 0)
        {
            return [];
        }

        var cohorts = await asked
            .Db.Cohorts.Where(cohort => cohort.ClassId == asked.ClassId)
            .Select(cohort => cohort.Id)
            .ToListAsync(cancel);
        var students = (await asked.Db.StudentsIn(cohorts).AsNoTracking().ToListAsync(cancel))
            .Select(student => student.Id)
            .ToHashSet();
        var postures = await asked.Db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        var staff = await asked.Db.Staff.Select(member => member.Id).ToListAsync(cancel);
        List<Problem> problems = [];
        foreach (var (at, its) in booked)
        {
            Unless(its.Students.All(students.Contains), "students", "Somebody of them is not in the class.");
            Unless(
                Has(new(its.PostureId, its.Side)) && (its.From is not { } from || Has(from)),
                "postureId",
                "The school has no such posture on this side."
            );
            Unless(staff.Contains(its.TeacherId), "teacherId", "The school has no such teacher.");

            void Unless(bool holds, string field, string because)
            {
                if (!holds)
                {
                    problems.Add(new($"edits[{at}].{field}", because));
                }
            }
        }

        return problems;

        bool Has(PostureSide of) => postures.TryGetValue(of.PostureId, out var posture) && posture.HasSide(of.Side);
    }

    /// <summary>As it is read; whoever has been erased since is not told.</summary>
    public static async Task<IReadOnlyList<Booked>> LoadAsync(
        AskedLesson asked,
        IReadOnlyList<LessonEdit> edits,
        CancellationToken cancel
    )
    {
        var booked = edits.OfType<LessonEdit.MakesUp>().DistinctBy(its => its.Id).ToList();
        if (booked.Count == 0)
        {
            return [];
        }

        var named = booked.SelectMany(its => its.Students).ToList();
        var students = await asked
            .Db.Students.AsNoTracking()
            .Where(student => named.Contains(student.Id) && student.Erased == null)
            .ToDictionaryAsync(student => student.Id, cancel);
        var staff = await asked.Db.Staff.ToDictionaryAsync(member => member.Id, member => member.Name, cancel);
        var postures = await asked.Db.Postures.AsNoTracking().ToDictionaryAsync(posture => posture.Id, cancel);
        return
        [
            .. from its in booked
            let there = its.Students.Where(students.ContainsKey).ToList()
            where there.Count > 0
            select new Booked(
                its.Id,
                there,
                [.. there.Select(id => students[id].ShortName)],
                its.PostureId,
                its.Side,
                its.From,
                its.Of.NameWith(of => postures[of.PostureId].NameOn(of.Side)),
                its.TeacherId,
                staff.GetValueOrDefault(its.TeacherId, "somebody who left"),
                its.Minutes
            ),
        ];
    }
}
