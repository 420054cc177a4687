using System.Text.Json;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>Which capacitors are renewed.</summary>
public enum RecapScope
{
    /// <summary>All: if one is out, all go.</summary>
    All,

    /// <summary>Those of chosen sections.</summary>
    Section,

    /// <summary>Only the failed ones.</summary>
    Failed,
}

/// <summary>A board whose capacitors were placed.</summary>
/// <param name="Board">Board.</param>
/// <param name="For">Mark of the positions and parts it was made for: another mark, and it holds no longer.</param>
/// <param name="Plan">Where everything sits.</param>
public sealed record BoardFit(string Board, string For, FitPlan Plan);

/// <summary>What was decided for the capacitor job of one unit; kept as JSON.</summary>
public sealed record RecapPlan
{
    /// <summary>Name of the format.</summary>
    public const string FormatName = "mendro.recap/1";

    /// <summary>Name of the format.</summary>
    public string Format { get; init; } = FormatName;

    /// <summary>Which capacitors are renewed.</summary>
    public RecapScope Scope { get; init; }

    /// <summary>Chosen sections.</summary>
    public IReadOnlyList<string> Sections { get; init; } = [];

    /// <summary>Age of the unit, years, above 0.</summary>
    public double AgeYears { get; init; } = 30;

    /// <summary>Minutes to power up and try.</summary>
    public double TestMinutes { get; init; } = 2;

    /// <summary>Minutes to look at one part of a group that failed.</summary>
    public double InspectMinutes { get; init; } = 1.5;

    /// <summary>Chance that one is put in badly, above 0 and below 1.</summary>
    public double FaultChance { get; init; } = CapacitorLibrary.Shipped.FaultChance;

    /// <summary>Units of this revision to buy for.</summary>
    public int Units { get; init; } = 1;

    /// <summary>Sources that parts are taken from.</summary>
    public IReadOnlyList<CapacitorSource> Sources { get; init; } = [CapacitorSource.Stock, CapacitorSource.Kit, CapacitorSource.Catalogue];

    /// <summary>Part that was chosen by hand, by position; the others take what fits best.</summary>
    public IReadOnlyDictionary<string, string> Chosen { get; init; } = new Dictionary<string, string>();

    /// <summary>Boards that were typed for this unit; null when the model's are used.</summary>
    public IReadOnlyList<Board>? Own { get; init; }

    /// <summary>Groups between two power-ups, by position, once the work has begun.</summary>
    public IReadOnlyList<IReadOnlyList<string>> Groups { get; init; } = [];

    /// <summary>Boards that were placed.</summary>
    public IReadOnlyList<BoardFit> Fits { get; init; } = [];

    /// <summary>Reads one; a plan of another format is as good as none.</summary>
    public static RecapPlan Read(string json)
    {
        try
        {
            var read = JsonSerializer.Deserialize<RecapPlan>(json, ProfileJson.Options);
            return read?.Format == FormatName ? read : new RecapPlan();
        }
        catch (JsonException)
        {
            return new RecapPlan();
        }
    }

    /// <summary>Writes it.</summary>
    public string Write() => JsonSerializer.Serialize(this, ProfileJson.Options);

    /// <summary>Positions that are renewed.</summary>
    /// <param name="all">All positions.</param>
    /// <param name="failed">Keys of those that failed.</param>
    public IReadOnlyList<RecapPosition> Of(IReadOnlyList<RecapPosition> all, IReadOnlySet<string> failed) =>
        Scope switch
        {
            RecapScope.Section => all.Where(p => Sections.Contains(p.Section)).ToList(),
            RecapScope.Failed => all.Where(p => failed.Contains(p.Key)).ToList(),
            _ => all,
        };
}
