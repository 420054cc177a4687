using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>A round over a lot, or with 0 over the whole bench: one unit after the other, by single keys.</summary>
public sealed class RoundModel(LotDesk desk, RoundDesk rounds) : ShopPageModel
{
    /// <summary>Lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>Round.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Key { get; set; }

    /// <summary>Number of the unit that came last.</summary>
    [BindProperty(SupportsGet = true)]
    public long After { get; set; }

    /// <summary>What the round is over.</summary>
    public RoundScope Scope { get; private set; } = null!;

    /// <summary>Where it was begun.</summary>
    public string Back => Id == 0 ? "/Rounds" : $"/Lots/{Id}";

    /// <summary>What it is over, in words.</summary>
    public string Over => Id == 0 ? "the whole bench" : $"lot {Scope.Name}";

    /// <summary>The unit that is next; null when the round is through.</summary>
    public RoundStep? Step { get; private set; }

    /// <summary>True when a meter answers.</summary>
    public bool Metered => Step?.Item.Move.Probe is { } probe && !TradeLibrary.Of(probe.Kind).ByEye;

    /// <summary>What may be typed.</summary>
    public string Example => Step?.Item.Move.Probe is { } probe ? TradeLibrary.Of(probe.Kind).Example : "";

    /// <summary>Word of the good answer.</summary>
    public string GoodWord =>
        Step?.Item.Move switch
        {
            { Repair: not null } => "Done, works now",
            { Probe: { } probe } => MoveWords.GoodAnswer(probe),
            _ => "Works",
        };

    /// <summary>Word of the bad one.</summary>
    public string BadWord =>
        Step?.Item.Move switch
        {
            { Repair: not null } => "Done, still fails",
            { Probe: { } probe } => MoveWords.BadAnswer(probe),
            _ => "Fails",
        };

    /// <summary>What the failure may look like now.</summary>
    public IReadOnlyList<Look> Looks => Step is null ? [] : RoundDesk.Looks(Step);

    /// <summary>Causes that may be seen before a repair.</summary>
    public IReadOnlyList<(string Mode, string Words)> Causes => Step is null ? [] : RoundDesk.Causes(Step);

    /// <summary>Cautions at this step.</summary>
    public IEnumerable<Caution> Cautions => Step is { } step ? step.View.CautionsOf(step.Item.Move) : [];

    /// <summary>Shows the next unit.</summary>
    public IActionResult OnGet() => Load(After) ? Page() : NotFound();

    /// <summary>Files what came of it, and goes on.</summary>
    public IActionResult OnPost(long number, RoundAnswer? answer, string? reading, string? cause, string? look)
    {
        if (!Load(number - 1))
            return NotFound();
        var seen = string.IsNullOrEmpty(look) ? null : look;
        // A look is that of a failure.
        answer ??= seen is null ? null : RoundAnswer.Bad;
        var before = desk.ChanceOf(number);
        return Answer(
            rounds.Answer(Scope, Key ?? "", number, answer, Words.Clean(reading), string.IsNullOrEmpty(cause) ? null : cause, Once, seen),
            done =>
            {
                TempData["Said"] = $"{number}: {done.Words}{Changed(before, desk.ChanceOf(number))}";
                return RedirectToPage(
                    new
                    {
                        id = Id,
                        key = Key,
                        after = number,
                    }
                );
            }
        );
    }

    // What an answer did to the chance, in whole per cent.
    private static string Changed(double? before, double? after) =>
        before is { } was && after is { } now && Words.Percent(was) != Words.Percent(now)
            ? $"; chance {Words.Percent(was)} → {Words.Percent(now)}"
            : "";

    private bool Load(long after)
    {
        if ((Id == 0 ? rounds.Whole() : desk.Open(Id)?.Scope) is not { } scope)
            return false;
        Scope = scope;
        Step = rounds.Next(scope, Key ?? "", after);
        return true;
    }
}
