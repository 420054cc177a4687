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

    /// <summary>The least price at which a wanted sum is left, when fees are a share of it.</summary>
    /// <param name="wanted">What must be left.</param>
    /// <param name="feeShare">Fees as a share of the price, 0 to below 1.</param>
    /// <param name="postage">Postage.</param>
    /// <param name="packing">Packing.</param>
    public static Amount PriceFor(Amount wanted, decimal feeShare, Amount postage, Amount packing) =>
        (wanted with { Value = (wanted.Value + postage.Value + packing.Value) / (1 - feeShare) }).Rounded();
}
