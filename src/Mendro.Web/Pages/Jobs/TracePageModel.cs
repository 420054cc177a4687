using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>What the pages of traces and jumpers share.</summary>
public abstract class TracePageModel(JobStore jobs, BenchDesk desk, TraceDesk traces, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>The traces; null when nobody has told of any net.</summary>
    public TraceSheet? Sheet { get; private set; }

    /// <summary>Side that is shown: top, or bottom.</summary>
    [BindProperty(SupportsGet = true, Name = "side")]
    public string? SideTold { get; set; }

    /// <summary>Board that is shown.</summary>
    [BindProperty(SupportsGet = true, Name = "board")]
    public string? BoardId { get; set; }

    /// <summary>Side that is shown.</summary>
    public string Side => SideTold == "bottom" ? "bottom" : "top";

    /// <summary>The desk.</summary>
    protected TraceDesk Traces { get; } = traces;

    /// <summary>Loads it, afresh after a write.</summary>
    protected virtual bool Prepare()
    {
        if (!Load())
            return false;
        Sheet = Traces.Open(View);
        return true;
    }
}
