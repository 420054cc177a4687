using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>What one line teaches a model.</summary>
/// <param name="Profile">The model with it; null when the words fit nothing and are a suggestion.</param>
/// <param name="Words">What was taught, in words.</param>
public sealed record Taught(DeviceProfile? Profile, string Words);

/// <summary>
/// Teaches a model something in one line, while working:
/// <c>part Coil L1 behind switch on main as joint</c>, <c>feed switch to lamp</c>, <c>probe Coil out at coil 4.75 to 5.25 V</c>,
/// <c>beep coil</c>, <c>look at coil: whole</c>, <c>press coil</c>, <c>limit tp3 6.1 to 6.4 V</c>, <c>revision C: coil stands free</c>,
/// <c>connector Slot at slot: left 1 +2: supply 5 V, address A0; right 2 +2: ground, data D0</c>. Parts and probes are named by id,
/// name or printed name.
/// </summary>
public static partial class Teaching
{
    /// <summary>Longest line, characters.</summary>
    public const int LongestLine = 200;

    /// <summary>Reads a line.</summary>
    /// <returns>What it teaches; a suggestion when it begins with no word of the list; or why it cannot be taught.</returns>
    public static Outcome<Taught> Read(DeviceProfile profile, TradeLibrary library, string line)
    {
        var text = line.Trim();
        if (text.Length is 0 or > LongestLine)
            return Fail($"Say in one line of at most {LongestLine} characters what is missing, such as: part Coil behind switch.");
        var (first, rest) = Cut(text, ' ');
        var read = first.ToLowerInvariant() switch
        {
            "part" => Part(profile, library, rest),
            "feed" => Feed(profile, rest),
            "probe" or "measure" => Volts(profile, rest),
            "look" => ByEye(profile, rest, ProbeKind.Look),
            "press" => ByEye(profile, rest, ProbeKind.Press),
            "beep" => Beep(profile, rest),
            "limit" => Limit(profile, rest),
            "connector" => Plug(profile, rest),
            "revision" => Revision(profile, rest),
            _ => Outcome<Taught>.Ok(new Taught(null, text)),
        };
        if (!read.IsOk || read.Value.Profile is not { } made)
            return read;
        return ProfileValidator.Check(made, library) is [var problem, ..] ? Fail($"{problem.Place}: {problem.Message}") : read;
    }

    private static Outcome<Taught> Part(DeviceProfile profile, TradeLibrary library, string said)
    {
        var (rest, kind) = CutLast(said, " as ");
        (rest, var board) = CutLast(rest, " on ");
        (rest, var behind) = CutLast(rest, " behind ");
        if (rest.Length == 0 || behind.Length == 0)
            return Fail("A part is taught by its name and what feeds it: part Coil behind switch.");
        if (Find(profile, behind) is not { } before)
            return Fail($"No part is called “{behind}”. There are: {Names(profile)}.");
        var wanted = kind.Length > 0 ? kind : "joint";
        var found = library.PartKinds.FirstOrDefault(k => Is(k.Kind, wanted) || Is(k.Name, wanted));
        if (found is null)
            return Fail($"No kind of part is called “{wanted}”. Common ones: joint, trace, capacitors, ribbon, port, logic.");
        var part = new Part(
            new PartId(Free(rest, profile.Parts.Select(p => p.Id.Value))),
            rest,
            found.Kind,
            board.Length > 0 ? board : before.Board
        );
        // It lies in the line behind that part: what that fed is fed by the new one.
        var carries =
            profile.Feeds.FirstOrDefault(f => f.From == before.Id)?.Carries
            ?? profile.Feeds.FirstOrDefault(f => f.To == before.Id)?.Carries
            ?? Carries.Power;
        var feeds = profile.Feeds.Select(f => f.From == before.Id && f.Carries == carries ? f with { From = part.Id } : f).ToList();
        feeds.Add(new Feed(before.Id, part.Id, carries));
        // What a probe told of the way behind the old part it tells of still.
        var probes = profile
            .Probes.Select(p => p.At is { } at && at == before.Id && p.Toward is not null ? p with { Toward = part.Id } : p)
            .ToList();
        return Ok(
            profile with
            {
                Parts = [.. profile.Parts, part],
                Feeds = feeds,
                Probes = probes,
            },
            $"part {part.Name} ({found.Name.ToLowerInvariant()}) behind {before.Name}"
        );
    }

