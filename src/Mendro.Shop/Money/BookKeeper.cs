using System.Globalization;
using System.Text.Json;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>
/// Writes into the books what happens, once, along with the change it comes of. What is in them is never changed: where a matter is not any
/// more what its entry was made of, the entry is reversed and the right one written, each on its own day or, where that month is closed,
/// on the first day of the next open one.
/// </summary>
public sealed partial class BookKeeper : IDisposable
{
    // A change touches a few matters; what is more, as at the first start of an older shop, is brought in behind it.
    private const int AtOnce = 60;

    private readonly ShopDatabase _database;
    private readonly JournalStore _journal;
    private readonly MoneyStore _money;
    private readonly SaleStore _sales;
    private readonly LotStore _lots;
    private readonly StockStore _stock;
    private readonly OrderStore _orders;
    private readonly BenchRecordStore _records;
    private readonly SettingsStore _settings;
    private readonly TimeProvider _time;

    /// <summary>Keeps the books of a shop from now on.</summary>
    public BookKeeper(
        ShopDatabase database,
        JournalStore journal,
        MoneyStore money,
        SaleStore sales,
        LotStore lots,
        StockStore stock,
        OrderStore orders,
        BenchRecordStore records,
        SettingsStore settings,
        TimeProvider time
    )
    {
        (_database, _journal, _money, _sales, _lots) = (database, journal, money, sales, lots);
        (_stock, _orders, _records, _settings, _time) = (stock, orders, records, settings, time);
        _database.Settling += SettleSome;
    }

    /// <summary>Brings in what is due.</summary>
    /// <returns>How many things were brought in; fewer than asked for when that is all.</returns>
    public int Settle(int most)
    {
        var due = _journal.Due(most);
        if (due.Count > 0)
            _database.InOneTransaction(() =>
            {
                foreach (var (kind, id) in due)
                    Bring(kind, id);
                return 0;
            });
        return due.Count;
    }

    /// <summary>True when something is to be brought in.</summary>
    public bool IsDue => _journal.Due(1).Count > 0;

    /// <summary>Brings in all that is due.</summary>
    public void SettleAll()
    {
        while (Settle(AtOnce * 4) > 0) { }
    }

    /// <inheritdoc/>
    public void Dispose() => _database.Settling -= SettleSome;

    private void SettleSome()
    {
        _journal.SignChanges();
        foreach (var (kind, id) in _journal.Due(AtOnce))
            Bring(kind, id);
    }

    private Currency Own => new(_settings.Get().Currency);

    private MoneyWays Ways => MoneyWays.Read(_settings.Value(MoneyWays.Key));

    private void Bring(string kind, long id)
    {
        try
        {
            BringIn(kind, id);
        }
        catch (Exception ex) when (ex is FormatException or OverflowException or ArgumentException or System.Data.DataException or JsonException)
        {
            // What was stored from outside and cannot be read keeps nobody from working; the job is named on Money as left out.
            if (kind == "job")
                _journal.Lacks(new JobId(id), true);
        }

        _journal.Settled(kind, id);
    }

    private void BringIn(string kind, long id)
    {
        switch (kind)
        {
            case "job":
                BringJob(new JobId(id));
                break;
            case "lot":
                BringLot(id);
                break;
            case "move":
                BringMove(id);
                break;
            case "order":
                BringOrder(id);
                break;
            case "own":
                BringOwn(id);
                break;
        }
    }

    private void BringJob(JobId id)
    {
        if (_money.Job(id) is not { PracticeSeed: null } job)
            return;
        var standing = Standing($"job:{id}:");
        // Taken in by mistake it leaves nothing behind; where money has moved, that stays what it was.
        if (job.DeletedAt is not null && standing.Keys.Any(k => k.Contains(":sold", StringComparison.Ordinal) || k.Contains(":paid", StringComparison.Ordinal)))
            return;
        var matters = new JobMatters(job, standing, Own, On, _money.Rate, _journal.Tax, Ways);
        if (job.DeletedAt is not null)
        {
            Reconcile(standing, [], id);
            return;
        }

        var (sale, lot) = (_sales.Find(id), job.Lot.Length > 0 ? _lots.Find(job.Lot) : null);
        var payments = _money.Payments(id);
        var gone = job.Ending == JobEnd.Parts || sale is { State: SaleState.Sold };
        Reconcile(
            standing,
            [
                .. matters.Bought(lot, gone),
                .. matters.Parts(_money.Parts(id), n => _money.Jobs([n]).FirstOrDefault()?.Lot ?? ""),
                .. matters.Payments(payments),
                .. matters.TaxAhead(payments),
                .. matters.PartsSold(_money.PartsSold(id)),
                .. matters.GivenUp(),
                .. matters.Charged(rate => Charge(job, rate)),
                .. matters.Sold(sale),
            ],
            id
        );
        _journal.Lacks(id, matters.Lacks);
    }

