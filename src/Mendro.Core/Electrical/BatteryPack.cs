namespace Mendro.Core.Electrical;

/// <summary>Charge of a pack by its voltage at rest.</summary>
public enum PackState
{
    /// <summary>Nearer to fresh than to nominal.</summary>
    Full,

    /// <summary>Usable.</summary>
    Good,

    /// <summary>Weak: below the chemistry's low mark.</summary>
    Low,

    /// <summary>Below the chemistry's empty mark.</summary>
    Empty,
}

/// <summary>Cells of one chemistry in series, volts.</summary>
/// <param name="Cells">Number of cells in series, 1 or more.</param>
/// <param name="Cell">Limits of one cell.</param>
public sealed record BatteryPack(int Cells, CellLimits Cell)
{
    private const double Slack = 1e-9;

    /// <summary>Nominal volts.</summary>
    public double Nominal => Cells * Cell.Nominal;

    /// <summary>Fresh volts.</summary>
    public double Fresh => Cells * Cell.Fresh;

    /// <summary>Weak below this.</summary>
    public double Low => Cells * Cell.Low;

    /// <summary>Empty below this.</summary>
    public double Empty => Cells * Cell.Empty;

    /// <summary>
    /// State of the pack. “Full” begins half way between nominal and fresh: new alkaline cells read 1.55 V and more, never
    /// quite the 1.6 V of the table (common practice, no source).
    /// </summary>
    /// <param name="volts">Measured over all cells.</param>
    public PackState State(double volts)
    {
        var perCell = volts / Cells + Slack;
        return perCell < Cell.Empty ? PackState.Empty
            : perCell < Cell.Low ? PackState.Low
            : perCell < (Cell.Nominal + Cell.Fresh) / 2 ? PackState.Good
            : PackState.Full;
    }

    /// <summary>Largest difference between cells measured one by one, volts; null for fewer than two.</summary>
    public static double? Spread(IReadOnlyList<double> cellVolts) => cellVolts.Count < 2 ? null : cellVolts.Max() - cellVolts.Min();
}
