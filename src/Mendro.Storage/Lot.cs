using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>Several units that came together: bought for one price, or brought by one owner.</summary>
public sealed record Lot
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Name, which its jobs bear.</summary>
    public string Name { get; init; } = "";

    /// <summary>Price, or null when only those of its items are known.</summary>
    public decimal? Price { get; init; }

    /// <summary>Postage of the purchase.</summary>
    public decimal Postage { get; init; }

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Day of the purchase, as 2026-11-26.</summary>
    public string BoughtOn { get; init; } = "";

    /// <summary>Where it came from, what was said of it.</summary>
    public string Words { get; init; } = "";

    /// <summary>How its price is spread.</summary>
    public SpreadWay Way { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string WayStored
    {
        get => Way.ToString();
        init => Way = Stored.Word(value, SpreadWay.Equal);
    }

    /// <summary>Model of most of its items; blank for none.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Usual worth of an item when it works, or null.</summary>
    public decimal? Working { get; init; }

    /// <summary>Usual worth of one that does not, or null.</summary>
    public decimal? Otherwise { get; init; }

    /// <summary>What an hour of work on it is worth; null for the shop's hour.</summary>
    public decimal? PerHour { get; init; }

    /// <summary>Owner who brought them all; null where the shop bought them.</summary>
    public long? CustomerId { get; init; }

    /// <summary>Owner's name, or null.</summary>
    public string? OwnerName { get; init; }

    /// <summary>Owner's phone, mail or address.</summary>
    public string OwnerContact { get; init; } = "";

    /// <summary>True for a batch: brought by an owner, not bought.</summary>
    public bool IsBatch => CustomerId is not null;

    /// <summary>Day of the purchase.</summary>
    public DateOnly Day => DayText.Read(BoughtOn) ?? default;

    /// <summary>Price and postage; null when the price is not known.</summary>
    public Amount? Cost => Price is { } price ? new Amount(price + Postage, Currency) : null;
}

/// <summary>A lot in the list.</summary>
/// <param name="Lot">The lot.</param>
/// <param name="Units">Its units.</param>
/// <param name="InShop">Of these still in the shop.</param>
public sealed record LotLine(Lot Lot, int Units, int InShop);

/// <summary>What is known of a unit as an item of its lot.</summary>
/// <param name="Apart">True when it does not belong in it.</param>
/// <param name="Why">Why.</param>
/// <param name="Weight">Weight when the price is spread, or null.</param>
public sealed record LotPlace(bool Apart, string Why, decimal? Weight)
{
    /// <summary>An ordinary item.</summary>
    public static LotPlace Usual { get; } = new(false, "", null);
}
