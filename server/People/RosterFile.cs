using System.Text;
using CsvHelper;
using Zeitplan.Core.Exchange;

namespace Zeitplan.Server.People;

/// <summary>A spreadsheet's text file as rows: whatever encoding and separator it was written with.</summary>
internal static class RosterFile
{
    static RosterFile() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <exception cref="RosterUnreadableException">It is no text, it is empty, or a quote is never closed.</exception>
    public static RosterTable Read(byte[] bytes)
    {
        var text = Decode(bytes);
        if (text.Contains('\0', StringComparison.Ordinal))
        {
            throw new RosterUnreadableException(1, "This is not a text file. In the spreadsheet, save it as CSV.");
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
            // The header, as many lines as can be taken, and one that shows there are more.
            while (lines.Count < RosterImport.MostLines + 2 && reader.Read())
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

            return lines.Count == 0
                ? throw new RosterUnreadableException(1, "The file is empty.")
                : new([.. lines[0].Cells.Select(cell => cell.Trim())], [.. lines.Skip(1)]);
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
