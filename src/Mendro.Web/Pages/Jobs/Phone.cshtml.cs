using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A one-time code with which a phone joins to look at this job and add to it.</summary>
public sealed class PhoneModel(
    JobStore jobs,
    BenchDesk desk,
    SignInDesk signIn,
    ServeOptions options,
    Viewer viewer,
    TradeLibrary library
) : JobPageModel(jobs, desk, library)
{
    /// <summary>The code, or null before one was asked for.</summary>
    public string? Code { get; private set; }

    /// <summary>Why no phone can join, or null.</summary>
    public string? Cannot =>
        viewer.Session is null ? "A phone can join once the shop has accounts, under Settings, Accounts: it joins in somebody's name."
        : !options.IsNetwork ? "Mendro is open to this machine only. Start it with --host to let phones of the shop's network in (docs/operations.md)."
        : ServeOptions.LocalNames.Contains(Request.Host.Host) ? "Open Mendro by the machine's name or address in the network, not as localhost: "
            + "the phone is to come to the same address."
        : null;

    /// <summary>Address that the phone opens.</summary>
    public string Address => $"{Request.Scheme}://{Request.Host}/Join/{Code}";

    /// <summary>True when what goes by can be read.</summary>
    public bool InTheClear => !Request.IsHttps;

    /// <summary>The address as a QR code, in SVG.</summary>
    public string Picture => QrDrawing.Draw(Address);

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Makes a code; the one before it holds no more.</summary>
    public IActionResult OnPost()
    {
        if (!Load())
            return NotFound();
        if (Cannot is { } why)
            return Refuse(why);
        Code = signIn.PhoneCode(viewer.Session!, Number).Code;
        return Page();
    }
}
