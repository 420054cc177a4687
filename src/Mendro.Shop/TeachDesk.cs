using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Teaches a model while working on one of its units: the job moves to the new version with all its records.</summary>
public sealed class TeachDesk(
    JobStore jobs,
    ProfileStore profiles,
    TeachingStore teachings,
    BenchRecordStore records,
    JobBench bench,
    TradeLibrary library
)
{
    /// <summary>Records a step of opening while it is done: the model knows it, and on this unit it is done.</summary>
    public Deed<Done> TeachStep(long number, StepSeen seen, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var (latest, version) = profiles.Latest(job.Job.ProfileId)!.Value;
                if (!ModelDesk.IsOwn(latest))
                    return Refusal.Invalid("This unit stands on a build that ships. Give it a model of its own first, then teach that.");
                var done = UnitApart.Of(latest, records.Of(job.Job.Id).Select(r => r.Body)).Done.Select(s => s.Id).ToList();
                var read = StepTeaching.Of(latest, library, seen, done);
                if (!read.IsOk)
                    return Refusal.Invalid(read.Problem);
                var made = profiles.Save(read.Value.Profile);
                teachings.Add(
                    new TeachingEntry
                    {
                        JobId = job.Job.Id,
                        ProfileId = latest.Id,
                        VersionBefore = version,
                        VersionAfter = made,
                        Line = $"step {seen.Name.Trim()}",
                        Words = read.Value.Words,
                    }
                );
                jobs.MoveToVersion(job.Job.Id, made);
                if (bench.Find(number) is { } moved)
                    bench.File(moved, new StepTaken(read.Value.Step, false));
                return new Done($"{latest.FullName} knows now: {read.Value.Words}");
            }
        );

    /// <summary>Teaches one line.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="line">The line; see <see cref="Teaching"/>.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Teach(long number, string line, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                // Taught on the latest version, not on the job's: two who teach at once both keep theirs.
                var (latest, version) = profiles.Latest(job.Job.ProfileId)!.Value;
                if (!ModelDesk.IsOwn(latest))
                    return Refusal.Invalid("This unit stands on a build that ships. Give it a model of its own first, then teach that.");
                var read = Teaching.Read(latest, library, line);
                if (!read.IsOk)
                    return Refusal.Invalid(read.Problem);
                var entry = new TeachingEntry
                {
                    JobId = job.Job.Id,
                    ProfileId = latest.Id,
                    VersionBefore = version,
                    Line = line.Trim(),
                    Words = read.Value.Words,
                };
                if (read.Value.Profile is not { } taught)
                {
                    teachings.Add(entry);
                    return new Done($"Kept as a suggestion for {latest.FullName}: {read.Value.Words}");
                }

                var made = profiles.Save(taught);
                teachings.Add(entry with { VersionAfter = made });
                jobs.MoveToVersion(job.Job.Id, made);
                return new Done($"{latest.FullName} knows now: {read.Value.Words}");
            }
        );

    /// <summary>Takes back what was taught last in a job; what others taught since stays.</summary>
    public Deed<Done> TakeBack(long number, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (teachings.OfJob(job.Job.Id) is not [var last, ..])
                    return Refusal.Invalid("Nothing was taught in this job that could be taken back.");
                if (last.VersionAfter is { } after)
                {
                    // On the model of the job as it is now: it may have been merged or given a name since.
                    var (latest, _) = profiles.Latest(job.Job.ProfileId)!.Value;
                    var merged = ProfileMerge.ThreeWay(
                        profiles.Find(last.ProfileId, after)!,
                        latest,
                        profiles.Find(last.ProfileId, last.VersionBefore)!
                    );
                    if (merged.Contested.Count > 0 || ProfileValidator.Check(merged.Profile, library).Count > 0)
                        return Refusal.Invalid(
                            $"“{last.Words}” cannot be taken back alone: something was taught on top of it. Change it under Models."
                        );
                    jobs.MoveToVersion(job.Job.Id, profiles.Save(merged.Profile));
                }

                teachings.Withdraw(last);
                return new Done($"Taken back: {last.Words}");
            }
        );
}
