using Mendro.Core.Diagnosis;
using Mendro.Core.Money;

namespace Mendro.Core.Jobs;

/// <summary>The owner was told what it may cost.</summary>
/// <param name="Low">Low end.</param>
/// <param name="Likely">Likely.</param>
/// <param name="High">High end.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="Works">What is to be done, in words.</param>
/// <param name="How">How it was told.</param>
[RecordKind("quote")]
public sealed record QuoteGiven(decimal Low, decimal Likely, decimal High, string Currency, string Works, ConsentWay How) : RecordBody
{
    /// <summary>Longest words, characters.</summary>
    public const int LongestWords = 300;

    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"Quoted {ConsentGiven.HowWords(How)}: {Say(Low)} to {Say(High)}, likely {Say(Likely)}" + (Works.Length > 0 ? $"; {Works}" : "");

    private Amount Say(decimal value) => new(value, Currency);
}
