using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>One unit in the shop and all that is known of it besides the bench records.</summary>
public sealed record Job
{
    /// <summary>Row id.</summary>
    public JobId Id { get; init; }

    /// <summary>Number on the tag.</summary>
    public long Number { get; init; }

    /// <summary>Profile it is diagnosed by.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Version of the profile; a job stays on the one it was taken in with.</summary>
    public long ProfileVersion { get; init; }

    /// <summary>Maker and model of the profile.</summary>
    public string ModelName { get; init; } = "";

    /// <summary>What the unit is, when its profile is a generic one; else blank.</summary>
    public string UnitName { get; init; } = "";

    /// <summary>Board revision, or blank when not known yet.</summary>
    public string Revision { get; init; } = "";

    /// <summary>Serial number.</summary>
    public string Serial { get; init; } = "";

    /// <summary>Owner, or null for shop stock.</summary>
    public long? CustomerId { get; init; }

    /// <summary>Owner's name, or null for shop stock.</summary>
    public string? CustomerName { get; init; }

    /// <summary>Owner's phone, mail or address.</summary>
    public string? CustomerContact { get; init; }

    /// <summary>Lot it came in, for shop stock.</summary>
    public string Lot { get; init; } = "";

    /// <summary>Price paid, for shop stock.</summary>
    public decimal? Paid { get; init; }

    /// <summary>ISO 4217 code of all amounts of this job.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>What came with it.</summary>
    public string Accessories { get; init; } = "";

    /// <summary>What the owner or seller says of it.</summary>
    public string Claim { get; init; } = "";

    /// <summary>Condition beyond the pick list.</summary>
    public string ConditionNote { get; init; } = "";

    /// <summary>Stage.</summary>
    public WorkStage Stage { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string StageStored
    {
        get => Stage.ToString();
        init => Stage = Stored.Word(value, WorkStage.Find);
    }

    /// <summary>Shelf it lies on.</summary>
    public Shelf Shelf { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string ShelfStored
    {
        get => Shelf.ToString();
        init => Shelf = Stored.Word(value, Shelf.None);
    }

    /// <summary>Why it lies there.</summary>
    public string ShelfReason { get; init; } = "";

    /// <summary>What to try next when it comes down.</summary>
    public string NextTry { get; init; } = "";

    /// <summary>Where it went in the end.</summary>
    public JobEnd Ending { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string EndingStored
    {
        get => Ending.ToString();
        init => Ending = Stored.Word(value, JobEnd.Open);
    }

    /// <summary>Words on the ending: to whom, honest condition, what is kept.</summary>
    public string EndingNote { get; init; } = "";

    /// <summary>Why it went with something failing or untested.</summary>
    public string StatedReason { get; init; } = "";

    /// <summary>Asking price, when it goes to sale.</summary>
    public decimal? Asking { get; init; }

    /// <summary>What an hour on its lot is worth, or null for the shop's hour.</summary>
    public decimal? LotHour { get; init; }

    /// <summary>True when it is mended whatever it brings.</summary>
    public bool Anyway { get; init; }

    /// <summary>Value when it works.</summary>
    public decimal? ValueWorking { get; init; }

    /// <summary>Value as it stands.</summary>
    public decimal? ValueAsIs { get; init; }

    /// <summary>Value in parts.</summary>
    public decimal? ValueParts { get; init; }

    /// <summary>Day for which it was promised, as 2026-11-26; blank for none.</summary>
    public string Promised { get; init; } = "";

    /// <summary>The same day, or null.</summary>
    public DateOnly? PromisedOn => Mendro.Core.Quantities.DayText.Read(Promised);

    /// <summary>When it came in, UTC.</summary>
    public DateTimeOffset ReceivedAt { get; init; }

    /// <summary>What an hour cost when it was closed, in the shop's currency; null while it is open.</summary>
    public decimal? HourAtClose { get; init; }

    /// <summary>When it was closed, UTC.</summary>
    public DateTimeOffset? ClosedAt { get; init; }

    /// <summary>When it was deleted, UTC; a deleted job can be brought back.</summary>
    public DateTimeOffset? DeletedAt { get; init; }

    /// <summary>Seed of the hidden faults of a practice unit; null for a real one.</summary>
    public long? PracticeSeed { get; init; }

    /// <summary>New whenever the job's records change.</summary>
    public long Mark { get; init; }

    /// <summary>Number as written on the tag; practice units count apart.</summary>
    public string Tag =>
        PracticeSeed is null
            ? Number.ToString(System.Globalization.CultureInfo.InvariantCulture)
            : "P" + (Number - JobStore.FirstPractice).ToString(System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>Name for lists and the tag.</summary>
    public string Title => UnitName.Length > 0 ? UnitName : ModelName;

    /// <summary>True for shop stock.</summary>
    public bool ShopStock => CustomerId is null;

    /// <summary>Values for the worth line.</summary>
    public UnitValues Values => new(ValueWorking, ValueAsIs, ValueParts, new Currency(Currency));

    /// <summary>Where it stands.</summary>
    public JobStatus Status => new(Stage, Shelf, Ending, DeletedAt is not null);

    /// <summary>An amount of this job; null stays null.</summary>
    public Amount? In(decimal? value) => value is { } told ? new Amount(told, Currency) : null;
}
