using Dapper;
using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>Keeps the drawer of capacitors, kits that came, and the plan of each capacitor job.</summary>
public sealed class CapacitorStore(ShopDatabase database, TimeProvider time)
{
    private readonly JobPlans _plans = new(database, time, "capacitor_plans");

    /// <summary>Parts that are there.</summary>
    public IReadOnlyList<CapacitorPart> Parts() =>
        database.Read(connection =>
            connection
                .Query<Row>("SELECT * FROM capacitor_parts WHERE retired_at IS NULL ORDER BY farads, volts, height_mm, id")
                .Select(r => r.ToPart())
                .ToList()
        );

    /// <summary>Adds parts.</summary>
    public void Add(IReadOnlyList<CapacitorPart> parts) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO capacitor_parts (source, farads, volts, diameter_mm, height_mm, lead_mm, mount, polar, celsius, esr_ohms,
                      count, price, name, added_at)
                    VALUES (@Source, @Farads, @Volts, @DiameterMm, @HeightMm, @LeadMm, @Mount, @Polar, @Celsius, @EsrOhms, @Count,
                      @Price, @Name, @At)
                    """,
                    parts.Select(p => new
                    {
                        Source = p.Source.ToString().ToLowerInvariant(),
                        p.Farads,
                        p.Volts,
                        p.DiameterMm,
                        p.HeightMm,
                        p.LeadMm,
                        p.Mount,
                        p.Polar,
                        p.Celsius,
                        p.EsrOhms,
                        Count = p.Count ?? 1,
                        p.Price,
                        p.Name,
                        At = time.GetUtcNow(),
                    }),
                    transaction
                )
        );

    /// <summary>Counts a part anew; of none left nothing is shown any more, until it is counted again.</summary>
    public int SetCount(long id, int count) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE capacitor_parts SET count = @count, retired_at = CASE WHEN @count = 0 THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        count,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Takes one out of the drawer; false when there was none.</summary>
    public bool Take(string partId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE capacitor_parts SET count = count - 1 WHERE id = @id AND count > 0", new { id = IdOf(partId) }, transaction)
        ) > 0;

    /// <summary>The plan of a job; the usual one when nothing was decided yet.</summary>
    public RecapPlan Plan(JobId jobId) => _plans.Find(jobId) is { } json ? RecapPlan.Read(json) : new RecapPlan();

    /// <summary>Keeps the plan of a job.</summary>
    public void Save(JobId jobId, RecapPlan plan) => _plans.Save(jobId, plan.Write());

    /// <summary>Keeps where the capacitors of one board sit.</summary>
    public void SaveFit(JobId jobId, BoardFit fit) =>
        database.InOneTransaction(() =>
        {
            var plan = Plan(jobId);
            Save(jobId, plan with { Fits = [.. plan.Fits.Where(f => f.Board != fit.Board), fit] });
            return fit;
        });

    /// <summary>How often each position of a model had failed when it came out, and out of how many that were measured.</summary>
    public IReadOnlyDictionary<string, (int Failed, int Measured)> Pattern(string profileId) =>
        database.Read(connection =>
            connection
                .Query<(string Subject, long Failed, long Measured)>(
                    """
                    SELECT r.subject, sum(json_extract(r.payload, '$.verdict') <> 'good'), count(*)
                    FROM bench_records r JOIN jobs j ON j.id = r.job_id
                    WHERE r.kind = 'capacitor-out' AND r.withdrawn_at IS NULL AND j.profile_id = @profileId AND j.deleted_at IS NULL
                      AND json_extract(r.payload, '$.verdict') IS NOT NULL
                      AND r.id = (SELECT max(l.id) FROM bench_records l WHERE l.job_id = r.job_id AND l.kind = 'capacitor-out'
                        AND l.subject = r.subject AND l.withdrawn_at IS NULL AND json_extract(l.payload, '$.verdict') IS NOT NULL)
                    GROUP BY r.subject
                    """,
                    new { profileId }
                )
                .ToDictionary(r => r.Subject, r => ((int)r.Failed, (int)r.Measured))
        );

    private static long IdOf(string partId) =>
        long.TryParse(partId.AsSpan(partId.LastIndexOf('-') + 1), System.Globalization.CultureInfo.InvariantCulture, out var id) ? id : 0;

    private sealed record Row
    {
        public long Id { get; init; }
        public string Source { get; init; } = "";
        public double Farads { get; init; }
        public double Volts { get; init; }
        public double DiameterMm { get; init; }
        public double HeightMm { get; init; }
        public double LeadMm { get; init; }
        public string Mount { get; init; } = "";
        public bool Polar { get; init; }
        public double Celsius { get; init; }
        public double? EsrOhms { get; init; }
        public int Count { get; init; }
        public decimal? Price { get; init; }
        public string? Name { get; init; }

        public CapacitorPart ToPart() =>
            new(
                FormattableString.Invariant($"{Source}-{Id}"),
                Farads,
                Volts,
                DiameterMm,
                HeightMm,
                LeadMm,
                Mount,
                Polar,
                Celsius,
                EsrOhms,
                Count,
                Price,
                Source == "kit" ? CapacitorSource.Kit : CapacitorSource.Stock,
                Name
            );
    }
}
