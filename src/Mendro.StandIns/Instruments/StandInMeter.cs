using System.Globalization;

namespace Mendro.StandIns.Instruments;

/// <summary>
/// A simulated bench meter: settles over a fraction of a second, has noise in its last digits, shows an overload on open
/// leads, and wanders about zero volts when nothing is connected.
/// </summary>
public sealed class StandInMeter(MeterTips tips, TimeProvider time, int seed = 1) : ScpiServer
{
    private const string Open = "9.90000000E+37";
    private static readonly TimeSpan Settling = TimeSpan.FromMilliseconds(90);
    private static readonly HashSet<string> Functions = ["VOLT", "VOLT:AC", "RES", "CONT", "DIOD", "CAP", "CURR"];

    private readonly Random _noise = new(seed);
    private readonly Lock _lock = new();
    private string _function = "VOLT";

    /// <inheritdoc/>
    protected override string Identity => "Mendro,Stand-in meter,SIM-1,1.0";

    /// <inheritdoc/>
    protected override string? Do(string header, string argument)
    {
        switch (header)
        {
            case "*RST":
                _function = "VOLT";
                return "";
            case "READ?":
                return Read(_function);
            case "CONF?":
                return $"\"{_function}\"";
            case "ABOR" or "INIT":
                return "";
        }

        if (header.StartsWith("CONF:", StringComparison.Ordinal) && Functions.Contains(header[5..]))
        {
            _function = header[5..];
            return "";
        }

        if (header.StartsWith("MEAS:", StringComparison.Ordinal) && header.EndsWith('?') && Functions.Contains(header[5..^1]))
        {
            _function = header[5..^1];
            return Read(_function);
        }

        return null;
    }

    private string Read(string function)
    {
        lock (_lock)
        {
            var touching = tips.Touching();
            // In another function than the point calls for there is nothing to see but the input itself.
            if (touching is not { } at || at.Point.Function != function)
                return Unconnected(function);
            if (at.Point.Value is not { } truth)
                return Open;
            var settled = 1 - Math.Exp(-at.For / Settling);
            return Number(truth * settled * (1 + 0.0004 * Noise()) + Floor(function) * Noise());
        }
    }

    private string Unconnected(string function)
    {
        if (function is "RES" or "CONT" or "DIOD")
            return Open;
        // A floating input picks up the room: slow wandering of tens of millivolts.
        var seconds = time.GetTimestamp() / (double)time.TimestampFrequency;
        var wandering = 0.022 * Math.Sin(seconds * 5.1) + 0.012 * Math.Sin(seconds * 11.7) + 0.003 * Noise();
        return Number(
            function switch
            {
                "VOLT" => wandering,
                "VOLT:AC" => Math.Abs(wandering),
                _ => Floor(function) * Noise(),
            }
        );
    }

    private static double Floor(string function) =>
        function switch
        {
            "VOLT" or "VOLT:AC" or "DIOD" => 0.0003,
            "RES" or "CONT" => 0.01,
            "CAP" => 2e-12,
            _ => 1e-6,
        };

    /// <summary>Between −1 and 1, mostly small.</summary>
    private double Noise() => (_noise.NextDouble() + _noise.NextDouble() + _noise.NextDouble()) / 1.5 - 1;

    private static string Number(double value) => value.ToString("0.00000000E+00", CultureInfo.InvariantCulture);
}
