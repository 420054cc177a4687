using Mendro.Core.Jobs;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A point that was measured in a soak.</summary>
/// <param name="Probe">Point.</param>
/// <param name="Cold">Last reading before it began, or null.</param>
/// <param name="Warm">Last reading since, or null.</param>
/// <param name="Good">What good units show, or null.</param>
/// <param name="Match">The warm reading beside theirs, when both are there.</param>
public sealed record WarmPoint(Probe Probe, ProbeReading? Cold, ProbeReading? Warm, Signature? Good, SignatureMatch? Match);

/// <summary>Proving: the test plan, item by item; what stays as it is and why; soaks.</summary>
public sealed class ProveDesk(
    JobBench bench,
    ReadingDesk readings,
    TimerDesk timers,
    SoakStore soaks,
    GoodReadingStore goodReadings,
    TimeProvider time
)
{
    /// <summary>Usual soak, minutes (trade practice: twenty minutes of play).</summary>
    public const double UsualSoak = 20;

    /// <summary>Longest soak, minutes.</summary>
    public const double LongestSoak = 24 * 60;

    private const int LongestNote = 120;
    private const int MostNotes = 50;

    /// <summary>The test plan of a job.</summary>
    public static TestPlan Plan(JobView view) =>
        TestPlan.Make(
            view.Model,
            UnitTrail.Of(view.Model, [.. view.Records.Select(r => r.Body)]),
            part => view.Diagnosis?.Parts.GetValueOrDefault(part)?.Posterior ?? 0
        );

    /// <summary>Files the result of an item.</summary>
    /// <param name="view">The job.</param>
    /// <param name="item">Item of its plan.</param>
    /// <param name="passed">True when it was good.</param>
    /// <param name="look">Look of the failure, for a function; null when not told.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Answer(JobView view, string item, bool passed, string? look, string? once = null)
    {
        if (Plan(view).Items.FirstOrDefault(i => i.Id == item) is not { } found)
            return Refusal.Missing;
        if (found.Function is { } function)
            return readings
                .Try(new TrialOrder(view.Job.Number, function, passed, look, Proving: true), once)
                .Match<Deed<Done>>(_ => new Done($"{found.Name}: {(passed ? "works" : "fails")}"), refusal => refusal);
        return bench.On<Done>(
            view.Job.Number,
            once,
            job =>
            {
                var proves = view.Profile.Checks?.FirstOrDefault(c => $"check:{c.Id}" == item)?.Function;
                var body = new TestDone(item, found.Name, passed, proves);
                var filed = bench.File(job, body, WorkStage.Prove, r => r with { Minutes = found.Minutes });
                bench.Settle(job, body.Step);
                return new Done(filed.Words);
            }
        );
    }

    /// <summary>Notes why something that fails stays so.</summary>
    public Deed<Done> Keep(JobView view, string item, KeepReason reason, string words, string? once = null)
    {
        if (Plan(view).Items.FirstOrDefault(i => i.Id == item) is not { State: ProofState.Fails } found)
            return Refusal.Invalid("That does not fail now.");
        if (words.Length > FaultKept.LongestWords)
            return Refusal.Invalid($"The words take {FaultKept.LongestWords} characters.");
        // One reason for a function, whether it failed open or closed.
        var kept = found.Function is { } function ? TestItem.IdOf(function) : item;
        return bench.On<Done>(
            view.Job.Number,
            once,
            job => new Done(bench.File(job, new FaultKept(kept, found.Name, reason, words), WorkStage.Prove).Words)
        );
    }

    /// <summary>Soaks of a job that run.</summary>
    public IReadOnlyList<Soak> Soaks(JobView view) => soaks.Running(view.Job.Id);

    /// <summary>Minutes that a soak has run.</summary>
    public double Played(Soak soak) => Math.Max(0, (time.GetUtcNow() - soak.StartedAt).TotalMinutes);

    /// <summary>Begins a soak, with its timer.</summary>
    public Deed<Done> BeginSoak(long number, FunctionId function, double minutes, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindFunction(function) is not { } watched)
                    return Refusal.Missing;
                if (!(minutes > 0 && minutes <= LongestSoak))
                    return Refusal.Invalid("A soak takes more than nothing and at most a day: give its minutes.");
                if (soaks.Running(job.Job.Id).Any(s => s.Function == watched.Id.Value))
                    return Refusal.Invalid($"{watched.Name} is being watched already.");
                var timer = timers.Add(job.Job, $"soak: {watched.Name}", minutes);
                soaks.Begin(
                    new Soak
                    {
                        JobId = job.Job.Id,
                        Function = watched.Id.Value,
                        Minutes = minutes,
                        StartedAt = time.GetUtcNow(),
                        TimerId = timer,
                    }
                );
                return new Done(FormattableString.Invariant($"It runs for {minutes:0.#} minutes."));
            }
        );

    /// <summary>Notes something that happened in a soak.</summary>
    public Deed<Done> NoteSoak(long number, long soakId, string words, string? once = null) =>
        OnSoak(
            number,
            soakId,
            once,
            (_, soak) =>
            {
                if (words.Length is 0 or > LongestNote)
                    return Refusal.Invalid($"Say in up to {LongestNote} characters what happened.");
                var noted = soak.Interruptions;
                if (noted.Count >= MostNotes)
                    return Refusal.Invalid("That is enough to know: end it.");
                soaks.Note(soak.Id, [.. noted, new Interruption(Math.Round(Played(soak), 1), words)]);
                return new Done($"Noted: {words}.");
            }
        );

    /// <summary>Ends a soak: it is filed as evidence.</summary>
    public Deed<Done> EndSoak(long number, long soakId, string? once = null) =>
        OnSoak(
            number,
            soakId,
            once,
            (job, soak) =>
            {
                var played = Math.Round(Math.Min(Played(soak), soak.Minutes), 1);
                var body = new SoakRun(new FunctionId(soak.Function), soak.Minutes, played, soak.Interruptions);
                // It costs no hands: its minutes are not those of the bench.
                var filed = bench.File(job, body, WorkStage.Prove);
                soaks.End(soak.Id);
                if (soak.TimerId is { } timer)
                    timers.StopWithin(timer);
                bench.Settle(job, body.Step);
                return new Done(filed.Words);
            }
        );

    /// <summary>Points that were measured since a soak began, or before it, beside good units.</summary>
    public IReadOnlyList<WarmPoint> Warm(JobView view, DateTimeOffset since)
    {
        var metered = view.Profile.Probes.Where(p => ProbeWalk.IsMetered(p.Kind)).ToList();
        var known = goodReadings.Signatures(view.Job.ProfileId, metered, view.Job.Revision);
        var all = view.All<ProbeReading>().Where(r => r.Body.IsMetered).ToLookup(r => r.Body.Probe);
        return metered
            .Select(p =>
            {
                var cold = all[p.Id].LastOrDefault(r => r.Record.At < since).Body;
                var warm = all[p.Id].LastOrDefault(r => r.Record.At >= since).Body;
                var good = known.GetValueOrDefault(p.Id);
                return new WarmPoint(p, cold, warm, good, warm is null ? null : good?.Compare(warm.Reading!.Value, p.Kind));
            })
            .Where(p => p.Cold is not null || p.Warm is not null)
            .ToList();
    }

    private Deed<Done> OnSoak(long number, long soakId, string? once, Func<OpenJob, Soak, Deed<Done>> work) =>
        bench.On<Done>(
            number,
            once,
            job => soaks.Running(job.Job.Id).FirstOrDefault(s => s.Id == soakId) is { } soak ? work(job, soak) : Refusal.Missing
        );
}
