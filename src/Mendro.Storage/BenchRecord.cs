using Mendro.Core.Calculators;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>What a bench record holds.</summary>
public enum RecordKind
{
    /// <summary>A function tried.</summary>
    Function,

    /// <summary>A probe taken.</summary>
    Probe,

    /// <summary>A condition mark.</summary>
    Mark,

    /// <summary>A cause confirmed or ruled out.</summary>
    Cause,

    /// <summary>A repair done.</summary>
    Repair,

    /// <summary>A function tried with something swapped.</summary>
    Swap,

    /// <summary>A function watched while the unit was pressed, flexed or warmed.</summary>
    Provoke,

    /// <summary>A calculation filed for the record; no evidence by itself.</summary>
    Calculation,
}

/// <summary>One thing done or seen at the bench. Never changed, only withdrawn and replaced.</summary>
public sealed record BenchRecord
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job.</summary>
    public long JobId { get; init; }

    /// <summary>Place in the order of events; a correction keeps the place of what it corrects.</summary>
    public long Seq { get; init; }

    /// <summary>What it holds.</summary>
    public RecordKind Kind { get; init; }

    /// <summary>Function, probe, mark or part id.</summary>
    public string Subject { get; init; } = "";

    /// <summary>pass or fail, of a swap also flicker; normal, abnormal or jumps; present or absent; changed or same; of a calculation good, bad or nothing.</summary>
    public string State { get; init; } = "";

    /// <summary>Look id, failure-mode id, method id or provocation; of a probe the caution it calls for; of a swap a <see cref="SwapDetail"/>.</summary>
    public string Detail { get; init; } = "";

    /// <summary>How many times in a row a function was tried with this result, 1 or more.</summary>
    public int Trials { get; init; } = 1;

    /// <summary>Reading as understood.</summary>
    public string Reading { get; init; } = "";

    /// <summary>Value in the SI base unit, when metered.</summary>
    public double? Value { get; init; }

    /// <summary>The record in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>Free note.</summary>
    public string Note { get; init; } = "";

    /// <summary>Minutes it took.</summary>
    public double Minutes { get; init; }

    /// <summary>Cost of parts, in the job's currency.</summary>
    public decimal? Cost { get; init; }

    /// <summary>Parts used, in words.</summary>
    public string Parts { get; init; } = "";

    /// <summary>Stage in which it was done.</summary>
    public WorkStage Stage { get; init; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>When it was withdrawn, UTC.</summary>
    public DateTimeOffset? WithdrawnAt { get; init; }

    /// <summary>The record as the engine takes it, or null when it is no evidence.</summary>
    public BenchEvent? ToEvent() => Kind switch
    {
        RecordKind.Function => new FunctionTried(Id, Subject, State == "pass", Detail.Length > 0 ? Detail : null, Math.Max(1, Trials)),
        RecordKind.Probe => new ProbeTaken(Id, Subject, State switch
        {
            "normal" => ProbeOutcome.Normal,
            "jumps" => ProbeOutcome.Jumps,
            _ => ProbeOutcome.Abnormal,
        }),
        RecordKind.Mark => new MarkSeen(Id, Subject),
        RecordKind.Swap when SwapDetail.Read(Detail) is var swap =>
            new SwapTried(Id, Subject, swap.Chain, State == "pass", swap.Gear.Select(g => g.Id).ToList(), State == "flicker"),
        RecordKind.Provoke => new Provoked(Id, Subject, Enum.Parse<Provocation>(Detail, ignoreCase: true), State == "changed"),
        RecordKind.Cause => new CauseConfirmed(Id, Subject, Detail, State == "present"),
        RecordKind.Repair => new RepairDone(Id, Subject, Detail),
        _ => null,
    };
}

/// <summary>One line of a job's timeline.</summary>
public sealed record TimelineEntry
{
    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>Sort of entry, for its mark.</summary>
    public string Kind { get; init; } = "";

    /// <summary>What happened, in words.</summary>
    public string Words { get; init; } = "";
}
