using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Zeitplan.Server.Web;

/// <summary>A table for any spreadsheet: none of its cells is taken for a formula there.</summary>
internal static class CsvTable
{
    /// <param name="marked">Whether it begins with a byte order mark, by which spreadsheets know its letters.</param>
    public static FileContentHttpResult Of(
        string fileName,
        IEnumerable<string> heads,
        IEnumerable<IEnumerable<string>> rows,
        bool marked = true
    )
    {
        using var file = new MemoryStream();
        using (
            var csv = CsvWriter.Create(
                file,
                new() { WriteByteOrderMark = marked, Injection = CsvInjection.Escape },
                leaveOpen: true
            )
        )
        {
            foreach (var row in rows.Prepend(heads))
            {
                foreach (var cell in row)
                {
                    csv.WriteField(cell);
                }

                csv.EndRecord();
            }
        }

        return TypedResults.File(file.ToArray(), "text/csv; charset=utf-8", fileName);
    }
}
