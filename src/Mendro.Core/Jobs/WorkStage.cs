namespace Mendro.Core.Jobs;

/// <summary>The five stages of a job, in order.</summary>
public enum WorkStage
{
    /// <summary>Taken in, baseline tested.</summary>
    Intake,

    /// <summary>Looking for the cause.</summary>
    Find,

    /// <summary>Repairing.</summary>
    Fix,

    /// <summary>Testing everything.</summary>
    Prove,

    /// <summary>On its way to owner, sale or parts.</summary>
    HandOver,
}

/// <summary>Why a job lies on a shelf and not on the bench.</summary>
public enum Shelf
{
    /// <summary>On the bench.</summary>
    None,

    /// <summary>Waiting for a part on order.</summary>
    WaitingPart,

    /// <summary>Waiting for the owner's word.</summary>
    WaitingOwner,

    /// <summary>Put aside with a reason and what to try next.</summary>
    SetAside,

    /// <summary>Proved and ready to go.</summary>
    Ready,
}

/// <summary>Where a job went in the end.</summary>
public enum JobEnd
{
    /// <summary>Still in the shop.</summary>
    Open,

    /// <summary>Back to its owner.</summary>
    Returned,

    /// <summary>To sale.</summary>
    ForSale,

    /// <summary>Broken up for parts.</summary>
    Parts,
}

/// <summary>Words for the stages, the same everywhere.</summary>
public static class StageWords
{
    /// <summary>Stage as written on the way line.</summary>
    public static string Name(WorkStage stage) => stage == WorkStage.HandOver ? "Hand over" : stage.ToString();

    /// <summary>Shelf as a heading.</summary>
    public static string Name(Shelf shelf) =>
        shelf switch
        {
            Shelf.WaitingPart => "Waiting for a part",
            Shelf.WaitingOwner => "Waiting for the owner",
            Shelf.SetAside => "Set aside",
            Shelf.Ready => "Ready to hand over",
            _ => "On the bench",
        };

    /// <summary>End of a job in words.</summary>
    public static string Name(JobEnd end) =>
        end switch
        {
            JobEnd.Returned => "returned to owner",
            JobEnd.ForSale => "to sale",
            JobEnd.Parts => "to parts",
            _ => "open",
        };
}
