using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>A piece of the shop's test gear.</summary>
public sealed record Gear
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Name as written on it.</summary>
    public string Name { get; init; } = "";

    /// <summary>Part kind of the library.</summary>
    public string Kind { get; init; } = "";

    /// <summary>True for the piece that is used when nothing else is said.</summary>
    public bool Standard { get; init; }

    /// <summary>When it was last cleaned, UTC.</summary>
    public DateTimeOffset CleanedAt { get; init; }

    /// <summary>Swap trials and other uses since then.</summary>
    public int Uses { get; init; }

    /// <summary>When it was put out of use, UTC.</summary>
    public DateTimeOffset? RetiredAt { get; init; }

    /// <summary>Jobs whose unit ran well with it in a swap trial since it was cleaned, the newest first, and its uses since.</summary>
    public IReadOnlyList<(JobId Job, int UsesSince)> Runs { get; init; } = [];

    /// <summary>Uses since a unit other than this one last ran well with it; null when none has since it was cleaned. What it showed
    /// with this unit is evidence already.</summary>
    /// <param name="job">The unit that is diagnosed.</param>
    public int? UsesSinceRun(JobId job) => Runs.Where(r => r.Job != job).Select(r => (int?)r.UsesSince).FirstOrDefault();

    /// <summary>The piece as the engine takes it for a unit.</summary>
    /// <param name="job">The unit that is diagnosed.</param>
    public GearItem ToItem(JobId job) => new(EngineId(Id), Name, Kind, Uses, UsesSinceRun(job));

    /// <summary>Id of a piece in the engine and in records.</summary>
    public static string EngineId(long id) => $"g{id}";
}
