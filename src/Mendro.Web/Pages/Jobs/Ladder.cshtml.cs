using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The cleaning ladder of a contact: rung by rung, with its stop rule and the wear so far.</summary>
public sealed class LadderModel(JobStore jobs, BenchDesk desk, LadderDesk bench, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>Part.</summary>
    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartId { get; set; }

    /// <summary>Condition seen.</summary>
    [BindProperty(SupportsGet = true, Name = "seen")]
    public string? Seen { get; set; }

    /// <summary>How far the shop goes: gentle, or everything.</summary>
    [BindProperty(SupportsGet = true, Name = "school")]
    public string? School { get; set; }

    /// <summary>The contact on its ladder; null until a part with one is chosen.</summary>
    public PartOnLadder? Contact { get; private set; }

    /// <summary>Parts of this model that have a ladder.</summary>
    public IReadOnlyList<Part> Contacts { get; private set; } = [];

    /// <summary>Agents that take off what the last rung left.</summary>
    public IEnumerable<MaterialAgent> Removers =>
        MaterialLibrary.Shipped.Agents.Where(a =>
            Contact!.State.Residue.All(left => a.Removes?.Contains(left.Id) == true || a.WipesDust && left.Sheds)
            && a.Surfaces.GetValueOrDefault(Contact.Ladder.Surface)?.Verdict != MaterialVerdict.Never
        );

    /// <summary>How far the unit is apart for a rung.</summary>
    public AccessState StateOf(LadderRung rung) => rung.Method is { } method ? Library.FindMethod(method)?.State ?? View.Access : View.Access;

    /// <summary>Times a rung was gone in this job.</summary>
    public int Times(LadderRung rung) => Contact!.Gone.Count(g => g.ThisJob && g.Rung == rung.Id);

    /// <summary>Shows the ladder.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>A rung was gone.</summary>
    public IActionResult OnPostGo(string? rung, string? came) =>
        Told(bench.Go(Number, PartId ?? "", rung ?? "", came is "clean" or "works", came == "works" ? true : came == "clean" ? false : null, Once));

    /// <summary>What a rung left was taken off.</summary>
    public IActionResult OnPostOff(string? agent) => Told(bench.TakeOff(Number, PartId ?? "", agent ?? "", Once));

    private IActionResult Told(Deed<Done> deed) =>
        Prepare()
            ? Answer(
                deed,
                done =>
                {
                    TempData["Said"] = done.Words + ".";
                    return RedirectToPage(
                        new
                        {
                            number = Number,
                            part = PartId,
                            seen = Seen,
                            school = School,
                        }
                    );
                }
            )
            : NotFound();

    private bool Prepare()
    {
        if (!Load())
            return false;
        Contacts = View.Profile.Parts.Where(p => Library.FindLadder(p.Kind) is not null).ToList();
        if (string.IsNullOrEmpty(PartId) && Contacts is [var only])
            PartId = only.Id;
        if (string.IsNullOrEmpty(PartId))
            return true;
        var ladder = Contacts.FirstOrDefault(p => p.Id == PartId) is { } part ? Library.FindLadder(part.Kind) : null;
        Contact = bench.Find(View.Job, View.Profile, PartId, Seen, School == "gentle" ? ladder?.GentleUpTo : null);
        return Contact is not null;
    }
}
