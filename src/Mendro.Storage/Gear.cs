using Mendro.Core.Diagnosis;

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

    /// <summary>The piece as the engine takes it.</summary>
    public GearItem ToItem() => new(EngineId(Id), Name, Kind, Uses);

    /// <summary>Id of a piece in the engine and in records.</summary>
    public static string EngineId(long id) => $"g{id}";
}
