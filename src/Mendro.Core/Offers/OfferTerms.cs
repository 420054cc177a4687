using MathNet.Numerics.Distributions;

namespace Mendro.Core.Offers;

/// <summary>What a unit costs to get and fetches, all in one currency.</summary>
/// <param name="Asking">Price asked.</param>
/// <param name="Postage">Postage of the purchase.</param>
/// <param name="BuyFee">Fee of the place on top of the price, as a share of it, 0 or more.</param>
/// <param name="Working">What it fetches working.</param>
/// <param name="InParts">What it fetches as it is or in parts.</param>
/// <param name="Spread">Spread of those prices: standard deviation of their logarithm, 0 or more (0.25 is a quarter or so).</param>
/// <param name="SellFee">Fee of the place on its sale, as a share, 0 to below 1.</param>
/// <param name="SellPostage">Postage and packing of its sale.</param>
/// <param name="PerHour">The shop's hour.</param>
public sealed record OfferTerms(
    decimal Asking,
    decimal Postage,
    decimal BuyFee,
    decimal Working,
    decimal InParts,
    double Spread,
    decimal SellFee,
    decimal SellPostage,
    decimal PerHour
)
{
    /// <summary>What is left of a sale.</summary>
    public decimal Left(decimal price) => Math.Max(0, price * (1 - SellFee) - SellPostage);

    /// <summary>What is left on the average when prices spread log-normally about a mean, and nothing is sold below its postage: the
    /// partial expectation of a log-normal (Black and Scholes, J. Political Economy 81, 1973, at a rate of nothing).</summary>
    public double MeanLeft(decimal price)
    {
        var (gets, pays) = ((double)(price * (1 - SellFee)), (double)SellPostage);
        if (gets <= 0 || pays <= 0 || Spread <= 0)
            return Math.Max(0, gets - pays);
        var upper = (Math.Log(gets / pays) + Spread * Spread / 2) / Spread;
        return gets * Normal.CDF(0, 1, upper) - pays * Normal.CDF(0, 1, upper - Spread);
    }

    /// <summary>The price at which a purchase costs a sum with postage and fee; 0 where even nothing would be too much.</summary>
    public decimal PriceFor(decimal sum) => Math.Max(0, (sum - Postage) / (1 + BuyFee));

    /// <summary>What a purchase at a price costs.</summary>
    public decimal Costs(decimal price) => price * (1 + BuyFee) + Postage;
}

/// <summary>A repair on the way to the cure.</summary>
/// <param name="Minutes">Minutes it takes.</param>
/// <param name="Parts">Its parts.</param>
/// <param name="Cures">Chance that it is this one that cures, 0 to 1; over all steps at most 1.</param>
public sealed record OfferStep(double Minutes, decimal Parts, double Cures);

/// <summary>One way the unit may be: how likely that is, and what working on it comes to.</summary>
/// <param name="Weight">Chance, 0 to 1; over all ways 1.</param>
/// <param name="LookMinutes">Minutes of looking for the fault.</param>
/// <param name="Steps">Repairs in order, until one cures or it is given up.</param>
public sealed record OfferWay(double Weight, double LookMinutes, IReadOnlyList<OfferStep> Steps)
{
    /// <summary>Chance to cure it, 0 to 1.</summary>
    public double Chance => Steps.Sum(s => s.Cures);

    /// <summary>Work to expect, minutes.</summary>
    public double Minutes => LookMinutes + Reached().Sum(s => s.Step.Minutes * s.Chance);

    /// <summary>Parts to expect.</summary>
    public decimal Parts => Reached().Sum(s => s.Step.Parts * (decimal)s.Chance);

    private IEnumerable<(OfferStep Step, double Chance)> Reached()
    {
        var left = 1.0;
        foreach (var step in Steps)
        {
            yield return (step, left);
            left = Math.Max(0, left - step.Cures);
        }
    }
}
