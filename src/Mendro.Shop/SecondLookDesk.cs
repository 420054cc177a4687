using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A unit worth another look.</summary>
/// <param name="Job">Its job.</param>
/// <param name="Look">Why.</param>
/// <param name="Check">The check to make first: it would show the cause that was found in a like unit; null when the chance alone
/// calls for the look.</param>
public sealed record SecondLookLineUp(Job Job, SecondLookEntry Look, Probe? Check);

/// <summary>When a cause is confirmed, scores every unit in the shop again that could share it; and takes units down for their
/// second look.</summary>
public sealed class SecondLookDesk(
    JobStore jobs,
    BenchRecordStore records,
    SecondLookStore looks,
    LessonStore lessons,
    ShopDatabase database,
    ShopExperience experience,
    ModelShelf models,
    SettingsStore settings,
    JobBench bench
)
{
    /// <summary>Weighs the confirmed causes that wait for it, the oldest first.</summary>
    /// <returns>False when none waits.</returns>
    public bool WeighNext()
    {
        if (looks.Awaited() is not [var next, ..])
            return false;
        Consider(next);
        return true;
    }

    /// <summary>Weighs a confirmed cause for every unit in the shop, the newest first.</summary>
    /// <param name="recordId">Record that confirms it.</param>
    /// <returns>Numbers of the jobs that have become worth a second look.</returns>
    public IReadOnlyList<long> Consider(long recordId)
    {
        database.Settle();
        var cause = lessons.Find(recordId);
        var crossed = cause is { Excluded: false } ? Crossed(cause) : [];
        return database.InOneTransaction(() =>
        {
            // What was found while the cause was withdrawn counts no more.
            var holds = lessons.Find(recordId) is { Excluded: false };
            foreach (var (listed, why) in crossed.Where(_ => holds))
            {
                if (jobs.Find(listed.Number) is not { ClosedAt: null, DeletedAt: null } job)
                    continue;
                looks.Add(job.Id, recordId, why);
                // It waited for an idea, and here is one; what waits for a part or its owner goes on waiting for that.
                if (job.Shelf == Shelf.SetAside && JobLife.TakeDown(job.Status) is { } down)
                    bench.Move(job, down, FormattableString.Invariant($"a second look, for what was found in job {cause!.Number}"));
            }

            looks.Weighed(recordId);
            return holds ? crossed.Select(c => c.Job.Number).ToList() : [];
        });
    }

    private List<(Job Job, LookReason Why)> Crossed(ConfirmedCause cause)
    {
        var now = experience.Now();
        var kind = models.Get(cause.ProfileId, cause.ProfileVersion).Profile.FindPart(cause.PartId)?.Kind;
        var teacher = jobs.Find(cause.Number)!;
        var taught = experience.Taught(cause.JobId);
        var before = now.Without(teacher, taught, taught.Where(t => t.PartId != cause.PartId || t.ModeId != cause.ModeId).ToList());
        var shop = settings.Get();
        var line = new SecondLookLine(shop.SecondLookMinutes, shop.SecondLookChance);
        var crossed = new List<(Job, LookReason)>();
        var told = new Dictionary<(DeviceModel, string), (double[] Then, double[] Since, bool Same)>();
        (double[] Then, double[] Since, bool Same) Told(DeviceModel model, string revision)
        {
            if (told.TryGetValue((model, revision), out var known))
                return known;
            var (then, since) = (before.Priors(model, revision), now.Lessons.Priors(model, revision));
            // Where a hundred units taught the same before, one more lifts nothing over a line.
            var same = then.Select(ShopExperience.Rounded).SequenceEqual(since.Select(ShopExperience.Rounded));
            return told[(model, revision)] = (then, since, same);
        }

        bool Same(Job job, PartFault fault) =>
            fault.Mode.Id == cause.ModeId && (job.ProfileId == cause.ProfileId ? fault.Part.Id == cause.PartId : fault.Part.Kind == kind);

        foreach (var job in jobs.Live().Where(j => j.Id != cause.JobId))
        {
            var model = models.Of(job);
            if (!model.Profile.Parts.Any(p => p.Kind == kind && (job.ProfileId != cause.ProfileId || p.Id == cause.PartId)))
                continue;
            // In its model or its lot the same may be found by the same check; elsewhere only the chances move.
            var like = job.ProfileId == cause.ProfileId || job.Lot.Length > 0 && job.Lot == teacher.Lot;
            var (then, since, same) = Told(model, job.Revision);
            if (same && !like)
                continue;
            var held = records.Of(job.Id);
            var events = BenchRecord.Events(held);
            var gear = now.For(job, model, held).Gear;
            var access = UnitAccess.Steps(model, held);
            double Chance(double[] priors) =>
                SecondLook.ChanceWithin(model, events, new CaseContext(priors, gear), access, JobCosts.Of(job, shop), line.Minutes);
            var check = like ? SecondLook.Undone(model, events, new CaseContext(since, gear), f => Same(job, f), access)?.Check.Id : null;
            var nowIs = check is null && same ? 0 : Chance(since);
            // Below the line now, it has not crossed it, whatever it was.
            if (check is null && nowIs < line.Chance)
                continue;
            var was = same ? nowIs : Chance(then);
            if (check is not null || line.Crossed(was, nowIs))
                crossed.Add((job, new LookReason(was, nowIs, line.Minutes, check)));
        }

        return crossed;
    }

    /// <summary>Units worth another look, the best chance first; not what is ready to go.</summary>
    public IReadOnlyList<SecondLookLineUp> Open(IReadOnlyList<Job> live)
    {
        var byId = live.Where(j => j.Shelf != Shelf.Ready).ToDictionary(j => j.Id);
        return looks
            .Open()
            .Where(l => byId.ContainsKey(l.JobId))
            .Select(l => (Job: byId[l.JobId], Look: l))
            .Select(x => new SecondLookLineUp(
                x.Job,
                x.Look,
                x.Look.CheckId.Length == 0 ? null : models.Of(x.Job).Profile.FindProbe(x.Look.CheckId)
            ))
            .ToList();
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
