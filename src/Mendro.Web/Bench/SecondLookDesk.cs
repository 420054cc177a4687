using Mendro.Core.Diagnosis;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>When a cause is confirmed, scores every unit in the shop again that could share it.</summary>
public sealed class SecondLookDesk(
    JobStore jobs, BenchRecordStore records, SecondLookStore looks, ShopExperience experience, ModelShelf models, SettingsStore settings)
{
    /// <summary>Considers a confirmed cause.</summary>
    /// <param name="recordId">Record that confirms it.</param>
    /// <returns>Numbers of the jobs that have become worth a second look.</returns>
    public IReadOnlyList<long> Consider(long recordId)
    {
        var now = experience.Now();
        if (now.Causes.FirstOrDefault(c => c.RecordId == recordId) is not { Excluded: false } cause) return [];
        var kind = models.Get(cause.ProfileId, cause.ProfileVersion).Profile.FindPart(cause.PartId)?.Kind;
        var candidates = jobs.Live().Where(j => j.Id != cause.JobId
            && models.Get(j.ProfileId, j.ProfileVersion).Profile.Parts.Any(p => p.Kind == kind && (j.ProfileId != cause.ProfileId || p.Id == cause.PartId))).ToList();
        if (candidates.Count == 0) return [];
        var (before, after) = (experience.Learn(now.Causes.Where(c => c.RecordId != recordId), now.Strength), experience.Learn(now.Causes, now.Strength));
        var shop = settings.Get();
        var line = new SecondLookLine(shop.SecondLookMinutes, shop.SecondLookChance);
        var all = records.OfAll(candidates.Select(j => j.Id).ToList());
        var crossed = new List<long>();
        foreach (var job in candidates)
        {
            var model = models.Get(job.ProfileId, job.ProfileVersion);
            var events = BenchRecordStore.Events(all[job.Id]);
            var costs = JobCosts.Of(job, shop);
            var gear = now.For(job, model, all[job.Id]).Gear;
            double Chance(ShopLessons lessons) => SecondLook.ChanceWithin(model, events, new CaseContext(lessons.Priors(model, job.Revision), gear), job.Access, costs, line.Minutes);
            var (was, nowIs) = (Chance(before), Chance(after));
            if (!line.Crossed(was, nowIs)) continue;
            looks.Add(job.Id, recordId, was, nowIs, line.Minutes);
            crossed.Add(job.Number);
        }

        return crossed;
    }
}

/// <summary>What counts as a cost for one job.</summary>
public static class JobCosts
{
    /// <summary>Costs of a job at the shop's rate, with what is at stake in it.</summary>
    public static BenchCosts Of(Job job, ShopSettings shop) => new((double)shop.RatePerHour, shop.OriginalityMinutes,
        UncuredMinutes: WorthLine.UncuredMinutes(job.Values, shop.RatePerHour));
}
