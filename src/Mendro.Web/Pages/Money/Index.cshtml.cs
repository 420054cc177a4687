using System.Text;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Money;

/// <summary>Money: the books of a month, what an hour brought, what lies about, tax and rates.</summary>
public sealed class IndexModel(MoneyDesk desk, SettingsStore settings, ShopCalendar calendar) : ShopPageModel
{
    private const int Longest = 8;
    private const int Months = 12;

    /// <summary>Month, by any day in it; blank for this one.</summary>
    [BindProperty(SupportsGet = true, Name = "month")]
    public string? MonthDay { get; set; }

    /// <summary>Job whose books are shown; null for a month or a lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long? Job { get; set; }

    /// <summary>Lot whose books are shown; blank for a month or a job.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Lot { get; set; }

    /// <summary>True for a month.</summary>
    public bool IsMonth => Job is null && string.IsNullOrEmpty(Lot);

    /// <summary>What the books are of.</summary>
    public string Of =>
        Job is { } number ? $"Job {number}"
        : IsMonth ? First.ToString("MMMM yyyy", System.Globalization.CultureInfo.InvariantCulture)
        : $"Lot {Lot}";

    /// <summary>The same as a part of an address.</summary>
    public string Query =>
        Job is { } number ? $"job={number}"
        : IsMonth ? $"month={DayText.Write(First)}"
        : $"lot={Uri.EscapeDataString(Lot!)}";

    /// <summary>The books.</summary>
    public MonthBooks Books => _books ??= IsMonth ? desk.Month(First) : desk.Of(Job, Words.Clean(Lot));

    /// <summary>Gain of a year of months up to it.</summary>
    public IReadOnlyList<(DateOnly Month, decimal Gain)> Year => desk.Gains(First.AddMonths(1 - Months), Months);

    /// <summary>Own units that lie longest.</summary>
    public IReadOnlyList<AgeingUnit> Ageing => desk.Ageing(Longest);

    /// <summary>Quotes of the job that is shown.</summary>
    public IReadOnlyList<string> Quotes => Job is { } number ? desk.Quotes(number) : [];

    /// <summary>Tax that applies today.</summary>
    public TaxRule Tax => desk.Tax(calendar.Today);

    /// <summary>When the month was closed and opened, the newest first.</summary>
    public IReadOnlyList<MonthLock> Locks => _locks ??= desk.Locks(First);

    /// <summary>True when nothing in the month changes any more.</summary>
    public bool IsLocked => Locks is [{ Locked: true }, ..];

    /// <summary>True when the month is over and may be closed.</summary>
    public bool IsOver => First.AddMonths(1) <= calendar.Today;

    /// <summary>What stands on accounts that go on from month to month.</summary>
    public IReadOnlyList<(string Words, Amount Sum)> Balances =>
        [
            ("money", desk.Balance(Account.Cash)),
            ("bound in units", desk.Balance(Account.Units)),
            ("bound in parts", desk.Balance(Account.Stock)),
            ("owners owe", desk.Balance(Account.Owners)),
            ("tax due", In(-desk.Balance(Account.Tax).Value)),
        ];

    private IReadOnlyList<MonthLock>? _locks;

    /// <summary>Currency.</summary>
    public string Currency => settings.Get().Currency;

    /// <summary>Today by the shop's clock.</summary>
    public DateOnly Today => calendar.Today;

    private MonthBooks? _books;

    private DateOnly First
    {
        get
        {
            var day = DayText.Read(Words.Clean(MonthDay)) is { Year: > 1 and < 9998 } told ? told : calendar.Today;
            return new DateOnly(day.Year, day.Month, 1);
        }
    }

    /// <summary>An amount of the shop's currency.</summary>
    public Amount In(decimal value) => new Amount(value, Currency).Rounded();

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>The books as a file.</summary>
    public IActionResult OnGetCsv() =>
        File(Encoding.UTF8.GetBytes(MoneyDesk.Csv(Books)), "text/csv", IsMonth ? $"books-{DayText.Write(First)[..7]}.csv" : "books.csv");

    /// <summary>Sets the tax.</summary>
    public IActionResult OnPostTax(string? percent, bool inclusive, string? from)
    {
        Remember(("percent", percent), ("from", from));
        if (DayText.Read(Words.Clean(from)) is not { } day)
            return Refuse("Say from which day it applies.");
        return Words.Number(percent) is { } rate and <= 100
            ? Told(desk.SetTax(new TaxRule((decimal)rate, inclusive), day, Once))
            : Refuse("A tax is 0 to 100 %.");
    }

    /// <summary>Closes the month.</summary>
    public IActionResult OnPostLock() => Told(desk.Lock(First, true, calendar.Today, Once));

    /// <summary>Opens the month again.</summary>
    public IActionResult OnPostUnlock() => Told(desk.Lock(First, false, calendar.Today, Once));

    /// <summary>Keeps a rate.</summary>
    public IActionResult OnPostRate(string? currency, string? rate, string? day)
    {
        Remember(("currency", currency), ("rate", rate), ("day", day));
        if (Words.Number(rate) is not (> 0 and < 1e6 and var worth) || DayText.Read(Words.Clean(day)) is not { } on)
            return Refuse("Say what one of it is worth, such as 0.92, and from which day.");
        return Told(desk.SetRate(Words.Clean(currency).ToUpperInvariant(), on, (decimal)worth, Once));
    }

    private IActionResult Told(Deed<Done> deed) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { month = MonthDay });
            }
        );
}
