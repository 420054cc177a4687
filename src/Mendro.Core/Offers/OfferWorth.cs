namespace Mendro.Core.Offers;

/// <summary>What is left of a purchase before its own price: sale less work at the shop's hour, parts, fees and postage of the sale.</summary>
/// <param name="Chance">Chance to cure, 0 to 1.</param>
/// <param name="Minutes">Work to expect, minutes.</param>
/// <param name="Parts">Parts to expect.</param>
/// <param name="Mean">What is left, to be expected.</param>
/// <param name="Tenth">One of ten leaves less.</param>
/// <param name="Middle">Half leave more.</param>
/// <param name="Ninetieth">One of ten leaves more.</param>
/// <param name="Draws">What was drawn, sorted.</param>
public sealed record OfferWorth(
    double Chance,
    double Minutes,
    decimal Parts,
    decimal Mean,
    decimal Tenth,
    decimal Middle,
    decimal Ninetieth,
    IReadOnlyList<decimal> Draws
)
{
    /// <summary>Purchases drawn.</summary>
    public const int Usual = 4000;

    /// <summary>Share of purchases that a cautious offer may lose with.</summary>
    public const double MayLose = 0.1;

    /// <summary>
    /// Works it out: the means exactly, the spread by drawing purchases with a stated seed. Of each, which way it is, whether and by which
    /// repair it is cured, and what such a unit fetches (log-normal about the price, its mean kept) are drawn.
    /// </summary>
    /// <param name="ways">Ways it may be.</param>
    /// <param name="terms">What it costs and fetches.</param>
    /// <param name="seed">Seed.</param>
    /// <param name="draws">Purchases drawn, 10 or more.</param>
    public static OfferWorth Of(IReadOnlyList<OfferWay> ways, OfferTerms terms, int seed = 1, int draws = Usual)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(draws, 10);
        var random = new Random(seed);
        var drawn = Enumerable.Range(0, draws).Select(_ => Draw(random, ways, terms)).Order().ToList();
        decimal At(double share) => drawn[(int)Math.Clamp(Math.Floor(share * draws), 0, draws - 1)];
        return new OfferWorth(Chances(ways), Work(ways), Needs(ways), MeanOf(ways, terms), At(0.1), At(0.5), At(0.9), drawn);
    }

    /// <summary>What is left, to be expected: exact, and nothing is drawn for it.</summary>
    /// <param name="ways">Ways it may be.</param>
    /// <param name="terms">What it costs and fetches.</param>
    public static decimal MeanOf(IReadOnlyList<OfferWay> ways, OfferTerms terms)
    {
        var chance = Chances(ways);
        return (decimal)(chance * terms.MeanLeft(terms.Working) + (1 - chance) * terms.MeanLeft(terms.InParts))
            - Needs(ways)
            - (decimal)Work(ways) * terms.PerHour / 60;
    }

    /// <summary>The highest sensible price: what is left covers it on the average, the shop's hour paid.</summary>
    public decimal HighestOffer(OfferTerms terms) => terms.PriceFor(Mean);

    /// <summary>A cautious price: it loses in at most one of ten.</summary>
    public decimal CautiousOffer(OfferTerms terms) => Math.Min(terms.PriceFor(Tenth), HighestOffer(terms));

    /// <summary>Share of purchases at a price that lose money.</summary>
    public double LosesAt(decimal price, OfferTerms terms) => (double)Draws.Count(d => d < terms.Costs(price)) / Draws.Count;

    private static double Chances(IReadOnlyList<OfferWay> ways) => ways.Sum(w => w.Weight * w.Chance);

    private static double Work(IReadOnlyList<OfferWay> ways) => ways.Sum(w => w.Weight * w.Minutes);

    private static decimal Needs(IReadOnlyList<OfferWay> ways) => ways.Sum(w => (decimal)w.Weight * w.Parts);

    private static decimal Draw(Random random, IReadOnlyList<OfferWay> ways, OfferTerms terms)
    {
        var way = Pick(random, ways);
        var (minutes, parts, cured) = (way.LookMinutes, 0m, false);
        var luck = random.NextDouble();
        foreach (var step in way.Steps)
        {
            minutes += step.Minutes;
            parts += step.Parts;
            luck -= step.Cures;
            if (luck >= 0)
                continue;
            cured = true;
            break;
        }

        var price = cured ? terms.Working : terms.InParts;
        var spread = terms.Spread > 0 ? Math.Exp(terms.Spread * Normal(random) - terms.Spread * terms.Spread / 2) : 1;
        return terms.Left(price * (decimal)spread) - parts - (decimal)minutes * terms.PerHour / 60;
    }

    private static OfferWay Pick(Random random, IReadOnlyList<OfferWay> ways)
    {
        var at = random.NextDouble() * ways.Sum(w => w.Weight);
        foreach (var way in ways)
            if ((at -= way.Weight) < 0)
                return way;
        return ways[^1];
    }

    // Box and Muller, Ann. Math. Stat. 29, 1958.
    private static double Normal(Random random) =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
