using System.Text.Json.Serialization;
using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>Why a unit goes with something failing.</summary>
public enum KeepReason
{
    /// <summary>It waits for a part: done but for this.</summary>
    WaitingPart,

    /// <summary>The owner does not want it repaired.</summary>
    OwnerDeclined,

    /// <summary>It is sold as faulty.</summary>
    SoldAsFaulty,

    /// <summary>The work is worth more than the unit.</summary>
    NotWorthIt,

    /// <summary>Nobody here can.</summary>
    NotPossible,
}

/// <summary>Something fails and is left so, with the reason. It stays visible until it is seen to work.</summary>
/// <param name="Item">Item of the test plan.</param>
/// <param name="Name">Its name at that time.</param>
/// <param name="Reason">Why.</param>
/// <param name="Words">More on it, up to 200 characters.</param>
[RecordKind("fault-kept")]
public sealed record FaultKept(string Item, string Name, KeepReason Reason, string Words = "") : RecordBody
{
    /// <summary>Longest words, characters.</summary>
    public const int LongestWords = 200;

    /// <summary>Reason in words, with what was added.</summary>
    [JsonIgnore]
    public string Told => Say(Reason) + (Words.Length > 0 ? $": {Words}" : "");

    /// <summary>Reason in words.</summary>
    public static string Say(KeepReason reason) =>
        reason switch
        {
            KeepReason.WaitingPart => "waiting for a part",
            KeepReason.OwnerDeclined => "owner declined",
            KeepReason.SoldAsFaulty => "sold as faulty",
            KeepReason.NotWorthIt => "not worth the work",
            _ => "cannot be done here",
        };

    /// <inheritdoc/>
    public override string Subject => Item;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Name} stays as it is: {Told}";
}
