using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>What was put on a unit so far, over all its jobs, and what is still on it.</summary>
public sealed class MaterialsModel(JobStore jobs, BenchDesk desk, RunDesk runs, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>Agents and surfaces.</summary>
    public MaterialLibrary Materials { get; } = MaterialLibrary.Shipped;

    /// <summary>What was done, in order.</summary>
    public IReadOnlyList<MaterialMoment> Moments { get; private set; } = [];

    /// <summary>Why heat must wait, or null.</summary>
    public string? BeforeHeat { get; private set; }

    /// <summary>Why power must wait, or null.</summary>
    public string? BeforePower { get; private set; }

    /// <summary>Agent as chosen.</summary>
    public string? Agent { get; private set; }

    /// <summary>Surface as chosen.</summary>
    public string? Surface { get; private set; }

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Something was put on, or it was rinsed or dried.</summary>
    public IActionResult OnPost(string? act, string? agent, string? surface, string? minutes)
    {
        (Agent, Surface) = (agent, surface);
        var step = act switch
        {
            "rinse" => new SequenceStep(Rinse: true),
            "dry" => new SequenceStep(Dry: Words.Number(minutes) ?? 0),
            _ => Materials.FindAgent(agent) is not null && Materials.FindSurface(surface) is not null
                ? new SequenceStep(agent, surface)
                : new SequenceStep(),
        };
        return Prepare()
            ? Answer(
                runs.Log(Number, step, Once),
                done =>
                {
                    TempData["Said"] = done.Words + ".";
                    return RedirectToPage(new { number = Number });
                }
            )
            : NotFound();
    }

    private bool Prepare()
    {
        if (!Load())
            return false;
        Moments = runs.OnUnit(View.Job);
        (BeforeHeat, BeforePower) = (Why(new SequenceStep(Heat: 350)), Why(new SequenceStep(Power: true)));
        return true;
    }

    private string? Why(SequenceStep next) => runs.Before(View.Job, [next]).Stops.Select(s => s.Reason).FirstOrDefault();
}
