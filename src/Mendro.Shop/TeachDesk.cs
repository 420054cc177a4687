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
    private static readonly Refusal NotOwn = Refusal.Invalid(
        "This unit stands on a build that ships. Give it a model of its own first, then teach that."
    );

    /// <summary>Records a step of opening while it is done: the model knows it, and on this unit it is done.</summary>
    public Deed<Done> TeachStep(long number, StepSeen seen, string? once = null) =>
        OnOwn(
            number,
            once,
            (job, latest, version) =>
            {
                var done = UnitApart.Of(latest, records.Of(job.Job.Id).Select(r => r.Body)).Done.Select(s => s.Id).ToList();
                var read = StepTeaching.Of(latest, library, seen, done);
                if (!read.IsOk)
                    return Refusal.Invalid(read.Problem);
                var taught = Keep(job, read.Value.Profile, Entry(job, latest, version, $"step {seen.Name.Trim()}", read.Value.Words));
                if (bench.Find(number) is { } moved)
                    bench.File(moved, new StepTaken(read.Value.Step, false));
                return taught;
            }
        );

    /// <summary>Confirms what a model has from its build, or puts it right by what was counted.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="connector">The connector looked at; null for the screws.</param>
    /// <param name="line">What was counted; empty when all is as drawn. See <see cref="Confirming"/>.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Confirm(long number, string? connector, string line, string? once = null) =>
        OnOwn(
            number,
            once,
            (job, latest, version) =>
            {
                var read =
                    line.Trim().Length == 0
                        ? Confirming.AsHere(latest, connector is null ? TypicalSections.Fasteners : TypicalSections.Connectors)
                    : connector is null ? Confirming.Screws(latest, line)
                    : Confirming.Contacts(latest, connector, line);
                if (!read.IsOk || read.Value.Profile is not { } made)
                    return Refusal.Invalid(read.IsOk ? "That changes nothing." : read.Problem);
                return ProfileValidator.Check(made, library) is [var problem, ..]
                    ? Refusal.Invalid($"{problem.Place}: {problem.Message}")
                    : Keep(job, made, Entry(job, latest, version, line.Trim() is { Length: > 0 } said ? said : "as drawn", read.Value.Words));
            }
        );

    /// <summary>Teaches one line.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="line">The line; see <see cref="Teaching"/>.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Teach(long number, string line, string? once = null) =>
        OnOwn(
            number,
            once,
            (job, latest, version) =>
            {
                var read = Teaching.Read(latest, library, line);
                if (!read.IsOk)
                    return Refusal.Invalid(read.Problem);
                var entry = Entry(job, latest, version, line.Trim(), read.Value.Words);
                if (read.Value.Profile is not { } taught)
                {
                    teachings.Add(entry);
                    return new Done($"Kept as a suggestion for {latest.FullName}: {read.Value.Words}");
                }

                return Keep(job, taught, entry);
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

    /// <summary>Works on the shop's own model of a job; a build that ships is taught nothing.</summary>
    private Deed<Done> OnOwn(long number, string? once, Func<OpenJob, DeviceProfile, long, Deed<Done>> work) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var (latest, version) = Latest(job);
                return ModelDesk.IsOwn(latest) ? work(job, latest, version) : NotOwn;
            }
        );

    /// <summary>The latest version of a job's model, not the job's: two who teach at once both keep theirs.</summary>
    private (DeviceProfile Profile, long Version) Latest(OpenJob job) => profiles.Latest(job.Job.ProfileId)!.Value;

    private static TeachingEntry Entry(OpenJob job, DeviceProfile latest, long version, string line, string words) =>
        new()
        {
            JobId = job.Job.Id,
            ProfileId = latest.Id,
            VersionBefore = version,
            Line = line,
            Words = words,
        };

    /// <summary>Keeps what was taught as a new version, and moves the job to it.</summary>
    private Done Keep(OpenJob job, DeviceProfile taught, TeachingEntry entry)
    {
        var made = profiles.Save(taught);
        teachings.Add(entry with { VersionAfter = made });
        jobs.MoveToVersion(job.Job.Id, made);
        return new Done($"{taught.FullName} knows now: {entry.Words}");
    }
}
