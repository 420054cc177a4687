using System.Globalization;
using System.Runtime.InteropServices;
using System.Security.Cryptography;
using System.Text.RegularExpressions;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Proving;
using Mendro.Storage;
using Microsoft.Extensions.Caching.Memory;

namespace Mendro.Shop;

/// <summary>One job of the bench as far as it is worked out.</summary>
/// <param name="Job">The job as it stands now.</param>
/// <param name="View">What was worked out for it last, or null when nothing was yet.</param>
/// <param name="Fresh">True when that still holds.</param>
public sealed record BenchState(Job Job, JobView? View, bool Fresh);

/// <summary>
/// Puts a job, its profile and its records together and has the core compute them. What was computed is kept while nothing
/// changes that bears on that very job, so that the bench list does not diagnose every unit on every visit. Only numbers are
/// kept, never the tables of the inference, and never more than a bounded size.
/// </summary>
public sealed class BenchDesk(ModelShelf models, BenchRecordStore records, SettingsStore settings, ShopExperience experience) : IDisposable
{
    /// <summary>Most bytes kept, by estimate.</summary>
    public const long MostBytes = 32 * 1024 * 1024;

    private const int Gates = 64;

    private readonly MemoryCache _views = new(new MemoryCacheOptions { SizeLimit = MostBytes, TrackStatistics = true });

    // Of three hundred of one lot many tell the same: what is worked out for one holds for its like.
    private readonly MemoryCache _alike = new(new MemoryCacheOptions { SizeLimit = MostBytes / 4 });

    // Two that ask for the same job at once wait for one another instead of working it out twice.
    private readonly Lock[] _gates = Enumerable.Range(0, Gates).Select(_ => new Lock()).ToArray();

    /// <summary>Jobs kept at present and their size in bytes, by estimate.</summary>
    public (long Jobs, long Bytes) Load =>
        _views.GetCurrentStatistics() is { } now ? (now.CurrentEntryCount, now.CurrentEstimatedSize ?? 0) : default;

    /// <summary>A job with everything computed, as it stands now.</summary>
    /// <param name="job">The job, as read from the store just now.</param>
    public JobView Open(Job job)
    {
        var now = (Shop: settings.Get(), Known: experience.Now());
        if (Exact(job, now.Shop, now.Known) is { } kept)
            return kept;
        lock (_gates[(int)((ulong)job.Id.Value % Gates)])
        {
            if (Exact(job, now.Shop, now.Known) is { } meanwhile)
                return meanwhile;
            var (model, held) = (models.Of(job), records.Of(job.Id));
            var context = now.Known.For(job, model, held);
            var key = Key(job, now.Shop, context);
            var alike = new UnitAlike(model, Rest(job, now.Shop), key.Learned, held);
            if (!_alike.TryGetValue(alike, out JobView? twin))
            {
                twin = Compute(job, model, held, now.Shop, context);
                _alike.Set(alike, twin, new MemoryCacheEntryOptions { Size = Size(twin) });
            }

            return Keep(job, twin! with { Job = job, Records = held }, key, now.Known.Stamp);
        }
    }

    /// <summary>A job as worked out from the records it has now. Chances may be those of a moment ago, when a cause was confirmed
    /// elsewhere since: enough to file by.</summary>
    public JobView OpenToFile(Job job) =>
        _views.TryGetValue(job.Id, out Kept? kept) && kept!.View.Job.Mark == job.Mark ? kept.View with { Job = job } : Open(job);

    /// <summary>Jobs as far as they are worked out; nothing is computed. What was worked out before the shop learned something new
    /// does not count as fresh until it was looked at again.</summary>
    public IReadOnlyList<BenchState> States(IReadOnlyList<Job> jobs)
    {
        var (shop, stamp) = (settings.Get(), experience.Now().Stamp);
        return jobs.Select(job =>
            {
                if (!_views.TryGetValue(job.Id, out Kept? kept))
                    return new BenchState(job, null, false);
                var fresh = kept!.Stamp == stamp && kept.Key.Own == Own(job, shop);
                return new BenchState(job, kept.View with { Job = job }, fresh);
            })
            .ToList();
    }

    /// <summary>The diagnosis with its network and tables, worked out anew and not kept; null when the evidence contradicts
    /// itself.</summary>
    public UnitDiagnosis? Reason(JobView view)
    {
        var context = experience.Now().For(view.Job, view.Model, view.Records);
        return UnitDiagnosis.Make(view.Model, BenchRecord.Events(view.Records), context).Value;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _views.Dispose();
        _alike.Dispose();
    }

    /// <summary>What is kept, when it holds to the last digit; else null.</summary>
    private JobView? Exact(Job job, ShopSettings shop, ShopExperience.Snapshot known)
    {
        if (!_views.TryGetValue(job.Id, out Kept? kept) || kept!.Key.Own != Own(job, shop))
            return null;
        if (kept.Stamp == known.Stamp)
            return kept.View with { Job = job };
        // The records are the same and need not be read; whether what the shop learned bears on them, the chances tell.
        var key = Key(job, shop, known.For(job, kept.View.Model, kept.View.Records));
        return key == kept.Key ? Keep(job, kept.View with { Job = job }, key, known.Stamp) : null;
    }