    private static Outcome<Taught> Feed(DeviceProfile profile, string said)
    {
        var (from, rest) = Cut(said, " to ");
        var (to, what) = CutLast(rest, " carries ");
        if (to.Length == 0)
            (to, what) = (rest, "");
        if (Find(profile, from) is not { } a || Find(profile, to) is not { } b)
            return Fail($"A feed is taught by two parts: feed switch to lamp. There are: {Names(profile)}.");
        var carries = Carries.Power;
        if (what.Length > 0 && !Enum.TryParse(what, true, out carries))
            return Fail($"“{what}” flows nowhere: power, data, video, audio, input, light or motion.");
        var feed = new Feed(a.Id, b.Id, carries);
        return profile.Feeds.Contains(feed)
            ? Fail($"{a.Name} feeds {b.Name} already.")
            : Ok(profile with { Feeds = [.. profile.Feeds, feed] }, $"{a.Name} feeds {b.Name}");
    }

    private static Outcome<Taught> Volts(DeviceProfile profile, string said)
    {
        var (name, rest) = CutLast(said, " at ");
        var (where, range) = Range(rest);
        if (name.Length == 0 || Find(profile, where) is not { } part)
            return Fail(
                $"A probe is taught by its name, its part and its range: probe Coil out at coil 4.75 to 5.25 V. Parts: {Names(profile)}."
            );
        if (range is not var (low, high))
            return Fail("Give the range of a good unit: 4.75 to 5.25 V.");
        var toward = profile.Feeds.FirstOrDefault(f => f.From == part.Id)?.To;
        var probe = new Probe(
            new ProbeId(Free(name, profile.Probes.Select(p => p.Id.Value))),
            name,
            $"behind {part.Name}, to ground",
            ProbeKind.Volts,
            part.Id,
            toward,
            null,
            null,
            new Expectation(low, high, "V"),
            AccessState.Open
        );
        return Ok(profile with { Probes = [.. profile.Probes, probe] }, $"probe {name} at {part.Name}, {Shown(low)} to {Shown(high)} V");
    }

    private static Outcome<Taught> ByEye(DeviceProfile profile, string said, ProbeKind kind)
    {
        var (where, good) = Cut(Without(said, "at "), ":");
        if (Find(profile, where) is not { } part)
            return Fail($"Which part? {Names(profile)}.");
        var word = kind == ProbeKind.Look ? "eye" : "press";
        var text =
            good.Length > 0 ? good
            : kind == ProbeKind.Look ? "whole and clean"
            : "nothing changes";
        var name = kind == ProbeKind.Look ? $"{part.Name}, by eye" : $"Press {part.Name}";
        var probe = new Probe(
            new ProbeId(Free($"{part.Id}-{word}", profile.Probes.Select(p => p.Id.Value))),
            name,
            kind == ProbeKind.Look ? "under the lamp" : "unit on, with a plastic stick",
            kind,
            null,
            null,
            [part.Id],
            null,
            new Expectation(null, null, "word", text),
            AccessState.Open,
            0.5
        );
        return Ok(profile with { Probes = [.. profile.Probes, probe] }, $"{name}: good is “{text}”");
    }

    private static Outcome<Taught> Beep(DeviceProfile profile, string said)
    {
        if (Find(profile, Without(said, "at ")) is not { } part)
            return Fail($"Through which part? {Names(profile)}.");
        var name = $"{part.Name}, by buzzer";
        var probe = new Probe(
            new ProbeId(Free($"{part.Id}-beep", profile.Probes.Select(p => p.Id.Value))),
            name,
            "unit off, from one end to the other",
            ProbeKind.Continuity,
            null,
            null,
            [part.Id],
            null,
            new Expectation(1, null, "beep", "beeps at once, under 1 Ω"),
            AccessState.Open
        );
        return Ok(profile with { Probes = [.. profile.Probes, probe] }, $"{name}: good beeps at once");
    }

    /// <summary>A connector: its name and part, then its rows as <see cref="ConnectorText"/> writes them, with semicolons between.</summary>
    private static Outcome<Taught> Plug(DeviceProfile profile, string said)
    {
        var (head, rows) = Cut(said, ":");
        var (name, where) = CutLast(head, " at ");
        if (name.Length == 0 || where.Length == 0 || rows.Length == 0)
            return Fail("A connector is taught by name, part and rows: connector Slot at slot: left 1 +2: supply 5 V, address A0.");
        if (Find(profile, where) is not { } part)
            return Fail($"No part is called “{where}”. There are: {Names(profile)}.");
        var id = Free(name, (profile.Connectors ?? []).Select(c => c.Id));
        var text = $"{id}: {name.Replace(',', ' ')}, part {part.Id}\n{rows.Replace(';', '\n')}";
        var read = ConnectorText.Read(text, out var problems);
        return problems is [var problem, ..] || read is not [{ } connector]
            ? Fail(problems.FirstOrDefault()?.Message ?? "One connector a line.")
            : Ok(
                profile with
                {
                    Connectors = [.. profile.Connectors ?? [], connector],
                },
                $"connector {name} at {part.Name}, {connector.Contacts.Count()} contacts"
            );
    }

