using System.Globalization;
using System.Net;
using Zeitplan.Core.Forms.Body;
using Zeitplan.Core.Forms.Figures;

namespace Zeitplan.Core.Exchange;

/// <summary>A figure as an SVG picture of its own, with what it shows in words.</summary>
public static class FigureSvg
{
    public static string Write(FigurePicture picture, string title) =>
        string.Concat([
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{picture.Box}\" role=\"img\"><title>{WebUtility.HtmlEncode(title)}</title>",
            .. picture.Shapes.Select(shape =>
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"<path d=\"{shape.Path}\" fill=\"{shape.Fill}\" stroke=\"{shape.Edge}\" stroke-width=\"{shape.EdgeWidth}\"/>"
                )
            ),
            "</svg>\n",
        ]);
}
