namespace Mendro.Core.Lots;

/// <summary>A repair that was tried at once: with what chance it was to work, and whether it did.</summary>
/// <param name="Number">Number of the job.</param>
/// <param name="Chance">Chance that Mendro gave it, 0 to 1.</param>
/// <param name="Worked">True when the unit worked afterwards.</param>
public sealed record RepairTried(long Number, double Chance, bool Worked);

/// <summary>When several in a row fail alike, the bench itself comes into doubt: its console, its cable, its cartridge.</summary>
/// <param name="InARow">Units that failed one after the other, to the last.</param>
/// <param name="Chance">Chance that all of them failed of themselves, 0 to 1.</param>
public sealed record BenchDoubt(IReadOnlyList<long> InARow, double Chance)
{
    /// <summary>Fewest units in a row (the trade's “several”; common practice, no source).</summary>
    public const int Fewest = 3;

    /// <summary>A run of bad luck rarer than this casts doubt on the bench (common practice, no source).</summary>
    public const double Rare = 0.1;

    /// <summary>Looks at the repairs of a bench.</summary>
    /// <param name="tried">Repairs tried, the oldest first.</param>
    /// <returns>Null when there is no reason to doubt it.</returns>
    public static BenchDoubt? Of(IReadOnlyList<RepairTried> tried)
    {
        // One that has just run a unit well is out of question: only what came since counts. Of several tries of a unit the last stands.
        var since = tried.Reverse().TakeWhile(t => !t.Worked).Reverse().ToList();
        var units = since.GroupBy(t => t.Number).ToList();
        if (units.Count < Fewest)
            return null;
        var chance = since.Aggregate(1.0, (all, t) => all * (1 - Math.Clamp(t.Chance, 0, 1)));
        return chance < Rare ? new BenchDoubt(units.Select(u => u.Key).ToList(), chance) : null;
    }
}
