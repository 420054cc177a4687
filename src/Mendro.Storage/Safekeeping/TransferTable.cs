using Dapper;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>A column of a table that is exported.</summary>
/// <param name="Name">Name.</param>
/// <param name="Type">Type of SQLite: TEXT, INTEGER or REAL.</param>
internal sealed record TransferColumn(string Name, string Type)
{
    /// <summary>True for text: its values are made harmless for spreadsheets.</summary>
    public bool IsText => Type == "TEXT";
}

/// <summary>A table that is exported as CSV, one file a table.</summary>
/// <param name="Name">Table.</param>
/// <param name="File">Name of its file without extension.</param>
/// <param name="Order">Columns by which rows are sorted.</param>
/// <param name="Beside">Column whose value goes into a file of its own, or null.</param>
internal sealed record TransferTable(string Name, string File, string Order, string? Beside = null)
{
    /// <summary>All tables, in an order in which every row finds what it refers to.</summary>
    public static IReadOnlyList<TransferTable> All { get; } =
    [
        new("profiles", "profiles", "id, version", "json"),
        new("customers", "customers", "id"),
        new("customer_contacts", "customer-contacts", "id"),
        new("jobs", "jobs", "id"),
        new("bench_records", "records", "id"),
        new("timeline", "timeline", "id"),
        new("gear", "gear", "id"),
        new("gear_uses", "gear-uses", "record_id, gear_id"),
        new("excluded_lessons", "excluded-lessons", "record_id"),
        new("second_looks", "second-looks", "id"),
        new("teachings", "teachings", "id"),
        new("good_readings", "good-readings", "id"),
        new("retired_models", "retired-models", "id"),
        new("model_moves", "model-moves", "id"),
        new("moved_jobs", "moved-jobs", "move_id, job_id"),
        new("moved_readings", "moved-readings", "move_id, reading_id"),
        new("timers", "timers", "id"),
        new("runs", "runs", "id"),
        new("shop_methods", "shop-methods", "id"),
        new("usual_methods", "usual-methods", "part_kind"),
        new("capacitor_parts", "capacitor-parts", "id"),
        new("capacitor_plans", "capacitor-plans", "job_id"),
        new("trace_plans", "trace-plans", "job_id"),
        new("start_runs", "start-runs", "job_id, function"),
        new("soaks", "soaks", "id"),
        new("pictures", "pictures", "id"),
        new("shelf_waits", "shelf-waits", "job_id"),
        new("sales", "sales", "job_id"),
        new("comparables", "comparables", "id"),
        new("donor_parts", "donor-parts", "id"),
        new("lots", "lots", "id"),
        new("lot_items", "lot-items", "job_id"),
        new("purchases", "purchases", "id"),
        new("rounds", "rounds", "lot_id, key"),
        new("lot_ends", "lot-ends", "lot_id, decided"),
        new("offers", "offers", "id"),
        new("offer_jobs", "offer-jobs", "job_id"),
        new("forecasts", "forecasts", "id"),
        new("stock_items", "stock-items", "id"),
        new("stock_moves", "stock-moves", "id"),
        new("part_needs", "part-needs", "id"),
        new("suppliers", "suppliers", "id"),
        new("supplier_prices", "supplier-prices", "id"),
        new("orders", "orders", "id"),
        new("order_lines", "order-lines", "id"),
        new("payments", "payments", "id"),
        new("journal", "journal", "id"),
        new("journal_lines", "journal-lines", "entry_id, account"),
        new("bills", "bills", "id"),
        new("own_entries", "own-entries", "id"),
        new("month_locks", "month-locks", "id"),
        new("tax_rules", "tax-rules", "day"),
        new("rates", "rates", "currency, day"),
        new("own_tasks", "own-tasks", "id"),
        new("fixed_hours", "fixed-hours", "id"),
        new("feed_items", "feed-items", "uid"),
        new("erasures", "erasures", "id"),
        new("contact_marks", "contact-marks", "id"),
        new("stand_in_truths", "stand-in-truths", "job_id"),
        new("merged_jobs", "merged-jobs", "customer_id, job_id"),
        new("changes", "changes", "id"),
    ];

    /// <summary>Tables to which triggers add rows as others are taken in.</summary>
    public static IReadOnlyList<string> AlsoMadeByTriggers { get; } = ["customer_contacts", "changes"];

    // What follows from other rows and is kept by triggers; in the other shop its own triggers make it.
    private static readonly string[] Derived = ["mark", "trial_uses"];

    /// <summary>Its columns as the database has them, but those that follow from other rows.</summary>
    public IReadOnlyList<TransferColumn> Columns(SqliteConnection connection) =>
        connection
            .Query<(string Name, string Type)>("SELECT name, type FROM pragma_table_info(@Name) ORDER BY cid", new { Name })
            .Where(c => !Derived.Contains(c.Name))
            .Select(c => new TransferColumn(c.Name, c.Type))
            .ToList();
}
