using System.Globalization;
using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>The journal: entries are written once and never changed; what was wrong is reversed.</summary>
public sealed partial class JournalStore(ShopDatabase database, TimeProvider time)
{
    private const string Select = """
        SELECT e.id, e.day, e.own_day, e.matter, e.basis, e.what, j.number, e.lot, e.rate, e.tax_percent, e.tax_code, e.reverses, e.who, l.account, l.value
        FROM journal e JOIN journal_lines l ON l.entry_id = e.id LEFT JOIN jobs j ON j.id = e.job_id
        """;

    /// <summary>What is to be brought into the books, the oldest first.</summary>
    /// <param name="most">How many.</param>
    public IReadOnlyList<(string Kind, long Id)> Due(int most) =>
        database.Read(connection =>
            connection.Query<(string, long)>("SELECT kind, id FROM books_due ORDER BY kind, id LIMIT @most", new { most }).AsList()
        );

    /// <summary>How much is to be brought in.</summary>
    public long DueCount() => database.Read(connection => connection.ExecuteScalar<long>("SELECT count(*) FROM books_due"));

    /// <summary>One thing is in the books.</summary>
    public void Settled(string kind, long id) =>
        database.Write(
            (connection, transaction) => connection.Execute("DELETE FROM books_due WHERE kind = @kind AND id = @id", new { kind, id }, transaction)
        );

