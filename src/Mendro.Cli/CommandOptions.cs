using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary>Options of a command: <c>--name value</c> pairs and the switch <c>--json</c>.</summary>
internal sealed class CommandOptions
{
    private readonly Dictionary<string, string> _values = [];

    public bool Json { get; private set; }

    /// <summary>Reads the options; null when one is unknown or lacks its value, which <paramref name="problem"/> names.</summary>
    public static CommandOptions? Read(string[] args, IReadOnlyList<string> known, out string? problem)
    {
        var options = new CommandOptions();
        problem = null;
        for (var n = 0; n < args.Length; n++)
        {
            if (args[n] == "--json")
            {
                options.Json = true;
                continue;
            }

            if (!known.Contains(args[n]))
                problem = $"“{args[n]}” is not an option here. Known: {string.Join(", ", known)}, --json.";
            else if (n + 1 >= args.Length)
                problem = $"{args[n]} lacks its value.";
            if (problem is not null)
                return null;
            options._values[args[n]] = args[++n];
        }

        return options;
    }

    public string? Value(string name) => _values.GetValueOrDefault(name);

    /// <summary>The model of the profile file named by <c>--profile</c>; null when there is none, with the reason.</summary>
    public DeviceModel? Model(out string? problem)
    {
        if (Value("--profile") is not { } file)
        {
            problem = "--profile is missing: the file of a mendro.profile/1.";
            return null;
        }

        problem = Commands.ReadText(file, out var text);
        if (problem is not null)
            return null;
        var read = ProfileJson.Read(text);
        problem = read.Problem;
        if (!read.IsOk)
            return null;
        problem = ProfileValidator.Check(read.Value, TradeLibrary.Shipped).Select(p => $"{p.Place}: {p.Message}").FirstOrDefault();
        return problem is null ? new DeviceModel(read.Value, TradeLibrary.Shipped) : null;
    }
}
