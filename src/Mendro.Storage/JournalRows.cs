using Mendro.Core.Money;

namespace Mendro.Storage;

/// <summary>An entry of the books that stands.</summary>
/// <param name="Id">Number in the journal.</param>
/// <param name="Matter">What it is of, such as <c>job:12:sold:0</c>.</param>
/// <param name="Basis">What it was made of: while that is the same, it stands.</param>
/// <param name="OwnDay">Day on which it happened.</param>
/// <param name="Entry">The entry.</param>
public sealed record StandingEntry(long Id, string Matter, string Basis, DateOnly OwnDay, BookEntry Entry);

/// <summary>A month that was closed or opened again.</summary>
/// <param name="Month">Its first day.</param>
/// <param name="Locked">True when it was closed.</param>
/// <param name="At">When.</param>
/// <param name="Who">By whom; blank where nobody signs in.</param>
public sealed record MonthLock(DateOnly Month, bool Locked, DateTimeOffset At, string Who);

/// <summary>What an owner owes for a job.</summary>
/// <param name="Number">Number of the job.</param>
/// <param name="Unit">Unit.</param>
/// <param name="CustomerId">Owner.</param>
/// <param name="Name">Owner's name.</param>
/// <param name="Since">Day of its first entry.</param>
/// <param name="Sum">How much; below nothing where too much was paid.</param>
public sealed record OpenItem(long Number, string Unit, long CustomerId, string Name, DateOnly Since, Amount Sum)
{
    /// <summary>Days since then.</summary>
    public int Days(DateOnly today) => today.DayNumber - Since.DayNumber;
}

/// <summary>Something that the shop paid or took in besides its jobs.</summary>
public sealed record OwnEntry
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Day, as 2026-11-26.</summary>
    public string Day { get; init; } = "";

    /// <summary><c>cost</c> for rent, tools and the like, <c>brought</c> for money brought in or an opening balance, <c>drawn</c>, <c>to-bank</c>
    /// and <c>from-bank</c> for what was carried, <c>counted</c> for what the drawer held more or less than the books say.</summary>
    public string Kind { get; init; } = "cost";

    /// <summary>How much, above nothing; what was counted may be less.</summary>
    public decimal Amount { get; init; }

    /// <summary><c>bank</c>, <c>cash</c> or blank.</summary>
    public string Way { get; init; } = "";

    /// <summary>Tax in it that is had back, %; 0 for none.</summary>
    public decimal TaxPercent { get; init; }

    /// <summary>What for.</summary>
    public string Words { get; init; } = "";

    /// <summary>A kind in words.</summary>
    public static string KindWords(string kind) =>
        kind switch
        {
            "cost" => "other cost",
            "drawn" => "drawn",
            "to-bank" => "carried to the bank",
            "from-bank" => "fetched from the bank",
            "counted" => "drawer counted",
            _ => "brought in",
        };

    /// <summary>When it was taken away, UTC, or null.</summary>
    public DateTimeOffset? DeletedAt { get; init; }
}
