namespace Mendro.Core.Money;

/// <summary>What a unit is worth in each state; all in the currency of its job.</summary>
/// <param name="Working">Value when it works, or null when not known.</param>
/// <param name="AsItStands">Value as it stands, or null.</param>
/// <param name="InParts">Value in parts, or null.</param>
/// <param name="Currency">Currency of all three.</param>
public sealed record UnitValues(decimal? Working, decimal? AsItStands, decimal? InParts, Currency Currency)
{
    /// <summary>What curing it adds, or null when the working value is not known.</summary>
    public Amount? AtStake =>
        Working is { } working ? new Amount(Math.Max(0, working - Math.Max(AsItStands ?? 0, InParts ?? 0)), Currency) : null;
}
