using System.Globalization;
using System.Runtime.InteropServices;
using System.Security.Cryptography;
using System.Text.RegularExpressions;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Planning;
using Mendro.Core.Proving;
using Mendro.Storage;
using Microsoft.Extensions.Caching.Memory;

namespace Mendro.Shop;

/// <summary>
/// Puts a job, its profile and its records together and has the core compute them. What was computed is kept while nothing
/// changes that bears on that very job, so that the bench list does not diagnose every unit on every visit. Only numbers are
/// kept, never the tables of the inference, and never more than a bounded size.
/// </summary>
public sealed class BenchDesk(ModelShelf models, BenchRecordStore records, SettingsStore settings, ShopExperience experience) : IDisposable
{
    /// <summary>Most bytes kept, by estimate.</summary>
    public const long MostBytes = 48 * 1024 * 1024;

    private readonly MemoryCache _views = new(new MemoryCacheOptions { SizeLimit = MostBytes, TrackStatistics = true });

    /// <summary>Jobs kept at present and their size in bytes, by estimate.</summary>
    public (long Jobs, long Bytes) Load =>
        _views.GetCurrentStatistics() is { } now ? (now.CurrentEntryCount, now.CurrentEstimatedSize ?? 0) : default;

    /// <summary>A job with everything computed.</summary>
    public JobView Open(Job job) => Open(job, records.Of(job.Id), settings.Get(), experience.Now());

    /// <summary>Several jobs, with one query for all their records.</summary>
    public IReadOnlyList<JobView> OpenAll(IReadOnlyList<Job> jobs)
    {
        var all = records.OfAll(jobs.Select(j => j.Id).ToList());
        var (shop, known) = (settings.Get(), experience.Now());
        return jobs.Select(job => Open(job, [.. all[job.Id]], shop, known)).ToList();
    }

    /// <summary>The diagnosis with its network and tables, worked out anew and not kept; null when the evidence contradicts
    /// itself.</summary>
    public UnitDiagnosis? Reason(JobView view)
    {
        var context = experience.Now().For(view.Job, view.Model, view.Records);
        return UnitDiagnosis.Make(view.Model, BenchRecord.Events(view.Records), context).Value;
    }

    /// <inheritdoc/>
    public void Dispose() => _views.Dispose();

    private JobView Open(Job job, IReadOnlyList<BenchRecord> held, ShopSettings shop, ShopExperience.Snapshot known)
    {
        var model = models.Of(job);
        var context = known.For(job, model, held);
        var key = Key(job, held, shop, context);
        if (_views.TryGetValue(job.Id, out Kept? kept) && kept!.Key == key)
            return kept.View with { Job = job };
        var view = Compute(job, model, held, shop, context);
        _views.Set(job.Id, new Kept(key, view), new MemoryCacheEntryOptions { Size = Size(view) });
        return view;
    }

    /// <summary>All that bears on a job's computation, and nothing else: not the shop's name, nor a cause that leaves its chances
    /// as they are.</summary>
    private static string Key(Job job, IReadOnlyList<BenchRecord> held, ShopSettings shop, CaseContext context)
    {
        var priors = context.Priors is { } chances ? Digest(chances) : "own";
        var gear = string.Join(
            ',',
            (context.Gear ?? []).Select(g => string.Create(CultureInfo.InvariantCulture, $"{g.Id}:{g.UsesSinceCleaning}"))
        );
        return string.Create(
            CultureInfo.InvariantCulture,
            $"""
            {string.Join(
                ',',
                held.Select(r => $"{r.Id}.{r.At.Ticks}")
            )}|{job.Values}|{shop.PerHour}|{shop.OriginalityMinutes}|{job.ProfileId}@{job.ProfileVersion}|{priors}|{gear}
            """
        );
    }

    /// <summary>Learning recomputes chances that it leaves alone; their last bits may differ and mean nothing.</summary>
    private static string Digest(IReadOnlyList<double> chances)
    {
        var rounded = chances.Select(p => Math.Round(p, 12)).ToArray();
        return Convert.ToHexString(SHA256.HashData(MemoryMarshal.AsBytes(rounded.AsSpan())).AsSpan(0, 12));
    }

    private static JobView Compute(Job job, DeviceModel model, IReadOnlyList<BenchRecord> held, ShopSettings shop, CaseContext context)
    {
        var events = BenchRecord.Events(held);
        var proof = ProofSheet.Make(model.Profile, events);
        var access = UnitAccess.Of(model, held);
        var outcome = UnitDiagnosis.Make(model, events, context);
        if (!outcome.IsOk)
            return new JobView(job, model, held, access, null, Explain(model, outcome.Problem!), new Advice([], null), null, proof);
        var advice = new MoveAdvisor(JobCosts.Of(job, shop)).Advise(outcome.Value, access);
        var worth = outcome.Value.Target is null ? null : WorthLine.Judge(advice, job.Values, shop.PerHour);
        return new JobView(job, model, held, access, outcome.Value.Verdict, null, advice, worth, proof);
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

    private sealed record Kept(string Key, JobView View);
}

/// <summary>What counts as a cost for one job.</summary>
public static class JobCosts
{
    /// <summary>Costs of a job at the shop's rate, with what is at stake in it.</summary>
    public static BenchCosts Of(Job job, ShopSettings shop) =>
        new((double)shop.RatePerHour, shop.OriginalityMinutes, UncuredMinutes: WorthLine.UncuredMinutes(job.Values, shop.PerHour));
}
