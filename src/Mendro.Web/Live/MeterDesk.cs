using System.Globalization;
using Mendro.Core;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Live;

/// <summary>Reads the meter for the page whose turn it is, and tells that page alone.</summary>
public sealed partial class MeterDesk(
    EventStreams streams,
    MeterTurns turns,
    JobStore jobs,
    BenchDesk desk,
    TraceDesk traces,
    BenchMeter meter,
    IBenchHand hand,
    TimeProvider time,
    ILogger<MeterDesk> log
) : BackgroundService
{
    private static readonly TimeSpan Pace = TimeSpan.FromMilliseconds(110);
    private static readonly TimeSpan Hold = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan KeepAlive = TimeSpan.FromSeconds(10);

    // A browser's stream goes from one of its tabs to another within a moment.
    private static readonly TimeSpan Absence = TimeSpan.FromSeconds(3);

    // A contact is judged like any other closed contact.
    private static readonly Probe AContact = new(
        "contact",
        "Contact",
        "",
        ProbeKind.Continuity,
        null,
        null,
        [],
        null,
        new Expectation(1, null, "beep"),
        AccessState.Closed
    );

    private readonly SemaphoreSlim _bell = new(0, 1);

    /// <summary>A page asks for the meter at a point.</summary>
    /// <returns>False when there is no such point, or no meter answers it.</returns>
    public bool Take(MeterPage page)
    {
        if (Find(page) is null)
            return false;
        if (turns.Take(page) is { } holder)
        {
            Tell(page, Busy($"Job {holder.Job} has the meter; it is asked …"));
            Ask(holder, page.Job);
        }

        Wake();
        return true;
    }

    /// <summary>The holder keeps it.</summary>
    public void Keep(string browser, string page)
    {
        if (turns.Keep(browser, page) is { } asked)
            Tell(asked, Busy($"Job {turns.Holder?.Job} keeps the meter; it comes when that page gives it back."));
    }

    /// <summary>A page gives it back.</summary>
    public void Leave(string browser, string page)
    {
        turns.Leave(browser, page);
        // Who asked may be gone: nothing is to be answered any more.
        if (turns.Holder is { } holder && turns.Asking is null)
            Ask(holder, null);
        Wake();
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            if (turns.Holder is not { } holder)
            {
                await _bell.WaitAsync(stoppingToken);
                continue;
            }

            try
            {
                await ServeAsync(holder, stoppingToken);
            }
            catch (Exception ex) when (ex is not OperationCanceledException)
            {
                // One point that cannot be read must not end the meter for all others.
                NotServed(holder.Job, ex);
                turns.Leave(holder.Browser, holder.Page);
                Tell(holder, new LiveReading("lost", null, null, null, "The meter could not be read here; the log says why."));
            }
        }
    }

    [LoggerMessage(LogLevel.Error, "The meter could not be read for job {Job}")]
    private partial void NotServed(long job, Exception ex);

    /// <summary>Reads for one page at one point until it is another's turn.</summary>
    private async Task ServeAsync(MeterPage page, CancellationToken stop)
    {
        if (Find(page) is not var (view, point, reach))
        {
            turns.Leave(page.Browser, page.Page);
            return;
        }

        var function = MeterDialect.Function(view.Profile, point);
        // The stand-in's hand sets off once the meter is linked and set; else a slow first answer could miss that its tips were
        // lifted.
        if (hand.Running)
            await meter.ReadAsync(function, point.Kind, stop);
        reach();
        var watch = new SteadyWatch(Hold);
        var (begun, told, seen) = (time.GetTimestamp(), time.GetTimestamp(), time.GetTimestamp());
        LiveReading? last = null;
        // By reference: a page that gave it back and took the same point again within one reading starts anew.
        while (ReferenceEquals(turns.Holder, page))
        {
            if (turns.HandOverWhenDue() is { } before)
            {
                Tell(before, Busy($"Job {turns.Holder?.Job} has the meter now; it comes back when that page is closed."));
                return;
            }

            if (streams.IsOpen(page.Browser))
                seen = time.GetTimestamp();
            else if (time.GetElapsedTime(seen) > Absence)
                turns.LeaveAll(page.Browser);
            var now = LiveReading.Look(
                view.Profile,
                point,
                watch,
                await meter.ReadAsync(function, point.Kind, stop),
                time.GetElapsedTime(begun)
            );
            if (ReferenceEquals(turns.Holder, page) && (now != last || time.GetElapsedTime(told) > KeepAlive))
            {
                Tell(page, now);
                (last, told) = (now, time.GetTimestamp());
            }

            await Task.Delay(Pace, time, stop);
        }
    }

    private void Tell(MeterPage page, LiveReading now) =>
        streams.Send(
            page.Browser,
            "meter",
            new
            {
                page.Page,
                page.Point,
                Reading = now,
            }
        );

    private void Ask(MeterPage holder, long? job) => streams.Send(holder.Browser, "ask", new { holder.Page, Job = job });

    private static LiveReading Busy(string why) => new("busy", null, null, null, why);

    private void Wake()
    {
        lock (_bell)
            if (_bell.CurrentCount == 0)
                _bell.Release();
    }

    /// <summary>Beginning of a point that is two points of the boards, told as <c>line:board/point board/point</c>.</summary>
    public const string LinePrefix = "line:";

    private (JobView View, Probe Point, Action Reach)? Find(MeterPage page)
    {
        if (jobs.Find(page.Job) is not { } job)
            return null;
        var view = desk.OpenToFile(job);
        if (page.IsContact && page.Point.StartsWith(LinePrefix, StringComparison.Ordinal))
            return
                page.Point[LinePrefix.Length..].Split(' ') is [var a, var b]
                && traces.Open(view) is { } sheet
                && sheet.NetOf(a) is not null
                && sheet.NetOf(b) is not null
                ? (view, AContact, () => hand.ReachLine(view, sheet, a, b))
                : null;
        if (page.IsContact)
            return ContactOf(view.Profile, page.Point) is { } swept
                ? (view, AContact, () => hand.ReachContact(view, swept.Connector, swept.Contact))
                : null;
        return view.Profile.FindProbe(page.Point) is { } probe && ProbeWalk.IsMetered(probe.Kind)
            ? (view, probe, () => hand.Reach(view, probe))
            : null;
    }

    private static (Connector Connector, Contact Contact)? ContactOf(DeviceProfile profile, string told)
    {
        if (
            told.Split(':') is not [var id, var text]
            || !int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
        )
            return null;
        return
            profile.Connectors?.FirstOrDefault(c => c.Id == id) is { } connector
            && connector.Contacts.FirstOrDefault(c => c.Number == number) is { } contact
            ? (connector, contact)
            : null;
    }
}
