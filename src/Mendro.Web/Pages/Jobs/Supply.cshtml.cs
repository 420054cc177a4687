using Htmx;
using Mendro.Core.Electrical;
using Mendro.Core.Methods;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Mendro.Web.Meter;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Bench supply: feed the unit with a current limit, and see what the draw means.</summary>
public sealed class SupplyModel(
    JobStore jobs, BenchRecordStore records, BenchDesk desk, BenchSupply supply, StandInBench standIn, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    private const double MostVolts = 30;
    private const double MostAmps = 5;

    /// <summary>How to feed this unit.</summary>
    public SupplyPlan Plan => SupplyPlan.For(View.Profile, BenchLimits.Shipped);

    /// <summary>What the supply says, or null.</summary>
    public SupplyState? State { get; private set; }

    /// <summary>Why it says nothing, or what was refused.</summary>
    public string? Problem { get; private set; }

    /// <summary>As typed.</summary>
    public string? Volts { get; private set; }

    /// <summary>As typed.</summary>
    public string? Limit { get; private set; }

    /// <summary>True when a supply is set.</summary>
    public bool HasSupply => supply.Address is not null;

    /// <summary>Why nothing may be done, or null.</summary>
    public string? LockedBecause => Locked();

    /// <summary>True when a reading of this unit shows a short.</summary>
    public bool Shorted => View.Records.Where(r => r.Kind == RecordKind.Probe).GroupBy(r => r.Subject).Any(g => g.Last().Detail == "short");

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>What the draw means.</summary>
    public Meaning? Draw => State is not { On: true } on ? null
        : on.Limited ? new Meaning(FormattableString.Invariant($"The limit of {on.LimitAmps:0.###} A holds and the volts fall to {on.Volts:0.##} V: a short or far too heavy a load."), on.Volts < 0.5 * on.SetVolts ? "short" : null)
        : ReadingMeaning.OfDraw(View.Profile, on.Amps);

    /// <summary>Shows it.</summary>
    public async Task<IActionResult> OnGetAsync(CancellationToken cancel)
    {
        if (!Load()) return NotFound();
        if (HasSupply)
        {
            standIn.Connect(View);
            await Ask(() => supply.ReadAsync(cancel));
        }

        (Volts, Limit) = State is { SetVolts: > 0 } now ? (Text(now.SetVolts), Text(now.LimitAmps)) : (Plan.Volts is { } volts ? Text(volts) : "", Text(Plan.FirstLimitAmps));
        return Request.IsHtmx() ? Partial("_SupplyState", this) : Page();
    }

    /// <summary>Sets volts and limit.</summary>
    public async Task<IActionResult> OnPostSetAsync(string? volts, string? limit, CancellationToken cancel)
    {
        if (!Load()) return NotFound();
        (Volts, Limit) = (volts, limit);
        if (QuantityText.Parse(volts, "V") is not { } v || v is < 0 or > MostVolts) return Refuse($"Volts must be a number from 0 to {MostVolts}.");
        if (QuantityText.Parse(limit, "A") is not { } a || a is <= 0 or > MostAmps) return Refuse($"The current limit must be a number above 0, up to {MostAmps} A.");
        if (LockedBecause is { } locked) return Refuse(locked);
        // A slip of the decimal point must not reach the unit.
        if (Plan.Volts is { } planned && v > 1.25 * planned) return Refuse(FormattableString.Invariant($"{v:0.##} V is far over the {planned:0.##} V this unit was made for. Change the profile if that is wrong."));
        return await Done(() => supply.SetAsync(v, a, cancel));
    }

    /// <summary>Switches the output.</summary>
    public async Task<IActionResult> OnPostSwitchAsync(bool on, bool sure, CancellationToken cancel)
    {
        if (!Load()) return NotFound();
        if (on && LockedBecause is { } locked) return Refuse(locked);
        if (on && Shorted && !sure) return Refuse("A reading shows a short on the supply. Tick that you want to feed it all the same, with a low limit.");
        return await Done(() => supply.SwitchAsync(on, cancel));
    }

    /// <summary>Files what is drawn.</summary>
    public async Task<IActionResult> OnPostFileAsync(CancellationToken cancel)
    {
        if (!Load()) return NotFound();
        await Ask(() => supply.ReadAsync(cancel));
        if (LockedBecause is { } locked) return Refuse(locked);
        if (State is not { On: true } now || Draw is not { } draw) return Refuse(Problem ?? "The output is off: there is nothing to file.");
        var words = FormattableString.Invariant($"Draw: {Reading.Format(now.Amps, "A")} at {now.Volts:0.##} V, limit {now.LimitAmps:0.###} A");
        Records.Add(new BenchRecord
        {
            JobId = View.Job.Id, Kind = RecordKind.Calculation, Subject = "draw", Words = words, Note = draw.Reason, State = draw.Stop is not null || now.Limited ? "bad" : "", Stage = View.Job.Stage, At = Time.GetUtcNow(),
        });
        TempData["Said"] = $"Filed: {words}.";
        return Redirect($"/Jobs/{Number}/Find");
    }

    private async Task<IActionResult> Done(Func<Task<SupplyState>> work)
    {
        standIn.Connect(View);
        await Ask(work);
        return Problem is null ? Redirect($"/Jobs/{Number}/Supply") : Refuse(Problem);
    }

    private async Task Ask(Func<Task<SupplyState>> work)
    {
        try
        {
            State = await work();
        }
        catch (InstrumentLinkException ex)
        {
            Problem = ex.Message;
        }
    }

    private static string Text(double value) => FormattableString.Invariant($"{value:0.###}");
}
