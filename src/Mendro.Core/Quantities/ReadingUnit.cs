namespace Mendro.Core.Quantities;

/// <summary>What a bench reading is measured in. Values are always held in the SI base unit.</summary>
public enum ReadingUnit
{
    /// <summary>Volts.</summary>
    Volts,

    /// <summary>Ohms.</summary>
    Ohms,

    /// <summary>Farads.</summary>
    Farads,

    /// <summary>Amperes.</summary>
    Amps,

    /// <summary>Forward drop in volts, meter in diode mode.</summary>
    DiodeVolts,

    /// <summary>The continuity buzzer: 1 for a beep, 0 for none.</summary>
    Beep,

    /// <summary>Over range: the meter shows OL, the path is open.</summary>
    OverRange,

    /// <summary>Seen or felt, not metered.</summary>
    Word,
}
