using System.Globalization;
using Mendro.Core.Electrical;

namespace Mendro.Core.Readings;

/// <summary>What is left in a save cell by its voltage. The cell holds its volts nearly to the end, so this is rough.</summary>
public static class SaveCellWords
{
    /// <summary>State and rough remaining life.</summary>
    public static string Of(double volts, SaveCellLimits limits) =>
        volts switch
        {
            _ when volts < 0.3 => "Nothing left, or no contact.",
            _ when volts < limits.Replace => "Flat: replace it.",
            _ when volts < limits.Doubtful => "Doubtful: it may lose the save any day; replace it now.",
            // A new cell shows its fresh volts and a little more; the running console feeds the same line.
            _ when volts > limits.Fresh + 0.2 => "More than such a cell gives: is the unit on and feeding it? Measure with it off.",
            _ => string.Create(
                CultureInfo.InvariantCulture,
                $"{(volts >= limits.Good ? "Good" : "Ageing")}: at 2 µA roughly {YearsLeft(volts, limits):0.#} years left."
            ),
        };

    /// <summary>
    /// Years left of 225 mAh at 2 µA: straight from nothing at the replace mark over a tenth at the doubtful mark and
    /// three quarters at 3.0 V to full (value from memory, discharge curve of a lithium coin cell; capped by ten years of shelf life).
    /// </summary>
    public static double YearsLeft(double volts, SaveCellLimits limits)
    {
        (double Volts, double Left)[] curve = [(limits.Replace, 0), (limits.Doubtful, 0.1), (limits.Good, 0.75), (limits.Fresh, 1)];
        var left = volts <= curve[0].Volts ? 0.0 : 1.0;
        for (var n = 1; n < curve.Length; n++)
        {
            if (volts <= curve[n - 1].Volts || volts > curve[n].Volts)
                continue;
            left =
                curve[n - 1].Left
                + (volts - curve[n - 1].Volts) / (curve[n].Volts - curve[n - 1].Volts) * (curve[n].Left - curve[n - 1].Left);
        }

        return Math.Min(10, left * SaveCellLife.Years(225, 2));
    }
}
