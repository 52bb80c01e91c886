using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;
using CsvHelper;
using MiniExcelLibs;
using MiniExcelLibs.OpenXml;
using Zeitplan.Core.Exchange;

namespace Zeitplan.Server.People;

/// <summary>A spreadsheet as rows: a text file in whatever encoding and with whatever separator, or a file of a
/// spreadsheet program (XLSX, ODS). Of those the values are read, what formulas have come to included; macros are not
/// looked at, and hidden sheets not shown.</summary>
/// <param name="Sheets">Those that can be seen; none for a text file.</param>
/// <param name="Sheet">The one that was read.</param>
internal sealed record RosterFile(IReadOnlyList<string> Sheets, string? Sheet, RosterSheet Rows)
{
    /// <summary>Unpacked; more than that nobody's roster has.</summary>
    private const long MostUnpacked = 256 * 1024 * 1024;

    /// <summary>The titles, the header, as many lines as can be taken, and one that shows there are more.</summary>
    private const int MostRows = RosterImport.MostLines + 22;

    private static readonly byte[] Zip = "PK\u0003\u0004"u8.ToArray();
    private static readonly byte[] OldOrLocked = [0xD0, 0xCF, 0x11, 0xE0];

    static RosterFile() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <param name="sheet">Of a file with several; null for the first that is shown.</param>
    /// <exception cref="RosterUnreadableException">It is no spreadsheet, it is empty, or a quote is never
    /// closed.</exception>
    public static RosterFile Read(byte[] bytes, string? sheet = null)
    {
        var file =
            bytes.AsSpan().StartsWith(Zip) ? ReadPacked(bytes, sheet)
            : bytes.AsSpan().StartsWith(OldOrLocked)
                ? throw new RosterUnreadableException(
                    1,
                    "This file is locked with a password, or of an old kind (.xls). Save it as .xlsx, .ods or CSV without a password."
                )
            : new([], null, new(ReadText(bytes)));
        return file.Rows.Lines.Count == 0 ? throw new RosterUnreadableException(1, "The file is empty.") : file;
    }

    private static RosterFile ReadPacked(byte[] bytes, string? sheet)
    {
        try
        {
            using var archive = new ZipArchive(new MemoryStream(bytes));
            if (archive.Entries.Sum(entry => entry.Length) > MostUnpacked)
            {
                throw new RosterUnreadableException(1, "Unpacked, this file is larger than any roster.");
            }

            if (archive.GetEntry("content.xml") is not null)
            {
                var (sheets, read, rows) = OdsRows.Read(archive, sheet, MostRows);
                return new(sheets, read, new([.. rows.Select(row => new RosterLine(row.Row, row.Cells))]));
            }

            return archive.GetEntry("xl/workbook.xml") is not null
                ? ReadXlsx(bytes, sheet)
                : throw new RosterUnreadableException(
                    1,
                    "This is no spreadsheet. Choose a file saved as .xlsx, .ods or CSV."
                );
        }
        catch (Exception exception)
            when (exception is InvalidDataException or XmlException or FormatException or KeyNotFoundException)
        {
            throw new RosterUnreadableException(
                1,
                "This spreadsheet is damaged and cannot be read. Save it once more."
            );
        }
    }

    private static RosterFile ReadXlsx(byte[] bytes, string? sheet)
    {
        using var stream = new MemoryStream(bytes);
        List<string> sheets =
        [
            .. stream.GetSheetInformations().Where(its => its.State == SheetState.Visible).Select(its => its.Name),
        ];
        var read = sheets.Find(name => sheet is null || name == sheet);
        if (read is null)
        {
            return new(sheets, null, new([]));
        }

        List<RosterLine> lines = [];
        foreach (
            var (at, row) in stream
                .Query(useHeaderRow: false, sheetName: read)
                .Cast<IDictionary<string, object?>>()
                .Index()
        )
        {
            List<string> cells = [.. row.Values.Select(Said)];
            if (cells.Any(cell => cell.Length > 0))
            {
                lines.Add(new(at + 1, cells));
            }

            if (lines.Count == MostRows)
            {
                break;
            }
        }

        return new(sheets, read, new(lines));
    }

    private static string Said(object? value) =>
        value switch
        {
            null => "",
            DateTime { TimeOfDay.Ticks: 0 } day => $"{day:yyyy-MM-dd}",
            DateTime moment => $"{moment:yyyy-MM-dd HH:mm}",
            bool yes => yes ? "yes" : "no",
            IFormattable number => number.ToString(null, CultureInfo.InvariantCulture).Trim(),
            _ => $"{value}".Trim(),
        };

    private static List<RosterLine> ReadText(byte[] bytes)
    {
        var text = Decode(bytes);
        if (text.Contains('\0', StringComparison.Ordinal))
        {
            throw new RosterUnreadableException(
                1,
                "This is no spreadsheet. Choose a file saved as .xlsx, .ods or CSV."
            );
        }

        // Some spreadsheets say on the first line which separator follows.
        var said =
            text.StartsWith("sep=", StringComparison.OrdinalIgnoreCase) && text.Length > 4 ? text[4] : (char?)null;
        var rest = said is null ? text : text[(text.IndexOf('\n', StringComparison.Ordinal) + 1)..];
        var skipped = said is null ? 0 : 1;
        try
        {
            using var reader = CsvReader.Create(
                new StringReader(rest),
                new()
                {
                    Separator = said,
                    HasHeader = false,
                    TrackLineNumbers = true,
                    SkipEmptyLines = true,
                    MalformedData = CsvMalformedDataHandling.Throw,
                }
            );
            List<RosterLine> lines = [];
            while (lines.Count < MostRows && reader.Read())
            {
                var cells = Enumerable
                    .Range(0, reader.FieldCount)
                    .Select(at => Unescape(reader.GetString(at)))
                    .ToList();
                if (cells.Any(cell => cell.Trim().Length > 0))
                {
                    lines.Add(new((int)reader.LineNumber + skipped, cells));
                }
            }

            return lines;
        }
        catch (CsvFormatException malformed)
        {
            throw new RosterUnreadableException(
                (int)Math.Max(1, malformed.LineNumber) + skipped,
                "A quote is opened and not closed again, or stands where none belongs."
            );
        }
    }

    /// <summary>An apostrophe that keeps a spreadsheet from taking a cell for a formula does not belong to
    /// it.</summary>
    private static string Unescape(string cell) => cell is ['\'', '=' or '+' or '-' or '@', ..] ? cell[1..] : cell;

    /// <summary>By its byte-order mark; else UTF-8 where the bytes are; else as Western European spreadsheets
    /// write.</summary>
    private static string Decode(byte[] bytes)
    {
        foreach (var marked in new[] { Encoding.UTF8, Encoding.Unicode, Encoding.BigEndianUnicode })
        {
            if (bytes.AsSpan().StartsWith(marked.Preamble))
            {
                return marked.GetString(bytes.AsSpan(marked.Preamble.Length));
            }
        }

        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            return Encoding.GetEncoding(1252).GetString(bytes);
        }
    }
}

/// <summary>A file that cannot be read as rows at all.</summary>
internal sealed class RosterUnreadableException(int line, string message) : Exception(message)
{
    public int Line => line;
}
