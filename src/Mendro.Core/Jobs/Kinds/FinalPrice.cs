using Mendro.Core.Diagnosis;
using Mendro.Core.Money;

namespace Mendro.Core.Jobs;

/// <summary>Why a repair is charged another sum than its work and parts.</summary>
public enum PriceReason
{
    /// <summary>A price that was agreed.</summary>
    Agreed,

    /// <summary>Something was taken off.</summary>
    Discount,

    /// <summary>Nothing is asked for it.</summary>
    Waived,

    /// <summary>It falls under the warranty of an earlier job.</summary>
    Warranty,
}

/// <summary>What a repair is charged at in the end, and why. The last one stands, over quote and limit.</summary>
/// <param name="Price">What is charged, tax in it or not as prices are named; 0 for nothing.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="Reason">Why.</param>
/// <param name="WarrantyOf">Number of the job whose warranty it is; null for another reason.</param>
/// <param name="Words">More on it.</param>
[RecordKind("final-price")]
public sealed record FinalPrice(decimal Price, string Currency, PriceReason Reason, long? WarrantyOf = null, string Words = "") : RecordBody
{
    /// <summary>Longest words.</summary>
    public const int LongestWords = 200;

    /// <inheritdoc/>
    public override string Subject => "";

    /// <summary>What is charged.</summary>
    public Amount Amount => new(Reason is PriceReason.Waived or PriceReason.Warranty ? 0 : Price, Currency);

    /// <summary>Why, as it stands on papers.</summary>
    public string Why =>
        Reason switch
        {
            PriceReason.Waived => "waived",
            PriceReason.Warranty => WarrantyOf is { } job ? FormattableString.Invariant($"warranty of job {job}") : "warranty",
            PriceReason.Discount => "with a discount",
            _ => "as agreed",
        } + (Words.Length > 0 ? $": {Words}" : "");

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"Charged {Amount}, {Why}";
}
