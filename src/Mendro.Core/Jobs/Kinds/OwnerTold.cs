using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>What the owner was reached for.</summary>
public enum OwnerMatter
{
    /// <summary>Something was said or asked.</summary>
    Talk,

    /// <summary>It may be picked up.</summary>
    Ready,

    /// <summary>Nobody was reached.</summary>
    NotReached,
}

/// <summary>The owner was told or asked something.</summary>
/// <param name="Matter">What for.</param>
/// <param name="Who">Who was spoken to, or tried.</param>
/// <param name="How">How.</param>
/// <param name="Words">What was said.</param>
[RecordKind("owner-told")]
public sealed record OwnerTold(OwnerMatter Matter, string Who, ConsentWay How, string Words) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        Matter switch
        {
            OwnerMatter.Ready => $"{Who} told {ConsentGiven.HowWords(How)} that it is ready",
            OwnerMatter.NotReached => $"{Who} not reached {ConsentGiven.HowWords(How)}",
            _ => $"{Who}, {ConsentGiven.HowWords(How)}",
        } + (Words.Length > 0 ? $": {Words}" : "");
}
