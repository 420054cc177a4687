using Mendro.Core.Library;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>A shop at nine on a Monday in Berlin, with its desks of the day.</summary>
public abstract class BenchDay : IDisposable
{
    protected static readonly TimeZoneInfo Berlin = TimeZoneInfo.FindSystemTimeZoneById("Europe/Berlin");

    private protected readonly TestShop _shop = new();
    private protected readonly DayStore _store;
    private protected DayPlanner _planner;

    protected BenchDay()
    {
        // 30 November 2026 is a Monday; nine in Berlin.
        _shop.Time.SetUtcNow(new DateTimeOffset(2026, 11, 30, 8, 0, 0, TimeSpan.Zero));
        _store = new DayStore(_shop.Database, _shop.Time);
        _planner = new DayPlanner(_shop.Settings);
    }

    public void Dispose()
    {
        _planner.Dispose();
        _shop.Dispose();
    }

    private protected DayDesk Desk =>
        new(
            _shop.Jobs,
            _shop.Desk,
            _shop.Runs,
            _shop.Recap,
            _shop.Traces,
            _shop.Timers,
            _shop.Orders,
            _shop.OrderRows,
            new ShelfStore(_shop.Database, _shop.Time),
            _shop.Owners,
            _store,
            _planner,
            _shop.Records,
            new LookBackStore(_shop.Database),
            _shop.Settings,
            TradeLibrary.Shipped,
            _shop.Ledger,
            _shop.Time
        );

    private protected CalendarDesk Calendar => new(_shop.Jobs, _shop.Timers, _shop.OrderRows, _store, Desk, _shop.Time);

    /// <summary>The day once it is planned.</summary>
    private protected async Task<DayBoard> Board()
    {
        foreach (var job in _shop.Jobs.Live())
            _shop.View(job.Number);
        Desk.Board(Berlin);
        await _planner.Work;
        var board = Desk.Board(Berlin);
        board.Fresh.ShouldBeTrue();
        return board;
    }

    protected static DateTimeOffset At(int hour, int minute = 0, int days = 0) =>
        new DateTimeOffset(2026, 11, 30, hour, minute, 0, TimeSpan.FromHours(1)).AddDays(days);

    private protected void Promise(long number, string day) => _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Promised = day }, null, "");
}
