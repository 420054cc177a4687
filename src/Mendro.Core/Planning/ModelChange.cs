using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>What becomes of a record when its unit turns out to be another model.</summary>
/// <param name="Record">The record.</param>
/// <param name="Body">What stands in its place: itself, the same of a function under another name, words only, or null when the claim,
/// heard again, stands for it.</param>
public sealed record RecordChange(BenchRecord Record, RecordBody? Body);

/// <summary>A unit turns out to be another model than it was taken in as: no record is lost, and its claim is heard again.</summary>
public static class ModelChange
{
    /// <summary>Functions of which something was filed by hand and which the other model does not have under that id, each with the
    /// function of the other that is likeliest the same, or null.</summary>
    public static IReadOnlyList<(DeviceFunction From, DeviceFunction? To)> Asked(
        IEnumerable<BenchRecord> records, string claim, DeviceModel from, DeviceProfile to, ShopWords own)
    {
        var heard = Baseline(claim, from, own);
        return
        [
            .. records
                .Where(r => !IsHeard(r, heard))
                .Select(r => FunctionOf(r.Body))
                .OfType<FunctionId>()
                .Distinct()
                .Where(id => to.FindFunction(id) is null)
                .Select(id => from.Profile.FindFunction(id))
                .OfType<DeviceFunction>()
                .Select(f => (f, to.Functions.FirstOrDefault(o => o.Kind == f.Kind))),
        ];
    }

    /// <summary>What becomes of each record.</summary>
    /// <param name="records">Records that hold, in order.</param>
    /// <param name="claim">What was said at the door.</param>
    /// <param name="from">Model the unit was taken for.</param>
    /// <param name="to">Model that it is.</param>
    /// <param name="same">Functions of the first by those of the other that they are.</param>
    /// <param name="own">The shop's own words.</param>
    public static IReadOnlyList<RecordChange> Of(
        IReadOnlyList<BenchRecord> records, string claim, DeviceModel from, DeviceModel to, IReadOnlyDictionary<FunctionId, FunctionId> same, ShopWords own)
    {
        var heard = Baseline(claim, from, own);
        // What the claim says of both stays in its place.
        var again = Baseline(claim, to, own);
        return
        [
            .. records.Select(r =>
                new RecordChange(r, IsHeard(r, heard) && !IsHeard(r, again) ? null : Changed(r, from, to, same))
            ),
        ];
    }

    /// <summary>What the claim says of a model, as intake files it.</summary>
    public static IReadOnlyList<FunctionTrial> Baseline(string claim, DeviceModel model, ShopWords own) =>
        [
            .. Understanding
                .Of(claim, model.Profile, model.Library, own)
                .Trials.Select(f => FunctionTrial.Make(model, f.Function!.Value, f.Passed, f.Look, f.Starts))
                .OfType<FunctionTrial>(),
        ];

    private static bool IsHeard(BenchRecord record, IReadOnlyList<FunctionTrial> heard) =>
        record is { Stage: WorkStage.Intake, Body: FunctionTrial trial } && heard.Contains(trial);

    private static FunctionId? FunctionOf(RecordBody body) =>
        body switch
        {
            FunctionTrial trial => (FunctionId?)trial.Function,
            ProvokeTrial provoked => provoked.Function,
            _ => null,
        };

    private static RecordBody Changed(BenchRecord record, DeviceModel from, DeviceModel to, IReadOnlyDictionary<FunctionId, FunctionId> same)
    {
        var body = record.Body switch
        {
            FunctionTrial t => (RecordBody?)FunctionTrial.Make(to, same.GetValueOrDefault(t.Function, t.Function), t.Passed, t.Look, t.Starts),
            ProvokeTrial p when same.TryGetValue(p.Function, out var other) => p with { Function = other },
            _ => RecordNames.Missing([record.Body], from.Profile, to.Profile).Count == 0 ? (RecordBody?)record.Body : null,
        };
        // What cannot be evidence about the other model stays readable.
        return body is not null && Fits(body, to, record.Id) ? body : new WordsKept(record.Words, from.Profile.FullName);
    }

    private static bool Fits(RecordBody body, DeviceModel model, long id) =>
        body.ToEvent(id) is not { } told || UnitDiagnosis.Make(model, [told]).IsOk;
}
