using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>Hidden faults of demo units, kept for the stand-in instruments so that a unit stays the same unit.</summary>
public sealed class StandInTruthStore(ShopDatabase database)
{
    /// <summary>Fault ids of a job's unit, or null when nothing was hidden yet.</summary>
    public IReadOnlyList<string>? Of(JobId jobId)
    {
        var faults = database.Read(connection =>
            connection.QueryFirstOrDefault<string>("SELECT faults FROM stand_in_truths WHERE job_id = @jobId", new { jobId })
        );
        return faults is null ? null : Stored.Json<List<string>>(faults, []);
    }

    /// <summary>Hides faults in a job's unit.</summary>
    public void Hide(JobId jobId, IReadOnlyList<string> faultIds) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO stand_in_truths (job_id, faults) VALUES (@jobId, @faults) ON CONFLICT (job_id) DO UPDATE SET faults = excluded.faults",
                    new { jobId, faults = JsonSerializer.Serialize(faultIds) },
                    transaction
                )
        );
}