    /// <summary>Something of a job is left out for want of a rate, or nothing is any more.</summary>
    public void Lacks(JobId job, bool lacking) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    lacking ? "INSERT OR IGNORE INTO books_lacking VALUES (@job)" : "DELETE FROM books_lacking WHERE job_id = @job",
                    new { job },
                    transaction
                )
        );

    /// <summary>Jobs of which something is left out for want of a rate, by number.</summary>
    public IReadOnlyList<long> Lacking() =>
        database.Read(connection =>
            connection.Query<long>("SELECT j.number FROM books_lacking b JOIN jobs j ON j.id = b.job_id ORDER BY j.number").AsList()
        );

    /// <summary>Entries that stand and whose matter begins so: neither a reversal nor reversed, the oldest first.</summary>
    public IReadOnlyList<StandingEntry> Standing(string matter, Currency currency) =>
        Read(
            $"{Select} WHERE e.matter >= @matter AND e.matter < @end AND e.reverses IS NULL "
                + "AND NOT EXISTS (SELECT 1 FROM journal r WHERE r.reverses = e.id) ORDER BY e.id",
            new { matter, end = matter + "\uffff" },
            currency
        );

    /// <summary>Entries of days from one on and before another, in the order of their days.</summary>
    public IReadOnlyList<BookEntry> Between(DateOnly from, DateOnly to, Currency currency) =>
        Entries(
            "WHERE e.day >= @from AND e.day < @to AND e.currency = @Code",
            new { from = DayText.Write(from), to = DayText.Write(to), currency.Code },
            currency
        );

    /// <summary>Entries of a job, or of a lot with its units.</summary>
    public IReadOnlyList<BookEntry> Of(long? number, string lot, Currency currency) =>
        Entries(
            number is null ? "WHERE e.lot = @lot AND e.currency = @Code" : "WHERE j.number = @number AND e.currency = @Code",
            new { number, lot, currency.Code },
            currency
        );

    /// <summary>What each account came to in each month of a time.</summary>
    /// <param name="from">First day of the first month.</param>
    /// <param name="to">First day of the month after the last.</param>
    /// <param name="currency">Currency.</param>
    public IReadOnlyList<(DateOnly Month, Account Account, decimal Value)> Months(DateOnly from, DateOnly to, Currency currency) =>
        database.Read(connection =>
            connection
                .Query<(string Month, string Account, long Value)>(
                    "SELECT month, account, value FROM journal_months WHERE month >= @from AND month < @to AND currency = @Code",
                    new { from = Text(from), to = Text(to), currency.Code }
                )
                .Select(r => (Month: DayText.Read(r.Month + "-01"), Account: AccountOf(r.Account), r.Value))
                .Where(r => r is { Month: not null, Account: not null })
                .Select(r => (r.Month!.Value, r.Account!.Value, Whole(r.Value, currency)))
                .ToList()
        );

    /// <summary>What each of some jobs gained, all days together.</summary>
    public IReadOnlyDictionary<long, decimal> GainsOf(IReadOnlyList<long> numbers, Currency currency) =>
        database.Read(connection =>
            numbers
                .Chunk(400)
                .SelectMany(some =>
                    connection.Query<(long Number, string Account, long Value)>(
                        """
                        SELECT j.number, l.account, sum(l.value) FROM journal_lines l JOIN journal e ON e.id = l.entry_id JOIN jobs j ON j.id = e.job_id
                        WHERE j.number IN @some AND e.currency = @Code GROUP BY j.number, l.account
                        """,
                        new { some, currency.Code }
                    )
                )
                .Where(r => AccountOf(r.Account) >= Account.Sales)
                .GroupBy(r => r.Number)
                .ToDictionary(g => g.Key, g => -g.Sum(r => Whole(r.Value, currency)))
        );

    /// <summary>What stands on an account, all days together.</summary>
    public decimal Balance(Account account, Currency currency) =>
        Whole(
            database.Read(connection =>
                connection.ExecuteScalar<long>(
                    "SELECT coalesce(sum(value), 0) FROM journal_months WHERE account = @account AND currency = @Code",
                    new { account = account.ToString(), currency.Code }
                )
            ),
            currency
        );

    /// <summary>What stands on an account at the end of a day.</summary>
    public decimal Balance(Account account, DateOnly day, Currency currency) =>
        Whole(
            database.Read(connection =>
                connection.ExecuteScalar<long>(
                    """
                    SELECT coalesce(sum(l.value), 0) FROM journal_lines l JOIN journal e ON e.id = l.entry_id
                    WHERE l.account = @account AND e.currency = @Code AND e.day <= @day
                    """,
                    new { account = account.ToString(), day = DayText.Write(day), currency.Code }
                )
            ),
            currency
        );

    /// <summary>What owners owe, or have paid too much, by job: the oldest first.</summary>
    /// <param name="customer">Of one owner; null for all.</param>
    /// <param name="currency">Currency.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<OpenItem> OpenItems(long? customer, Currency currency, int most = int.MaxValue) =>
        database.Read(connection =>
            connection
                .Query<(long Number, string Unit, long Customer, string Name, string Since, long Value)>(
                    $"""
                    SELECT j.number, CASE WHEN j.unit_name <> '' THEN j.unit_name ELSE j.model_name END, c.id, c.name, o.since, o.value
                    FROM journal_open o JOIN jobs j ON j.id = o.job_id JOIN customers c ON c.id = j.customer_id
                    WHERE o.value <> 0 AND o.currency = @Code AND j.closed_at IS NOT NULL{(customer is null ? "" : " AND j.customer_id = @customer")}
                    ORDER BY o.since, o.job_id LIMIT @most
                    """,
                    new { customer, currency.Code, most }
                )
                .Select(r => new OpenItem(
                    r.Number,
                    r.Unit,
                    r.Customer,
                    r.Name,
                    DayText.Read(r.Since) ?? default,
                    new Amount(Whole(r.Value, currency), currency)
                ))
                .ToList()
        );

    /// <summary>Writes an entry.</summary>
    /// <param name="matter">What it is of.</param>
    /// <param name="basis">What it was made of.</param>
    /// <param name="ownDay">Day on which it happened; the entry's day is that, or the first of an open month.</param>
    /// <param name="entry">The entry; its values add up to nothing.</param>
    /// <param name="job">Its job, or null.</param>
    /// <param name="currency">Currency of its values.</param>
    /// <returns>Its number.</returns>
    public long Write(string matter, string basis, DateOnly ownDay, BookEntry entry, JobId? job, Currency currency) =>
        database.Write(
            (connection, transaction) =>
            {
                var id = connection.ExecuteScalar<long>(
                    """
                    INSERT INTO journal (day, own_day, at, who, matter, basis, what, job_id, lot, currency, rate, tax_percent, tax_code, reverses)
                    VALUES (@day, @own, @at, @who, @matter, @basis, @What, coalesce((SELECT id FROM jobs WHERE number = @number), @job), @Lot,
                      @Code, @rate, @tax, @code, @Reverses) RETURNING id
                    """,
                    new
                    {
                        day = DayText.Write(entry.Day),
                        own = DayText.Write(ownDay),
                        at = time.GetUtcNow(),
                        who = Acting.Now,
                        matter,
                        basis,
                        entry.What,
                        job = job?.Value,
                        number = entry.Job,
                        entry.Lot,
                        currency.Code,
                        rate = entry.Rate.ToString(CultureInfo.InvariantCulture),
                        tax = entry.TaxPercent.ToString(CultureInfo.InvariantCulture),
                        code = entry.TaxCode?.ToString() ?? "",
                        entry.Reverses,
                    },
                    transaction
                );
                foreach (var account in entry.Postings.GroupBy(p => p.Account))
                    connection.Execute(
                        "INSERT INTO journal_lines (entry_id, account, value) VALUES (@id, @account, @value)",
                        new
                        {
                            id,
                            account = account.Key.ToString(),
                            value = Coins(account.Sum(p => p.Value), currency),
                        },
                        transaction
                    );
                return id;
            }
        );

    private IReadOnlyList<BookEntry> Entries(string where, object with, Currency currency) =>
        [.. Read($"{Select} {where} ORDER BY e.day, e.id", with, currency).Select(s => s.Entry)];

    private List<StandingEntry> Read(string sql, object with, Currency currency) =>
        database.Read(connection =>
            connection
                .Query<Row>(sql, with)
                .GroupBy(r => r.Id)
                .Select(g =>
                    g.First()
                        .ToEntry([
                            .. g.Where(l => AccountOf(l.Account) is not null)
                                .Select(l => new Posting(AccountOf(l.Account)!.Value, Whole(l.Value, currency))),
                        ])
                )
                .ToList()
        );

    private static Account? AccountOf(string name) => Enum.TryParse<Account>(name, out var account) && Enum.IsDefined(account) ? account : null;

    private static decimal Number(string text, decimal otherwise) =>
        decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var value) ? value : otherwise;

    private static string Text(DateOnly month) => DayText.Write(month)[..7];

    private static decimal Whole(long coins, Currency currency) => coins / Scale(currency);

    private static long Coins(decimal value, Currency currency) => (long)decimal.Round(value * Scale(currency), MidpointRounding.AwayFromZero);

    private static decimal Scale(Currency currency) => (decimal)Math.Pow(10, currency.MinorUnits);

    private sealed class Row
    {
        public long Id { get; init; }

        public string Day { get; init; } = "";

        public string OwnDay { get; init; } = "";

        public string Matter { get; init; } = "";

        public string Basis { get; init; } = "";

        public string What { get; init; } = "";

        public long? Number { get; init; }

        public string Lot { get; init; } = "";

        public string Rate { get; init; } = "1";

        public string TaxPercent { get; init; } = "0";

        public string TaxCode { get; init; } = "";

        public long? Reverses { get; init; }

        public string Who { get; init; } = "";

        public string Account { get; init; } = "";

        public long Value { get; init; }

        public StandingEntry ToEntry(IReadOnlyList<Posting> postings) =>
            new(
                Id,
                Matter,
                Basis,
                DayText.Read(OwnDay) ?? default,
                new BookEntry(DayText.Read(Day) ?? default, What, Number, Lot, postings)
                {
                    Number = Id,
                    Reverses = Reverses,
                    Rate = Number(Rate, 1),
                    TaxPercent = Number(TaxPercent, 0),
                    TaxCode = Enum.TryParse<TaxTreatment>(TaxCode, out var code) && Enum.IsDefined(code) ? code : null,
                    Document = Number is { } job
                        ? string.Create(CultureInfo.InvariantCulture, $"job {job}")
                        : string.Join(' ', Matter.TrimEnd(';').Split(':').Take(2)),
                    Who = Who,
                }
            );
    }
}
