using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>A chance that was given before a repair, and what came of it.</summary>
/// <param name="Number">Number of the job.</param>
/// <param name="Model">Model of the unit.</param>
/// <param name="Words">The repair in words.</param>
/// <param name="Chance">Chance that the function worked on works after it, 0 to 1.</param>
/// <param name="Worked">What its next trial said; null while it was not tried.</param>
public sealed record RepairForecast(long Number, string Model, string Words, double Chance, bool? Worked);

/// <summary>Keeps the chances that Mendro gave before repairs.</summary>
public sealed class ForecastStore(ShopDatabase database, TimeProvider time)
{
    // The next trial of the function after the repair decides it; a repair that was withdrawn counts no more.
    private const string Select = """
        SELECT j.number, j.model_name, r.words, f.chance,
          (SELECT CASE WHEN json_valid(t.payload) THEN json_extract(t.payload, '$.passed') END FROM bench_records t
           WHERE t.job_id = f.job_id AND t.kind = 'function' AND t.subject = f.function AND t.id > f.record_id AND t.withdrawn_at IS NULL
           ORDER BY t.id LIMIT 1) AS worked
        FROM forecasts f JOIN jobs j ON j.id = f.job_id JOIN bench_records r ON r.id = f.record_id
        WHERE r.withdrawn_at IS NULL AND j.deleted_at IS NULL AND j.practice_seed IS NULL
        """;

    /// <summary>Keeps one.</summary>
    public void Add(JobId jobId, long recordId, FunctionId function, double chance) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO forecasts (job_id, record_id, function, chance, at) VALUES (@jobId, @recordId, @function, @chance, @at)",
                    new
                    {
                        jobId,
                        recordId,
                        function = function.Value,
                        chance,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>The newest, oldest of them first.</summary>
    /// <param name="most">How many.</param>
    public IReadOnlyList<RepairForecast> Newest(int most) => Read($"{Select} ORDER BY f.id DESC LIMIT @most", new { most });

    /// <summary>Those of the units of a lot, the newest, oldest of them first.</summary>
    public IReadOnlyList<RepairForecast> OfLot(string lot, int most) =>
        Read($"{Select} AND j.lot = @lot ORDER BY f.id DESC LIMIT @most", new { lot, most });

    private List<RepairForecast> Read(string sql, object with) =>
        database.Read(connection =>
            connection
                .Query<(long Number, string Model, string Words, double Chance, long? Worked)>(sql, with)
                .Select(r => new RepairForecast(r.Number, r.Model, r.Words, r.Chance, r.Worked is { } worked ? worked == 1 : null))
                .Reverse()
                .ToList()
        );
}
