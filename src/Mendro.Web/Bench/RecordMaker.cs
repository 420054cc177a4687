using Mendro.Core.Diagnosis;
using Mendro.Core.Methods;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>Makes bench records with their words; refuses ids that the profile or library does not know.</summary>
public sealed class RecordMaker(DeviceProfile profile, TradeLibrary library, WorkStage stage, DateTimeOffset at)
{
    /// <summary>A function tried.</summary>
    /// <returns>The record, or null when there is no such function.</returns>
    public BenchRecord? Function(string functionId, bool passed, string? lookId, string note = "")
    {
        if (profile.FindFunction(functionId) is not { } function) return null;
        var look = passed ? null : library.FindFunctionKind(function.Kind)?.Looks.FirstOrDefault(l => l.Id == lookId);
        return new BenchRecord
        {
            Kind = RecordKind.Function, Subject = function.Id, State = passed ? "pass" : "fail", Detail = look?.Id ?? "",
            Words = $"{function.Name}: {(passed ? "works" : look?.Name ?? "fails")}", Note = note, Minutes = function.Minutes, Stage = stage, At = at,
        };
    }

    /// <summary>A probe taken.</summary>
    public BenchRecord Probe(Probe probe, JudgedReading judged, string note = "") => new()
    {
        Kind = RecordKind.Probe, Subject = probe.Id, State = judged.Outcome.ToString().ToLowerInvariant(), Reading = judged.Reading.ToString(),
        Value = judged.Reading.Value, Words = $"{probe.Name}: {judged.Reading}, {judged.Words}", Note = note, Minutes = probe.Minutes, Stage = stage, At = at,
    };

    /// <summary>A condition mark.</summary>
    /// <returns>The record, or null when there is no such mark.</returns>
    public BenchRecord? Mark(string markId) => library.FindMark(markId) is not { } mark ? null : new BenchRecord
    {
        Kind = RecordKind.Mark, Subject = mark.Id, State = "present", Words = $"Seen at intake: {mark.Name}", Stage = stage, At = at,
    };

    /// <summary>A cause confirmed or ruled out by eye.</summary>
    /// <returns>The record, or null when the part has no such failure mode.</returns>
    public BenchRecord? Cause(string partId, string modeId, bool present)
    {
        if (profile.FindPart(partId) is not { } part) return null;
        if (library.FindPartKind(part.Kind)?.Modes.FirstOrDefault(m => m.Id == modeId) is not { } mode) return null;
        return new BenchRecord
        {
            Kind = RecordKind.Cause, Subject = part.Id, Detail = mode.Id, State = present ? "present" : "absent",
            Words = present ? $"Cause seen: {part.Name}, {mode.Name}" : $"Ruled out: {part.Name}, {mode.Name}", Stage = stage, At = at,
        };
    }

    /// <summary>A repair done.</summary>
    /// <returns>The record, or null when the method does not go with the part.</returns>
    public BenchRecord? Repair(string partId, string methodId, double minutes, decimal? cost, string parts, string note)
    {
        if (profile.FindPart(partId) is not { } part || library.FindMethod(methodId) is not { } method) return null;
        if (method.Cures.All(c => c.Kind != part.Kind)) return null;
        return new BenchRecord
        {
            Kind = RecordKind.Repair, Subject = part.Id, Detail = method.Id, State = "done", Words = $"{method.Name} ({part.Name})",
            Minutes = minutes, Cost = cost, Parts = parts, Note = note, Stage = stage, At = at,
        };
    }
}
