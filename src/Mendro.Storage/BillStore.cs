using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Money;

namespace Mendro.Storage;

/// <summary>A bill that was given out.</summary>
/// <param name="Id">Row id.</param>
/// <param name="JobId">Its job.</param>
/// <param name="Reversed">True when a credit note takes it back.</param>
/// <param name="Paper">The bill.</param>
public sealed record GivenBill(long Id, JobId JobId, bool Reversed, Bill Paper)
{
    /// <summary>True for a bill that is owed as it says.</summary>
    public bool Stands => !Reversed && Paper.Reverses is null;
}

/// <summary>Keeps bills as they were given out.</summary>
public sealed class BillStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Bills of a job, the oldest first.</summary>
    public IReadOnlyList<GivenBill> Of(JobId job) => Read("WHERE b.job_id = @job ORDER BY b.id", new { job });

    /// <summary>Bills of a year, by number.</summary>
    public IReadOnlyList<GivenBill> OfYear(int year) => Read("WHERE b.year = @year ORDER BY b.number", new { year });

    /// <summary>Gives a bill out under the next number of its year.</summary>
    /// <param name="job">Its job.</param>
    /// <param name="year">Year.</param>
    /// <param name="make">Makes the bill of its number.</param>
    /// <param name="reverses">Row id of the bill that it takes back, or null.</param>
    public Bill Add(JobId job, int year, Func<string, Bill> make, long? reverses = null) =>
        database.Write(
            (connection, transaction) =>
            {
                var number = connection.ExecuteScalar<int>(
                    "SELECT coalesce(max(number), 0) + 1 FROM bills WHERE year = @year",
                    new { year },
                    transaction
                );
                var bill = make(FormattableString.Invariant($"{year}-{number:0000}"));
                connection.Execute(
                    """
                    INSERT INTO bills (year, number, job_id, at, who, paper, reverses) VALUES (@year, @number, @job, @at, @who, @paper, @reverses)
                    """,
                    new
                    {
                        year,
                        number,
                        job,
                        at = time.GetUtcNow(),
                        who = Acting.Now,
                        paper = bill.ToJson(),
                        reverses,
                    },
                    transaction
                );
                return bill;
            }
        );

    private IReadOnlyList<GivenBill> Read(string where, object with) =>
        database.Read(connection =>
            connection
                .Query<(long Id, long Job, bool Reversed, string Paper)>(
                    $"SELECT b.id, b.job_id, EXISTS (SELECT 1 FROM bills r WHERE r.reverses = b.id) AS reversed, b.paper FROM bills b {where}",
                    with
                )
                .Select(r => (r, Paper: Bill.Read(r.Paper)))
                .Where(r => r.Paper is not null)
                .Select(r => new GivenBill(r.r.Id, new JobId(r.r.Job), r.r.Reversed, r.Paper!))
                .ToList()
        );
}
