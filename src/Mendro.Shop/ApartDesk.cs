using Mendro.Core.Dismantling;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Takes a unit apart and puts it back, step by step.</summary>
public sealed class ApartDesk(JobBench bench, BenchRecordStore records)
{
    /// <summary>A step was done.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="stepId">Step.</param>
    /// <param name="odd">Fasteners that were not as they should be.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Take(long number, string stepId, IReadOnlyList<OddFastener> odd, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindStep(stepId) is not { } step)
                    return Refusal.Missing;
                var apart = Now(job);
                if (apart.Done.Contains(step))
                    return Refusal.Invalid($"“{step.Name ?? step.Id}” is done already.");
                var done = apart.Done.Select(s => s.Id).ToHashSet();
                var waits = (step.Needs ?? [])
                    .Where(n => !done.Contains(n))
                    .Concat((step.AnyOf ?? []).Where(g => !g.Any(done.Contains)).Select(g => string.Join(" or ", g)))
                    .ToList();
                if (waits.Count > 0)
                    return Refusal.Invalid($"First {string.Join(", then ", waits.Select(w => Name(job, w)))}: something still holds.");
                var known = odd.Where(o => step.Fasteners?.Contains(o.Id) == true).ToList();
                return new Done(bench.File(job, new StepTaken(stepId, false, known.Count > 0 ? known : null)).Words);
            },
            practice: true
        );

    /// <summary>A step was put back.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="stepId">Step.</param>
    /// <param name="pluggedIn">True when its cables are in again; asked for where it has any.</param>
    /// <param name="closeOver">True when things put on for a while stay inside; asked before the last step.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> PutBack(long number, string stepId, bool pluggedIn, bool closeOver, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var apart = Now(job);
                if (apart.Done.FirstOrDefault(s => s.Id == stepId) is not { } step)
                    return Refusal.Missing;
                if (!apart.MayGoBack(step))
                    return Refusal.Invalid($"Something above “{step.Name ?? step.Id}” is still off: put that back first.");
                if (step.Cables is { Count: > 0 } cables && !pluggedIn)
                    return Refusal.Invalid($"Plug in and tick first: {string.Join(", ", cables)}.");
                // The last step that lets one in closes the case.
                var closes = apart.Done.All(s => s == step || StepAccess.Of(job.Model.Profile, s) == AccessState.Closed);
                if (closes && apart.Temporary.Count > 0 && !closeOver)
                    return Refusal.Invalid(
                        $"Still on it: {string.Join(", ", apart.Temporary)}. Take it off, or tick that it stays inside."
                    );
                return new Done(bench.File(job, new StepTaken(stepId, true)).Words);
            },
            practice: true
        );

    /// <summary>Something is put on for a while, or taken off again.</summary>
    public Deed<Done> Temporary(long number, string what, bool off, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                var (words, on) = (what.Trim(), Now(job).Temporary);
                if (words.Length is 0 or > TemporaryThing.LongestWords)
                    return Refusal.Invalid(
                        $"Say in up to {TemporaryThing.LongestWords} characters what is put on, such as: supply leads at C3."
                    );
                if (off && !on.Contains(words))
                    return Refusal.Missing;
                if (!off && on.Contains(words))
                    return Refusal.Invalid($"“{words}” is on it already.");
                var partner = off ? Things(job).LastOrDefault(t => t.What == words && !t.Off)?.Partner : null;
                if (partner is { } number && bench.Find(number) is { } other)
                    foreach (var lent in Things(other).Where(t => t.Partner == job.Job.Number && !t.Off).Select(t => t.What).Distinct())
                        bench.File(other, new TemporaryThing(lent, true, job.Job.Number));
                return new Done(bench.File(job, new TemporaryThing(words, off, partner)).Words);
            },
            practice: true
        );

    private IEnumerable<TemporaryThing> Things(OpenJob job) => records.Of(job.Job.Id).Select(r => r.Body).OfType<TemporaryThing>();

    private UnitApart Now(OpenJob job) => UnitApart.Of(job.Model.Profile, records.Of(job.Job.Id).Select(r => r.Body));

    private static string Name(OpenJob job, string id) => $"“{job.Model.Profile.FindStep(id)?.Name ?? id}”";
}