    private static string Without(string said, string first) =>
        said.StartsWith(first, StringComparison.OrdinalIgnoreCase) ? said[first.Length..] : said;

    private static Outcome<Taught> Limit(DeviceProfile profile, string said)
    {
        var (where, range) = Range(said);
        if (profile.Probes.FirstOrDefault(p => Is(p.Id.Value, where) || Is(p.Name, where)) is not { } probe)
            return Fail($"No probe is called “{where}”.");
        if (range is not var (low, high))
            return Fail("Give both ends: limit tp3 6.1 to 6.4 V.");
        if (probe.Expect.Unit is "word" or "beep")
            return Fail($"{probe.Name} is not measured in figures.");
        var taught = probe with { Expect = probe.Expect.Between(low, high) };
        return Ok(
            profile with
            {
                Probes = profile.Probes.Select(p => p.Id == probe.Id ? taught : p).ToList(),
            },
            $"{probe.Name}: {Shown(low)} to {Shown(high)} {probe.Expect.Unit}"
        );
    }

    private static Outcome<Taught> Revision(DeviceProfile profile, string said)
    {
        var (id, tell) = Cut(said, ":");
        if (id.Length is 0 or > 20 || tell.Length == 0)
            return Fail("A revision is taught by its name and how to tell it: revision C: coil stands free.");
        return profile.Revisions.Any(r => Is(r.Id, id))
            ? Fail($"Revision {id} is there already.")
            : Ok(profile with { Revisions = [.. profile.Revisions, new Revision(id, tell)] }, $"revision {id}: {tell}");
    }

    /// <summary>“coil 4.75 to 5.25 V” in its place and its ends, the lower first.</summary>
    private static (string Place, (double Low, double High)? Range) Range(string said)
    {
        var read = RangeText().Match(said);
        if (!read.Success)
            return (said.Trim(), null);
        var (a, b) = (Figure(read.Groups["a"].Value), Figure(read.Groups["b"].Value));
        return (read.Groups["place"].Value.Trim(), (Math.Min(a, b), Math.Max(a, b)));
    }

    [GeneratedRegex(
        @"^(?<place>.*?)\s+(?<a>[-−]?\d{1,9}(?:[.,]\d{1,9})?)\s*(?:to|–|-|…)\s*(?<b>[-−]?\d{1,9}(?:[.,]\d{1,9})?)\s*(?:volts?|v|ohms?|Ω)?\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex RangeText();

    private static double Figure(string text) =>
        double.Parse(
            text.Replace(',', '.').Replace('−', '-'),
            NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign,
            CultureInfo.InvariantCulture
        );

    private static Part? Find(DeviceProfile profile, string name) =>
        profile.Parts.FirstOrDefault(p => Is(p.Id.Value, name) || Is(p.Name, name) || Is(p.Refdes, name));

    private static bool Is(string? name, string said) => string.Equals(name, said.Trim(), StringComparison.OrdinalIgnoreCase);

    private static string Names(DeviceProfile profile) => string.Join(", ", profile.Parts.Select(p => p.Name));

    private static string Free(string name, IEnumerable<string> taken) => BuildChoice.NewId(name, taken.ToHashSet());

    private static string Shown(double value) => value.ToString("0.###", CultureInfo.InvariantCulture);

    private static (string Left, string Right) Cut(string text, string at) =>
        text.IndexOf(at, StringComparison.OrdinalIgnoreCase) is >= 0 and var i
            ? (text[..i].Trim(), text[(i + at.Length)..].Trim())
            : (text.Trim(), "");

    private static (string Left, string Right) Cut(string text, char at) => Cut(text, at.ToString());

    /// <summary>Cuts at the last place; with nothing to cut, all is left of it.</summary>
    private static (string Left, string Right) CutLast(string text, string at) =>
        text.LastIndexOf(at, StringComparison.OrdinalIgnoreCase) is >= 0 and var i
            ? (text[..i].Trim(), text[(i + at.Length)..].Trim())
            : (text.Trim(), "");

    private static Outcome<Taught> Ok(DeviceProfile profile, string words) => Outcome<Taught>.Ok(new Taught(profile, words));

    private static Outcome<Taught> Fail(string problem) => Outcome<Taught>.Fail(problem);
}
