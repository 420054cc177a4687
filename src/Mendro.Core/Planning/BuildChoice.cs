using System.Globalization;
using System.Text;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>What is known of the build of a name nobody knows: answers to the three short questions, and words.</summary>
/// <param name="Fed">How it is fed, or null when not answered.</param>
/// <param name="Takes">What goes in, or null.</param>
/// <param name="Gives">What comes out, or null.</param>
/// <param name="Words">Any words said of it, such as <c>four cells, folding</c>.</param>
/// <param name="Claim">What is wrong with it, as typed: a build that cannot show that is not likely it.</param>
public sealed record BuildQuestion(
    FedBy? Fed = null,
    Takes? Takes = null,
    Gives? Gives = null,
    string? Words = null,
    string? Claim = null
);

/// <summary>From a name on the bench to a profile: which build is it nearest to, and the shop's own model made from that.</summary>
public static class BuildChoice
{
    private const int LongestName = 80;
    private const int LongestId = 50;

    // A word that a build cannot have said of it speaks more against it than one of its name speaks for it: over 453 lines of other models
    // the right build stood among the first six in 99 by names alone, in 232 with this; 1 to 3 do alike.
    private const double WordNotHeard = 2;
    private const double CalledSo = 0.05;

    private static readonly HashSet<string> Small =
    [
        "inside",
        "with",
        "and",
        "the",
        "one",
        "of",
        "on",
        "in",
        "it",
        "its",
        "no",
        "not",
        "an",
    ];

    private static readonly (string Word, string Told)[] Synonyms =
    [
        ("controller", "pad"),
        ("gamepad", "pad"),
        ("joypad", "pad"),
        ("joystick", "sticks"),
        ("stick", "sticks"),
        ("game", "cartridge"),
        ("cart", "cartridge"),
        ("rechargeable", "lithium"),
        ("cd", "disc"),
        ("optical", "disc"),
        ("color", "colour"),
        ("backlit", "lit"),
        ("backlight", "lit"),
        ("lighted", "lit"),
        ("clamshell", "folding"),
        ("foldable", "folding"),
        ("flip", "folding"),
        ("charger", "adapter"),
        ("psu", "adapter"),
        ("cord", "cable"),
        ("lead", "cable"),
        ("rtc", "clock"),
        ("hdd", "hard"),
        ("portable", "handheld"),
        ("pocket", "handheld"),
        ("2", "two"),
        ("4", "four"),
        ("6", "six"),
        ("aa", "cells"),
        ("batteries", "cells"),
        ("battery", "cells"),
    ];

    /// <summary>Builds that fit, the nearest first: those that every answer allows, and when none does those that contradict fewest.
    /// Among equals those that can have what is claimed of them, and whose name and note share more words with what was said.</summary>
    public static IReadOnlyList<DeviceProfile> Nearest(TradeLibrary library, BuildQuestion asked)
    {
        var (said, cells) = (Told(asked.Words), Cells($"{asked.Words} {asked.Claim}".ToLowerInvariant()));
        var ranked = library
            .Archetypes.Where(b => b.Archetype is not null)
            .Select(b => (Build: b, Against: Against(b.Archetype!, asked), For: Shared(b, said) + Fits(b, asked.Claim, library) - OtherCells(b, cells)))
            .OrderBy(x => x.Against)
            .ThenByDescending(x => x.For)
            // A name on it and a complaint are more often a unit's than a cable's.
            .ThenBy(x => x.Build.Kind == DeviceKind.Accessory)
            // Of two that fit alike the plainer one, whose name says less.
            .ThenBy(x => x.Build.Name.Length)
            .ToList();
        return ranked.Count == 0 ? [] : [.. ranked.Where(x => x.Against == ranked[0].Against).Select(x => x.Build)];
    }

