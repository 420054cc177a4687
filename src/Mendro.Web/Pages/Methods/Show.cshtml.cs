using System.Globalization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Methods;

/// <summary>A method as the form keeps it.</summary>
public sealed class MethodForm
{
    /// <summary>Name.</summary>
    public string? Name { get; set; }

    /// <summary>School.</summary>
    public string? School { get; set; }

    /// <summary>Trade-off.</summary>
    public string? TradeOff { get; set; }

    /// <summary>Hands-on minutes.</summary>
    public string? Minutes { get; set; }

    /// <summary>Cost of parts.</summary>
    public string? PartsCost { get; set; }

    /// <summary>Tools, one a line.</summary>
    public string? Tools { get; set; }

    /// <summary>Settings, one a line.</summary>
    public string? Settings { get; set; }

    /// <summary>Steps, one a line.</summary>
    public string? Steps { get; set; }

    /// <summary>What it cures, one a line.</summary>
    public string? Cures { get; set; }

    /// <summary>Check at its end.</summary>
    public string? Check { get; set; }

    /// <summary>The form of a method.</summary>
    public static MethodForm Of(Method method) =>
        new()
        {
            Name = method.Name,
            School = method.School,
            TradeOff = method.TradeOff,
            Minutes = method.Minutes.ToString("0.##", CultureInfo.InvariantCulture),
            PartsCost = method.PartsCost.ToString("0.##", CultureInfo.InvariantCulture),
            Tools = string.Join('\n', method.Tools),
            Settings = string.Join('\n', method.Settings),
            Steps = MethodText.Write(method.Steps),
            Cures = MethodText.Write(method.Cures),
            Check = method.Check?.Say,
        };
}

/// <summary>One method: its steps, what it cures, and the shop's own way of it with every version.</summary>
public sealed class ShowModel(MethodDesk methods, TradeLibrary library) : ShopPageModel
{
    /// <summary>Id.</summary>
    [BindProperty(SupportsGet = true)]
    public string Id { get; set; } = "";

    /// <summary>The form as typed.</summary>
    [BindProperty]
    public MethodForm Form { get; set; } = new();

    /// <summary>The method.</summary>
    public Method Method { get; private set; } = null!;

    /// <summary>Versions of the shop's own; none of one that ships.</summary>
    public IReadOnlyList<ShopMethod> Versions { get; private set; } = [];

    /// <summary>True for a method of the shop's own.</summary>
    public bool Own => Versions.Count > 0;

    /// <summary>What benches argue about.</summary>
    public IEnumerable<Regime> Regimes => library.Regimes.Where(r => r.Concerns(Method));

    /// <summary>Words of a caution.</summary>
    public Caution? FindCaution(string id) => library.FindCaution(id);

    /// <summary>Name of a kind of part.</summary>
    public string KindName(string kind) => library.FindPartKind(kind)?.Name ?? kind;

    /// <summary>Shows it; the form holds it to be changed.</summary>
    public IActionResult OnGet()
    {
        if (!Prepare())
            return NotFound();
        Form = MethodForm.Of(Own ? Versions[0].Method : TradeLibrary.Shipped.FindMethod(Id) ?? Method);
        return Page();
    }

    /// <summary>Keeps it as the shop's own, or a new version of that.</summary>
    public IActionResult OnPost()
    {
        if (!Prepare())
            return NotFound();
        if (Words.Number(Form.Minutes) is not { } minutes)
            return Refuse($"“{Form.Minutes}” is not a number of minutes.");
        if (!decimal.TryParse(Words.Clean(Form.PartsCost).Replace(',', '.'), NumberStyles.Number, CultureInfo.InvariantCulture, out var cost))
            return Refuse($"“{Form.PartsCost}” is not a cost.");
        var steps = MethodText.Read(Form.Steps, out var problem);
        if (problem is not null)
            return Refuse("Steps: " + problem);
        var cures = MethodText.ReadCures(Form.Cures, library, out problem);
        if (problem is not null)
            return Refuse("Cures: " + problem);
        var check = Words.Clean(Form.Check);
        var changed = Method with
        {
            Name = Words.Clean(Form.Name),
            School = Blank(Form.School),
            TradeOff = Blank(Form.TradeOff),
            Minutes = minutes,
            PartsCost = cost,
            Tools = Lines(Form.Tools),
            Settings = Lines(Form.Settings),
            Steps = steps,
            Cautions = steps.SelectMany(s => s.Cautions ?? []).Distinct().ToList(),
            Cures = cures,
            Check = check.Length == 0 ? null : (Method.Check ?? new MethodCheck("", "good", "not good", [ProbeKind.Look])) with { Say = check },
            Source = "our own, from " + (Versions.LastOrDefault()?.BasedOn ?? Method.Id),
        };
        return Answer(
            methods.Save(Id, changed, Once),
            done =>
            {
                TempData["Said"] = Own ? "A new version is kept." : "Kept as a way of your own.";
                return RedirectToPage(new { id = done.Words });
            }
        );
    }

    /// <summary>Takes it off the offer, or puts it on again.</summary>
    public IActionResult OnPostRetire(bool retired) =>
        Prepare() ? Answer(methods.Retire(Id, retired, Once), _ => RedirectToPage(new { id = Id })) : NotFound();

    private static string? Blank(string? text) => Words.Clean(text) is { Length: > 0 } told ? told : null;

    private static List<string> Lines(string? text) => (text ?? "").Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0).ToList();

    private bool Prepare()
    {
        if (library.FindMethod(Id) is not { } method)
            return false;
        (Method, Versions) = (method, methods.Versions(Id));
        return true;
    }
}
