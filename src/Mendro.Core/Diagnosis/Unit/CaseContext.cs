using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>A piece of test gear, or another unit that stands in for a part.</summary>
/// <param name="Id">Id, unique in the shop.</param>
/// <param name="Name">Name as written on it.</param>
/// <param name="Kind">Part kind of the library; chooses the ways it fails.</param>
/// <param name="UsesSinceCleaning">How often it was used since it was last cleaned.</param>
/// <param name="UsesSinceRun">How often of those since another unit last ran well with it; null when none has.</param>
public sealed record GearItem(string Id, string Name, string Kind, int UsesSinceCleaning = 0, int? UsesSinceRun = null)
{
    /// <summary>Id of the gear as a part of a unit's network.</summary>
    public string PartId => "gear:" + Id;
}

/// <summary>What the shop knows beyond the model when a unit is diagnosed.</summary>
/// <param name="Priors">Chance of every fault of the model, by index; null for the model's own.</param>
/// <param name="Gear">Gear that took part in swap trials.</param>
public sealed record CaseContext(IReadOnlyList<double>? Priors = null, IReadOnlyList<GearItem>? Gear = null)
{
    /// <summary>Nothing beyond the model.</summary>
    public static CaseContext None { get; } = new();
}

/// <summary>How test gear becomes more suspect with use (common practice, no source): it gets dirty from dirty units.</summary>
public static class GearWear
{
    /// <summary>
    /// What stands in was chosen because it is known to work: it has this share of the chance that such a part has in a
    /// unit brought in (common practice, no source).
    /// </summary>
    public const double KnownGood = 0.25;

    /// <summary>Chance that a piece of gear has a failure mode.</summary>
    /// <param name="kind">Part kind; null for one the library does not know.</param>
    /// <param name="mode">Failure mode.</param>
    /// <param name="uses">Uses since the last cleaning, 0 or more.</param>
    public static double Prior(PartKind? kind, FailureMode mode, int uses) => Prior(mode.Prior * KnownGood, kind, uses);

    /// <summary>Chance that a piece of gear has a failure mode. A unit that ran well with it clears it, but for what passes now and
    /// then; from there on it wears anew (Bayes' rule).</summary>
    /// <param name="kind">Part kind; null for one the library does not know.</param>
    /// <param name="mode">Failure mode.</param>
    /// <param name="item">The piece with its uses.</param>
    public static double Prior(PartKind? kind, FailureMode mode, GearItem item) =>
        Prior(mode.Prior * KnownGood, kind, mode, item.UsesSinceCleaning, item.UsesSinceRun);

    /// <summary>The same for a piece whose chance when just cleaned is known.</summary>
    /// <param name="prior">Chance when just cleaned, 0 to 1.</param>
    /// <param name="kind">Part kind.</param>
    /// <param name="mode">Failure mode.</param>
    /// <param name="uses">Uses since the last cleaning, 0 or more.</param>
    /// <param name="sinceRun">Uses since a unit last ran well with it; null when none has since it was cleaned.</param>
    public static double Prior(double prior, PartKind? kind, FailureMode mode, int uses, int? sinceRun)
    {
        if (sinceRun is not { } since || since > uses)
            return Prior(prior, kind, uses);
        var before = Prior(prior, kind, uses - since);
        var passes = before * (1 - EvidenceWeights.Fails(mode));
        return Prior(passes / (passes + 1 - before), kind, since);
    }

    /// <summary>Chance that it is at fault after some uses: each use has its own small chance.</summary>
    /// <param name="prior">Chance when just cleaned, 0 to 1.</param>
    /// <param name="kind">Part kind; its data say how it wears.</param>
    /// <param name="uses">Uses since the last cleaning, 0 or more.</param>
    public static double Prior(double prior, PartKind? kind, int uses) =>
        1 - (1 - prior) * Math.Pow(1 - (kind?.WearPerUse ?? PartKind.LeastWear), uses);
}
