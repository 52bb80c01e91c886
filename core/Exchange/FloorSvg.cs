using System.Globalization;
using System.Text;
using Zeitplan.Core.Forms.Floor;

namespace Zeitplan.Core.Exchange;

/// <summary>The floor map of a form as an SVG picture (domain.md 7), true to scale: one unit of the picture is a
/// centimetre.</summary>
public static class FloorSvg
{
    private const string Ink = "#20262A";
    private const string Pine = "#1D5B4E";
    private const string Ochre = "#A86A12";
    private const string Board = "#F1E9D6";
    private const string Gap = "#E0D5BC";
    private const double Margin = 30;

    /// <summary>The outline of a sole in a box 24 wide and 40 long, toes up.</summary>
    private const string Sole =
        "M12 1C17 1 20 5 20 11C20 16 17.6 18 17.6 23C17.6 27 19 29 19 33C19 37 16.5 39 12.5 39C8.5 39 6.5 36.5 6.5 32.5C6.5 28 7.6 25 6.6 20C5.6 16 4 14 4 10C4 5 7 1 12 1Z";

    /// <param name="labels">For every position of the walk what is written at its feet: its number, or nothing.</param>
    public static string Of(string title, FloorWalk walk, IReadOnlyList<string?> labels, double footMetres)
    {
        var need = FloorNeed.Of(walk, footMetres).Reach;
        var (width, height) = ((need.Width * 100) + (2 * Margin), (need.Depth * 100) + (2 * Margin));
        var svg = new StringBuilder();
        Add(
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {width:0.#} {height:0.#}\" width=\"{width:0.#}\" height=\"{height:0.#}\" font-family=\"sans-serif\" font-size=\"12\">"
        );
        Add($"<title>{Escape(title)}</title>");
        Add($"<rect width=\"{width:0.#}\" height=\"{height:0.#}\" fill=\"{Board}\"/>");
        for (var x = 26.0; x < width; x += 26)
        {
            Add($"<path d=\"M{x:0.#} 0V{height:0.#}\" stroke=\"{Gap}\"/>");
        }

        Add(
            $"<rect x=\"{Margin:0.#}\" y=\"{Margin:0.#}\" width=\"{need.Width * 100:0.#}\" height=\"{need.Depth * 100:0.#}\" fill=\"none\" stroke=\"{Ochre}\" stroke-width=\"2\" stroke-dasharray=\"6 5\"/>"
        );
        Add(
            $"<text x=\"{Margin:0.#}\" y=\"{height - 10:0.#}\" fill=\"{Ochre}\">{Escape(title)}: {need.Width:0.0} × {need.Depth:0.0} m with reach; the front is at the top</text>"
        );
        Add(
            $"<path d=\"{string.Join(' ', walk.Stands.Select((stand, at) => $"{(at == 0 ? "M" : "L")}{Place(stand.Middle)}"))}\" fill=\"none\" stroke=\"{Pine}\" stroke-dasharray=\"2 4\"/>"
        );
        foreach (var position in walk.Beats.GroupBy(beat => beat.At))
        {
            var end = position.Last().After;
            Foot(end.Left);
            Foot(end.Right);
            if (labels[position.Key] is { } label)
            {
                Add(
                    $"<text x=\"{X(end.Middle):0.#}\" y=\"{Y(end.Middle) - 14:0.#}\" fill=\"{Ink}\" text-anchor=\"middle\" font-weight=\"bold\">{Escape(label)}</text>"
                );
            }
        }

        Add($"</svg>");
        return svg.ToString();

        void Add(FormattableString text) => svg.Append(text.ToString(CultureInfo.InvariantCulture)).Append('\n');

        double X(Point point) => (point.Right * footMetres * 100) - (need.Left * 100) + Margin;

        double Y(Point point) => (need.Front * 100) - (point.Ahead * footMetres * 100) + Margin;

        string Place(Point point) => FormattableString.Invariant($"{X(point):0.#} {Y(point):0.#}");

        // The heel, about which a foot is placed, lies at (12.5, 33) of the outline.
        void Foot(Forms.Floor.Sole sole) =>
            Add(
                $"<path d=\"{Sole}\" transform=\"translate({X(sole.Heel):0.##} {Y(sole.Heel):0.##}) rotate({sole.Toes}) scale({footMetres * 100 / 40:0.###}) translate(-12.5 -33)\" fill=\"{Pine}\" fill-opacity=\"{sole.Load / 100.0:0.##}\" stroke=\"{Pine}\" stroke-width=\"1.6\"/>"
            );
    }

    private static string Escape(string text) => System.Security.SecurityElement.Escape(text);
}
