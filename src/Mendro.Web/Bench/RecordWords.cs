using Mendro.Core.Calculators;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>Bench records as lists show them.</summary>
public sealed class RecordWords(DeviceProfile profile, TradeLibrary library)
{
    /// <summary>First line of a record.</summary>
    public string Subject(BenchRecord record) => record.Kind switch
    {
        RecordKind.Function => profile.FindFunction(record.Subject)?.Name ?? record.Subject,
        RecordKind.Probe => profile.FindProbe(record.Subject)?.Name ?? record.Subject,
        RecordKind.Calculation => record.Words[..Math.Max(record.Words.IndexOf(':', StringComparison.Ordinal), 0)],
        RecordKind.Swap or RecordKind.Provoke => record.Words[..Math.Max(record.Words.LastIndexOf(':'), 0)],
        _ => record.Words,
    };

    /// <summary>Second line of a record.</summary>
    public string Small(BenchRecord record)
    {
        var where = record.Kind switch
        {
            RecordKind.Function => record.Stage == WorkStage.Intake ? "baseline" : StageWords.Name(record.Stage).ToLowerInvariant(),
            RecordKind.Probe => profile.FindProbe(record.Subject)?.Kind.ToString().ToLowerInvariant() ?? "",
            RecordKind.Repair => Words.Minutes(record.Minutes),
            RecordKind.Swap => "swap trial",
            RecordKind.Calculation => record.Words[(record.Words.IndexOf(':', StringComparison.Ordinal) + 1)..].Trim(),
            _ => "",
        };
        return string.Join(" · ", new[] { where, record.Note }.Where(t => t.Length > 0));
    }

    /// <summary>Value of a record.</summary>
    public string Value(BenchRecord record) => record.Kind switch
    {
        RecordKind.Function => (record.State == "pass" ? "works" : Look(record)) + (record.Trials > 1 ? $" ×{record.Trials}" : ""),
        RecordKind.Probe => record.Reading,
        RecordKind.Swap => record.State switch { "pass" => "works", "flicker" => "comes and goes", _ => "fails" },
        RecordKind.Provoke => record.State == "changed" ? "changes" : "no change",
        _ => "",
    };

    /// <summary>Sign, style and word of a record: good, bad, done or noted.</summary>
    public static (string Sign, string Css, string Word) Mark(BenchRecord record) => record switch
    {
        { Kind: RecordKind.Repair } => ("⚒", "doubt", "done"),
        { Kind: RecordKind.Mark } or { Kind: RecordKind.Calculation, State: "" } => ("·", "soft", "noted"),
        { State: "good" or "pass" or "normal" or "absent" or "same" } => ("✓", "ok", "good"),
        _ => ("✕", "bad", "bad"),
    };

    /// <summary>Look of a failed function in words.</summary>
    public string Look(BenchRecord record)
    {
        var kind = profile.FindFunction(record.Subject)?.Kind ?? "";
        return library.FindFunctionKind(kind)?.Looks.FirstOrDefault(l => l.Id == record.Detail)?.Name ?? "fails";
    }
}
