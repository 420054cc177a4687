using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Scheduling;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Day;

/// <summary>Who is at the bench when, what is shared, and hours that are fixed.</summary>
public sealed partial class HoursModel(DayDesk desk, ShopCalendar calendar) : ShopPageModel
{
    /// <summary>Weekdays from Monday on.</summary>
    public static IReadOnlyList<DayOfWeek> Week { get; } = Enumerable.Range(1, 7).Select(n => (DayOfWeek)(n % 7)).ToList();

    /// <summary>Fields of the form: people, certainty, day-1 … day-0, place-ID.</summary>
    [BindProperty]
    public Dictionary<string, string?> Form { get; set; } = [];

    /// <summary>Fixed hours to come.</summary>
    public IReadOnlyList<FixedHour> Fixed => desk.FixedHours();

    /// <summary>How expected minutes turned out.</summary>
    public IReadOnlyList<MinutesTruth> Truth => desk.Truth();

    [GeneratedRegex(@"^(?<from>\d{1,2}(?::\d{2})?)\s*(?:-|–|to)\s*(?<to>\d{1,2}(?::\d{2})?)$")]
    private static partial Regex SpanPattern();

    /// <summary>Shows them.</summary>
    public void OnGet() => Fill(desk.Terms);

    /// <summary>Keeps who is there when.</summary>
    public IActionResult OnPost()
    {
        var spans = new List<OpenSpan>();
        foreach (var day in Week)
        {
            var typed = Words.Clean(Form.GetValueOrDefault($"day-{(int)day}"));
            foreach (var part in typed.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            {
                var told = SpanPattern().Match(part);
                if (Time(told.Groups["from"].Value) is not { } from || Time(told.Groups["to"].Value) is not { } to)
                    return Refuse($"{day}: “{part}” is no time such as 9:00-12:30.");
                spans.Add(new OpenSpan(day, from, to));
            }
        }

        var places = new Dictionary<string, int>();
        foreach (var (id, name) in DayTerms.Known)
        {
            if (Words.Whole(Form.GetValueOrDefault($"place-{id}")) is not (>= 1 and <= DayTerms.Most and var count))
                return Refuse($"{name}: 1 to {DayTerms.Most}.");
            places[id] = (int)count;
        }

        if (Words.Whole(Form.GetValueOrDefault("people")) is not { } people || Words.Number(Form.GetValueOrDefault("certainty")) is not { } certainty)
            return Refuse("Say how many people, and how sure a promise is to be.");
        return Answer(
            desk.Save(new DayTerms((int)Math.Clamp(people, -1, 1000), spans, places, certainty / 100), Once),
            done => Said(done.Words)
        );
    }

    /// <summary>Adds a fixed hour.</summary>
    public IActionResult OnPostAdd(string? words, string? from, string? to)
    {
        Remember(("words", words), ("from", from), ("to", to));
        Fill(desk.Terms);
        return
            Moment(from) is { } begin && Moment(to) is { } end
            ? Told(desk.Add([new FixedHour { Words = Words.Clean(words) is { Length: > 0 } said ? said : "away", FromAt = begin, ToAt = end }], Once))
            : Refuse("Say from when to when.");
    }

    /// <summary>Takes a fixed hour away.</summary>
    public IActionResult OnPostRemove(long id)
    {
        Fill(desk.Terms);
        return Told(desk.RemoveHour(id, back: false, Once));
    }

    private IActionResult Told(Deed<Done> deed) => Answer(deed, done => Said(done.Words));

    private RedirectToPageResult Said(string words)
    {
        TempData["Said"] = words;
        return RedirectToPage();
    }

    private void Fill(DayTerms terms)
    {
        Form["people"] = terms.People.ToString(CultureInfo.InvariantCulture);
        Form["certainty"] = (terms.Certainty * 100).ToString("0.#", CultureInfo.InvariantCulture);
        foreach (var day in Week)
        {
            var spans = terms.Spans.Where(s => s.Day == day).OrderBy(s => s.From).Select(s => $"{s.From:HH\\:mm}-{s.To:HH\\:mm}");
            Form[$"day-{(int)day}"] = string.Join(", ", spans);
        }

        foreach (var place in terms.WorkPlaces)
            Form[$"place-{place.Id}"] = place.Count.ToString(CultureInfo.InvariantCulture);
    }

    private static TimeOnly? Time(string typed) =>
        TimeOnly.TryParseExact(
            typed.Contains(':') ? typed : typed + ":00",
            "H:mm",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var time
        )
            ? time
            : null;

    private DateTimeOffset? Moment(string? typed)
    {
        if (!DateTime.TryParseExact(typed, "yyyy-MM-ddTHH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var wall))
            return null;
        var zone = calendar.Zone;
        return zone.IsInvalidTime(wall) ? null : new DateTimeOffset(wall, zone.GetUtcOffset(wall)).ToUniversalTime();
    }
}
