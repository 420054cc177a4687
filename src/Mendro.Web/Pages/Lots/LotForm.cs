using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Web.Pages.Lots;

/// <summary>What is told of a lot, as typed.</summary>
public sealed class LotForm
{
    /// <summary>Name.</summary>
    public string? Name { get; set; }

    /// <summary>Owner who brought them; blank where they were bought.</summary>
    public string? Owner { get; set; }

    /// <summary>Owner's phone, mail or address.</summary>
    public string? Contact { get; set; }

    /// <summary>Price.</summary>
    public string? Price { get; set; }

    /// <summary>Postage.</summary>
    public string? Postage { get; set; }

    /// <summary>Day of the purchase.</summary>
    public string? Day { get; set; }

    /// <summary>Model of most items.</summary>
    public string? Model { get; set; }

    /// <summary>Worth of one that works.</summary>
    public string? Working { get; set; }

    /// <summary>Worth of one that does not.</summary>
    public string? Otherwise { get; set; }

    /// <summary>What an hour on it is worth; blank for the shop's.</summary>
    public string? Hour { get; set; }

    /// <summary>How the price is spread.</summary>
    public string? Way { get; set; }

    /// <summary>Words.</summary>
    public string? Words { get; set; }

    /// <summary>Fills the form from a lot.</summary>
    public static LotForm From(Lot lot) =>
        new()
        {
            Name = lot.Name,
            Owner = lot.OwnerName,
            Contact = lot.OwnerContact,
            Price = Text(lot.Price),
            Postage = lot.Postage == 0 ? "" : Text(lot.Postage),
            Day = lot.BoughtOn,
            Model = lot.ProfileId,
            Working = Text(lot.Working),
            Otherwise = Text(lot.Otherwise),
            Hour = Text(lot.PerHour),
            Way = lot.Way.ToString(),
            Words = lot.Words,
        };

    /// <summary>Writes the form into a lot.</summary>
    /// <returns>Why it cannot be read, or null.</returns>
    public string? Into(Lot lot, out Lot told)
    {
        told = lot;
        if (Amount.TryRead([Price, Postage, Working, Otherwise, Hour], new Currency(lot.Currency), out var amounts) is { } wrong)
            return wrong;
        if (DayText.Read(Web.Words.Clean(Day)) is not { } day)
            return $"“{Day}” is no date such as 2026-11-26.";
        told = lot with
        {
            Name = lot.Id == 0 ? Web.Words.Clean(Name) : lot.Name,
            OwnerName = Web.Words.Clean(Owner) is { Length: > 0 } owner ? owner : null,
            OwnerContact = Web.Words.Clean(Contact),
            Price = amounts[0],
            Postage = amounts[1] ?? 0,
            Working = amounts[2],
            Otherwise = amounts[3],
            PerHour = amounts[4],
            BoughtOn = DayText.Write(day),
            ProfileId = Web.Words.Clean(Model),
            Way = Enum.TryParse<SpreadWay>(Way, out var way) && Enum.IsDefined(way) ? way : SpreadWay.Equal,
            Words = Web.Words.Clean(Words),
        };
        return null;
    }

    private static string Text(decimal? amount) => amount?.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture) ?? "";
}