    /// <summary>True for words that tell which build it is, such as “4 AA” of a four-cell handheld: they say nothing of its faults.</summary>
    public static bool TellsOf(DeviceProfile build, string words)
    {
        // “Loaded” is what is left of “loader”: of the name it is the stem that counts.
        var name = Told(build.Name).Select(Stem.Of).ToHashSet();
        var said = words.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return said.Length > 0 && said.All(w => Told(w).Any(t => name.Contains(Stem.Of(t))));
    }

    /// <summary>A line about a new model without the clauses that only tell its build: “grey screen” of a handheld that has one is no
    /// fault, typed along with its cells.</summary>
    public static string WithoutBuild(DeviceProfile build, string line) =>
        string.Join(',', line.Split(',').Where((clause, n) => n == 0 || !TellsOf(build, clause)));

    /// <summary>The shop's own model: a copy of a build under a name, with what was said of cells, volts and screws.</summary>
    /// <param name="build">Build it is nearest to.</param>
    /// <param name="name">Name as on the label, at most 80 characters are kept.</param>
    /// <param name="taken">Ids that are in use.</param>
    /// <param name="words">What was said of it besides, such as <c>three cells</c> or <c>7.5 V</c>.</param>
    public static DeviceProfile Named(DeviceProfile build, string name, IReadOnlySet<string> taken, string? words = null)
    {
        var clean = string.Join(' ', name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (clean.Length > LongestName)
            clean = clean[..LongestName].TrimEnd();
        return SaidScrews.Into(WithTold(build, words), words) with
        {
            Id = NewId(clean, taken),
            Name = clean,
            Maker = "",
            Archetype = null,
            Build = build.BuildId,
        };
    }

    private static int Against(BuildFacts facts, BuildQuestion asked) =>
        (asked.Fed is { } fed && fed != facts.Fed ? 1 : 0)
        + (asked.Takes is { } takes && takes != facts.Takes ? 1 : 0)
        + (asked.Gives is { } gives && gives != facts.Gives ? 1 : 0);

    /// <summary>How well a build fits what is claimed of it.</summary>
    private static double Fits(DeviceProfile build, string? claim, TradeLibrary library)
    {
        if (string.IsNullOrWhiteSpace(claim))
            return 0;
        // A handheld has a speaker, a console a sound output: both are heard as either, and one is called so.
        var own = build.Functions.SelectMany(f => Told(f.Name)).ToHashSet();
        return CalledSo * Told(claim).Count(own.Contains) - WordNotHeard * Understanding.Of(claim, build, library).Unsure.Count;
    }

    /// <summary>One, where a number of cells was said and the build has another, or none: “six batteries” is not “four cells”.</summary>
    private static int OtherCells(DeviceProfile build, int? told) => told is not null && build.Supply?.Cells != told ? 1 : 0;

    private static double Shared(DeviceProfile build, HashSet<string> said)
    {
        // The name tells the build; the note only helps.
        // “Loader” is “loading”: by their stems.
        var (name, note) = (Told(build.Name).Select(Stem.Of).ToHashSet(), Told(build.Note).Select(Stem.Of).ToHashSet());
        var words = said.Select(Stem.Of).Distinct().ToList();
        var (named, noted) = (words.Count(name.Contains), words.Count(note.Contains));
        // What the name says counts first; of two that share as much the one of whose name it is more: a game is a cartridge before it is a
        // console for cartridges.
        return named + 0.1 * named / Math.Max(1, name.Count) + 0.01 * noted;
    }

    private static HashSet<string> Told(string? text)
    {
        var words = (text ?? "")
            .ToLowerInvariant()
            .Split([' ', ',', '.', ';', '/', '-', '×'], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => (w.Length > 1 || char.IsDigit(w[0])) && !Small.Contains(w))
            .ToList();
        // “2aa” is two cells.
        return
        [
            .. words.Concat(words.SelectMany(w => Synonyms.Where(s => s.Word == w).Select(s => s.Told))),
            .. words.Where(w => w.EndsWith("aa", StringComparison.Ordinal) && w.Length == 3).SelectMany(w => Told($"{w[0]} aa")),
        ];
    }

    private static DeviceProfile WithTold(DeviceProfile build, string? words)
    {
        if (build.Supply is not { } supply)
            return build;
        var made = build;
        var text = (words ?? "").ToLowerInvariant();
        if (supply is { Cells: { } cells and > 0, Chemistry: "alkaline" } && Cells(text) is { } told && told != cells)
        {
            var more = told / (double)cells;
            made = made with
            {
                Supply = supply with { Cells = told },
                Probes = made.Probes.Select(p => IsPack(p, cells) ? Scaled(p, more) : p).ToList(),
            };
        }

        if (supply.AdapterVolts is { } volts && supply.Cells is null && Volts(text) is { } fed && Math.Abs(fed - volts) > 0.01)
            made = made with { Supply = made.Supply! with { AdapterVolts = fed } };
        return made;
    }

    /// <summary>True for a probe of volts whose range is that of the pack: from weak rechargeables to new lithium AA cells.</summary>
    private static bool IsPack(Probe probe, int cells) =>
        probe is { Kind: ProbeKind.Volts, Expect: { Low: { } low, High: { } high } }
        && low >= 1.05 * cells
        && low <= 1.25 * cells
        && high >= 1.5 * cells
        && high <= 1.85 * cells;

    private static Probe Scaled(Probe probe, double more) =>
        probe with
        {
            Expect = probe.Expect.Between(
                Math.Round(probe.Expect.Low!.Value * more, 2),
                Math.Round(probe.Expect.High!.Value * more, 2)
            ),
        };

    private static int? Cells(string text)
    {
        string[] numbers = ["one", "two", "three", "four", "five", "six", "seven", "eight"];
        var words = text.Split([' ', ',', ';', '-'], StringSplitOptions.RemoveEmptyEntries);
        for (var i = 0; i + 1 < words.Length; i++)
        {
            if (words[i + 1] is not ("cell" or "cells" or "aa" or "aas" or "aaa" or "battery" or "batteries"))
                continue;
            if (Array.IndexOf(numbers, words[i]) is >= 0 and var n)
                return n + 1;
            if (int.TryParse(words[i], NumberStyles.None, CultureInfo.InvariantCulture, out var figure) && figure is >= 1 and <= 12)
                return figure;
        }

        return null;
    }

    private static double? Volts(string text)
    {
        var words = text.Split([' ', ',', ';'], StringSplitOptions.RemoveEmptyEntries);
        for (var i = 0; i < words.Length; i++)
        {
            var figure =
                words[i].EndsWith('v') && words[i].Length > 1 ? words[i][..^1]
                : i + 1 < words.Length && words[i + 1] is "v" or "volt" or "volts" ? words[i]
                : null;
            if (
                double.TryParse(figure, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var volts)
                && volts is >= 1 and <= 60
            )
                return volts;
        }

        return null;
    }

    /// <summary>An id made of a name, one that is not in use.</summary>
    internal static string NewId(string name, IReadOnlySet<string> taken)
    {
        var id = new StringBuilder();
        foreach (var c in name.ToLowerInvariant().Normalize(NormalizationForm.FormD))
            if (c is >= 'a' and <= 'z' or >= '0' and <= '9')
                id.Append(c);
            else if (id.Length > 0 && id[^1] != '-' && CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                id.Append('-');
        var text = id.ToString().Trim('-');
        if (text.Length > LongestId)
            text = text[..LongestId].TrimEnd('-');
        // A label in other letters still gets an id; and an id begins with a letter.
        if (text.Length == 0 || !char.IsAsciiLetter(text[0]))
            text = "model-" + text;
        text = text.TrimEnd('-');
        var free = text;
        for (var n = 2; taken.Contains(free); n++)
            free = $"{text}-{n}";
        return free;
    }
}
