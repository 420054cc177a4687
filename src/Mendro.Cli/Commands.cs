using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary>The commands for machines: answers on standard output, messages on standard error.</summary>
public static class Commands
{
    private const long LargestFile = 16 * 1024 * 1024;

    /// <summary>Exit code of an answer.</summary>
    public const int Good = 0;

    /// <summary>Exit code of bad input.</summary>
    public const int BadInput = 2;

    /// <summary>Runs a command.</summary>
    /// <param name="args">Command and its arguments.</param>
    /// <param name="output">Standard output.</param>
    /// <param name="error">Standard error.</param>
    /// <returns>0, or 2 for bad input.</returns>
    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        if (args.Length == 0) return Refuse(error, "Say a command: diagnose FILE --json");
        return args[0] switch
        {
            "diagnose" => Diagnose(args[1..], output, error),
            _ => Refuse(error, $"“{args[0]}” is not a command. Known: diagnose FILE --json"),
        };
    }

    private static int Diagnose(string[] args, TextWriter output, TextWriter error)
    {
        var json = args.Contains("--json");
        var files = args.Where(a => a != "--json").ToList();
        if (files.Count != 1) return Refuse(error, "diagnose wants one file: diagnose FILE --json");
        if (files[0] != "-" && !File.Exists(files[0])) return Refuse(error, $"There is no file “{files[0]}”.");
        if (files[0] != "-" && new FileInfo(files[0]).Length > LargestFile) return Refuse(error, "The file is larger than 16 MB.");
        string text;
        try
        {
            text = files[0] == "-" ? Console.In.ReadToEnd() : File.ReadAllText(files[0]);
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            return Refuse(error, $"“{files[0]}” could not be read: {ex.Message}");
        }

        var outcome = NetworkFile.Diagnose(text, TimeProvider.System);
        if (!outcome.IsOk) return Refuse(error, outcome.Problem!);
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(outcome.Value, ProfileJson.Options));
            return Good;
        }

        output.WriteLine($"probability of the evidence {outcome.Value.EvidenceProbability:g6}");
        foreach (var fault in outcome.Value.Faults.OrderByDescending(f => f.Posterior)) output.WriteLine($"{fault.Posterior,10:p2}  {fault.Id}");
        return Good;
    }

    private static int Refuse(TextWriter error, string message)
    {
        error.WriteLine(message);
        return BadInput;
    }
}
