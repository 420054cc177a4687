namespace Mendro.Core.Evidence;

/// <summary>How far a reading is off: 0 V, 2 V and 4.6 V at a 5 V point are different facts.</summary>
public enum ReadingDegree
{
    /// <summary>Only good or bad was told.</summary>
    Untold,

    /// <summary>Volts: next to nothing.</summary>
    Missing,

    /// <summary>Volts: far below what is wanted, but there.</summary>
    Sagging,

    /// <summary>A little below the limit.</summary>
    Low,

    /// <summary>Above the limit.</summary>
    High,

    /// <summary>Supply to ground: a dead short.</summary>
    Short,

    /// <summary>Contact: conducts, but with ohms that a good one has not.</summary>
    Resistive,

    /// <summary>Contact: does not conduct.</summary>
    Open,
}
