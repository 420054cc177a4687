using Stateless;

namespace Mendro.Core.Jobs;

/// <summary>What happened to a job, as far as its life is concerned.</summary>
public enum JobStep
{
    /// <summary>Something was written down that says nothing of the unit's health.</summary>
    Noted,

    /// <summary>The unit was tried, measured or looked at.</summary>
    Looked,

    /// <summary>A function fails.</summary>
    FailureFound,

    /// <summary>A repair was done.</summary>
    Repaired,

    /// <summary>A function was tried to prove it.</summary>
    Proving,
}

/// <summary>Where a job stands: its stage, its shelf and its end.</summary>
/// <param name="Stage">Stage.</param>
/// <param name="Shelf">Shelf; <see cref="Shelf.None"/> for the bench.</param>
/// <param name="Ending">Where it went; <see cref="JobEnd.Open"/> while it is in the shop.</param>
/// <param name="Deleted">True when it was deleted.</param>
public sealed record JobStatus(WorkStage Stage, Shelf Shelf, JobEnd Ending, bool Deleted = false);

/// <summary>
/// The life of a job as one state machine, used by everything that moves a job. A unit on the shelf “ready” has every function
/// proved since its last repair: what ends that takes it off the shelf, and whatever proves the last function puts it there,
/// on whichever page it happens.
/// </summary>
public static class JobLife
{
    private enum Place
    {
        Bench,
        WaitingPart,
        WaitingOwner,
        SetAside,
        Ready,
        Gone,
        Deleted,
    }

    private enum Trigger
    {
        Proved,
        Unproved,
        ShelvePart,
        ShelveOwner,
        ShelveAside,
        TakeDown,
        Close,
        Reopen,
        Delete,
        BringBack,
    }

    /// <summary>The job after its records changed.</summary>
    /// <param name="status">Where it stood.</param>
    /// <param name="step">What happened.</param>
    /// <param name="proved">True when every function works and was tried since the last repair.</param>
    /// <param name="failing">True when a function fails.</param>
    public static JobStatus AfterEvidence(JobStatus status, JobStep step, bool proved, bool failing)
    {
        var next = status with { Stage = StageAfter(status.Stage, step, failing) };
        return Fire(next, proved ? Trigger.Proved : Trigger.Unproved) ?? next;
    }

    /// <summary>The job on a shelf where it waits.</summary>
    /// <returns>Null when it cannot be put there.</returns>
    public static JobStatus? Shelve(JobStatus status, Shelf shelf) =>
        shelf switch
        {
            Shelf.WaitingPart => Fire(status, Trigger.ShelvePart),
            Shelf.WaitingOwner => Fire(status, Trigger.ShelveOwner),
            Shelf.SetAside => Fire(status, Trigger.ShelveAside),
            _ => null,
        };

    /// <summary>The job back on the bench from its shelf.</summary>
    /// <returns>Null when it lies on none.</returns>
    public static JobStatus? TakeDown(JobStatus status) => Fire(status, Trigger.TakeDown);

    /// <summary>The job handed over.</summary>
    /// <returns>Null when it is closed or deleted already.</returns>
    public static JobStatus? Close(JobStatus status, JobEnd ending) =>
        ending == JobEnd.Open ? null
        : Fire(status, Trigger.Close) is { } closed ? closed with { Ending = ending, Stage = WorkStage.HandOver }
        : null;

    /// <summary>A closed job back on the bench.</summary>
    /// <returns>Null when it is not closed.</returns>
    public static JobStatus? Reopen(JobStatus status) =>
        Fire(status, Trigger.Reopen) is { } open ? open with { Ending = JobEnd.Open, Stage = WorkStage.Find } : null;

    /// <summary>The job deleted; it keeps its place to come back to.</summary>
    /// <returns>Null when it is deleted already.</returns>
    public static JobStatus? Delete(JobStatus status) => Fire(status, Trigger.Delete) is null ? null : status with { Deleted = true };

