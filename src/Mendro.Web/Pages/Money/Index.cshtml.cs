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
    private const int MostChanges = 200;

    /// <summary>Month, by any day in it; blank for this one.</summary>
    [BindProperty(SupportsGet = true, Name = "month")]
    public string? MonthDay { get; set; }

    /// <summary>Job whose books are shown; null for a month or a lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long? Job { get; set; }

    /// <summary>Lot whose books are shown; blank for a month or a job.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Lot { get; set; }

    /// <summary>First day of a span; blank for a month.</summary>
    [BindProperty(SupportsGet = true)]
    public string? From { get; set; }

    /// <summary>Last day of a span.</summary>
    [BindProperty(SupportsGet = true)]
    public string? To { get; set; }

    private (DateOnly From, DateOnly To)? Span =>
        DayText.Read(Words.Clean(From)) is { Year: > 1 and < 9998 } from && DayText.Read(Words.Clean(To)) is { Year: > 1 and < 9998 } to && from <= to
            ? (from, to)
            : null;

    /// <summary>True for a month.</summary>
    public bool IsMonth => Job is null && string.IsNullOrEmpty(Lot) && Span is null;

    /// <summary>What the books are of.</summary>
    public string Of =>
        Job is { } number ? $"Job {number}"
        : Span is { } span && string.IsNullOrEmpty(Lot) ? $"{calendar.Day(span.From)} to {calendar.Day(span.To)}"
        : IsMonth ? First.ToString("MMMM yyyy", System.Globalization.CultureInfo.InvariantCulture)
        : $"Lot {Lot}";

    /// <summary>The same as a part of an address.</summary>
    public string Query =>
        Job is { } number ? $"job={number}"
        : Span is { } span && string.IsNullOrEmpty(Lot) ? $"from={DayText.Write(span.From)}&to={DayText.Write(span.To)}"
        : IsMonth ? $"month={DayText.Write(First)}"
        : $"lot={Uri.EscapeDataString(Lot!)}";

    /// <summary>The books.</summary>
    public MonthBooks Books => _books ??= IsMonth ? desk.Month(First)
        : Span is { } span && Job is null && string.IsNullOrEmpty(Lot) ? desk.Span(span.From, span.To)
        : desk.Of(Job, Words.Clean(Lot));

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
            (Ways.Apart ? "cash" : "money", desk.Balance(Account.Cash)),
            .. Ways.Apart || desk.Balance(Account.Bank).Value != 0
                ? [("bank", desk.Balance(Account.Bank))]
                : Array.Empty<(string, Amount)>(),
            ("bound in units", desk.Balance(Account.Units)),
            ("bound in parts", desk.Balance(Account.Stock)),
            ("owners owe", desk.Balance(Account.Owners)),
            ("tax due", In(-desk.Balance(Account.Tax).Value - desk.Balance(Account.InputTax).Value)),
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

    /// <summary>A posting in words.</summary>
    public string InWords(Posting posting) => $"{Core.Diagnosis.MoveWords.Lower(AccountNumbers.Words(posting.Account))} {In(posting.Value)}";

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>The books as a file.</summary>
    public IActionResult OnGetCsv() => Whole(BooksFile.Entries, "books");

    /// <summary>The entries line by line, with debit and credit.</summary>
    public IActionResult OnGetLines() => Whole(books => BooksFile.Lines(books, Currency, desk.Numbers), "journal");

    // A file is all of it or none.
    private IActionResult Whole(Func<MonthBooks, string> write, string name)
    {
        var text = write(Books);
        return ToCome > 0
            ? Refuse("Matters of earlier times are still being brought into the books. The file is whole when they are in; try again in a while.")
            : File(Encoding.UTF8.GetBytes(text), "text/csv", IsMonth ? $"{name}-{DayText.Write(First)[..7]}.csv" : $"{name}.csv");
    }

    /// <summary>What owners owe, the oldest first.</summary>
    public IReadOnlyList<OpenItem> Open => _open ??= desk.OpenItems(most: MostOpen + 1);

    private IReadOnlyList<OpenItem>? _open;

    /// <summary>How many of them are shown.</summary>
    public int MostOpen => 12;

    /// <summary>What the shop paid or took in besides its jobs.</summary>
    public IReadOnlyList<OwnEntry> Others => desk.OwnEntries(Longest);

    /// <summary>Quarters and years around the month that is shown.</summary>
    public IEnumerable<(string Name, DateOnly From, DateOnly To)> Spans
    {
        get
        {
            var quarter = new DateOnly(First.Year, (First.Month - 1) / 3 * 3 + 1, 1);
            yield return ($"quarter {(quarter.Month + 2) / 3} of {quarter.Year}", quarter, quarter.AddMonths(3).AddDays(-1));
            yield return ($"{First.Year}", new DateOnly(First.Year, 1, 1), new DateOnly(First.Year, 12, 31));
        }
    }

    /// <summary>Matters that are still to be brought into the books.</summary>
    public long ToCome => desk.ToCome;

    /// <summary>What usually goes through the bank.</summary>
    public MoneyWays Ways => _ways ??= desk.Ways;

    private MoneyWays? _ways;

    /// <summary>What the drawer holds by the books.</summary>
    public decimal Drawer => desk.Balance(Account.Cash).Value;

    /// <summary>Numbers of accounts.</summary>
    public AccountNumbers Numbers => desk.Numbers;

    /// <summary>What was changed by hand in the month, the newest first.</summary>
    public IReadOnlyList<MoneyChange> Changes =>
        _changes ??= desk.Changes(calendar.Start(First), calendar.Start(First.AddMonths(1)), MostChanges);

    private IReadOnlyList<MoneyChange>? _changes;

    /// <summary>True when something of the terms was told and not taken.</summary>
    public bool TermsShown { get; private set; }

    /// <summary>Counts the drawer.</summary>
    public IActionResult OnPostCount(string? counted)
    {
        Remember(("counted", counted));
        if (Amount.TryRead(counted, new Currency(Currency), out var amount) is { } wrong || amount is null)
            return Refuse("Say what lies in the drawer, such as 120.50.");
        return Told(desk.CountDrawer(amount.Value.Value, calendar.Today, Once));
    }

    /// <summary>Keeps what goes through the bank.</summary>
    public IActionResult OnPostWays(bool sales, bool bought, bool orders, bool paid)
    {
        TermsShown = true;
        return Told(desk.SetWays(new MoneyWays(sales, bought, orders, paid), Once));
    }

    /// <summary>Keeps the numbers of accounts.</summary>
    public IActionResult OnPostAccounts()
    {
        TermsShown = true;
        var typed = Enum.GetValues<Account>().ToDictionary(a => a, a => Words.Clean(Request.Form[a.ToString()].FirstOrDefault()));
        Remember([.. typed.Select(t => (t.Key.ToString(), (string?)t.Value))]);
        return Told(desk.SetNumbers(typed, Once));
    }

    /// <summary>Notes another cost, or money brought in or drawn.</summary>
    public IActionResult OnPostOther(string? kind, string? sum, string? otherDay, string? otherWords, string? way, string? otherTax)
    {
        Remember(("sum", sum), ("otherDay", otherDay), ("otherWords", otherWords), ("way", way), ("otherTax", otherTax));
        if (Amount.TryRead(sum, new Currency(Currency), out var amount) is { } wrong)
            return Refuse(wrong);
        if (Words.Number(string.IsNullOrWhiteSpace(otherTax) ? "0" : otherTax) is not (>= 0 and <= 100 and var tax))
            return Refuse("Tax in it is 0 to 100 %.");
        var entry = new OwnEntry
        {
            Kind = Words.Clean(kind),
            Amount = amount?.Value ?? 0,
            Day = Words.Clean(otherDay),
            Words = Words.Clean(otherWords),
            Way = Words.Clean(way),
            TaxPercent = (decimal)tax,
        };
        return Told(desk.Note(entry, Once));
    }

    /// <summary>Takes such an entry away.</summary>
    public IActionResult OnPostUnother(long id, bool back) => Told(desk.Unnote(id, back, Once));

    /// <summary>Sets the tax.</summary>
    public IActionResult OnPostTax(string? percent, string? reduced, bool inclusive, string? from, string? treatment, bool input, bool ahead)
    {
        TermsShown = true;
        Remember(("percent", percent), ("reduced", reduced), ("from", from), ("treatment", treatment));
        if (DayText.Read(Words.Clean(from)) is not { } day)
            return Refuse("Say from which day it applies.");
        if (!Enum.TryParse<TaxTreatment>(treatment ?? nameof(TaxTreatment.Standard), out var usual) || !Enum.IsDefined(usual))
            return Refuse("Say how own units are sold.");
        if (Words.Number(percent) is not (>= 0 and <= 100 and var rate)
            || Words.Number(string.IsNullOrWhiteSpace(reduced) ? "0" : reduced) is not (>= 0 and <= 100 and var low))
            return Refuse("A tax is 0 to 100 %.");
        var rule = new TaxRule((decimal)rate, inclusive)
        {
            Reduced = (decimal)low,
            Treatment = usual,
            InputTax = input,
            OnAhead = ahead,
        };
        return Told(desk.SetTax(rule, day, Once));
    }

    /// <summary>Closes the month.</summary>
    public IActionResult OnPostLock() => Told(desk.Lock(First, true, calendar.Today, Once));

    /// <summary>Opens the month again.</summary>
    public IActionResult OnPostUnlock() => Told(desk.Lock(First, false, calendar.Today, Once));

    /// <summary>Keeps a rate.</summary>
    public IActionResult OnPostRate(string? currency, string? rate, string? day)
    {
        TermsShown = true;
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
