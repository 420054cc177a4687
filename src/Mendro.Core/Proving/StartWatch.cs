namespace Mendro.Core.Proving;

/// <summary>Where a watched unit stands, by what it draws.</summary>
public enum DrawPhase
{
    /// <summary>It must be off once before a start counts.</summary>
    WaitsForOff,

    /// <summary>Off: the next draw is a start.</summary>
    Off,

    /// <summary>It draws, but has not drawn long enough to have started.</summary>
    Starting,
}

/// <summary>
/// Counts starts by the current of the bench supply: a start begins when the unit draws, is good when it draws on for a while, and has
/// failed when it stops before. A unit that draws nothing at all when it is switched on is not seen; that start is counted by hand.
/// </summary>
/// <param name="Phase">Where the unit stands.</param>
/// <param name="Since">Since when it draws; without meaning in the other phases.</param>
public readonly record struct StartWatch(DrawPhase Phase, DateTimeOffset Since)
{
    /// <summary>Draw from which a unit is on, when nothing is known of it, A (value from memory: a light alone takes some milliamps).</summary>
    public const double OnAmps = 0.008;

    /// <summary>Share of the rated draw from which it is on: units draw a quarter of it and more, leaks a hundredth (value from memory).</summary>
    public const double OnShare = 0.1;

    /// <summary>Seconds for which it must draw on: what comes on and goes off at once is gone by then.</summary>
    public const double HoldSeconds = 3;

    /// <summary>A watch that begins: whatever draws now was not started under watch.</summary>
    public static StartWatch Begin => new(DrawPhase.WaitsForOff, default);

    /// <summary>Draw from which a unit is on, A.</summary>
    /// <param name="usualAmps">Its rated draw, A, or null.</param>
    public static double Threshold(double? usualAmps) => Math.Max(OnAmps, OnShare * (usualAmps ?? 0));

    /// <summary>Takes one reading.</summary>
    /// <param name="at">When.</param>
    /// <param name="amps">Draw, A.</param>
    /// <param name="threshold">Draw from which it is on, A.</param>
    /// <returns>The watch after it, and whether a start was good; null when none was decided.</returns>
    public (StartWatch Next, bool? Start) Read(DateTimeOffset at, double amps, double threshold)
    {
        var draws = amps >= threshold;
        return Phase switch
        {
            DrawPhase.WaitsForOff => (draws ? this : new StartWatch(DrawPhase.Off, at), null),
            DrawPhase.Off => (draws ? new StartWatch(DrawPhase.Starting, at) : this, null),
            _ when !draws => (new StartWatch(DrawPhase.Off, at), false),
            _ when (at - Since).TotalSeconds >= HoldSeconds => (Begin, true),
            _ => (this, null),
        };
    }
}
