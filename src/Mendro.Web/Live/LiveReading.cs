using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Instruments;

namespace Mendro.Web.Live;

/// <summary>What a page is told of the meter at one moment.</summary>
/// <param name="State">moving, open, held, accepted, refused when it stands still but cannot be filed, lost, or busy while another
/// page has the meter.</param>
/// <param name="Typed">The reading as it would be typed, or null.</param>
/// <param name="Good">Whether it is as expected; null when that cannot be said.</param>
/// <param name="Words">Verdict in words, or why the reading cannot be filed.</param>
/// <param name="Problem">Why there is no reading.</param>
/// <param name="Stop">True when the reading is a reason to stop: hands-free files it and waits.</param>
public sealed record LiveReading(string State, string? Typed, bool? Good, string? Words, string? Problem, bool Stop = false)
{
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
