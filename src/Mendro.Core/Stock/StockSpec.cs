using Mendro.Core.Capacitors;
using Mendro.Core.Profiles;

namespace Mendro.Core.Stock;

/// <summary>What a part in a bin is.</summary>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Sort">capacitor, resistor, or a kind in one's own words; blank for none.</param>
/// <param name="Value">Value in the SI unit of its sort: farads, ohms; null for none.</param>
/// <param name="Volts">Rated voltage, volts, or null.</param>
/// <param name="Watts">Rated power, watts, or null.</param>
/// <param name="Size">Size, such as 5x11 or 0805.</param>
/// <param name="Mount">through-hole, surface, or blank.</param>
/// <param name="Colour">Colour, or blank.</param>
/// <param name="Pins">Pin-out: parts with the same one stand in for each other; blank for none.</param>
/// <param name="Model">Model that it belongs to, by id; blank for any.</param>
/// <param name="Revision">Board revision; blank for any.</param>
public sealed record StockSpec(
    string Name,
    string Sort = "",
    double? Value = null,
    double? Volts = null,
    double? Watts = null,
    string Size = "",
    string Mount = "",
    string Colour = "",
    string Pins = "",
    string Model = "",
    string Revision = ""
)
{
    /// <summary>Sort whose values are farads.</summary>
    public const string Capacitor = "capacitor";

    /// <summary>Sort whose values are ohms.</summary>
    public const string Resistor = "resistor";

    /// <summary>Unit of its value, or null.</summary>
    public static string? UnitOf(string sort) => sort switch { Capacitor => "F", Resistor => "Ω", _ => null };
}

/// <summary>How a part stands in for another.</summary>
/// <param name="Fits">True when it may.</param>
/// <param name="Exact">True when it is the very part.</param>
/// <param name="Why">Why not, or what differs; blank for the very part.</param>
public sealed record Substitute(bool Fits, bool Exact, string Why)
{
    /// <summary>Furthest that a resistor may lie off, fraction: the tolerance of carbon film (common practice, no source).</summary>
    public const double ResistorTolerance = 0.05;

    /// <summary>
    /// Judges a part for another: capacitors by the rules of a capacitor job, resistors by value and power, others by name or by the same
    /// pin-out; never one of another model, revision or colour where that is asked.
    /// </summary>
    /// <param name="wanted">What is wanted.</param>
    /// <param name="has">What lies in the bin.</param>
    public static Substitute Judge(StockSpec wanted, StockSpec has)
    {
        if (wanted.Model.Length > 0 && has.Model.Length > 0 && wanted.Model != has.Model)
            return No("of another model");
        if (wanted.Revision.Length > 0 && has.Revision.Length > 0 && !Same(wanted.Revision, has.Revision))
            return No($"of revision {has.Revision}");
        if (wanted.Colour.Length > 0 && has.Colour.Length > 0 && !Same(wanted.Colour, has.Colour))
            return No($"{has.Colour} instead of {wanted.Colour}");
        if (wanted.Sort == StockSpec.Capacitor && has.Sort == StockSpec.Capacitor && wanted.Value is not null && has.Value is not null)
            return AsCapacitor(wanted, has);
        if (wanted.Sort == StockSpec.Resistor && has.Sort == StockSpec.Resistor && wanted.Value is not null && has.Value is not null)
            return AsResistor(wanted, has);
        if (Same(wanted.Name, has.Name))
            return new Substitute(true, true, "");
        return wanted.Pins.Length > 0 && Same(wanted.Pins, has.Pins) && Same(wanted.Sort, has.Sort)
            ? new Substitute(true, false, $"same pins, {has.Name}")
            : No("another part");
    }

    private static Substitute AsCapacitor(StockSpec wanted, StockSpec has)
    {
        var position = new BoardCapacitor("C", Farads: wanted.Value, Volts: wanted.Volts, Mount: wanted.Mount.Length > 0 ? wanted.Mount : null);
        var part = new CapacitorPart(has.Name, has.Value!.Value, has.Volts ?? 0, 1, 1, Mount: has.Mount.Length > 0 ? has.Mount : "through-hole");
        var match = CapacitorMatch.Judge(position, part);
        if (match.Problem is { } why)
            return No(why);
        var exact = match.Remarks.Count == 0 && (wanted.Volts is null || wanted.Volts == has.Volts) && Same(wanted.Size, has.Size);
        return new Substitute(true, exact, exact ? "" : match.Remarks.Count > 0 ? string.Join(", ", match.Remarks) : has.Name);
    }

    private static Substitute AsResistor(StockSpec wanted, StockSpec has)
    {
        if (Math.Abs(has.Value!.Value / wanted.Value!.Value - 1) > ResistorTolerance + 1e-9)
            return No("another value");
        if (has.Watts < wanted.Watts)
            return No(FormattableString.Invariant($"{has.Watts:0.###} W for {wanted.Watts:0.###} W"));
        var exact = has.Value == wanted.Value && has.Watts == wanted.Watts && Same(wanted.Size, has.Size);
        return new Substitute(true, exact, exact ? "" : has.Name);
    }

    private static Substitute No(string why) => new(false, false, why);

    private static bool Same(string one, string other) => string.Equals(one, other, StringComparison.OrdinalIgnoreCase);
}
