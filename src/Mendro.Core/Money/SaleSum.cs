namespace Mendro.Core.Money;

/// <summary>What is left of a price.</summary>
/// <param name="Price">Price.</param>
/// <param name="Fees">Fees of the place where it is sold.</param>
/// <param name="Postage">Postage.</param>
/// <param name="Packing">Packing.</param>
public sealed record SaleSum(Amount Price, Amount Fees, Amount Postage, Amount Packing)
{
    /// <summary>What is left.</summary>
    public Amount Left => Price with { Value = Price.Value - Fees.Value - Postage.Value - Packing.Value };

    /// <summary>The least price at which a wanted sum is left, when fees are a share of what the buyer pays and tax is owed on it.</summary>
    /// <param name="wanted">What must be left.</param>
    /// <param name="feeShare">Fees as a share of what the buyer pays, 0 to below 1.</param>
    /// <param name="postage">Postage.</param>
    /// <param name="packing">Packing.</param>
    /// <param name="tax">Tax; none where nothing is told.</param>
    /// <param name="paid">What was paid for the unit, for tax on the margin.</param>
    public static Amount PriceFor(Amount wanted, decimal feeShare, Amount postage, Amount packing, TaxRule? tax = null, decimal paid = 0)
    {
        var rule = tax ?? TaxRule.None;
        var (spent, rate) = (wanted.Value + postage.Value + packing.Value, rule.Rate(rule.Treatment) / 100);
        // Tax on top is paid by the buyer, the fee on it is not; tax in the price, on all of it or on what it is above what was paid.
        var share = rate / (1 + rate);
        var price =
            rate == 0 ? spent / (1 - feeShare)
            : rule.Treatment == TaxTreatment.Margin ? OnMargin()
            : rule.Inclusive ? spent / (1 - feeShare - share)
            : spent / (1 - feeShare * (1 + rate));
        return (wanted with { Value = price }).Rounded();

        decimal OnMargin() =>
            spent / (1 - feeShare) <= paid ? spent / (1 - feeShare) : (spent - paid * share) / (1 - feeShare - share);
    }
}
