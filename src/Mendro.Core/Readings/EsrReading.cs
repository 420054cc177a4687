using System.Text.RegularExpressions;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>A capacitor read with its series resistance in one entry: <c>22u ESR 3.1</c>, <c>98 µF, ESR 0.4 Ω</c>.</summary>
public static partial class EsrReading
{
    [GeneratedRegex(@"^(?<value>.+?)[\s,;/]+esr[\s:=]*(?<ohms>\d.*)$", RegexOptions.IgnoreCase)]
    private static partial Regex Pattern();

    /// <summary>Takes the series resistance off the end of what was typed.</summary>
    /// <returns>The rest and the resistance, ohms; null when none was told.</returns>
    public static (string Value, double Ohms)? Split(string text) =>
        Pattern().Match(text.Trim()) is { Success: true } told
        && ReadingParser.Parse(told.Groups["ohms"].Value, ReadingUnit.Ohms) is { IsOk: true, Value: { Unit: ReadingUnit.Ohms, Value: { } ohms } }
            ? (told.Groups["value"].Value, ohms)
            : null;
}
