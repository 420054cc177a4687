using System.Text.Json;
using Mendro.Core.Jobs;
using Mendro.Core.Stock;

namespace Mendro.Storage;

/// <summary>A bin of the stock.</summary>
public sealed record StockItem
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>What is in it, as JSON.</summary>
    public string Spec { get; init; } = "{}";

    /// <summary>Name of the part.</summary>
    public string Name { get; init; } = "";

    /// <summary>Where it lies.</summary>
    public string Bin { get; init; } = "";

    /// <summary>How many lie there, those reserved among them.</summary>
    public int Count { get; init; }

    /// <summary>Number below which more is ordered, or null.</summary>
    public int? Low { get; init; }

    /// <summary>Own cost of one, in the shop's currency, or null.</summary>
    public decimal? Cost { get; init; }

    /// <summary>Where it came from.</summary>
    public string Source { get; init; } = "";

    /// <summary>How many of them are reserved for jobs.</summary>
    public int Reserved { get; init; }

    /// <summary>When it was taken away, UTC; it can be brought back.</summary>
    public DateTimeOffset? DeletedAt { get; init; }

    /// <summary>How many are free.</summary>
    public int Free => Count - Reserved;

    /// <summary>True when more should be ordered.</summary>
    public bool IsLow => Low is { } low && Free < low;

    /// <summary>What is in it.</summary>
    public StockSpec What => Stored.Json(Spec, new StockSpec(Name), JsonSerializerOptions.Web);

    /// <summary>Makes a bin of a line.</summary>
    public static StockItem Of(StockLine line) =>
        new()
        {
            Spec = JsonSerializer.Serialize(line.Spec, JsonSerializerOptions.Web),
            Name = line.Spec.Name,
            Bin = line.Bin,
            Count = line.Count,
            Low = line.Low,
            Cost = line.Cost,
            Source = line.Source,
        };
}

/// <summary>Something that went in or out of a bin.</summary>
/// <param name="Change">How many came, or went when negative.</param>
/// <param name="Job">Number of the job that it went to, or null.</param>
/// <param name="Why">Why.</param>
/// <param name="At">When, UTC.</param>
public sealed record StockMove(int Change, long? Job, string Why, DateTimeOffset At);

/// <summary>A part that a job wants.</summary>
public sealed record PartNeed
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job, or null for the shop's own stock.</summary>
    public JobId? JobId { get; init; }

    /// <summary>Number of the job, or null.</summary>
    public long? Number { get; init; }

    /// <summary>Part.</summary>
    public string Part { get; init; } = "";

    /// <summary>How many.</summary>
    public int Count { get; init; }

    /// <summary>How many of them are put by from a bin.</summary>
    public int Reserved { get; init; }

    /// <summary>Bin from which they are put by, or null.</summary>
    public long? ItemId { get; init; }

    /// <summary>When it was noted, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>How many are still missing.</summary>
    public int Missing => Count - Reserved;
}
