using System.IO.Compression;
using System.Xml;

namespace Zeitplan.Server.People;

/// <summary>The sheets of an OpenDocument spreadsheet (ISO 26300), as they are shown: what formulas have come to, nothing
/// of what scripts would do.</summary>
internal static class OdsRows
{
    private const string Table = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private const string Office = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private const string Text = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";

    /// <summary>Spreadsheets say that a million empty cells follow; nobody fills so many.</summary>
    private const int MostRepeated = 1000;

    private static readonly XmlReaderSettings Settings = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        IgnoreComments = true,
        IgnoreWhitespace = false,
        XmlResolver = null,
    };

    /// <param name="wanted">The sheet's name; null for the first that is shown.</param>
    /// <param name="most">Rows that say anything, at most.</param>
    public static (List<string> Sheets, string? Sheet, List<(int Row, List<string> Cells)> Rows) Read(
        ZipArchive archive,
        string? wanted,
        int most
    )
    {
        using var content = XmlReader.Create(
            (archive.GetEntry("content.xml") ?? throw new InvalidDataException("no content")).Open(),
            Settings
        );
        HashSet<string> hidden = [];
        List<string> sheets = [];
        string? sheet = null;
        List<(int, List<string>)> rows = [];
        var style = "";
        while (content.Read())
        {
            if (content.NodeType != XmlNodeType.Element)
            {
                continue;
            }

            switch (content.LocalName)
            {
                case "style" when content.GetAttribute("family", content.NamespaceURI) == "table":
                    style = content.GetAttribute("name", content.NamespaceURI) ?? "";
                    break;
                case "table-properties" when content.GetAttribute("display", Table) == "false":
                    hidden.Add(style);
                    break;
                case "table" when content.NamespaceURI == Table:
                    if (hidden.Contains(content.GetAttribute("style-name", Table) ?? ""))
                    {
                        break;
                    }

                    var name = content.GetAttribute("name", Table) ?? "";
                    sheets.Add(name);
                    if (sheet is null && (wanted is null || wanted == name))
                    {
                        sheet = name;
                        rows = RowsOf(content.ReadSubtree(), most);
                    }

                    break;
            }
        }

        return (sheets, sheet, rows);
    }

    private static List<(int, List<string>)> RowsOf(XmlReader table, int most)
    {
        List<(int, List<string>)> rows = [];
        var row = 1;
        table.Read();
        while (rows.Count < most && table.Read())
        {
            if (table.NodeType != XmlNodeType.Element || table.LocalName != "table-row")
            {
                continue;
            }

            var times = Times(table, "number-rows-repeated");
            var cells = CellsOf(table.ReadSubtree());
            if (cells.Count > 0)
            {
                foreach (var again in Enumerable.Range(0, Math.Min(times, Math.Min(MostRepeated, most - rows.Count))))
                {
                    rows.Add((row + again, cells));
                }
            }

            row += times;
        }

        return rows;
    }

    /// <summary>Without the empty cells at the end.</summary>
    private static List<string> CellsOf(XmlReader row)
    {
        List<string> cells = [];
        var empty = 0;
        while (row.Read())
        {
            if (
                row.NodeType != XmlNodeType.Element
                || row.LocalName is not ("table-cell" or "covered-table-cell")
                || row.NamespaceURI != Table
            )
            {
                continue;
            }

            var times = Times(row, "number-columns-repeated");
            var said = CellOf(row);
            if (said.Length == 0)
            {
                empty += times;
                continue;
            }

            if (empty > MostRepeated)
            {
                break;
            }

            cells.AddRange(Enumerable.Repeat("", empty));
            empty = 0;
            cells.AddRange(Enumerable.Repeat(said, Math.Min(times, MostRepeated)));
        }

        return cells;
    }

    private static string CellOf(XmlReader cell)
    {
        var value = cell.GetAttribute("value-type", Office) switch
        {
            "date" => cell.GetAttribute("date-value", Office)?.Split('T')[0],
            "float" or "currency" or "percentage" => cell.GetAttribute("value", Office),
            "boolean" => cell.GetAttribute("boolean-value", Office) == "true" ? "yes" : "no",
            _ => null,
        };
        if (value is not null || cell.IsEmptyElement)
        {
            return value ?? "";
        }

        using var inside = cell.ReadSubtree();
        List<string> lines = [];
        while (inside.Read())
        {
            if (inside.NodeType == XmlNodeType.Element && inside.LocalName == "annotation")
            {
                inside.Skip();
            }

            if (inside.NodeType == XmlNodeType.Element && inside.LocalName == "p" && inside.NamespaceURI == Text)
            {
                using var line = inside.ReadSubtree();
                lines.Add(TextOf(line));
            }
        }

        return string.Join(' ', lines).Trim();
    }

    private static string TextOf(XmlReader line)
    {
        var said = new System.Text.StringBuilder();
        while (line.Read())
        {
            if (line.NodeType is XmlNodeType.Text or XmlNodeType.SignificantWhitespace or XmlNodeType.Whitespace)
            {
                said.Append(line.Value);
            }
            else if (line.NodeType == XmlNodeType.Element && line.LocalName is "s" or "tab" or "line-break")
            {
                said.Append(' ');
            }
        }

        return said.ToString();
    }

    private static int Times(XmlReader reader, string attribute) =>
        int.TryParse(reader.GetAttribute(attribute, Table), out var times) && times > 0 ? times : 1;
}
