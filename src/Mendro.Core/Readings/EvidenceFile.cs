using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>Reads <c>mendro.evidence/1</c>: what happened to one unit, in order.</summary>
/// <param name="Events">The events.</param>
/// <param name="State">How far the unit is taken apart.</param>
/// <param name="Gear">Gear that stood in for parts in swap trials.</param>
public sealed record EvidenceFile(IReadOnlyList<BenchEvent> Events, AccessState State, IReadOnlyList<GearItem> Gear)
{
    private const int MostStarts = 1000;

    /// <summary>The format name every evidence file carries.</summary>
    public const string FormatName = "mendro.evidence/1";

    /// <summary>Reads a file against a model.</summary>
    /// <param name="json">Text of the file.</param>
    /// <param name="model">Model of the unit.</param>
    /// <returns>The evidence, or a message that names the place of the error.</returns>
    public static Outcome<EvidenceFile> Read(string json, DeviceModel model)
    {
        if (ProfileJson.Deserialize<Document>(json, out var document) is { } unreadable) return Outcome<EvidenceFile>.Fail(unreadable);
        if (document?.Format != FormatName) return Outcome<EvidenceFile>.Fail($"format: expected “{FormatName}”.");
        var gear = document.Gear ?? [];
        for (var n = 0; n < gear.Count; n++)
        {
            if (gear[n] is not { Id.Length: > 0, Kind: not null } item) return Outcome<EvidenceFile>.Fail($"gear[{n}]: id and kind are required.");
            if (model.Library.FindPartKind(item.Kind) is null) return Outcome<EvidenceFile>.Fail($"gear[{n}].kind: the library has no part kind “{item.Kind}”.");
            if (item.UsesSinceCleaning < 0) return Outcome<EvidenceFile>.Fail($"gear[{n}].usesSinceCleaning: must be 0 or more.");
        }

        var events = new List<BenchEvent>();
        foreach (var entry in document.Events ?? [])
        {
            if (entry is null) return Outcome<EvidenceFile>.Fail($"events[{events.Count}]: empty.");
            var problem = Parse(entry, events.Count, model, gear, out var happened);
            if (happened is null) return Outcome<EvidenceFile>.Fail($"events[{events.Count}]: {problem}");
            events.Add(happened);
        }

        return Outcome<EvidenceFile>.Ok(new EvidenceFile(events, document.State ?? AccessState.Closed, gear));
    }

    private static string? Parse(Entry entry, long id, DeviceModel model, IReadOnlyList<GearItem> gear, out BenchEvent? happened)
    {
        happened = null;
        if ((entry.Function ?? entry.Swap) is { } functionId)
        {
            if (model.Profile.FindFunction(functionId) is not { } function) return $"there is no function “{functionId}”.";
            if (entry.Provoked is { } how)
            {
                if (entry.Changed is not { } changed) return "with provoked goes “changed”: true or false.";
                happened = new Provoked(id, functionId, how, changed);
                return null;
            }

            if (entry.Result is not ("pass" or "fail") && (entry.Swap is null || entry.Result != "flicker")) return "result must be “pass” or “fail”, of a swap also “flicker”.";
            if (entry.Swap is not null)
            {
                if ((entry.Chain ?? []).Cast<PartId?>().FirstOrDefault(p => model.Profile.FindPart(p!.Value) is null) is { } unknown) return $"there is no part “{unknown}”.";
                if ((entry.Gear ?? []).FirstOrDefault(g => gear.All(known => known.Id != g)) is { } missing) return $"gear names no “{missing}”.";
                happened = new SwapTried(id, functionId, entry.Chain ?? [], entry.Result == "pass", entry.Gear, entry.Result == "flicker");
                return null;
            }

            if (entry.Look is { } look && !model.HasLook(function, look))
                return $"“{function.Name}” has no look “{look}”.";
            if (entry.Starts is < 1 or > MostStarts) return $"starts must be 1 to {MostStarts}.";
            happened = new FunctionTried(id, functionId, entry.Result == "pass", entry.Look, entry.Starts ?? 1);
            return null;
        }

        if (entry.Probe is { } probeId)
        {
            if (model.Profile.FindProbe(probeId) is not { } probe) return $"there is no probe “{probeId}”.";
            var judged = ReadingJudge.Judge(model.Profile, probe, entry.Reading);
            if (!judged.IsOk) return judged.Problem;
            happened = new ProbeTaken(id, probeId, judged.Value.Outcome);
            return null;
        }

        if (entry.Mark is { } mark)
        {
            if (model.Library.FindMark(mark) is null) return $"the library has no condition mark “{mark}”.";
            happened = new MarkSeen(id, mark);
            return null;
        }

        if (entry.Part is not { } partId) return "name a function, swap, probe, mark or part.";
        if (model.Profile.FindPart(partId) is null) return $"there is no part “{partId}”.";
        if (entry.Method is { } method)
        {
            if (model.Library.FindMethod(method) is null) return $"the library has no method “{method}”.";
            happened = new RepairDone(id, partId, method);
            return null;
        }

        if (entry.Cause is not { } cause) return "with a part goes a method that was done or a cause that was seen.";
        if (model.FaultsOf(partId).All(i => model.Faults[i].Mode.Id != cause)) return $"“{partId}” has no failure mode “{cause}”.";
        happened = new CauseConfirmed(id, partId, cause, entry.Present ?? true);
        return null;
    }

    private sealed record Document(string? Format, AccessState? State, List<GearItem>? Gear, List<Entry?>? Events);

    private sealed record Entry(
        string? Function, string? Swap, List<PartId>? Chain, List<string>? Gear, string? Result, string? Look, int? Starts, Provocation? Provoked, bool? Changed,
        string? Probe, string? Reading, string? Mark, string? Part, string? Method, string? Cause, bool? Present);
}
