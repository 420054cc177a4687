using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Access;

/// <summary>Other programs: what they may ask, and what they are told.</summary>
public sealed class ProgramsModel(ProgramDesk desk, HookStore hooks, Viewer viewer) : ShopPageModel
{
    /// <summary>Posts that are shown.</summary>
    public const int Lines = 30;

    /// <summary>Programs with tokens.</summary>
    public IReadOnlyList<KnownProgram> Programs => desk.Programs();

    /// <summary>Who is told.</summary>
    public IReadOnlyList<Hook> Hooks => desk.Hooks();

    /// <summary>What was told.</summary>
    public IReadOnlyList<HookPost> Posts => hooks.Newest(Lines);

    /// <summary>Token or secret that was just made.</summary>
    public GivenCode? Given { get; private set; }

    /// <summary>True when it is the secret of signatures.</summary>
    public bool IsSecret { get; private set; }

    /// <summary>Address of this shop.</summary>
    public string Base => $"{Request.Scheme}://{Request.Host}";

    /// <summary>Shows them.</summary>
    public void OnGet() { }

    /// <summary>Makes a token.</summary>
    public IActionResult OnPostAdd(string? name, List<string> scopes)
    {
        Remember(("name", name));
        return Answer(desk.Add(viewer.Name, name, scopes), given => Shown(given, false));
    }

    /// <summary>Ends a token.</summary>
    public IActionResult OnPostEnd(long id) => Answer(desk.End(viewer.Name, id), Said);

    /// <summary>Lets a program be told.</summary>
    public IActionResult OnPostHook(string? url, List<string> events)
    {
        Remember(("url", url));
        var clean = (url ?? "").Trim();
        return HookLink.Problem(clean) is { } wrong
            ? Refuse(wrong)
            : Answer(desk.AddHook(viewer.Name, clean, events), given => Shown(given, true));
    }

    /// <summary>Tells it no more.</summary>
    public IActionResult OnPostEndHook(long id) => Answer(desk.EndHook(viewer.Name, id), Said);

    /// <summary>Sends it again now.</summary>
    public IActionResult OnPostAgain(long id) => Answer(desk.Again(id), Said);

    /// <summary>Shown only now: it is kept nowhere, not even for the next page.</summary>
    private IActionResult Shown(GivenCode given, bool secret)
    {
        (Given, IsSecret) = (given, secret);
        return Page();
    }

    private IActionResult Said(Done done)
    {
        TempData["Said"] = done.Words;
        return Redirect("/Programs");
    }
}
