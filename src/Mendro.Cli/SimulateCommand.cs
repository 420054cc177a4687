using System.Globalization;
using System.Text.Json;
using Mendro.Core.Profiles;
using Mendro.StandIns;

namespace Mendro.Cli;

/// <summary><c>simulate</c>: a policy at work on practice units, in minutes and share cured.</summary>
internal static class SimulateCommand
{
    private const int MostUnits = 100_000;

    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        var options = CommandOptions.Read(
            args,
            ["--profile", "--units", "--seed", "--policy", "--shift", "--learn", "--worst", "--world", "--proof", "--dialogues"],
            out var problem
        );
        if (options is null)
            return Commands.Refuse(error, problem!);
        if (
            !int.TryParse(options.Value("--units") ?? "200", NumberStyles.None, CultureInfo.InvariantCulture, out var units)
            || units is < 1 or > MostUnits
        )
            return Commands.Refuse(error, $"--units must be a whole number from 1 to {MostUnits}.");
        if (!long.TryParse(options.Value("--seed") ?? "1", NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var seed))
            return Commands.Refuse(error, "--seed must be a whole number.");
        if (
            options.Value("--policy") is not { Length: > 0 } name
            || !char.IsLetter(name[0])
            || !Enum.TryParse<SimulatedPolicy>(name, ignoreCase: true, out var policy)
        )
            return Commands.Refuse(error, "--policy must be advisor, seasoned, checklist or oracle.");
        long shift = 0;
        if (
            options.Value("--shift") is { } told
            && !long.TryParse(told, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out shift)
        )
            return Commands.Refuse(error, "--shift must be a whole number: the seed of a world with frequencies of its own.");
        if (
            !int.TryParse(options.Value("--learn") ?? "0", NumberStyles.None, CultureInfo.InvariantCulture, out var learned)
            || learned > MostUnits
        )
            return Commands.Refuse(error, "--learn must be a whole number of closed jobs.");
        if (!int.TryParse(options.Value("--worst") ?? "0", NumberStyles.None, CultureInfo.InvariantCulture, out var worst) || worst > units)
            return Commands.Refuse(error, "--worst must be a whole number of units, not more than there are.");
        var world = WorldKind.Network;
        if (
            options.Value("--world") is { } kind
            && (kind.Length == 0 || !char.IsLetter(kind[0]) || !Enum.TryParse(kind, ignoreCase: true, out world))
        )
            return Commands.Refuse(error, "--world must be network or physics.");
        if (options.Value("--proof") is { } proof and not ("yes" or "no"))
            return Commands.Refuse(error, $"--proof must be yes or no; “{proof}” is neither.");
        if (options.Model(out problem) is not { } model)
            return Commands.Refuse(error, problem!);

        var result = Simulation.Run(
            model,
            units,
            seed,
            policy,
            new SimulatedWorld(options.Value("--shift") is null ? null : shift, learned, Kind: world, Proved: options.Value("--proof") != "no"),
            worst,
            options.Value("--dialogues") is not null
        );
        if (options.Value("--dialogues") is { } file && Tell(file, result.Dialogues!) is { } unwritten)
            return Commands.Refuse(error, unwritten);
        output.WriteLine(
            options.Json
                ? JsonSerializer.Serialize(result, ProfileJson.Options)
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"{policy}: {result.MeanMinutes:0.0} min mean, {result.P90Minutes:0} min p90, {result.ShareCured:p0} cured, parts {result.MeanCost:0.00}"
                )
        );
        return Commands.Good;
    }

    /// <summary>Writes one line a unit; gives why it cannot, or null.</summary>
    private static string? Tell(string file, IReadOnlyList<Dialogue> dialogues)
    {
        try
        {
            File.WriteAllLines(file, dialogues.Select(d => JsonSerializer.Serialize(d, Lines)));
            return null;
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException or ArgumentException or NotSupportedException)
        {
            return $"--dialogues: {ex.Message}";
        }
    }

    // One unit is one line, whatever the other answers look like.
    private static readonly JsonSerializerOptions Lines = new(ProfileJson.Options) { WriteIndented = false };
}
