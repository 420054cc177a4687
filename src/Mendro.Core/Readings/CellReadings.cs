using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>Cells of a pack measured one by one: <c>3.9 / 3.6</c>.</summary>
public static class CellReadings
{
    /// <summary>Volts of each cell, or null when the text is not a list of exactly so many readings.</summary>
    /// <param name="text">What was typed, with a slash or plus between cells.</param>
    /// <param name="cells">Cells of the pack, 2 or more.</param>
    public static IReadOnlyList<double>? Parse(string text, int cells)
    {
        var pieces = text.Split(['/', '+'], StringSplitOptions.TrimEntries);
        if (cells < 2 || pieces.Length != cells)
            return null;
        var volts = pieces.Select(p => QuantityText.Parse(p, "V")).ToList();
        return volts.All(v => v is not null) ? volts.Select(v => v!.Value).ToList() : null;
    }
}
