using Microsoft.AspNetCore.Http.HttpResults;
using Zeitplan.Core.Exchange;
using Zeitplan.Core.People;
using Zeitplan.Server.Data;
using Zeitplan.Server.School;
using Zeitplan.Server.Web;

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
        return CsvTable.Of(
            "roster.csv",
            Exported.Select(RosterColumns.Header),
            school
                .Students.Where(student => student is { Left: null, Erased: null })
                .OrderBy(student => student.GivenName)
                .ThenBy(student => student.FamilyName)
                .Select(RowOf)
        );

        string[] RowOf(Student student)
        {
            var cohort = student.CohortIds.Length > 0 ? cohorts.GetValueOrDefault(student.CohortIds[0]) : null;
            return
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
            ];
        }
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
}
