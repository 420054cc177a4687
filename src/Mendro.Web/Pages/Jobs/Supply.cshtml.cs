using Htmx;
using Mendro.Core;
using Mendro.Core.Electrical;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.WebUtilities;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Bench supply: feed the unit with a current limit, and see what the draw means.</summary>
public sealed class SupplyModel(
    JobStore jobs,
    BenchDesk desk,
    BenchSupply supply,
    IBenchHand hand,
    ReadingDesk readings,
    TradeLibrary library
) : JobPageModel(jobs, desk, library)
{
    private const double MostVolts = 30;
    private const double MostAmps = 5;

    private sealed record Feed(double Volts, double Amps);

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

    /// <summary>True when a reading of this unit shows a short.</summary>
    public bool Shorted => View.StopsOfReadings.Contains("short");

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>What the draw means.</summary>
    public Meaning? Draw =>
        State is not { On: true } on ? null
        : on.Limited ? ReadingMeaning.OfLimited(Plan, on.Volts, on.Amps)
        : ReadingMeaning.OfDraw(View.Profile, on.Amps);

    /// <summary>True when the supply is on with more than this unit takes: set so from elsewhere.</summary>
    public bool OnTooHigh => State is { On: true } now && Plan.IsTooMuch(now.SetVolts);

    /// <summary>True once the supply was asked.</summary>
    public bool Asked => State is not null || Problem is not null;

    /// <summary>Shows the page. The supply is asked by the page itself, with a post: nothing is contacted by a mere visit.</summary>
    /// <param name="volts">Volts just set, while the output is off.</param>
    /// <param name="limit">Current limit just set, while the output is off.</param>
    public IActionResult OnGet(string? volts, string? limit)
    {
        if (!Load())
            return NotFound();
        (Volts, Limit) = (volts, limit);
        return Page();
    }

    /// <summary>Asks the supply, and shows what it says.</summary>
    public async Task<IActionResult> OnPostStateAsync(string? volts, string? limit, CancellationToken cancel)
    {
        if (!Load())
            return NotFound();
        await Ask(() => supply.ReadAsync(cancel));

        // What another unit was fed with is no proposal for this one.
        (Volts, Limit) =
            State is { On: true } now && !OnTooHigh
                ? (Text(now.SetVolts), Text(now.LimitAmps))
                : (volts ?? (Plan.Volts is { } planned ? Text(planned) : ""), limit ?? Text(Plan.FirstLimitAmps));
        if (!Request.IsHtmx())
            return Page();
        // While the output is on only the numbers are asked again: what is being typed into the fields stays.
        return Partial(Request.Headers["HX-Target"] == "supply-state" ? "_SupplyState" : "_SupplyPanel", this);
    }

    /// <summary>Sets volts and limit.</summary>
    public async Task<IActionResult> OnPostSetAsync(string? volts, string? limit, CancellationToken cancel)
    {
        if (!Load())
            return NotFound();
        var wanted = Wanted(volts, limit);
        return wanted.IsOk
            ? await Done(() => supply.SetAsync(wanted.Value.Volts, wanted.Value.Amps, cancel))
            : await RefuseAsync(wanted.Problem, cancel);
    }

    /// <summary>Switches the output; on with the volts and the limit that stand in the fields, whatever the supply was set to
    /// before.</summary>
    public async Task<IActionResult> OnPostSwitchAsync(bool on, bool sure, string? volts, string? limit, CancellationToken cancel)
    {
        if (!Load())
            return NotFound();
        // Off is never refused.
        if (!on)
            return await Done(() => supply.SwitchAsync(false, cancel));
        var wanted = Wanted(volts, limit);
        if (!wanted.IsOk)
            return await RefuseAsync(wanted.Problem, cancel);
        if (Shorted && !sure)
            return await RefuseAsync(
                "A reading shows a short on the supply. Tick that you want to feed it all the same, with a low limit.",
                cancel
            );
        return await Done(() => supply.FeedAsync(wanted.Value.Volts, wanted.Value.Amps, cancel));
    }

    /// <summary>Files what is drawn.</summary>
    public async Task<IActionResult> OnPostFileAsync(CancellationToken cancel)
    {
        if (!Load())
            return NotFound();
        await Ask(() => supply.ReadAsync(cancel));
        if (LockedBecause is { } locked)
            return Refuse(locked);
        if (State is not { On: true } now || Draw is not { } draw)
            return Refuse(Problem ?? "The output is off: there is nothing to file.");
        return Answer(
            readings.Draw(Number, new SupplyDraw(now.Volts, now.Amps, now.LimitAmps, draw.Reason, draw.Stop), Once),
            done =>
            {
                TempData["Said"] = $"Filed: {done.Words}.";
                return ToJob("Find");
            }
        );
    }

    private Outcome<Feed> Wanted(string? volts, string? limit)
    {
        (Volts, Limit) = (volts, limit);
        if (QuantityText.Parse(volts, "V") is not { } v || v is < 0 or > MostVolts)
            return Outcome<Feed>.Fail($"Volts must be a number from 0 to {MostVolts}.");
        if (QuantityText.Parse(limit, "A") is not { } a || a is <= 0 or > MostAmps)
            return Outcome<Feed>.Fail($"The current limit must be a number above 0, up to {MostAmps} A.");
        if (LockedBecause is { } locked)
            return Outcome<Feed>.Fail(locked);
        return Plan.IsTooMuch(v)
            ? Outcome<Feed>.Fail(
                FormattableString.Invariant(
                    $"{v:0.##} V is far over the {Plan.Volts:0.##} V this unit was made for. Change the profile if that is wrong."
                )
            )
            : Outcome<Feed>.Ok(new Feed(v, a));
    }

    /// <summary>A refusal still shows what the supply does: it may be on.</summary>
    private async Task<IActionResult> RefuseAsync(string problem, CancellationToken cancel)
    {
        await Ask(() => supply.ReadAsync(cancel));
        return Refuse(problem);
    }

    private async Task<IActionResult> Done(Func<Task<SupplyState>> work)
    {
        await Ask(work);
        if (Problem is not null)
            return Refuse(Problem);
        return Redirect(
            QueryHelpers.AddQueryString($"/Jobs/{Number}/Supply", new Dictionary<string, string?> { ["volts"] = Volts, ["limit"] = Limit })
        );
    }

    private async Task Ask(Func<Task<SupplyState>> work)
    {
        hand.Connect(View);
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
