using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>How a record is marked in lists.</summary>
public enum RecordSign
{
    /// <summary>Noted, neither good nor bad.</summary>
    Noted,

    /// <summary>Works, or as it should be.</summary>
    Good,

    /// <summary>Fails, or not as it should be.</summary>
    Bad,

    /// <summary>Something was done.</summary>
    Done,
}

/// <summary>What a record says, and all that follows from it. A kind of record is one class that derives from this one and
/// carries a <see cref="RecordKindAttribute"/>; its members are its payload. Nothing else in the core, the shop or the
/// storage has to be told of a new kind.</summary>
public abstract record RecordBody
{
    /// <summary>Key of the kind.</summary>
    public virtual string Key => RecordKinds.KeyOf(GetType());

    /// <summary>Version of the payload.</summary>
    public virtual int PayloadVersion => RecordKinds.VersionOf(GetType());

    /// <summary>What it is about: id of a function, probe, mark or part; empty for none.</summary>
    public abstract string Subject { get; }

    /// <summary>Good, bad, done or noted.</summary>
    public virtual RecordSign Sign => RecordSign.Noted;

    /// <summary>What adding or withdrawing it means for the life of its job.</summary>
    public virtual JobStep Step => JobStep.Noted;

    /// <summary>True when a search for a symptom should find its words.</summary>
    public virtual bool IsSymptom => false;

    /// <summary>Pieces of test gear or units that were used up a little by it.</summary>
    public virtual IReadOnlyList<SwapPiece> Pieces => [];

    /// <summary>Caution that it calls for as long as it holds and is fresh, or null.</summary>
    public virtual string? Stop => null;

    /// <summary>What the engine makes of it, or null when it is no evidence.</summary>
    /// <param name="id">Id of the record.</param>
    public virtual BenchEvent? ToEvent(long id) => null;

    /// <summary>The record in a sentence, kept with it for timeline, search and sheets.</summary>
    public abstract string Describe(DeviceModel model);

    /// <summary>First line in lists.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="words">The sentence kept with the record.</param>
    public virtual string Title(DeviceModel model, string words) => words;

    /// <summary>What it gave, in a word or a reading; empty for none.</summary>
    public virtual string Value(DeviceModel model) => "";

    /// <summary>Second line in lists; empty for none.</summary>
    public virtual string Small(DeviceModel model, BenchRecord record) => "";

    /// <summary>How far the unit is apart after it: as far as before, or further.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="before">How far it was apart before.</param>
    public virtual AccessState After(DeviceModel model, AccessState before) => before;

    /// <summary>The same to the step: which steps of taking it apart are done after it.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="before">Which were done before.</param>
    public virtual Apart After(DeviceModel model, Apart before) =>
        model.Disassembly.After(before, Disassembly.Goal(After(model, AccessState.Closed)));

    /// <summary>Minutes it takes when nothing else is said.</summary>
    public virtual double UsualMinutes(DeviceModel model) => 0;

    /// <summary>A remark it brings along when none was typed; empty for none.</summary>
    public virtual string UsualNote => "";

    /// <summary>Does the same to a practice unit, as when its past is played again.</summary>
    public virtual void Replay(IReplayBench bench) { }

    /// <summary>The further of two states.</summary>
    protected static AccessState Further(AccessState one, AccessState other) => one > other ? one : other;
}

/// <summary>A bench on which the past of a practice unit is played again.</summary>
public interface IReplayBench
{
    /// <summary>The model.</summary>
    DeviceModel Model { get; }

    /// <summary>Tries a function.</summary>
    void Try(DeviceFunction function);

    /// <summary>Takes a probe.</summary>
    void Measure(Probe probe);

    /// <summary>Presses, flexes or warms the unit and watches a function.</summary>
    void Provoke(DeviceFunction function, Provocation how);

    /// <summary>Tries a function with another piece, one that works, in the place of a part.</summary>
    void Swap(DeviceFunction function, PartId part);

    /// <summary>Carries a method out and tries what it was for.</summary>
    void Repair(PartId part, MethodId method);
}
