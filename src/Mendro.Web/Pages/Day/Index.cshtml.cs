using Mendro.Core.Quantities;
using Mendro.Core.Scheduling;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Day;

/// <summary>The bench day: what now, what meanwhile, what will be ready when.</summary>
public sealed class IndexModel(DayDesk desk, ShopCalendar calendar, BenchRefresher refresher) : ShopPageModel
{
    private const double Before = 20;
    private const double ShortestWindow = 60;
    private const double LongestFree = 480;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    /// <summary>Minutes that are free, of which the page says what fits.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Free { get; set; }

    /// <summary>The day.</summary>
    public DayBoard Board { get; private set; } = null!;

    /// <summary>Zone of the shop.</summary>
    public TimeZoneInfo Zone => calendar.Zone;

    /// <summary>Minutes that are free; null for nothing asked.</summary>
    public double? FreeMinutes => Words.Number(Free) is > 0 and <= LongestFree and var minutes ? minutes : null;

    /// <summary>What fits into them.</summary>
    public IReadOnlyList<DayEntry> Fitting => FreeMinutes is { } minutes ? DayDesk.Fitting(Board, minutes) : [];

    /// <summary>What is to be seen to before one goes.</summary>
    public IReadOnlyList<LeaveLine> Leaving => _leaving ??= desk.Leaving();

    private IReadOnlyList<LeaveLine>? _leaving;

    /// <summary>Own tasks.</summary>
    public IReadOnlyList<OwnTask> OwnTasks => desk.OwnTasks();

    /// <summary>Begin and end of what is drawn: the rest of today, or the next open day.</summary>
    public (DateTimeOffset From, DateTimeOffset To) Window { get; private set; }

    /// <summary>Last open moment of today; null when it is over.</summary>
    public DateTimeOffset? Closing { get; private set; }

    /// <summary>Shows the day.</summary>
    public Task OnGetAsync() => LoadAsync();

    /// <summary>The day alone, while it is planned.</summary>
    public async Task<IActionResult> OnGetBoardAsync()
    {
        await LoadAsync();
        return Partial("_BoardAnswer", this);
    }

    /// <summary>Adds an own task.</summary>
    public async Task<IActionResult> OnPostAddAsync(string? words, string? minutes, bool passive, string? place, string? due)
    {
        Remember(("words", words), ("minutes", minutes), ("due", due));
        await LoadAsync();
        return Told(
            desk.Add(
                new OwnTask
                {
                    Words = Words.Clean(words),
                    Minutes = Words.Number(minutes) ?? 0,
                    Passive = passive,
                    Place = Words.Clean(place),
                    Due = Words.Clean(due),
                },
                Once
            )
        );
    }

    /// <summary>An own task was done.</summary>
    public async Task<IActionResult> OnPostDoneAsync(long id)
    {
        await LoadAsync();
        return Told(desk.Finish(id, done: true, Once));
    }

    /// <summary>Takes an own task away.</summary>
    public async Task<IActionResult> OnPostRemoveAsync(long id)
    {
        await LoadAsync();
        return Told(desk.RemoveTask(id, back: false, Once));
    }

    /// <summary>Begin of a piece of work by the shop's clock, such as 14:05, or Mon 09:00.</summary>
    public string At(DateTimeOffset moment)
    {
        // To the nearest minute.
        var wall = TimeZoneInfo.ConvertTime(moment.AddSeconds(30), Zone);
        return wall.ToString(DateOnly.FromDateTime(wall.DateTime) == calendar.Today ? "HH:mm" : "ddd HH:mm", System.Globalization.CultureInfo.InvariantCulture);
    }

    /// <summary>Where a piece of work is done; null for none of a job.</summary>
    public static string? Address(DayItem item) =>
        item.Number is { } number ? $"/Jobs/{number}/{item.Stage}"
        : item.Task.Id == "orders" ? "/Orders"
        : item.Task.Id.StartsWith("call.", StringComparison.Ordinal) ? $"/Jobs/{item.Task.Id[5..]}/Owner"
        : null;

    private async Task LoadAsync()
    {
        await refresher.Caught(Patience);
        Board = desk.Board(Zone);
        var hours = desk.Hours(Zone);
        Closing = hours.Closing(Board.Now, calendar.Today);
        var from = hours.Open(Board.Now).Select(s => (DateTimeOffset?)s.From).FirstOrDefault() is { } opens && opens > Board.Now ? opens : Board.Now;
        var to = hours.Closing(from, DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(from, Zone).DateTime)) ?? from.AddMinutes(LongestFree);
        Window = (from.AddMinutes(-Before), to < from.AddMinutes(ShortestWindow) ? from.AddMinutes(ShortestWindow) : to.AddMinutes(Before));
    }

    private IActionResult Told(Deed<Done> deed) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage();
            }
        );
}
