using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>Reads <c>mendro.evidence/1</c>: what happened to one unit, in order.</summary>
/// <param name="Events">The events.</param>
/// <param name="State">How far the unit is taken apart.</param>
/// <param name="Done">Steps of taking it apart that are done; null when only the state is told.</param>
/// <param name="Gear">Gear that stood in for parts in swap trials.</param>
public sealed record EvidenceFile(
    IReadOnlyList<BenchEvent> Events,
    AccessState State,
    IReadOnlyList<GearItem> Gear,
    IReadOnlyList<string>? Done = null
)
{
    /// <summary>The format name every evidence file carries.</summary>
    public const string FormatName = "mendro.evidence/1";

    /// <summary>How far the unit is apart, to the step where the file tells the steps.</summary>
    public Apart Apart(DeviceModel model) =>
        (Done ?? []).Aggregate(model.Disassembly.At(State), (apart, step) => model.Disassembly.Step(apart, step, false));

    /// <summary>Reads a file against a model.</summary>
    /// <param name="json">Text of the file.</param>
    /// <param name="model">Model of the unit.</param>
    /// <returns>The evidence, or a message that names the place of the error.</returns>
    public static Outcome<EvidenceFile> Read(string json, DeviceModel model)
    {
        if (ProfileJson.Deserialize<Document>(json, out var document) is { } unreadable)
            return Outcome<EvidenceFile>.Fail(unreadable);
        if (document?.Format != FormatName)
            return Outcome<EvidenceFile>.Fail($"format: expected “{FormatName}”.");
        // A list under another name would be no evidence at all, and the advice for a unit of which nothing is known.
        if (document is { Events: null, Other.Count: > 0 })
            return Outcome<EvidenceFile>.Fail($"events: missing; “{document.Other.Keys.First()}” is no member here.");
        var gear = document.Gear ?? [];
        for (var n = 0; n < gear.Count; n++)
        {
            if (gear[n] is not { Id.Length: > 0, Kind: not null } item)
                return Outcome<EvidenceFile>.Fail($"gear[{n}]: id and kind are required.");
            if (model.Library.FindPartKind(item.Kind) is null)
                return Outcome<EvidenceFile>.Fail($"gear[{n}].kind: the library has no part kind “{item.Kind}”.");
            if (item.UsesSinceCleaning < 0)
                return Outcome<EvidenceFile>.Fail($"gear[{n}].usesSinceCleaning: must be 0 or more.");
            if (item.UsesSinceRun < 0)
                return Outcome<EvidenceFile>.Fail($"gear[{n}].usesSinceRun: must be 0 or more.");
        }

        if ((document.Done ?? []).FindIndex(s => model.Profile.FindStep(s) is null) is >= 0 and var unknown)
            return Outcome<EvidenceFile>.Fail($"done[{unknown}]: the model has no step “{document.Done![unknown]}”.");
        var context = new EntryContext(model, gear);
        var events = new List<BenchEvent>();
        foreach (var entry in document.Events ?? [])
        {
            if (entry is null)
                return Outcome<EvidenceFile>.Fail($"events[{events.Count}]: empty.");
            var read = RecordKinds.FromEntry(entry, context);
            if (read.Value is not { } body || body.ToEvent(events.Count) is null)
                return Outcome<EvidenceFile>.Fail($"events[{events.Count}]: {read.Problem}");
            foreach (var part in body is RepairLogged repair ? repair.InOneGo(model) : (IReadOnlyList<RecordBody>)[body])
                events.Add(part.ToEvent(events.Count)!);
        }

        return Outcome<EvidenceFile>.Ok(new EvidenceFile(events, document.State ?? AccessState.Closed, gear, document.Done));
    }

    private sealed record Document(
        string? Format,
        AccessState? State,
        List<GearItem>? Gear,
        List<EvidenceEntry?>? Events,
        List<string>? Done = null
    )
    {
        [JsonExtensionData]
        public Dictionary<string, JsonElement>? Other { get; init; }
    }
}
