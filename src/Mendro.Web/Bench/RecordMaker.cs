using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>Makes bench records with their words; refuses ids that the profile or library does not know.</summary>
public sealed class RecordMaker(DeviceProfile profile, TradeLibrary library, WorkStage stage, DateTimeOffset at)
{
    /// <summary>A function tried.</summary>
    /// <returns>The record, or null when there is no such function.</returns>
    public BenchRecord? Function(string functionId, bool passed, string? lookId, string note = "", int trials = 1)
    {
        if (profile.FindFunction(functionId) is not { } function) return null;
        var look = passed ? null : library.FindFunctionKind(function.Kind)?.Looks.FirstOrDefault(l => l.Id == lookId);
        return new BenchRecord
        {
            Kind = RecordKind.Function, Subject = function.Id, State = passed ? "pass" : "fail", Detail = look?.Id ?? "",
            Words = $"{function.Name}: {(passed ? "works" : look?.Name ?? "fails")}{(trials > 1 ? $", {trials} times running" : "")}", Note = note, Trials = trials, Minutes = function.Minutes * trials, Stage = stage, At = at,
        };
    }

    /// <summary>A probe taken.</summary>
    public BenchRecord Probe(Probe probe, JudgedReading judged, string note = "") => new()
    {
        Kind = RecordKind.Probe, Subject = probe.Id, State = judged.Outcome.ToString().ToLowerInvariant(), Reading = judged.Reading.ToString(),
        Value = judged.Reading.Value, Words = $"{probe.Name}: {judged.Reading}, {judged.Words}", Note = note.Length > 0 ? note : judged.Reason, Detail = judged.Stop ?? "", Minutes = probe.Minutes, Stage = stage, At = at,
    };

    /// <summary>A probe that told only good or bad, as a practice unit does.</summary>
    /// <returns>The record, or null when there is no such probe.</returns>
    public BenchRecord? Probe(string probeId, ProbeOutcome outcome)
    {
        if (profile.FindProbe(probeId) is not { } probe) return null;
        var answer = outcome == ProbeOutcome.Normal ? MoveWords.GoodAnswer(probe) : MoveWords.BadAnswer(probe);
        return new BenchRecord
        {
            Kind = RecordKind.Probe, Subject = probe.Id, State = outcome.ToString().ToLowerInvariant(), Reading = outcome == ProbeOutcome.Normal ? "good" : "not good",
            Words = $"{probe.Name}: {answer}", Minutes = probe.Minutes, Stage = stage, At = at,
        };
    }

    /// <summary>A repair as the library describes it.</summary>
    public BenchRecord? Repair(string partId, string methodId) =>
        library.FindMethod(methodId) is { } method ? Repair(partId, methodId, method.Minutes, method.PartsCost, "", "") : null;

    /// <summary>A function watched while the unit was pressed, flexed or warmed.</summary>
    /// <returns>The record, or null when there is no such function.</returns>
    public BenchRecord? Provoke(string functionId, Provocation how, bool changed, string note = "") => profile.FindFunction(functionId) is not { } function ? null : new BenchRecord
    {
        Kind = RecordKind.Provoke, Subject = function.Id, Detail = how.ToString().ToLowerInvariant(), State = changed ? "changed" : "same",
        Words = $"{MoveWords.ProvokeTitle(function, how)}: {(changed ? "it changes" : "nothing changes")}", Note = note, Minutes = MoveWords.ProvokeMinutes(function, how), Stage = stage, At = at,
    };

    /// <summary>A function tried with something swapped.</summary>
    /// <param name="functionId">Function.</param>
    /// <param name="detail">What was swapped.</param>
    /// <param name="state">pass, fail or flicker.</param>
    /// <returns>The record, or null when there is no such function.</returns>
    public BenchRecord? Swap(string functionId, SwapDetail detail, string state)
    {
        if (profile.FindFunction(functionId) is not { } function) return null;
        var swaps = detail.Out.Zip(detail.Gear, (part, with) => $"{profile.FindPart(part)?.Name ?? "this unit"} → {with.Name}");
        return new BenchRecord
        {
            Kind = RecordKind.Swap, Subject = function.Id, Detail = detail.Write(), State = state, Minutes = function.Minutes + 1, Stage = stage, At = at,
            Words = $"{function.Name} with {string.Join(", ", swaps)}: {state switch { "pass" => "works", "flicker" => "comes and goes", _ => "fails" }}",
        };
    }

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
        if (method.Cures.All(c => c.Kind != part.Kind && c.Kind != "*")) return null;
        return new BenchRecord
        {
            Kind = RecordKind.Repair, Subject = part.Id, Detail = method.Id, State = "done", Words = $"{method.Name} ({part.Name})",
            Minutes = minutes, Cost = cost, Parts = parts, Note = note, Stage = stage, At = at,
        };
    }
}
