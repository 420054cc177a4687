using Mendro.Core.Diagnosis;
using Mendro.Core.Money;

namespace Mendro.Core.Jobs;

/// <summary>The owner said yes or no to a quote.</summary>
/// <param name="Approved">True for yes.</param>
/// <param name="UpTo">Most that was agreed to; null for the high end of the quote.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="Who">Who said so.</param>
/// <param name="How">How.</param>
/// <param name="Words">More on it.</param>
[RecordKind("quote-answer")]
public sealed record QuoteAnswered(bool Approved, decimal? UpTo, string Currency, string Who, ConsentWay How, string Words = "") : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"{Who} {(Approved ? "agreed" : "declined")} {ConsentGiven.HowWords(How)}"
        + (Approved && UpTo is { } most ? $", up to {new Amount(most, Currency)}" : "")
        + (Words.Length > 0 ? $"; {Words}" : "");
}
