using System.Globalization;
using Mendro.Core.Methods;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Materials;

/// <summary>What may touch what, and what must not be put on after what: a sequence checked step by step. It lives in the address, so
/// that it can be gone back, kept and passed on.</summary>
public sealed class IndexModel : PageModel
{
    private const int MostSteps = 40;

    /// <summary>The steps so far, a word each: <c>vinegar@battery-contacts</c>, <c>rinse</c>, <c>dry:30</c>, <c>heat:350</c>,
    /// <c>power</c>.</summary>
    [BindProperty(SupportsGet = true, Name = "s")]
    public List<string> Steps { get; set; } = [];

    /// <summary>The agents and surfaces.</summary>
    public MaterialLibrary Library { get; } = MaterialLibrary.Shipped;

    /// <summary>The steps read.</summary>
    public IReadOnlyList<SequenceStep> Sequence { get; private set; } = [];

    /// <summary>What is to be said of them.</summary>
    public SequenceReport Report { get; private set; } = new([], []);

    /// <summary>Why the last one was not taken, or null.</summary>
    public string? Problem { get; private set; }

    /// <summary>Agent chosen last.</summary>
    public string? Agent { get; private set; }

    /// <summary>Surface chosen last.</summary>
    public string? Surface { get; private set; }

    /// <summary>Shows the sequence with one step more, when one is told.</summary>
    /// <param name="agent">Agent put on.</param>
    /// <param name="surface">Surface it is put on.</param>
    /// <param name="act">rinse, dry, heat or power; blank to put the agent on.</param>
    /// <param name="figure">Minutes of drying, or °C.</param>
    public void OnGet(string? agent, string? surface, string? act, string? figure)
    {
        (Agent, Surface) = (agent, surface);
        var read = Steps.Take(MostSteps).Select(s => (Word: s, Step: Read(s))).Where(s => s.Step is not null).ToList();
        if (act is not null && Added(act, agent, surface, figure) is { } word)
        {
            if (read.Count >= MostSteps)
                Problem = $"At most {MostSteps} steps at once.";
            else if (Read(word) is { } step)
                read.Add((word, step));
            else
                Problem = act is "dry" or "heat" ? "How many minutes, or °C?" : "Choose an agent and a surface.";
        }

        Steps = read.Select(s => s.Word).ToList();
        Sequence = read.Select(s => s.Step!).ToList();
        Report = MaterialCheck.Of(Sequence, Library);
    }

    /// <summary>Address of the sequence without its last steps.</summary>
    public string Without(int last) => "/Materials?" + string.Join('&', Steps.SkipLast(last).Select(s => "s=" + Uri.EscapeDataString(s)));

    private static string? Added(string act, string? agent, string? surface, string? figure) =>
        act switch
        {
            "put" => $"{agent}@{surface}",
            "dry" or "heat" => $"{act}:{Words.Clean(figure).Replace(',', '.')}",
            "rinse" or "power" => act,
            _ => null,
        };

    private SequenceStep? Read(string word)
    {
        if (word is "rinse" or "power")
            return word == "rinse" ? new SequenceStep(Rinse: true) : new SequenceStep(Power: true);
        if (word.Split('@') is [var agent, var surface])
            return Library.FindAgent(agent) is not null && Library.FindSurface(surface) is not null
                ? new SequenceStep(agent, surface)
                : null;
        if (word.Split(':') is not [var what, var text] || Words.Number(text) is not { } figure || figure > 1500)
            return null;
        return what switch
        {
            "dry" => new SequenceStep(Dry: figure),
            "heat" => new SequenceStep(Heat: figure),
            _ => null,
        };
    }
}
