using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>How far a unit is apart: worked out from the records that hold, never kept beside them.</summary>
public static class UnitAccess
{
    /// <summary>State after the records.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="records">Records that hold, in the order of events.</param>
    public static AccessState Of(DeviceModel model, IEnumerable<BenchRecord> records) =>
        records.Aggregate(AccessState.Closed, (state, record) => record.Body.After(model, state));

    /// <summary>Steps done after the records, as far as the records tell them or ask for them.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="records">Records that hold, in the order of events.</param>
    public static Apart Steps(DeviceModel model, IEnumerable<BenchRecord> records) =>
        records.Aggregate(default(Apart), (apart, record) => record.Body.After(model, apart));
}
