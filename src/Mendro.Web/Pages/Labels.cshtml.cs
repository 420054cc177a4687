using System.Globalization;
using Mendro.Core.Jobs;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Labels with tag and QR code, on sheets of paper or on a roll.</summary>
public sealed class LabelsModel(JobStore jobs) : PageModel
{
    /// <summary>Most labels at once.</summary>
    public const int Most = 200;

    /// <summary>How many of the newest are shown when nothing is said.</summary>
    public const int Newest = 48;

    /// <summary>Numbers, with commas; ranges as 133-140. The newest units in the shop when nothing is said.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Jobs { get; set; }

    /// <summary><c>a4</c> or <c>roll</c>.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Paper { get; set; }

    /// <summary>Labels of the sheet that are used up already, 0 or more.</summary>
    [BindProperty(SupportsGet = true)]
    public int Skip { get; set; }

    /// <summary>True for a roll.</summary>
    public bool Roll => Paper == "roll";

    /// <summary>Units to label.</summary>
    public IReadOnlyList<Job> Units { get; private set; } = [];

    /// <summary>Numbers that are no job's.</summary>
    public IReadOnlyList<string> Unknown { get; private set; } = [];

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        Skip = Math.Clamp(Skip, 0, 23);
        if (string.IsNullOrWhiteSpace(Jobs))
        {
            // Two sheets; more are asked for by their numbers.
            Units = jobs.Live().OrderByDescending(j => j.Number).Take(Newest).OrderBy(j => j.Number).ToList();
            return;
        }

        var (found, unknown) = (new List<Job>(), new List<string>());
        foreach (var word in Jobs.Split([',', ' ', ';'], StringSplitOptions.RemoveEmptyEntries).Take(Most))
        {
            var ends = word.Split('-', 2);
            if (
                !long.TryParse(ends[0], NumberStyles.None, CultureInfo.InvariantCulture, out var from)
                || !long.TryParse(ends[^1], NumberStyles.None, CultureInfo.InvariantCulture, out var to)
            )
            {
                unknown.Add(word);
                continue;
            }

            for (var number = from; number <= to && number - from < Most && found.Count < Most; number++)
                if (jobs.Find(number) is { DeletedAt: null } job)
                    found.Add(job);
                else if (from == to)
                    unknown.Add(word);
        }

        (Units, Unknown) = (found, unknown);
    }
}
