using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>
/// Confirms on the first unit what a model has from its build and nobody has looked at yet, or puts it right in a line: screws as
/// <c>3 cross 00, 4 tri-wing</c> with the face before them where there are several (<c>bottom: 6 security 4.5 12 mm</c>), contacts as
/// <c>72 contacts, 1–36 top, 37–72 bottom</c>, <c>1–71 by 2 left, 2–72 by 2 right</c>.
/// </summary>
public static partial class Confirming
{
    /// <summary>Longest line, characters.</summary>
    public const int LongestLine = 200;

    // What no single unit has more of than this was mistyped.
    private const int MostScrews = 60;

    [GeneratedRegex(
        @"^(?<count>\d{1,2})\s*(?:x|×)?\s+(?<head>[a-z][a-z-]*)(?:\s+(?<size>(?!\d+(?:\.\d+)?\s*mm)[a-z0-9.]+))?"
            + @"(?:\s+(?<mm>\d+(?:\.\d+)?)\s*mm)?$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex ScrewPattern();

    [GeneratedRegex(@"(?<first>\d{1,4})\s*(?:–|-|to)\s*(?<last>\d{1,4})(?:\s+by\s+(?<step>\d{1,2}))?\s+(?<name>[\p{L}]+)", RegexOptions.IgnoreCase)]
    private static partial Regex RowPattern();

    [GeneratedRegex(@"^\s*(?<all>\d{1,4})\s+contacts?\b", RegexOptions.IgnoreCase)]
    private static partial Regex CountPattern();

    /// <summary>All is as the build has it.</summary>
    /// <param name="profile">Model.</param>
    /// <param name="section">One of <see cref="TypicalSections"/>.</param>
    public static Outcome<Taught> AsHere(DeviceProfile profile, string section) =>
        Taught(Sure(profile, section), section == TypicalSections.Connectors ? "contacts as drawn" : "screws as drawn");

    /// <summary>The screws of one face, as counted.</summary>
    /// <param name="profile">Model.</param>
    /// <param name="line">What was counted.</param>
    public static Outcome<Taught> Screws(DeviceProfile profile, string line)
    {
        var text = line.Trim();
        if (text.Length is 0 or > LongestLine)
            return Fail("Say how many of which head, such as: 3 cross 00, 4 tri-wing.");
        var known = (profile.Fasteners ?? []).Where(f => f.Driver is not null).ToList();
        var faces = known.Select(f => f.Face ?? "back").Distinct().ToList();
        var cut = text.IndexOf(':');
        var told = cut < 0 ? null : text[..cut].Trim();
        if (told is not null && !faces.Contains(told, StringComparer.OrdinalIgnoreCase))
            return Fail($"No screws are known on “{told}”. There are some on: {string.Join(", ", faces)}.");
        var counted = new List<Fastener>();
        foreach (var clause in text[(cut + 1)..].Split([",", ";", " and "], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            if (ScrewPattern().Match(clause) is not { Success: true } match)
                return Fail($"“{clause}” is not a count and a head, such as: 4 tri-wing, or 3 cross 00 8 mm.");
            var length = match.Groups["mm"].Success ? double.Parse(match.Groups["mm"].Value, CultureInfo.InvariantCulture) : default(double?);
            var one = new Fastener(
                "",
                match.Groups["head"].Value.ToLowerInvariant(),
                match.Groups["size"].Success ? match.Groups["size"].Value : null,
                length
            );
            counted.AddRange(Enumerable.Repeat(one, int.Parse(match.Groups["count"].Value, CultureInfo.InvariantCulture)));
        }

        if (counted.Count is 0 or > MostScrews)
            return Fail($"A face has between 1 and {MostScrews} screws.");
        if (known.Count == 0)
            return Fail("This model has no screws yet: record the step as you do it.");
        var face = told ?? faces.FirstOrDefault(f => known.Count(k => (k.Face ?? "back") == f) == counted.Count) ?? faces[0];
        return Taught(Put(profile, known.Where(f => string.Equals(f.Face ?? "back", face, StringComparison.OrdinalIgnoreCase)).ToList(), counted),
            $"{counted.Count} screws on {face}: {text[(cut + 1)..].Trim()}");
    }

    /// <summary>The contacts of a connector, as counted.</summary>
    /// <param name="profile">Model.</param>
    /// <param name="connectorId">Connector.</param>
    /// <param name="line">What was counted.</param>
    public static Outcome<Taught> Contacts(DeviceProfile profile, string connectorId, string line)
    {
        if (profile.Connectors?.FirstOrDefault(c => c.Id == connectorId) is not { } connector)
            return Fail("There is no such connector.");
        if (line.Length > LongestLine || RowPattern().Matches(line) is not { Count: > 0 } rows)
            return Fail("Say the numbers of each row, such as: 72 contacts, 1–36 top, 37–72 bottom.");
        var lines = connector.Rows.SelectMany(r => r.Contacts.Zip(r.Lines)).ToDictionary(x => x.First.Number, x => x.Second);
        var made = new List<ContactRow>();
        foreach (Match row in rows)
        {
            var (first, last) = (Number(row, "first"), Number(row, "last"));
            var step = (row.Groups["step"].Success ? Number(row, "step") : 1) * Math.Sign(last - first);
            if (step == 0 || (last - first) % step != 0)
                return Fail($"“{row.Value}” does not end at {last}.");
            var numbers = Enumerable.Range(0, (last - first) / step + 1).Select(n => first + n * step).ToList();
            if (numbers.Count > ProfileFormat.MostContacts)
                return Fail($"A row has at most {ProfileFormat.MostContacts} contacts.");
            made.Add(new ContactRow(row.Groups["name"].Value, first, step, numbers.Select(_ => UnknownLine).ToList()));
        }

        var all = made.SelectMany(r => r.Contacts.Select(c => c.Number)).ToList();
        if (all.Count != all.Distinct().Count())
            return Fail("A number stands in two rows.");
        if (CountPattern().Match(line) is { Success: true } count && Number(count, "all") != all.Count)
            return Fail($"These rows have {all.Count} contacts, not {Number(count, "all")}.");
        // The lines are kept where it is the same connector only called otherwise; else nobody knows yet what they carry.
        if (all.ToHashSet().SetEquals(lines.Keys))
            made = made.Select(r => r with { Lines = r.Contacts.Select(c => lines[c.Number]).ToList() }).ToList();
        var connectors = profile.Connectors.Select(c => c == connector ? c with { Rows = made } : c).ToList();
        return Taught(
            Sure(profile with { Connectors = connectors }, TypicalSections.Connectors),
            $"{connector.Name}: {all.Count} contacts, {string.Join(", ", made.Select(r => $"{r.Contacts[0].Number} to {r.Contacts[^1].Number} {r.Name}"))}"
        );
    }

    /// <summary>Contact group of a line that nobody has traced yet.</summary>
    public const string UnknownLine = "unknown";

    private static DeviceProfile Sure(DeviceProfile profile, string section) =>
        profile with { Confirmed = [.. (profile.Confirmed ?? []).Append(section).Distinct().Order(StringComparer.Ordinal)] };

    // The first keep their places and what they hide under; what is one too many goes, what is missing has no place yet.
    private static DeviceProfile Put(DeviceProfile profile, List<Fastener> there, List<Fastener> counted)
    {
        var taken = (profile.Fasteners ?? []).Select(f => f.Id).ToHashSet();
        var put = counted.Zip(there, (c, t) => t with { Head = c.Head, Size = c.Size, LengthMm = c.LengthMm }).ToList();
        foreach (var more in counted.Skip(there.Count))
        {
            put.Add(more with { Id = Fastener.FreeId(taken), Face = there[0].Face, Group = there[0].Group });
            taken.Add(put[^1].Id);
        }

        var gone = there.Skip(counted.Count).Select(f => f.Id).ToHashSet();
        var added = put.Skip(there.Count).ToList();
        var last = profile.Steps?.LastOrDefault(s => s.Fasteners?.Contains(there[^1].Id) == true);
        var steps = profile.Steps
            ?.Select(s => s.Fasteners is not { } held ? s
                : s with { Fasteners = [.. held.Where(f => !gone.Contains(f)), .. ReferenceEquals(s, last) ? added.Select(f => f.Id) : []] })
            .ToList();
        var fasteners = (profile.Fasteners ?? [])
            .Where(f => !gone.Contains(f.Id))
            .Select(f => put.FirstOrDefault(p => p.Id == f.Id) ?? f)
            .Concat(added)
            .ToList();
        return Sure(profile with { Fasteners = fasteners, Steps = steps }, TypicalSections.Fasteners);
    }

    private static int Number(Match match, string group) => int.Parse(match.Groups[group].Value, CultureInfo.InvariantCulture);

    private static Outcome<Taught> Taught(DeviceProfile profile, string words) => Outcome<Taught>.Ok(new Taught(profile, words));

    private static Outcome<Taught> Fail(string why) => Outcome<Taught>.Fail(why);
}
