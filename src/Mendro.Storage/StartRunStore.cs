using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;

namespace Mendro.Storage;

/// <summary>Keeps the runs of starts that are under way, and what the shop accepts.</summary>
public sealed class StartRunStore(ShopDatabase database, SettingsStore settings, TimeProvider time)
{
    private const string LimitsKey = "start-limits";

    /// <summary>The run of a function; null when none is under way.</summary>
    public StartsUnderWay? Find(JobId jobId, FunctionId function) =>
        database.Read(connection =>
            connection.ExecuteScalar<string?>(
                "SELECT json FROM start_runs WHERE job_id = @jobId AND function = @function",
                new { jobId, function = function.Value }
            )
        )
            is { } json
            ? StartsUnderWay.Read(json)
            : null;

    /// <summary>Keeps a run; one without starts is forgotten.</summary>
    public void Save(JobId jobId, FunctionId function, StartsUnderWay run) =>
        database.Write(
            (connection, transaction) =>
                run.Starts.Count == 0
                    ? connection.Execute(
                        "DELETE FROM start_runs WHERE job_id = @jobId AND function = @function",
                        new { jobId, function = function.Value },
                        transaction
                    )
                    : connection.Execute(
                        """
                        INSERT INTO start_runs (job_id, function, json, changed_at) VALUES (@jobId, @function, @json, @at)
                        ON CONFLICT (job_id, function) DO UPDATE SET json = excluded.json, changed_at = excluded.changed_at
                        """,
                        new
                        {
                            jobId,
                            function = function.Value,
                            json = run.Write(),
                            at = time.GetUtcNow(),
                        },
                        transaction
                    )
        );

    /// <summary>What the shop accepts and refuses.</summary>
    public SequentialTest Limits =>
        settings.Value(LimitsKey) is { } json && StartsUnderWay.Read(json) is { } kept ? kept.Limits : StartsUnderWay.Usual;

    /// <summary>Sets what the shop accepts and refuses.</summary>
    public void SetLimits(SequentialTest limits) => settings.SetValue(LimitsKey, new StartsUnderWay(limits, []).Write());
}
