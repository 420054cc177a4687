using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The job sheet, to be printed: found, done, replaced, still wrong, minutes, cost.</summary>
public sealed class SheetModel(
    JobStore jobs,
    BenchDesk desk,
    RunDesk runs,
    SettingsStore settings,
    TradeLibrary library,
    TimeProvider time
)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Shop settings.</summary>
    public ShopSettings Shop { get; private set; } = ShopSettings.Default;

    /// <summary>Now, UTC.</summary>
    public DateTimeOffset Now => time.GetUtcNow();

    /// <summary>What the job has cost.</summary>
    public JobCost Cost => JobCost.Of(View, Shop.PerHour);

    /// <summary>Condition marks and note in one line.</summary>
    public string Condition =>
        string.Join(", ", View.All<MarkNoted>().Select(m => m.Body.Words(Library)).Append(View.Job.ConditionNote).Where(t => t.Length > 0));

    /// <summary>Causes confirmed, and readings that were off.</summary>
    public IEnumerable<string> Found =>
        View
            .Records.Select(r =>
                r.Body switch
                {
                    CauseSeen { Present: true } cause => cause.Fault(View.Model),
                    ProbeReading { Sign: RecordSign.Bad } => r.Words,
                    _ => null,
                }
            )
            .OfType<string>();

    /// <summary>Repairs done.</summary>
    public IEnumerable<BenchRecord> Done => View.Records.Where(r => r.Body.Step == JobStep.Repaired);

    /// <summary>Modifications of the unit, over all its jobs.</summary>
    public IReadOnlyList<Modification> Modifications => runs.Modifications(View.Job);

    /// <summary>Shows the sheet.</summary>
    public IActionResult OnGet()
    {
        Shop = settings.Get();
        return Load() ? Page() : NotFound();
    }
}
