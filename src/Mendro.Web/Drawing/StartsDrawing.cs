using System.Globalization;
using Mendro.Core.Proving;

namespace Mendro.Web.Drawing;

/// <summary>A run of starts between its two lines: failures over starts; under the lower line it is accepted, over the upper one refused.</summary>
internal static class StartsDrawing
{
    private const double Left = 44;
    private const double Top = 14;
    private const double Wide = 620;
    private const double High = 250;

    /// <summary>Draws it.</summary>
    public static string Draw(StartsUnderWay run)
    {
        var test = run.Limits;
        var slope = -test.PerSuccess / (test.PerFailure - test.PerSuccess);
        double Line(double bound, double starts) => bound / (test.PerFailure - test.PerSuccess) + slope * starts;
        var most = Math.Max(20, Math.Ceiling((run.Starts.Count + Math.Max(run.ToAccept, 4)) / 10.0) * 10);
        var high = Math.Max(3, Math.Ceiling(Math.Max(Line(test.RefuseAbove, most), run.Failures + 1)));
        double X(double starts) => Left + starts / most * Wide;
        double Y(double failures) => Top + High - failures / high * High;
        var svg = new Svg(Left + Wide + 16, Top + High + 44, $"{run.Failures} failures in {run.Starts.Count} starts, {Words(run.Decision)}");
        var from = -test.AcceptBelow / (test.PerFailure - test.PerSuccess) / slope;
        svg.Path($"M{At(X(from))} {At(Y(0))}L{At(X(most))} {At(Y(Line(test.AcceptBelow, most)))}V{At(Y(0))}Z", "sr-accept");
        var (left, right) = (Math.Min(high, Line(test.RefuseAbove, 0)), Math.Min(high, Line(test.RefuseAbove, most)));
        svg.Path($"M{At(X(0))} {At(Y(left))}L{At(X(most))} {At(Y(right))}V{At(Y(high))}H{At(X(0))}Z", "sr-refuse");
        svg.Path($"M{At(X(0))} {At(Y(0))}H{At(X(most))}M{At(X(0))} {At(Y(0))}V{At(Y(high))}", "sr-axis");
        for (var n = 0; n <= most; n += most > 60 ? 20 : 5)
            svg.Text(X(n), Y(0) + 18, n.ToString(CultureInfo.InvariantCulture), "sr-word");
        for (var n = 0; n <= high; n++)
            svg.Text(Left - 8, Y(n) + 5, n.ToString(CultureInfo.InvariantCulture), "sr-word", "end");
        svg.Text(X(most), Y(0) + 38, "starts", "sr-word", "end");
        svg.Text(Left + 6, Top + 12, "failed: refused up here", "sr-word", "start");
        svg.Text(X(most) - 6, Y(0) - 8, "accepted down here", "sr-word", "end");
        var path = $"M{At(X(0))} {At(Y(0))}";
        var failures = 0;
        for (var n = 0; n < run.Starts.Count; n++)
        {
            failures += run.Starts[n].Works ? 0 : 1;
            path += $"L{At(X(n + 1))} {At(Y(failures))}";
        }

        if (run.Starts.Count > 0)
        {
            svg.Path(path, "sr-run");
            svg.Dot(X(run.Starts.Count), Y(failures), 5, "sr-now");
        }

        return svg.ToString();
    }

    /// <summary>A decision in words.</summary>
    public static string Words(SequentialDecision decision) =>
        decision switch
        {
            SequentialDecision.Accept => "accepted: it is cured",
            SequentialDecision.Refuse => "refused: it is not cured",
            _ => "not decided yet",
        };

    private static string At(double value) => Svg.At(value);
}
