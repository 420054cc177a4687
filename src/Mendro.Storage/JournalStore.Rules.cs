using System.Globalization;
using Dapper;
using Mendro.Core.Money;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>Months that are closed, tax with its days, and what moved besides the jobs.</summary>
public sealed partial class JournalStore
{
    /// <summary>What the shop paid or took in besides its jobs, the newest first.</summary>
    public IReadOnlyList<OwnEntry> OwnEntries(int most) =>
        database.Read(connection =>
            connection.Query<OwnEntry>("SELECT * FROM own_entries WHERE deleted_at IS NULL ORDER BY day DESC, id DESC LIMIT @most", new { most }).AsList()
        );

    /// <summary>One of them, taken away or not; null for none.</summary>
    public OwnEntry? FindOwn(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<OwnEntry>("SELECT * FROM own_entries WHERE id = @id", new { id }));

    /// <summary>Adds one.</summary>
    public void AddOwn(OwnEntry entry) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO own_entries (day, kind, amount, words, way, tax_percent) VALUES (@Day, @Kind, @Amount, @Words, @Way, @TaxPercent)",
                    entry,
                    transaction
                )
        );

    /// <summary>Takes one away, or brings it back.</summary>
    public void SetOwnDeleted(long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE own_entries SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Whether a month is closed.</summary>
    public bool IsLocked(DateOnly month) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<bool>(
                "SELECT locked FROM month_locks WHERE month = @month ORDER BY id DESC LIMIT 1",
                new { month = Text(month) }
            )
        );

    /// <summary>Closes a month or opens it again.</summary>
    public void Lock(DateOnly month, bool locked) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO month_locks (month, locked, at, who) VALUES (@month, @locked, @at, @who)",
                    new
                    {
                        month = Text(month),
                        locked,
                        at = time.GetUtcNow(),
                        who = Acting.Now,
                    },
                    transaction
                )
        );

    /// <summary>When a month was closed and opened, the newest first.</summary>
    public IReadOnlyList<MonthLock> Locks(DateOnly month) =>
        database.Read(connection =>
            connection
                .Query<(bool Locked, DateTimeOffset At, string Who)>(
                    "SELECT locked, at, who FROM month_locks WHERE month = @month ORDER BY id DESC",
                    new { month = Text(month) }
                )
                .Select(l => new MonthLock(month, l.Locked, l.At, l.Who))
                .ToList()
        );

    /// <summary>The tax that applies on a day.</summary>
    public TaxRule Tax(DateOnly day) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<(string Percent, bool Inclusive, string Reduced, string Treatment, bool Input, bool Ahead)?>(
                "SELECT percent, inclusive, reduced, treatment, input, ahead FROM tax_rules WHERE day <= @day ORDER BY day DESC LIMIT 1",
                new { day = DayText.Write(day) }
            )
        )
            is { } rule
            ? new TaxRule(Math.Clamp(Number(rule.Percent, 0), 0, 100), rule.Inclusive)
            {
                Reduced = Math.Clamp(Number(rule.Reduced, 0), 0, 100),
                Treatment = Enum.TryParse<TaxTreatment>(rule.Treatment, out var told) && Enum.IsDefined(told) ? told : TaxTreatment.Standard,
                InputTax = rule.Input,
                OnAhead = rule.Ahead,
            }
            : TaxRule.None;

    /// <summary>Keeps the tax that applies from a day on.</summary>
    public void SetTax(DateOnly from, TaxRule rule) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO tax_rules (day, percent, inclusive, reduced, treatment, input, ahead)
                    VALUES (@day, @percent, @Inclusive, @reduced, @treatment, @InputTax, @OnAhead)
                    ON CONFLICT (day) DO UPDATE SET percent = excluded.percent, inclusive = excluded.inclusive, reduced = excluded.reduced,
                      treatment = excluded.treatment, input = excluded.input, ahead = excluded.ahead
                    """,
                    new
                    {
                        day = DayText.Write(from),
                        percent = rule.Percent.ToString(CultureInfo.InvariantCulture),
                        rule.Inclusive,
                        reduced = rule.Reduced.ToString(CultureInfo.InvariantCulture),
                        treatment = rule.Treatment.ToString(),
                        rule.InputTax,
                        rule.OnAhead,
                    },
                    transaction
                )
        );
}