    private Amount? Charge(BookJob job, decimal? rate)
    {
        var shop = _settings.Get();
        var hour = new Amount(job.HourAtClose ?? shop.PerHour.Value, shop.PerHour.Currency);
        return JobCharge.Of(_records.Of(job.Id), job.Minutes, hour, new Currency(job.Currency), rate)?.Sum;
    }

    private void BringLot(long id)
    {
        var key = string.Create(CultureInfo.InvariantCulture, $"lot:{id}:rest");
        var standing = Standing(key);
        var matters = new List<BookMatter>();
        if (_lots.Find(id) is { Cost: { } cost } lot)
        {
            var units = _lots.Units(lot.Name).Where(u => u.Currency == lot.Currency).ToList();
            var rest = cost.Value - units.Sum(u => u.Paid ?? 0);
            var gone = units.Count > 0 && _lots.Gone(lot.Name).IsSupersetOf(units.Select(u => u.Id));
            if (rest != 0)
                matters.Add(
                    new BookMatter(
                        key,
                        string.Create(CultureInfo.InvariantCulture, $"{rest}|{lot.Currency}|{lot.BoughtOn}|{gone}"),
                        lot.Day,
                        () => Here(rest, lot.Currency, lot.Day) is { } here ? Books.RestOfLot(lot.Day, lot.Name, here, gone).Through(Ways.Bought) : null
                    )
                );
        }

        Reconcile(standing, matters, null);
    }

    /// <summary>Writes what is not in the books yet, and reverses what is not any more what it was made of.</summary>
    private void Reconcile(Dictionary<string, StandingEntry> standing, IReadOnlyList<BookMatter> matters, JobId? job)
    {
        var wanted = matters.Select(m => m.Key).ToHashSet();
        foreach (var gone in standing.Values.Where(s => !wanted.Contains(s.Matter)).ToList())
            Reverse(standing, gone, job);
        foreach (var matter in matters)
        {
            if (standing.TryGetValue(matter.Key, out var known))
            {
                if (known.Basis == matter.Basis)
                    continue;
                Reverse(standing, known, job);
            }

            if (matter.Make() is not { } entry || entry.Postings.All(p => p.Value == 0))
                continue;
            entry = entry with { Day = FirstOpen(matter.Day) };
            var id = _journal.Write(matter.Key, matter.Basis, matter.Day, entry, job, Own);
            standing[matter.Key] = new StandingEntry(id, matter.Key, matter.Basis, matter.Day, entry);
        }
    }

    private void Reverse(Dictionary<string, StandingEntry> standing, StandingEntry known, JobId? job)
    {
        var back = Books.Back(known.Entry, FirstOpen(known.OwnDay), $"taken back: {known.Entry.What}") with { Reverses = known.Id };
        _journal.Write(known.Matter, known.Basis, known.OwnDay, back, job, Own);
        standing.Remove(known.Matter);
    }

    private DateOnly FirstOpen(DateOnly day)
    {
        while (_journal.IsLocked(day))
            day = new DateOnly(day.Year, day.Month, 1).AddMonths(1);
        return day;
    }

    private Dictionary<string, StandingEntry> Standing(string matter) =>
        _journal.Standing(matter, Own).GroupBy(s => s.Matter).ToDictionary(g => g.Key, g => g.Last());

    private decimal? Here(decimal value, string currency, DateOnly day) =>
        currency == Own.Code ? Own.Round(value)
        : _money.Rate(currency, day) is { } worth ? Own.Round(value * worth)
        : null;

    private DateOnly On(DateTimeOffset at) => ShopZone.Day(at, _settings, _time);
}
