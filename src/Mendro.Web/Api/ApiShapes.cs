using System.ComponentModel;

namespace Mendro.Web.Api;

/// <summary>A unit to be taken in.</summary>
public sealed record NewUnit
{
    [Description("The model: its id, or its name as the shop knows it.")]
    public required string Model { get; init; }

    [Description("What stands on the unit, when that is not the model's name. Up to 120 characters.")]
    public string? UnitName { get; init; }

    [Description("Serial number. Up to 120 characters.")]
    public string? Serial { get; init; }

    [Description("Revision of the board, when it is known.")]
    public string? Revision { get; init; }

    [Description("Owner's name; left out for the shop's own stock.")]
    public string? Owner { get; init; }

    [Description("Owner's phone, mail or address.")]
    public string? Contact { get; init; }

    [Description("The claim, in the owner's words. Up to 2000 characters.")]
    public string? Claim { get; init; }

    [Description("What came with it.")]
    public string? Accessories { get; init; }

    [Description("Condition, in words.")]
    public string? Condition { get; init; }

    [Description("Day for which it is promised, yyyy-MM-dd; only with an owner.")]
    public string? Promised { get; init; }

    [Description("Lot, for the shop's own stock.")]
    public string? Lot { get; init; }
}

/// <summary>A unit that was taken in.</summary>
/// <param name="Number">Number of its job.</param>
public sealed record TakenUnit([property: Description("Number of its job, as on the tag.")] long Number);

/// <summary>A reading, or the trial of a function.</summary>
public sealed record NewReading
{
    [Description("Probe of the model, by its id; or leave it out and name a function.")]
    public string? Probe { get; init; }

    [Description("What was read, with its unit: “4.83 V”, “120k”, “OL”, “beeps”, “ok” or “bad” for a look.")]
    public string? Value { get; init; }

    [Description("Function of the model, by its id.")]
    public string? Function { get; init; }

    [Description("True when the function worked.")]
    public bool? Works { get; init; }
}

/// <summary>A record that was added.</summary>
/// <param name="Record">Id of the record.</param>
public sealed record AddedRecord([property: Description("Id of the record.")] long Record);

/// <summary>A picture that was added.</summary>
/// <param name="Picture">Id of the picture.</param>
public sealed record AddedPicture([property: Description("Id of the picture.")] long Picture);

/// <summary>A job as another program sees it: without costs, and without the owner.</summary>
public sealed record JobShape
{
    [Description("Number, as on the tag.")]
    public required long Number { get; init; }

    [Description("The unit.")]
    public required string Title { get; init; }

    [Description("Model, by its id.")]
    public required string Model { get; init; }

    [Description("Serial number; blank when not known.")]
    public required string Serial { get; init; }

    [Description("Stage: Intake, Find, Fix, Prove or HandOver.")]
    public required string Stage { get; init; }

    [Description("Shelf: None, WaitingPart, WaitingOwner, SetAside or Ready.")]
    public required string Shelf { get; init; }

    [Description("Why it lies on its shelf.")]
    public required string Reason { get; init; }

    [Description("How it ended; Open while it has not.")]
    public required string Ending { get; init; }

    [Description("The claim.")]
    public required string Claim { get; init; }

    [Description("Taken in, UTC.")]
    public required DateTimeOffset ReceivedAt { get; init; }

    [Description("Day for which it is promised, or null.")]
    public required DateOnly? Promised { get; init; }

    [Description("What is on file, oldest first.")]
    public required IReadOnlyList<RecordShape> Records { get; init; }
}

/// <summary>A record of a job.</summary>
/// <param name="Id">Id.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Kind">Kind (docs/formats.md).</param>
/// <param name="Words">What it says.</param>
/// <param name="Minutes">Minutes of work.</param>
public sealed record RecordShape(
    [property: Description("Id.")] long Id,
    [property: Description("When, UTC.")] DateTimeOffset At,
    [property: Description("Kind, as in docs/formats.md.")] string Kind,
    [property: Description("What it says, in words.")] string Words,
    [property: Description("Minutes of work.")] double Minutes
);

/// <summary>A unit on the bench with its next move.</summary>
/// <param name="Number">Number of the job.</param>
/// <param name="Title">Unit.</param>
/// <param name="Stage">Stage in which the move is made.</param>
/// <param name="Symptom">What is wrong with it.</param>
/// <param name="Move">What to do next.</param>
/// <param name="Chance">Chance to cure.</param>
/// <param name="Minutes">Minutes of the move.</param>
public sealed record BenchShape(
    [property: Description("Number of the job.")] long Number,
    [property: Description("The unit.")] string Title,
    [property: Description("Stage in which the move is made.")] string Stage,
    [property: Description("What is wrong with it.")] string Symptom,
    [property: Description("What to do next, or null while it is being worked out.")] string? Move,
    [property: Description("Chance that it cures, 0 to 1, or null.")] double? Chance,
    [property: Description("Minutes of the move, or null.")] double? Minutes
);

/// <summary>A bin of the stock.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Part.</param>
/// <param name="Bin">Where it lies.</param>
/// <param name="Count">How many lie there.</param>
/// <param name="Free">How many are not reserved.</param>
/// <param name="Low">Number below which more is ordered.</param>
public sealed record StockShape(
    [property: Description("Id.")] long Id,
    [property: Description("The part.")] string Name,
    [property: Description("Where it lies.")] string Bin,
    [property: Description("How many lie there.")] int Count,
    [property: Description("How many are not reserved for jobs.")] int Free,
    [property: Description("Number below which more is ordered, or null.")] int? Low
);
