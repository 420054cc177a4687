using System.Collections.Concurrent;
using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>
/// Puts a job, its profile and its records together and has the core compute them. Results are kept while neither
/// the records nor the settings change, so that the bench list does not diagnose every unit on every visit.
/// </summary>
public sealed class BenchDesk(ModelShelf models, BenchRecordStore records, SettingsStore settings, ShopExperience experience)
{
    private readonly ConcurrentDictionary<long, (string Key, JobView View)> _views = new();

    /// <summary>The compiled model of a profile version.</summary>
    public DeviceModel Model(string profileId, long version) => models.Get(profileId, version);

    /// <summary>A job with everything computed.</summary>
    public JobView Open(Job job) => Open(job, records.Of(job.Id), settings.Get(), experience.Now());

    /// <summary>Several jobs, with one query for all their records.</summary>
    public IReadOnlyList<JobView> OpenAll(IReadOnlyList<Job> jobs)
    {
        var all = records.OfAll(jobs.Select(j => j.Id).ToList());
        var (shop, known) = (settings.Get(), experience.Now());
        return jobs.Select(job => Open(job, [.. all[job.Id]], shop, known)).ToList();
    }

    private JobView Open(Job job, IReadOnlyList<BenchRecord> held, ShopSettings shop, ShopExperience.Snapshot known)
    {
        var key = string.Create(CultureInfo.InvariantCulture,
            $"{string.Join(',', held.Select(r => r.Id))}|{job.Access}|{job.Values}|{shop}|{job.ProfileId}|{job.ProfileVersion}|{job.Revision}|{known.Stamp}");
        if (_views.TryGetValue(job.Id, out var kept) && kept.Key == key) return kept.View with { Job = job };
        var view = Compute(job, held, shop, known);
        _views[job.Id] = (key, view);
        return view;
    }

    private JobView Compute(Job job, IReadOnlyList<BenchRecord> held, ShopSettings shop, ShopExperience.Snapshot known)
    {
        var model = Model(job.ProfileId, job.ProfileVersion);
        var events = BenchRecordStore.Events(held);
        var proof = ProofSheet.Make(model.Profile, events);
        var outcome = UnitDiagnosis.Make(model, events, known.For(job, model, held));
        if (!outcome.IsOk) return new JobView(job, model, held, null, Explain(model, outcome.Problem!), new Advice([], null), null, proof);
        var advice = new MoveAdvisor(JobCosts.Of(job, shop)).Advise(outcome.Value, job.Access);
        return new JobView(job, model, held, outcome.Value, null, advice, outcome.Value.Target is null ? null : WorthLine.Judge(advice, job.Values, shop.RatePerHour), proof);
    }

    /// <summary>Puts the engine's finding ids into the words of the bench.</summary>
    private static string Explain(DeviceModel model, string problem)
    {
        foreach (var function in model.Profile.Functions.OrderByDescending(f => f.Id.Value.Length))
            problem = System.Text.RegularExpressions.Regex.Replace(problem, $@"fn:{System.Text.RegularExpressions.Regex.Escape(function.Id)}(:[\w-]+)?#\d+", $"“{function.Name}”");
        foreach (var probe in model.Profile.Probes.OrderByDescending(p => p.Id.Value.Length))
            problem = System.Text.RegularExpressions.Regex.Replace(problem, $@"probe:{System.Text.RegularExpressions.Regex.Escape(probe.Id)}(:jumps)?#\d+", $"“{probe.Name}”");
        return problem + " Withdraw or correct one of them.";
    }
}
