using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>A package or a connector with one leg or contact lit, from above and, mirrored, from below.</summary>
public static class PinDrawing
{
    private const double Wide = 300;
    private const double High = 258;
    private const double Leg = 14;

    /// <summary>A package.</summary>
    /// <param name="layout">Package.</param>
    /// <param name="number">Leg that is meant.</param>
    /// <param name="below">True to draw it from below.</param>
    public static string Package(PinLayout layout, int number, bool below)
    {
        var name = below ? "from below, mirrored" : "from above";
        var svg = new Svg(Wide, High, $"Leg {number} of {layout.Pins}, {name}: {layout.Words(number, below)}");
        var (x, y, w, h) = layout.Shape switch
        {
            PackageShape.Dual => (100.0, 20.0, 100.0, 200.0),
            PackageShape.Quad => (70.0, 40.0, 160.0, 160.0),
            _ => (30.0, 80.0, 240.0, 50.0),
        };
        double Mirror(double at) => below ? Wide - at : at;
        svg.Box(x, y, w, h, "pin-body", 3);
        // The mark: a notch on two rows, a dot at the corner of the others; seen from below it is only a thought.
        if (layout.Shape == PackageShape.Dual)
            svg.Path($"M{Svg.At(x + w / 2 - 12)} {Svg.At(y)}a12 12 0 0 0 24 0", below ? "pin-mark hidden-side" : "pin-mark");
        svg.Dot(Mirror(x + 14), layout.Shape == PackageShape.Row ? y + h - 12 : y + 14, 4, below ? "pin-mark hidden-side" : "pin-mark");
        var side = layout.Of(1).OnSide;
        var thick = Math.Clamp((layout.Shape == PackageShape.Row ? w : h) / side * 0.55, 1.2, 9);
        for (var pin = 1; pin <= layout.Pins; pin++)
        {
            var at = layout.Of(pin);
            var upright = at.Side is "top" or "bottom";
            var (px, py) = (Mirror(x + at.X * w), y + at.Y * h);
            var (dx, dy) = at.Side switch
            {
                "left" => (below ? Leg / 2 : -Leg / 2, 0.0),
                "right" => (below ? -Leg / 2 : Leg / 2, 0.0),
                "top" => (0.0, -Leg / 2),
                _ => (0.0, Leg / 2),
            };
            var (bw, bh) = upright ? (thick, Leg) : (Leg, thick);
            svg.Box(px + dx - bw / 2, py + dy - bh / 2, bw, bh, pin == number ? "pin lit" : "pin");
            if (pin != number && pin != 1 && pin != layout.Pins)
                continue;
            var out_ = Leg + 10;
            var (tx, ty) = (px + Math.Sign(dx) * out_, py + (dy == 0 ? 4 : Math.Sign(dy) * out_ + 4));
            svg.Text(tx, ty, $"{pin}", pin == number ? "pin-number lit" : "pin-number", dx < 0 ? "end" : dx > 0 ? "start" : "middle");
        }

        return svg.Text(Wide / 2, High - 4, name, "pin-name").ToString();
    }

    /// <summary>A connector, row by row.</summary>
    /// <param name="connector">Connector.</param>
    /// <param name="number">Contact that is meant.</param>
    /// <param name="below">True to draw it from the solder side.</param>
    public static string Rows(Connector connector, int number, bool below)
    {
        var longest = connector.Rows.Max(r => r.Lines.Count);
        var pitch = Math.Clamp((Wide - 40) / longest, 4, 18);
        var name = below ? "from the solder side, mirrored" : "from the plug side";
        var svg = new Svg(Wide, 60 + 60 * connector.Rows.Count, $"Contact {number}, {name}");
        for (var r = 0; r < connector.Rows.Count; r++)
        {
            var y = 20 + 60.0 * r;
            foreach (var contact in connector.Rows[r].Contacts)
            {
                var x = 20 + contact.Place * pitch;
                if (below)
                    x = Wide - x - pitch * 0.6;
                var lit = contact.Number == number;
                svg.Box(x, y, pitch * 0.6, 26, lit ? "pin lit" : "pin");
                if (lit || contact.Place == 0 || contact.Place == longest - 1)
                    svg.Text(x + pitch * 0.3, y + 40, $"{contact.Number}", lit ? "pin-number lit" : "pin-number");
            }
        }

        return svg.Text(Wide / 2, 52 + 60 * connector.Rows.Count, name, "pin-name").ToString();
    }
}
