using Mendro.Core.Diagnosis;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Web.Bench;

/// <summary>A job with everything computed from it.</summary>
/// <param name="Job">The job.</param>
/// <param name="Model">Its model.</param>
/// <param name="Records">Bench records that hold, in order.</param>
/// <param name="Diagnosis">Diagnosis, or null when the evidence contradicts itself.</param>
/// <param name="Problem">Why there is no diagnosis.</param>
/// <param name="Advice">Next moves.</param>
/// <param name="Worth">Worth line, or null when nothing fails.</param>
/// <param name="Proof">Proof sheet.</param>
public sealed record JobView(
    Job Job, DeviceModel Model, IReadOnlyList<BenchRecord> Records, UnitDiagnosis? Diagnosis, string? Problem, Advice Advice, WorthLine? Worth, ProofSheet Proof)
{
    /// <summary>Profile of the unit.</summary>
    public DeviceProfile Profile => Model.Profile;

    /// <summary>Minutes logged so far.</summary>
    public double MinutesSpent => Records.Sum(r => r.Minutes);

    /// <summary>Parts cost logged so far, in the job's currency.</summary>
    public decimal PartsCost => Records.Sum(r => r.Cost ?? 0);
}