    private JobView Keep(Job job, JobView view, CaseKey key, string stamp)
    {
        _views.Set(job.Id, new Kept(key, stamp, view), new MemoryCacheEntryOptions { Size = Size(view) });
        return view;
    }

    /// <summary>All that bears on a job's computation, and nothing else: not the shop's name, nor a cause that leaves its chances
    /// as they are.</summary>
    private CaseKey Key(Job job, ShopSettings shop, CaseContext context)
    {
        var priors = context.Priors is { } chances ? Digest(chances) : "own";
        var gear = string.Join(
            ',',
            (context.Gear ?? []).Select(g => string.Create(CultureInfo.InvariantCulture, $"{g.Id}:{g.UsesSinceCleaning}"))
        );
        return new CaseKey(Own(job, shop), $"{priors}|{gear}");
    }

    /// <summary>The part of it that lies in the job itself and the settings.</summary>
    private string Own(Job job, ShopSettings shop) => string.Create(CultureInfo.InvariantCulture, $"{job.Mark}|{Rest(job, shop)}");

    private string Rest(Job job, ShopSettings shop)
    {
        var model = string.Create(CultureInfo.InvariantCulture, $"{job.ProfileId}@{job.ProfileVersion}|{job.Revision}|{models.Methods}");
        var worth = string.Create(CultureInfo.InvariantCulture, $"{job.Values}|{JobCosts.HourOf(job, shop)}|{job.Anyway}");
        return string.Create(CultureInfo.InvariantCulture, $"{worth}|{shop.OriginalityMinutes}|{shop.WallVolts}|{model}");
    }

    private static string Digest(IReadOnlyList<double> chances) =>
        Convert.ToHexString(SHA256.HashData(MemoryMarshal.AsBytes(chances.ToArray().AsSpan())).AsSpan(0, 12));

    private static JobView Compute(Job job, DeviceModel model, IReadOnlyList<BenchRecord> held, ShopSettings shop, CaseContext context)
    {
        var events = BenchRecord.Events(held);
        var proof = ProofSheet.Make(model, events);
        var access = UnitAccess.Of(model, held);
        var apart = UnitAccess.Steps(model, held);
        var outcome = UnitDiagnosis.Make(model, events, context);
        if (!outcome.IsOk)
            return new JobView(job, model, held, access, apart, null, Explain(model, outcome.Problem!), new Advice([], null), null, proof)
            {
                WallVolts = shop.WallVolts,
            };
        var advice = new MoveAdvisor(JobCosts.Of(job, shop)).Advise(outcome.Value, apart);
        var worth = outcome.Value.Target is null ? null : WorthLine.Judge(advice, job.Values, JobCosts.HourOf(job, shop), job.Anyway);
        return new JobView(job, model, held, access, apart, outcome.Value.Verdict, null, advice, worth, proof) { WallVolts = shop.WallVolts };
    }

    /// <summary>An estimate that grows with what is kept; the model is shared and does not count.</summary>
    private static long Size(JobView view) =>
        2_000 + 700L * view.Records.Count + 80L * (view.Diagnosis?.Suspects.Count ?? 0) + 1_200L * view.Advice.Moves.Count;

    /// <summary>Puts the engine's finding ids into the words of the bench.</summary>
    private static string Explain(DeviceModel model, string problem)
    {
        foreach (var function in model.Profile.Functions.OrderByDescending(f => f.Id.Value.Length))
            problem = Regex.Replace(problem, $@"fn:{Regex.Escape(function.Id)}(:[\w-]+)?#\d+", $"“{function.Name}”");
        foreach (var probe in model.Profile.Probes.OrderByDescending(p => p.Id.Value.Length))
            problem = Regex.Replace(problem, $@"probe:{Regex.Escape(probe.Id)}(:jumps)?#\d+", $"“{probe.Name}”");
        return problem + " Withdraw or correct one of them.";
    }

    private sealed record CaseKey(string Own, string Learned);

    private sealed record Kept(CaseKey Key, string Stamp, JobView View);
}

/// <summary>What counts as a cost for one job.</summary>
public static class JobCosts
{
    /// <summary>Costs of a job at the shop's rate, with what is at stake in it.</summary>
    public static BenchCosts Of(Job job, ShopSettings shop) =>
        new(
            (double)shop.RatePerHour,
            shop.OriginalityMinutes,
            // What is mended anyway is never too dear.
            UncuredMinutes: job.Anyway ? WorthLine.DefaultUncuredMinutes : WorthLine.UncuredMinutes(job.Values, HourOf(job, shop)),
            StakeKnown: !job.Anyway && WorthLine.IsKnown(job.Values, HourOf(job, shop))
        );

    /// <summary>What an hour on a job is worth: that of its lot, else the shop's.</summary>
    public static Amount HourOf(Job job, ShopSettings shop) => shop.HourOr(job.LotHour, job.Currency);
}
