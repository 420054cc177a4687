using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Shop;

namespace Mendro.Web;

/// <summary>Sign, style and word of a record in lists: never colour alone.</summary>
public static class RecordMarks
{
    /// <summary>How a record is marked.</summary>
    public static (string Sign, string Css, string Word) Of(RecordBody body) =>
        body.Sign switch
        {
            RecordSign.Done => ("⚒", "doubt", "done"),
            RecordSign.Good => ("✓", "ok", "good"),
            RecordSign.Bad => ("✕", "bad", "bad"),
            _ => ("·", "soft", "noted"),
        };

    /// <summary>Second line of a record: what it is, and its note.</summary>
    public static string Small(Mendro.Core.Diagnosis.DeviceModel model, BenchRecord record) =>
        string.Join(" · ", new[] { record.Body.Small(model, record), record.Note }.Where(t => t.Length > 0));

    /// <summary>What the reading bar is set to when the record is to be corrected, or null when it cannot be.</summary>
    public static string? Select(RecordBody body) =>
        body switch
        {
            ProbeReading reading => $"probe:{reading.Probe}",
            FunctionTrial trial => $"fn:{trial.Function}",
            _ => null,
        };
}
