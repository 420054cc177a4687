using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A run of starts as its page sees it.</summary>
/// <param name="Function">Function that is watched.</param>
/// <param name="Run">The run.</param>
/// <param name="Before">Trials of it before the last repair: failed, and in all.</param>
public sealed record StartsSheet(DeviceFunction Function, StartsUnderWay Run, (int Failed, int All) Before);

/// <summary>Proves the cure of an intermittent fault by starts, judged one by one.</summary>
public sealed class StartsDesk(JobBench bench, StartRunStore store)
{
    /// <summary>The run of a function; null when the model has no such function.</summary>
    public StartsSheet? Open(JobView view, FunctionId function)
    {
        if (view.Profile.FindFunction(function) is not { } found)
            return null;
        var run = store.Find(view.Job.Id, found.Id) ?? new StartsUnderWay(store.Limits, []);
        var repaired = view.Records.Where(r => r.Body.Step == JobStep.Repaired).Select(r => r.Id).DefaultIfEmpty(0).Max();
        var (failed, all) = (0, 0);
        foreach (var record in view.Records.Where(r => r.Id < repaired))
            switch (record.Body)
            {
                case FunctionTrial trial when trial.Function == found.Id:
                    (failed, all) = (failed + (trial.Passed ? 0 : trial.Starts), all + trial.Starts);
                    break;
                case StartRunFiled filed when filed.Function == found.Id:
                    (failed, all) = (failed + filed.Failures, all + filed.Starts);
                    break;
            }
        return new StartsSheet(found, run, (failed, all));
    }

    /// <summary>Counts one start.</summary>
    public Deed<Done> Count(long number, FunctionId function, string under, bool works, string? once = null) =>
        On(
            number,
            function,
            once,
            run =>
                StartCondition.Protocol.All(c => c.Id != under) ? Refusal.Missing
                : run.Starts.Count >= StartsUnderWay.Most ? Refusal.Invalid($"A run has at most {StartsUnderWay.Most} starts: file it.")
                : run with { Starts = [.. run.Starts, new OneStart(under, works)] }
        );

    /// <summary>Takes the last start back.</summary>
    public Deed<Done> Undo(long number, FunctionId function, string? once = null) =>
        On(number, function, once, run => run with { Starts = run.Starts.SkipLast(1).ToList() });

    /// <summary>Sets what is accepted and refused, for this run and for the shop.</summary>
    public Deed<Done> Limit(long number, FunctionId function, SequentialTest limits, string? once = null) =>
        On(
            number,
            function,
            once,
            run =>
            {
                if (limits.Problem is { } wrong)
                    return Refusal.Invalid(wrong);
                store.SetLimits(limits);
                return run with { Limits = limits };
            }
        );

    /// <summary>Files the run as evidence, and ends it.</summary>
    public Deed<Done> File(long number, FunctionId function, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindFunction(function) is not { } found || store.Find(job.Job.Id, found.Id) is not { Starts.Count: > 0 } run)
                    return Refusal.Invalid("No start was counted yet.");
                var under = StartCondition
                    .Protocol.Select(c => new StartsUnder(c.Id, run.Starts.Count(s => s.Under == c.Id), run.Starts.Count(s => s.Under == c.Id && !s.Works)))
                    .Where(u => u.Starts > 0)
                    .ToList();
                var body = new StartRunFiled(found.Id, run.Starts.Count, run.Failures, run.Decision, run.Limits, under);
                var filed = bench.File(job, body, WorkStage.Prove);
                store.Save(job.Job.Id, found.Id, run with { Starts = [] });
                bench.Settle(job, body.Step);
                return new Done(filed.Words);
            }
        );

    private Deed<Done> On(long number, FunctionId function, string? once, Func<StartsUnderWay, Deed<StartsUnderWay>> change) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindFunction(function) is not { } found)
                    return Refusal.Missing;
                var run = store.Find(job.Job.Id, found.Id) ?? new StartsUnderWay(store.Limits, []);
                return change(run)
                    .Match<Deed<Done>>(
                        changed =>
                        {
                            store.Save(job.Job.Id, found.Id, changed);
                            return new Done("Kept.");
                        },
                        refusal => refusal
                    );
            }
        );
}
