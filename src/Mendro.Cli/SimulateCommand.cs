using System.Globalization;
using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.StandIns;

namespace Mendro.Cli;

/// <summary><c>simulate</c>: a policy at work on practice units, in minutes and share cured.</summary>
internal static class SimulateCommand
{
    private const int MostUnits = 100_000;

    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        string? file = null, policyName = null;
        var (units, seed, json) = (200, 1L, false);
        for (var n = 0; n < args.Length; n++)
        {
            if (args[n] == "--json")
            {
                json = true;
                continue;
            }

            if (n + 1 >= args.Length) return Commands.Refuse(error, $"{args[n]} lacks its value.");
            var value = args[++n];
            switch (args[n - 1])
            {
                case "--profile":
                    file = value;
                    break;
                case "--policy":
                    policyName = value;
                    break;
                case "--units":
                    if (!int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out units) || units is < 1 or > MostUnits)
                        return Commands.Refuse(error, $"--units must be a whole number from 1 to {MostUnits}.");
                    break;
                case "--seed":
                    if (!long.TryParse(value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out seed))
                        return Commands.Refuse(error, "--seed must be a whole number.");
                    break;
                default:
                    return Commands.Refuse(error, $"“{args[n - 1]}” is not an option of simulate.");
            }
        }

        if (file is null) return Commands.Refuse(error, "--profile is missing: the file of a mendro.profile/1.");
        if (!Enum.TryParse<SimulatedPolicy>(policyName, ignoreCase: true, out var policy) || !Enum.IsDefined(policy) || char.IsDigit(policyName![0]))
            return Commands.Refuse(error, "--policy must be advisor, checklist or oracle.");
        if (Commands.ReadText(file, out var text) is { } unreadable) return Commands.Refuse(error, unreadable);
        var read = ProfileJson.Read(text);
        if (!read.IsOk) return Commands.Refuse(error, read.Problem!);
        var problems = ProfileValidator.Check(read.Value, TradeLibrary.Shipped);
        if (problems.Count > 0) return Commands.Refuse(error, $"{problems[0].Place}: {problems[0].Message}");

        var result = Simulation.Run(new DeviceModel(read.Value, TradeLibrary.Shipped), units, seed, policy);
        output.WriteLine(json
            ? JsonSerializer.Serialize(result, ProfileJson.Options)
            : string.Create(CultureInfo.InvariantCulture, $"{policy}: {result.MeanMinutes:0.0} min mean, {result.P90Minutes:0} min p90, {result.ShareCured:p0} cured, parts {result.MeanCost:0.00}"));
        return Commands.Good;
    }
}
