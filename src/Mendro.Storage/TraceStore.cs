using Mendro.Core.Boards;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>Keeps what was decided for the traces and jumpers of each job.</summary>
public sealed class TraceStore(ShopDatabase database, TimeProvider time)
{
    private readonly JobPlans _plans = new(database, time, "trace_plans");

    /// <summary>The plan of a job; the usual one when nothing was decided yet.</summary>
    public TracePlan Plan(JobId jobId) => _plans.Find(jobId) is { } json ? TracePlan.Read(json) : new TracePlan();

    /// <summary>Keeps the plan of a job.</summary>
    public void Save(JobId jobId, TracePlan plan) => _plans.Save(jobId, plan.Write());
}
