using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Cli;

/// <summary>The commands for machines: answers on standard output, messages on standard error.</summary>
public static class Commands
{
    private const string Known =
        "diagnose FILE --json; advise --profile FILE --evidence FILE --json; simulate --profile FILE --units N --seed S "
        + "--policy advisor|seasoned|checklist|oracle --json; calc NAME key=value … --json; "
        + "casebook FILE [--profiles DIR] --json; understand TEXT --json; "
        + "materials FILE --json; fit FILE --json; beeps FILE --json; jumpers FILE --json; order FILE --json; plan FILE --json; "
        + "teardown --profile FILE --to ID[,ID…] [--done ID,…] --json; "
        + "backup FILE; restore FILE; export DIR; import DIR; recover NAME";

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
        if (args.Length == 0)
            return Refuse(error, $"Say a command: {Known}");
        return args[0] switch
        {
            "diagnose" => Diagnose(args[1..], output, error),
            "advise" => AdviseCommand.Run(args[1..], output, error),
            "calc" => CalcCommand.Run(args[1..], output, error),
            "simulate" => SimulateCommand.Run(args[1..], output, error),
            "understand" => UnderstandCommand.Run(args[1..], output, error),
            "casebook" => CasebookCommand.Run(args[1..], output, error),
            "materials" => MaterialsCommand.Run(args[1..], output, error),
            "jumpers" => JumpersCommand.Run(args[1..], output, error),
            "beeps" => BeepsCommand.Run(args[1..], output, error),
            "order" => OrderCommand.Run(args[1..], output, error),
            "plan" => PlanCommand.Run(args[1..], output, error),
            "fit" => FitCommand.Run(args[1..], output, error),
            "teardown" => TeardownCommand.Run(args[1..], output, error),
            "schema" => Schema(output),
            "backup" => SafekeepingCommands.Backup(args[1..], output, error),
            "restore" => SafekeepingCommands.Restore(args[1..], output, error),
            "export" => SafekeepingCommands.Export(args[1..], output, error),
            "import" => SafekeepingCommands.Import(args[1..], output, error),
            "recover" => SafekeepingCommands.Recover(args[1..], output, error),
            _ => Refuse(error, $"“{args[0]}” is not a command. Known: {Known}"),
        };
    }

    /// <summary>Runs a command that answers a file: <c>NAME FILE [--json]</c>.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="args">Its arguments.</param>
    /// <param name="error">Standard error.</param>
    /// <param name="answer">Answers the text of the file, as JSON when that is true.</param>
    internal static int OnFile(string name, string[] args, TextWriter error, Func<string, bool, int> answer)
    {
        if (args is not [var file, .. var rest] || file.StartsWith("--", StringComparison.Ordinal))
            return Refuse(error, $"{name} wants a file first: {name} FILE --json");
        if (CommandOptions.Read(rest, [], out var problem) is not { } options)
            return Refuse(error, problem!);
        return ReadText(file, out var text) is { } unreadable ? Refuse(error, unreadable) : answer(text, options.Json);
    }

    private static int Schema(TextWriter output)
    {
        output.Write(ProfileSchemaMaker.Make());
        return Good;
    }

    private static int Diagnose(string[] args, TextWriter output, TextWriter error)
    {
        var json = args.Contains("--json");
        var files = args.Where(a => a != "--json").ToList();
        if (files.Count != 1)
            return Refuse(error, "diagnose wants one file: diagnose FILE --json");
        if (ReadText(files[0], out var text) is { } problem)
            return Refuse(error, problem);
        var outcome = NetworkFile.Diagnose(text, TimeProvider.System);
        if (!outcome.IsOk)
            return Refuse(error, outcome.Problem!);
        if (json)
        {
            output.WriteLine(JsonSerializer.Serialize(outcome.Value, ProfileJson.Options));
            return Good;
        }

        output.WriteLine($"probability of the evidence {outcome.Value.EvidenceProbability:g6}");
        foreach (var fault in outcome.Value.Faults.OrderByDescending(f => f.Posterior))
            output.WriteLine($"{fault.Posterior, 10:p2}  {fault.Id}");
        return Good;
    }

    /// <summary>Reads a file, or standard input for <c>-</c>.</summary>
    /// <returns>Null when it was read, else why not.</returns>
    internal static string? ReadText(string file, out string text)
    {
        text = "";
        if (file == "-")
        {
            text = Console.In.ReadToEnd();
            return null;
        }

        if (!File.Exists(file))
            return $"There is no file “{file}”.";
        if (new FileInfo(file).Length > LargestFile)
            return "The file is larger than 16 MB.";
        try
        {
            text = File.ReadAllText(file);
            return null;
        }
        catch (Exception ex) when (ex is IOException or UnauthorizedAccessException)
        {
            return $"“{file}” could not be read: {ex.Message}";
        }
    }

    internal static int Refuse(TextWriter error, string message)
    {
        error.WriteLine(message);
        return BadInput;
    }
}
