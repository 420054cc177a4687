using System.Globalization;

namespace Mendro.StandIns.Instruments;

/// <summary>What hangs on the stand-in supply.</summary>
/// <param name="Ohms">Load as a resistance: volts over amperes at the unit's normal supply; a short is near zero.</param>
/// <param name="LeastVolts">Below this the unit draws next to nothing.</param>
public sealed record SupplyLoad(double Ohms, double LeastVolts);

/// <summary>
/// A simulated bench supply with voltage, current limit and read-back. Reaching the limit, it lets the voltage fall
/// (constant current), as a real one does.
/// </summary>
public sealed class StandInSupply : ScpiServer
{
    private const double MostVolts = 30;
    private const double MostAmps = 5;

    private readonly Lock _lock = new();
    private double _volts;
    private double _limit = 0.1;
    private bool _on;
    private SupplyLoad? _load;

    /// <inheritdoc/>
    protected override string Identity => "Mendro,Stand-in supply,SIM-2,1.0";

    /// <summary>Hangs something on it, or nothing.</summary>
    public void Attach(SupplyLoad? load)
    {
        lock (_lock)
            _load = load;
    }

    /// <summary>Volts and amperes at its terminals, and whether the current limit holds.</summary>
    public (double Volts, double Amps, bool Limited) Output()
    {
        lock (_lock)
        {
            if (!_on)
                return (0, 0, false);
            if (_load is not { } load)
                return (_volts, 0, false);
            var wanted = _volts / Math.Max(load.Ohms, 0.01);
            // Through a short the current flows at any voltage; an honest load starts at its least.
            if (load.LeastVolts > 0 && _volts < load.LeastVolts)
                wanted = Math.Min(wanted, 0.002);
            return wanted <= _limit ? (_volts, wanted, false) : (_limit * load.Ohms, _limit, true);
        }
    }

    /// <inheritdoc/>
    protected override string? Do(string header, string argument)
    {
        lock (_lock)
        {
            switch (header)
            {
                case "*RST":
                    (_volts, _limit, _on) = (0, 0.1, false);
                    return "";
                case "VOLT":
                    return Set(argument, MostVolts, v => _volts = v);
                case "VOLT?":
                    return Number(_volts);
                case "CURR":
                    return Set(argument, MostAmps, v => _limit = v);
                case "CURR?":
                    return Number(_limit);
                case "OUTP":
                    if (argument.ToUpperInvariant() is not ("ON" or "OFF" or "1" or "0"))
                        Error(-224, "Illegal parameter value");
                    else
                        _on = argument.ToUpperInvariant() is "ON" or "1";
                    return "";
                case "OUTP?":
                    return _on ? "1" : "0";
            }
        }

        return header switch
        {
            "MEAS:VOLT?" => Number(Output().Volts),
            "MEAS:CURR?" => Number(Output().Amps),
            _ => null,
        };
    }

    private string Set(string argument, double most, Action<double> set)
    {
        if (!double.TryParse(argument, NumberStyles.Float, CultureInfo.InvariantCulture, out var value))
            Error(-104, "Data type error");
        else if (!(value >= 0 && value <= most))
            Error(-222, "Data out of range");
        else
            set(value);
        return "";
    }

    private static string Number(double value) => value.ToString("0.0000", CultureInfo.InvariantCulture);
}
