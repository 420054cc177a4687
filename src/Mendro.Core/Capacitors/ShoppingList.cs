using System.Globalization;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Capacitors;

/// <summary>A line of a shopping list.</summary>
/// <param name="Part">What goes in.</param>
/// <param name="Positions">Where, board by board: <c>Main board: C38 C43</c>.</param>
/// <param name="Needed">Needed for all units.</param>
/// <param name="Spares">More, for what is lost.</param>
/// <param name="InStock">There already.</param>
public sealed record ShoppingLine(CapacitorPart Part, IReadOnlyList<string> Positions, int Needed, int Spares, int InStock)
{
    /// <summary>To be bought.</summary>
    public int ToBuy => Math.Max(0, Needed + Spares - InStock);
}

/// <summary>What a kit lacks for a position.</summary>
/// <param name="Position">Position.</param>
/// <param name="Reason">Why: missing, wrong volts, too tall …</param>
public sealed record KitGap(RecapPosition Position, string Reason);

/// <summary>What to buy for one or several units of one revision.</summary>
public static class ShoppingList
{
    /// <summary>How sure one wants to be that the spares are enough.</summary>
    public const double Sure = 0.95;

    /// <summary>
    /// Fewest spares so that with the wanted certainty enough parts stay good: each is lost with the same chance, independently, so
    /// that losses among all bought are binomial.
    /// </summary>
    /// <param name="needed">Parts that must be good at the end.</param>
    /// <param name="lossChance">Chance that one is lost or spoilt, 0 to below 1.</param>
    /// <param name="sure">Certainty, 0 to below 1.</param>
    public static int Spares(int needed, double lossChance, double sure = Sure)
    {
        for (var spares = 0; ; spares++)
        {
            var (all, enough, term) = (needed + spares, 0.0, Math.Pow(1 - lossChance, needed + spares));
            for (var lost = 0; lost <= spares; lost++)
            {
                enough += term;
                term *= (all - lost) / (lost + 1.0) * lossChance / (1 - lossChance);
            }

            if (needed == 0 || enough >= sure || spares >= needed + 10)
                return spares;
        }
    }

    /// <summary>Makes the list.</summary>
    /// <param name="chosen">Part of each position.</param>
    /// <param name="units">Units of the same revision.</param>
    /// <param name="lossChance">Chance that a part is lost or spoilt.</param>
    /// <param name="drawer">What the shop has.</param>
    public static IReadOnlyList<ShoppingLine> Make(
        IReadOnlyList<(RecapPosition Position, CapacitorPart Part)> chosen,
        int units,
        double lossChance,
        IReadOnlyList<CapacitorPart> drawer
    ) =>
        chosen
            .GroupBy(c => Specification(c.Part))
            .Select(g =>
            {
                var part = g.First().Part;
                var needed = g.Count() * units;
                return new ShoppingLine(
                    part,
                    g.GroupBy(c => c.Position.Board.Name).Select(b => $"{b.Key}: {string.Join(" ", b.Select(c => c.Position.Capacitor.Refdes))}").ToList(),
                    needed,
                    Spares(needed, lossChance),
                    drawer.Where(d => Specification(d) == Specification(part)).Sum(d => d.Count ?? 0)
                );
            })
            .OrderBy(l => l.Part.Farads)
            .ThenBy(l => l.Part.Volts)
            .ToList();

    /// <summary>The list as CSV; an ordered kit can come back in the same columns.</summary>
    public static string Csv(IReadOnlyList<ShoppingLine> lines) =>
        CsvTable.Write(
            ["value", "volts", "diameter", "height", "mount", "polar", "celsius", "count", "needed", "spares", "stock", "positions"],
            lines.Select(l =>
                (IReadOnlyList<string>)
                    [
                        CapacitorPart.Value(l.Part.Farads).Replace(" ", "", StringComparison.Ordinal),
                        N(l.Part.Volts),
                        N(l.Part.DiameterMm),
                        N(l.Part.HeightMm),
                        l.Part.Mount,
                        l.Part.Polar ? "yes" : "no",
                        N(l.Part.Celsius),
                        N(l.ToBuy),
                        N(l.Needed),
                        N(l.Spares),
                        N(l.InStock),
                        SpreadsheetText.Write(string.Join("; ", l.Positions)),
                    ]
            )
        );

    /// <summary>Checks a kit against the positions it is for: each takes the part that fits it best, tightest positions first.</summary>
    /// <param name="positions">Positions, of one unit.</param>
    /// <param name="kit">Kit.</param>
    public static IReadOnlyList<KitGap> Check(IReadOnlyList<RecapPosition> positions, IReadOnlyList<CapacitorPart> kit)
    {
        var left = kit.ToDictionary(k => k.Id, k => k.Count ?? int.MaxValue);
        var gaps = new List<KitGap>();
        foreach (var position in positions.OrderBy(p => CapacitorMatch.Rank(p.Capacitor, kit).Count).ThenByDescending(p => p.Capacitor.Volts))
        {
            var low = Clearance(position);
            var fitting = CapacitorMatch.Rank(position.Capacitor, kit);
            var standing = fitting.Where(m => Math.Min(m.Part.HeightMm, m.Part.LeadMm > 0 ? m.Part.DiameterMm : m.Part.HeightMm) <= low).ToList();
            if (standing.FirstOrDefault(m => left[m.Part.Id] > 0) is { } taken)
                left[taken.Part.Id]--;
            else
                gaps.Add(new KitGap(position, Why(position, kit, fitting.Count > 0, standing.Count > 0, low)));
        }

        return gaps.OrderBy(g => positions.ToList().IndexOf(g.Position)).ToList();
    }

    private static double Clearance(RecapPosition position) =>
        position.Capacitor.Pads is not { } pads
            ? double.PositiveInfinity
            : BoardClearance.Over(position.Board, [new((pads.Plus[0] + pads.Minus[0]) / 2, (pads.Plus[1] + pads.Minus[1]) / 2)]);

    private static string Why(RecapPosition position, IReadOnlyList<CapacitorPart> kit, bool fits, bool standing, double low)
    {
        if (fits)
            return standing ? "missing: too few of it" : FormattableString.Invariant($"too tall: {low:0.##} mm there");
        var near = kit.Select(k => CapacitorMatch.Judge(position.Capacitor, k))
            .FirstOrDefault(m => position.Capacitor.Farads is not { } f || CapacitorMatch.HasValue(m.Part, f));
        return near is null ? "missing"
            : near.Problem!.Contains(" V", StringComparison.Ordinal) ? $"wrong volts: {near.Problem}"
            : near.Problem!;
    }

    private static (double, double, double, double, string, bool) Specification(CapacitorPart part) =>
        (Math.Round(part.Farads * 1e12), part.Volts, part.DiameterMm, part.HeightMm, part.Mount, part.Polar);

    private static string N(double value) => value.ToString("0.####", CultureInfo.InvariantCulture);
}
