using System.Text.Json.Serialization;

namespace Mendro.Core.Proving;

/// <summary>What a sequential test says so far.</summary>
public enum SequentialDecision
{
    /// <summary>Not decided yet.</summary>
    GoOn,

    /// <summary>The failure rate is as low as what is accepted.</summary>
    Accept,

    /// <summary>The failure rate is as high as what is refused.</summary>
    Refuse,
}

/// <summary>
/// A run of starts judged after each one, so that it ends as soon as the case is decided: the sequential probability ratio test (Wald,
/// Annals of Mathematical Statistics 16, 1945).
/// </summary>
/// <param name="Accept">Failure rate that is accepted, above 0 and below <paramref name="Refuse"/>.</param>
/// <param name="Refuse">Failure rate that is refused, below 1.</param>
/// <param name="Alpha">Risk to refuse a unit with the accepted rate, between 0 and 1.</param>
/// <param name="Beta">Risk to accept a unit with the refused rate, between 0 and 1; both together below 1.</param>
public sealed record SequentialTest(double Accept, double Refuse, double Alpha, double Beta)
{
    /// <summary>What the logarithm grows by with each failure.</summary>
    [JsonIgnore]
    public double PerFailure => Math.Log(Refuse / Accept);

    /// <summary>What it grows by with each good start; negative.</summary>
    [JsonIgnore]
    public double PerSuccess => Math.Log((1 - Refuse) / (1 - Accept));

    /// <summary>At or below it the unit is accepted.</summary>
    [JsonIgnore]
    public double AcceptBelow => Math.Log(Beta / (1 - Alpha));

    /// <summary>At or above it the unit is refused.</summary>
    [JsonIgnore]
    public double RefuseAbove => Math.Log((1 - Beta) / Alpha);

    /// <summary>What is wrong with the figures, by their name; null when they can be used.</summary>
    [JsonIgnore]
    public string? Problem =>
        !(Accept is > 0 and < 1) ? "accept: a rate between 0 and 1."
        : !(Refuse is > 0 and < 1) ? "refuse: a rate between 0 and 1."
        : Refuse <= Accept ? "refuse: above the rate that is accepted."
        : !(Alpha is > 0 and < 1) ? "alpha: a risk between 0 and 1."
        : !(Beta is > 0 and < 1) ? "beta: a risk between 0 and 1."
        : Alpha + Beta >= 1 ? "beta: both risks together are below 1."
        : null;

    /// <summary>Logarithm of the ratio of the chances of a run, refused rate over accepted rate.</summary>
    /// <param name="starts">Starts, failed ones among them.</param>
    /// <param name="failures">Failed starts, 0 to <paramref name="starts"/>.</param>
    public double LogRatio(int starts, int failures) => failures * PerFailure + (starts - failures) * PerSuccess;

    /// <summary>What the run decides.</summary>
    public SequentialDecision Decide(int starts, int failures) =>
        LogRatio(starts, failures) is var ratio && ratio <= AcceptBelow + Slack ? SequentialDecision.Accept
        : ratio >= RefuseAbove - Slack ? SequentialDecision.Refuse
        : SequentialDecision.GoOn;

    // A ratio that meets its line but for the last digit is on it.
    private const double Slack = 1e-9;

    // Beyond it a power is as good as infinite.
    private const double MostExponent = 500;

    /// <summary>Further starts without a failure until it is accepted; 0 when it is.</summary>
    public int StartsToAccept(int starts, int failures) =>
        (int)Math.Max(0, Math.Ceiling((AcceptBelow - LogRatio(starts, failures)) / PerSuccess - Slack));

    /// <summary>Failures in a row from here until it is refused; 0 when it is.</summary>
    public int FailuresToRefuse(int starts, int failures) =>
        (int)Math.Max(0, Math.Ceiling((RefuseAbove - LogRatio(starts, failures)) / PerFailure - Slack));

    /// <summary>Chance that a unit is accepted: the operating characteristic, without the overshoot at the lines.</summary>
    /// <param name="rate">Its true failure rate, between 0 and 1.</param>
    public double AcceptChance(double rate)
    {
        var h = Exponent(rate);
        var (a, b) = (RefuseAbove, AcceptBelow);
        if (a * h > MostExponent)
            return 1;
        // At the rate where the logarithm goes nowhere both lines are reached as a fair walk reaches them.
        return Math.Abs(h) < 1e-9 ? a / (a - b) : (Math.Exp(a * h) - 1) / (Math.Exp(a * h) - Math.Exp(b * h));
    }

    /// <summary>Starts to be expected until it is decided, without the overshoot at the lines.</summary>
    /// <param name="rate">The true failure rate, between 0 and 1.</param>
    public double ExpectedStarts(double rate)
    {
        var accepted = AcceptChance(rate);
        var drift = rate * PerFailure + (1 - rate) * PerSuccess;
        return Math.Abs(drift) < 1e-12
            ? -RefuseAbove * AcceptBelow / (rate * PerFailure * PerFailure + (1 - rate) * PerSuccess * PerSuccess)
            : (accepted * AcceptBelow + (1 - accepted) * RefuseAbove) / drift;
    }

    /// <summary>The exponent at which the ratio's expectation is 1: 1 at the accepted rate, −1 at the refused one.</summary>
    private double Exponent(double rate)
    {
        double Rate(double h)
        {
            if (Math.Abs(h) < 1e-12)
                return -PerSuccess / (PerFailure - PerSuccess);
            var (failure, success) = (Math.Exp(PerFailure * h), Math.Exp(PerSuccess * h));
            return (1 - success) / (failure - success);
        }

        // The rate falls as the exponent grows.
        var (low, high) = (-1.0, 1.0);
        while (Rate(low) < rate && low > -MostExponent)
            low *= 2;
        while (Rate(high) > rate && high < MostExponent)
            high *= 2;
        for (var n = 0; n < 200; n++)
        {
            var middle = (low + high) / 2;
            if (Rate(middle) > rate)
                low = middle;
            else
                high = middle;
        }

        return (low + high) / 2;
    }
}