    /// <summary>A deleted job where it was before.</summary>
    /// <returns>Null when it is not deleted.</returns>
    public static JobStatus? BringBack(JobStatus status) =>
        Fire(status, Trigger.BringBack) is null ? null : status with { Deleted = false };

    /// <summary>The stage in which a job is worked on now: what is proved is ready to hand over.</summary>
    public static WorkStage Present(JobStatus status) =>
        status.Ending != JobEnd.Open || status.Shelf == Shelf.Ready ? WorkStage.HandOver
        : status.Stage == WorkStage.Intake ? WorkStage.Find
        : status.Stage;

    private static WorkStage StageAfter(WorkStage stage, JobStep step, bool failing) =>
        step switch
        {
            JobStep.Looked => Later(stage, WorkStage.Find),
            JobStep.Repaired => WorkStage.Fix,
            // What fails while it is proved is looked for again; after a repair one goes on repairing.
            JobStep.FailureFound or JobStep.Proving when failing => stage > WorkStage.Fix ? WorkStage.Find : Later(stage, WorkStage.Find),
            JobStep.FailureFound => Later(stage, WorkStage.Find),
            JobStep.Proving => Later(stage, WorkStage.Prove),
            _ => stage,
        };

    private static WorkStage Later(WorkStage one, WorkStage other) => one > other ? one : other;

    private static JobStatus? Fire(JobStatus status, Trigger trigger)
    {
        var machine = Machine(PlaceOf(status));
        if (!machine.CanFire(trigger))
            return null;
        machine.Fire(trigger);
        return status with
        {
            Shelf = machine.State switch
            {
                Place.WaitingPart => Shelf.WaitingPart,
                Place.WaitingOwner => Shelf.WaitingOwner,
                Place.SetAside => Shelf.SetAside,
                Place.Ready => Shelf.Ready,
                _ => Shelf.None,
            },
        };
    }

    private static Place PlaceOf(JobStatus status) =>
        status switch
        {
            { Deleted: true } => Place.Deleted,
            { Ending: not JobEnd.Open } => Place.Gone,
            _ => status.Shelf switch
            {
                Shelf.WaitingPart => Place.WaitingPart,
                Shelf.WaitingOwner => Place.WaitingOwner,
                Shelf.SetAside => Place.SetAside,
                Shelf.Ready => Place.Ready,
                _ => Place.Bench,
            },
        };

    private static StateMachine<Place, Trigger> Machine(Place at)
    {
        var machine = new StateMachine<Place, Trigger>(at);
        foreach (var place in (Place[])[Place.Bench, Place.WaitingPart, Place.WaitingOwner, Place.SetAside, Place.Ready])
        {
            var here = machine.Configure(place).Permit(Trigger.Close, Place.Gone).Permit(Trigger.Delete, Place.Deleted);
            foreach (var (trigger, shelf) in Shelves)
            {
                if (place == shelf)
                    here.PermitReentry(trigger);
                else
                    here.Permit(trigger, shelf);
            }

            if (place != Place.Bench)
                here.Permit(Trigger.TakeDown, Place.Bench);
        }

        // What waits for a part or a word waits until it is taken down, whatever was tried meanwhile.
        machine.Configure(Place.Bench).Permit(Trigger.Proved, Place.Ready);
        machine.Configure(Place.Ready).Permit(Trigger.Unproved, Place.Bench);
        machine.Configure(Place.Gone).Permit(Trigger.Reopen, Place.Bench).Permit(Trigger.Delete, Place.Deleted);
        machine.Configure(Place.Deleted).PermitReentry(Trigger.BringBack);
        return machine;
    }

    private static readonly (Trigger Trigger, Place Shelf)[] Shelves =
    [
        (Trigger.ShelvePart, Place.WaitingPart),
        (Trigger.ShelveOwner, Place.WaitingOwner),
        (Trigger.ShelveAside, Place.SetAside),
    ];
}
