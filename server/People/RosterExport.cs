using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;

namespace Zeitplan.Server.People;

/// <summary>The roster as a table for any spreadsheet, and for our own import. Limits never travel: they are
/// private.</summary>
internal static class RosterExport
{
    public static void Map(ByRank api) => api.Head.MapGet("/students.csv", Export).WithName("exportRoster");

    private static async Task<FileContentHttpResult> Export(SchoolContext db, CancellationToken cancel)
    {
        var school = await RosterEndpoints.SchoolAsync(db, DateOnly.MaxValue, cancel);
        var (sashes, cohorts) = (
            school.Sashes.ToDictionary(sash => sash.Id),
            school.Cohorts.ToDictionary(cohort => cohort.Id)
        );
        using var file = new MemoryStream();
        using (
            var csv = CsvWriter.Create(
                file,
                new() { WriteByteOrderMark = true, Injection = CsvInjection.Escape },
                leaveOpen: true
            )
        )
        {
            Write(csv, Exported.Select(RosterColumns.Header));
            foreach (
                var student in school
                    .Students.Where(student => student is { Left: null, Erased: null })
                    .OrderBy(student => student.GivenName)
                    .ThenBy(student => student.FamilyName)
            )
            {
                var cohort = student.CohortIds.Length > 0 ? cohorts.GetValueOrDefault(student.CohortIds[0]) : null;
                Write(
                    csv,
                    [
                        student.GivenName,
                        student.FamilyName,
                        sashes[student.SashId].Name,
                        student.Half == Half.None ? "" : student.Half.ToString().ToLowerInvariant(),
                        cohort is null ? "" : school.Classes[cohort.ClassId],
                        cohort?.Name ?? "",
                        $"{student.Joined:yyyy-MM-dd}",
                        $"{student.SashSince:yyyy-MM-dd}",
                        student.Details.Mode.Name,
                        Aims[student.Details.Aim],
                        student.Details.Scope,
                        student.Details.ContactName,
                        student.Details.ContactPhone,
                        .. Enum.GetValues<Consent>()
                            .Select(consent => student.Details.Consents.Contains(consent) ? "yes" : "no"),
                    ]
                );
            }
        }

        return TypedResults.File(file.ToArray(), "text/csv; charset=utf-8", "roster.csv");
    }

    private static readonly Dictionary<Aim, string> Aims = new()
    {
        [Aim.Health] = "health",
        [Aim.TheArt] = "the art",
        [Aim.PartnerWork] = "partner work",
    };

    private static readonly RosterField[] Exported =
    [
        RosterField.GivenName,
        RosterField.FamilyName,
        RosterField.Sash,
        RosterField.Half,
        RosterField.Class,
        RosterField.Cohort,
        RosterField.Joined,
        RosterField.SashSince,
        RosterField.Mode,
        RosterField.Aim,
        RosterField.Scope,
        RosterField.ContactName,
        RosterField.ContactPhone,
        RosterField.HandsOn,
        RosterField.PartnerWork,
        RosterField.Recording,
        RosterField.Messages,
    ];

    private static void Write(CsvWriter csv, IEnumerable<string> cells)
    {
        foreach (var cell in cells)
        {
            csv.WriteField(cell);
        }

        csv.EndRecord();
    }
}
