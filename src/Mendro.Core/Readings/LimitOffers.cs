using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Readings;

/// <summary>What good units say of the limits of a probe.</summary>
/// <param name="Probe">The probe with the limits it is judged by now: its own, or those of a rule of the trade.</param>
/// <param name="Good">What the good units show.</param>
/// <param name="Low">Lowest good value by the rule of spreads, SI base unit.</param>
/// <param name="High">Highest good value by the rule of spreads, SI base unit.</param>
/// <param name="Agree">True when at least three good units show it and all agree: then the limits may be taken over.</param>
/// <param name="Breaking">Good units that the limits of now call bad.</param>
public sealed record LimitOffer(
    Probe Probe,
    Signature Good,
    double Low,
    double High,
    bool Agree,
    IReadOnlyList<(string Unit, double Value)> Breaking
);

/// <summary>
/// Turns readings of good units into limits: the median, three spreads to either side (<see cref="Signature"/>). Offered, never
/// forced; limits that good units break are flagged (common practice, no source).
/// </summary>
public static class LimitOffers
{
    /// <summary>Good units that must agree before limits are offered.</summary>
    public const int FewestUnits = 3;

    // Limits of a rule leave room for any unit of the kind; only when the good units need far less are they worth a change.
    private const double WorthNarrowing = 0.5;

    /// <summary>Every probe of a model whose limits good units fill, narrow or break; broken ones first.</summary>
    /// <param name="profile">Profile.</param>
    /// <param name="readings">Readings of its good units, one a unit and probe.</param>
    public static IReadOnlyList<LimitOffer> For(DeviceProfile profile, IReadOnlyList<GoodReading> readings) =>
        profile
            .Probes.Where(p => p.Kind is ProbeKind.Volts or ProbeKind.Ohms or ProbeKind.Diode or ProbeKind.Current)
            .Select(p => Of(profile, p, readings.Where(r => r.Probe == p.Id.Value).ToList()))
            .OfType<LimitOffer>()
            .OrderByDescending(o => o.Breaking.Count > 0)
            .ThenByDescending(o => o.Agree)
            .ToList();

    private static LimitOffer? Of(DeviceProfile profile, Probe probe, List<GoodReading> readings)
    {
        if (Signature.Of(readings.Select(r => r.Value).ToList()) is not { Median: { } median } good)
            return null;
        var now = ExpectationRules.For(profile, probe);
        var least = TradeLibrary.Of(probe.Kind).LeastDifference;
        var reach = Signature.LineInSpreads * Math.Max(Math.Max(good.Spread, least), Signature.LeastRelativeSpread * Math.Abs(median));
        var (low, high) = (Shown(median - reach), Shown(median + reach));
        var breaking = readings
            .Where(r => r.Value is { } v && (v < now.Probe.Expect.Low || v > now.Probe.Expect.High))
            .Select(r => (r.GoodUnit, r.Value!.Value))
            .ToList();
        // A pack reads what its cells have left: that is no property of the model.
        var agree =
            now.Place.Kind != PlaceKind.Pack
            && good.Units >= FewestUnits
            && readings.All(r => r.Value is not null && good.Compare(r.Value, probe.Kind).Alike);
        if (breaking.Count == 0 && (!agree || !Better(now.Probe.Expect, low, high)))
            return null;
        return new LimitOffer(now.Probe, good, low, high, agree, breaking);
    }

    /// <summary>Limits where there are none, or much closer ones. “At most 1 Ω” has one end by its nature.</summary>
    private static bool Better(Expectation now, double low, double high) =>
        now switch
        {
            { Low: null, High: null } => true,
            { Low: { } a, High: { } b } => high - low < WorthNarrowing * (b - a),
            _ => false,
        };

    /// <summary>Limits are told in three digits: more would say more than three units know.</summary>
    private static double Shown(double value)
    {
        if (value == 0)
            return 0;
        var scale = Math.Pow(10, Math.Floor(Math.Log10(Math.Abs(value))) - 2);
        return Math.Round(Math.Round(value / scale) * scale, 12);
    }
}
