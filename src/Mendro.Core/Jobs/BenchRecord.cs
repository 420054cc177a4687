using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;

namespace Mendro.Core.Jobs;

/// <summary>One thing done or seen at the bench. Never changed, only withdrawn and replaced.</summary>
public sealed record BenchRecord
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary>Place in the order of events; a correction keeps the place of what it corrects.</summary>
    public long Seq { get; init; }

    /// <summary>What it says.</summary>
    public required RecordBody Body { get; init; }

    /// <summary>The record in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>Free note.</summary>
    public string Note { get; init; } = "";

    /// <summary>Minutes it took.</summary>
    public double Minutes { get; init; }

    /// <summary>Cost of parts, in the job's currency.</summary>
    public decimal? Cost { get; init; }

    /// <summary>Stage in which it was done.</summary>
    public WorkStage Stage { get; init; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>When it was withdrawn, UTC.</summary>
    public DateTimeOffset? WithdrawnAt { get; init; }

    /// <summary>The record that it replaced, or null. Of a record and its replacements at most one holds.</summary>
    public long? Replaces { get; init; }

    /// <summary>What it is about.</summary>
    public string Subject => Body.Subject;

    /// <summary>The record as the engine takes it, or null when it is no evidence.</summary>
    public BenchEvent? ToEvent() => Body.ToEvent(Id);

    /// <summary>Makes a record with its usual words, minutes and note.</summary>
    /// <param name="body">What it says.</param>
    /// <param name="model">Model of the unit.</param>
    /// <param name="stage">Stage in which it is done.</param>
    /// <param name="at">When, UTC.</param>
    public static BenchRecord Of(RecordBody body, DeviceModel model, WorkStage stage, DateTimeOffset at) =>
        new()
        {
            Body = body,
            Words = body.Describe(model),
            Note = body.UsualNote,
            Minutes = body.UsualMinutes(model),
            Stage = stage,
            At = at,
        };

    /// <summary>The records as the engine takes them, in their order.</summary>
    public static IReadOnlyList<BenchEvent> Events(IEnumerable<BenchRecord> records) =>
        records.Select(r => r.ToEvent()).OfType<BenchEvent>().ToList();
}
