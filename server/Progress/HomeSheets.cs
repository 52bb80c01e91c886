using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Zeitplan.Core.Forms;
using Zeitplan.Core.People;
using Zeitplan.Core.Progress;
using Zeitplan.Server.Data;
using Zeitplan.Server.Forms;

namespace Zeitplan.Server.Progress;

/// <summary>The sheets for home of a class, as they are today.</summary>
/// <param name="Of">By student; null where there is nothing to practise.</param>
/// <param name="Last">What they were handed last.</param>
/// <param name="Occasions">The school's moments of the day.</param>
internal sealed record HomeSheets(
    ProgressBooks.Loaded Facts,
    Material Material,
    IReadOnlyDictionary<Guid, HomeSheet?> Of,
    IReadOnlyDictionary<Guid, HomeSheetGiven> Last,
    IReadOnlyList<HouseholdOccasion> Occasions
)
{
    public static async Task<HomeSheets> LoadAsync(
        AskedClass asked,
        IReadOnlyList<Cohort> cohorts,
        CancellationToken cancel
    )
    {
        var db = asked.Db;
        var facts = await ProgressBooks.LoadAsync(
            db,
            [.. cohorts.Select(cohort => cohort.Id)],
            asked.Today,
            cancel,
            before: asked.Today.AddDays(1)
        );
        var material = await Material.LoadAsync(db, cancel);
        var occasions = (await db.Schools.Select(school => school.Teaching).SingleAsync(cancel)).Occasions;
        var practice = new HomePractice(
            material.Postures,
            facts.Facts.Syllabus.Outlines,
            await db.Forms.AsNoTracking().OrderBy(form => form.Name).ToListAsync(cancel),
            new(material.Postures, material.Links),
            await db.Principles.AsNoTracking().ToDictionaryAsync(principle => principle.Id, cancel),
            occasions
        );
        var learners = await ProgressBooks.LearnersAsync(db, facts, cancel);
        var ids = facts.Students.Select(student => student.Id).ToList();
        var last = (
            await db.HomeSheets.AsNoTracking().Where(given => ids.Contains(given.StudentId)).ToListAsync(cancel)
        )
            .GroupBy(given => given.StudentId)
            .ToDictionary(given => given.Key, given => given.MaxBy(sheet => (sheet.At, sheet.Id))!);
        return new(
            facts,
            material,
            facts.Students.ToDictionary(
                student => student.Id,
                student => practice.For(learners[student.Id], facts.Book, last.GetValueOrDefault(student.Id)?.Sheet)
            ),
            last,
            occasions
        );
    }

    /// <summary>What a sheet says, in one word.</summary>
    public static string Says(HomeSheet sheet) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(Json.Write(sheet))))[..16];
}
