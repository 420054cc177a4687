using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The job sheet, to be printed: found, done, replaced, still wrong, minutes, cost.</summary>
public sealed class SheetModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, SettingsStore settings, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    /// <summary>Shop settings.</summary>
    public ShopSettings Shop { get; private set; } = ShopSettings.Default;

    /// <summary>Now, UTC.</summary>
    public DateTimeOffset Now => Time.GetUtcNow();

    /// <summary>Work at the shop rate.</summary>
    public decimal Labour => decimal.Round((decimal)View.MinutesSpent / 60 * Shop.RatePerHour, 2);

    /// <summary>Condition marks and note in one line.</summary>
    public string Condition => string.Join(", ", View.Records.Where(r => r.Kind == RecordKind.Mark).Select(r => Library.FindMark(r.Subject)?.Name ?? r.Subject)
        .Append(View.Job.ConditionNote).Where(t => t.Length > 0));

    /// <summary>Causes confirmed, and readings that were off.</summary>
    public IEnumerable<string> Found => View.Records
        .Where(r => r is { Kind: RecordKind.Cause, State: "present" } or { Kind: RecordKind.Probe, State: not "normal" })
        .Select(r => r.Kind == RecordKind.Cause ? r.Words.Replace("Cause seen: ", "", StringComparison.Ordinal) : r.Words);

    /// <summary>Repairs done.</summary>
    public IEnumerable<BenchRecord> Done => View.Records.Where(r => r.Kind == RecordKind.Repair);

    /// <summary>True when the record is a modification, to be disclosed.</summary>
    public bool IsModification(BenchRecord record) => Library.FindMethod(record.Detail)?.Type == MethodType.Modification;

    /// <summary>Shows the sheet.</summary>
    public IActionResult OnGet()
    {
        Shop = settings.Get();
        return Load() ? Page() : NotFound();
    }
}
