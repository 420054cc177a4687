using System.Globalization;
using System.Text.Json;
using Mendro.Core;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Meter;

/// <summary>What the page is told of the meter at one moment.</summary>
/// <param name="State">moving, open, held, accepted, refused when it stands still but cannot be filed, lost, or busy while another
/// page has the meter.</param>
/// <param name="Typed">The reading as it would be typed, or null.</param>
/// <param name="Good">Whether it is as expected; null when that cannot be said.</param>
/// <param name="Words">Verdict in words, or why the reading cannot be filed.</param>
/// <param name="Problem">Why there is no reading.</param>
/// <param name="Stop">True when the reading is a reason to stop: hands-free files it and waits.</param>
public sealed record LiveReading(string State, string? Typed, bool? Good, string? Words, string? Problem, bool Stop = false);

/// <summary>Server-sent events of the meter at the selected point of a job.</summary>
public sealed class LiveReadings(
    JobStore jobs,
    BenchDesk desk,
    BenchMeter meter,
    IBenchHand hand,
    IHostApplicationLifetime lifetime,
    TimeProvider time
)
{
    private readonly MeterQueue _queue = new();

    private static readonly TimeSpan Pace = TimeSpan.FromMilliseconds(110);
    private static readonly TimeSpan Hold = TimeSpan.FromSeconds(1);

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

    private static readonly TimeSpan KeepAlive = TimeSpan.FromSeconds(10);

    /// <summary>Streams until the page goes away or the server stops.</summary>
    /// <param name="context">Request.</param>
    /// <param name="number">Number of the job.</param>
    /// <param name="probe">Probe id, when a probe is measured.</param>
    /// <param name="contact">Connector id and contact number, such as <c>slot:12</c>, when a contact is swept.</param>
    public async Task StreamAsync(HttpContext context, long number, string? probe, string? contact)
    {
        var view = jobs.Find(number) is { } job ? desk.Open(job) : null;
        var swept = view is null ? null : ContactOf(view.Profile, contact);
        var point = swept is null ? view?.Profile.FindProbe(probe ?? "") : AContact;
        if (view is null || point is null || !ProbeWalk.IsMetered(point.Kind))
        {
            context.Response.StatusCode = StatusCodes.Status404NotFound;
            return;
        }

        context.Response.ContentType = "text/event-stream";
        var ticket = _queue.Take();
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted, lifetime.ApplicationStopping);
        var function = MeterDialect.Function(view.Profile, point);
        var touching = false;
        var watch = new SteadyWatch(Hold);
        var (begun, told) = (time.GetTimestamp(), time.GetTimestamp());
        var last = "";
        try
        {
            while (!stop.IsCancellationRequested)
            {
                var mine = _queue.IsFirst(ticket);
                if (mine && !touching)
                {
                    // The stand-in's hand sets off once the meter is linked and set; else a slow first answer could miss that its
                    // tips were lifted.
                    if (hand.Running)
                        await meter.ReadAsync(function, point.Kind, stop.Token);
                    if (swept is { } s)
                        hand.ReachContact(view, s.Connector, s.Contact);
                    else
                        hand.Reach(view, point);
                }

                touching = mine;
                var now = mine
                    ? Look(view.Profile, point, watch, await meter.ReadAsync(function, point.Kind, stop.Token), time.GetElapsedTime(begun))
                    : new LiveReading("busy", null, null, null, "Another page has the meter; it comes back when that page is closed.");
                var text = JsonSerializer.Serialize(now, JsonSerializerOptions.Web);
                if (text != last || time.GetElapsedTime(told) > KeepAlive)
                {
                    await context.Response.WriteAsync($"data: {text}\n\n", stop.Token);
                    await context.Response.Body.FlushAsync(stop.Token);
                    (last, told) = (text, time.GetTimestamp());
                }

                await Task.Delay(Pace, time, stop.Token);
            }
        }
        catch (OperationCanceledException)
        {
            // The page went on to another point, or the server stops.
        }
        finally
        {
            _queue.Leave(ticket);
        }
    }

    private static (Connector Connector, Contact Contact)? ContactOf(DeviceProfile profile, string? told)
    {
        if (
            told?.Split(':') is not [var id, var text]
            || !int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var number)
        )
            return null;
        return
            profile.Connectors?.FirstOrDefault(c => c.Id == id) is { } connector
            && connector.Contacts.FirstOrDefault(c => c.Number == number) is { } contact
            ? (connector, contact)
            : null;
    }

    /// <summary>Turns one look at the meter into what the page is told.</summary>
    public static LiveReading Look(DeviceProfile profile, Probe probe, SteadyWatch watch, MeterSample sample, TimeSpan at)
    {
        if (sample.Reading is not { } reading)
            return new("lost", null, null, null, sample.Problem);
        var state = watch.Step(at, reading.Unit, reading.Value);
        var typed = MeterDialect.Typed(reading, probe.Kind);
        var judged = ReadingJudge.Judge(profile, probe, typed);
        // What cannot be filed is not taken either: it says why, and the tips are free to try again.
        var said = !judged.IsOk && state == SteadyState.Accepted ? "refused" : state.ToString().ToLowerInvariant();
        return judged.Value is { } value
            ? new(said, typed, value.Outcome == ProbeOutcome.Normal, value.Words, null, value.Stop is not null)
            : new(said, typed, state == SteadyState.Open ? null : false, judged.Problem, null);
    }
}
