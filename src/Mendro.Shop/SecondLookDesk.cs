using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>When a cause is confirmed, scores every unit in the shop again that could share it; and takes units down for their
/// second look.</summary>
public sealed class SecondLookDesk(
    JobStore jobs,
    BenchRecordStore records,
    SecondLookStore looks,
    ShopExperience experience,
    ModelShelf models,
    SettingsStore settings,
    JobBench bench
)
{
    /// <summary>Considers a confirmed cause.</summary>
    /// <param name="recordId">Record that confirms it.</param>
    /// <returns>Numbers of the jobs that have become worth a second look.</returns>
    public IReadOnlyList<long> Consider(long recordId)
    {
        var now = experience.Now();
        if (now.Causes.FirstOrDefault(c => c.RecordId == recordId) is not { Excluded: false } cause)
            return [];
        var kind = models.Get(cause.ProfileId, cause.ProfileVersion).Profile.FindPart(cause.PartId)?.Kind;
        var candidates = jobs.Live()
            .Where(j =>
                j.Id != cause.JobId
                && models.Of(j).Profile.Parts.Any(p => p.Kind == kind && (j.ProfileId != cause.ProfileId || p.Id == cause.PartId))
            )
            .ToList();
        if (candidates.Count == 0)
            return [];
        var before = experience.Learn(now.Causes.Where(c => c.RecordId != recordId), now.Strength);
        var after = experience.Learn(now.Causes, now.Strength);
        var shop = settings.Get();
        var line = new SecondLookLine(shop.SecondLookMinutes, shop.SecondLookChance);
        var all = records.OfAll(candidates.Select(j => j.Id).ToList());
        var crossed = new List<long>();
        foreach (var job in candidates)
        {
            var model = models.Of(job);
            var events = BenchRecord.Events(all[job.Id]);
            var costs = JobCosts.Of(job, shop);
            var access = UnitAccess.Of(model, all[job.Id]);
            var gear = now.For(job, model, all[job.Id]).Gear;
            double Chance(ShopLessons lessons) =>
                SecondLook.ChanceWithin(
                    model,
                    events,
                    new CaseContext(lessons.Priors(model, job.Revision), gear),
                    access,
                    costs,
                    line.Minutes
                );
            var (was, nowIs) = (Chance(before), Chance(after));
            if (!line.Crossed(was, nowIs))
                continue;
            looks.Add(job.Id, recordId, was, nowIs, line.Minutes);
            crossed.Add(job.Number);
        }

        return crossed;
    }

    /// <summary>Takes a unit down for its second look.</summary>
    public Deed<Done> Take(long number, string? once) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                looks.Dismiss(job.Id);
                var to = job.ClosedAt is not null ? JobLife.Reopen(job.Status) : JobLife.TakeDown(job.Status);
                if (to is not null)
                    bench.Move(job, to, "a second look");
                return new Done("");
            }
        );

    /// <summary>Takes a unit off the list: it is not worth it after all.</summary>
    /// <returns>Its tag.</returns>
    public Deed<Done> Dismiss(long number, string? once) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                looks.Dismiss(job.Id);
                return new Done(job.Tag);
            }
        );

    /// <summary>Puts a unit that was dismissed last back on the list.</summary>
    public Deed<Done> BringBack(long number, string? once) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                looks.BringBack(job.Id);
                return new Done(job.Tag);
            }
        );
}
