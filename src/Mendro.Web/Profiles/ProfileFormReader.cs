using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Web.Profiles;

/// <summary>Turns what stands in the editor into a profile, and lists plainly what is wrong with it.</summary>
public sealed partial class ProfileFormReader(TradeLibrary library)
{
    private readonly List<ProfileProblem> _problems = [];

    /// <summary>Problems found, in the words of the form.</summary>
    public IReadOnlyList<ProfileProblem> Problems => _problems;

    /// <summary>Reads a form. The profile is as complete as what was typed allows, so that it can be drawn while problems are
    /// left.</summary>
    /// <param name="form">What stands in the editor.</param>
    /// <param name="origin">Profile the editing began with: what the form does not show is kept from it.</param>
    public DeviceProfile Read(ProfileForm form, DeviceProfile? origin)
    {
        _problems.Clear();
        var name = Words.Clean(form.Name);
        if (name.Length == 0)
            Report("name", "a model needs a name.");
        var id =
            form.Existing && origin is not null ? origin.Id
            : Words.Clean(form.Id) is { Length: > 0 } typed ? typed
            : Slug($"{form.Maker} {name}");
        if (id.Length > 0 && !IdPattern().IsMatch(id))
            Report("id", $"“{id}”: only lower case letters, digits and hyphens.");
        var parts = form.Parts.Where(p => Words.Clean(p.Name).Length > 0).Select(p => Part(p, origin)).ToList();
        var feeds = FeedText.Read(form.Feeds, out var wrong);
        _problems.AddRange(wrong);
        var functions = form
            .Functions.Where(f => Words.Clean(f.Name).Length > 0)
            .Select(f => new DeviceFunction(
                IdOf(f.Id, f.Name),
                Words.Clean(f.Name),
                Words.Clean(f.Kind),
                List(f.Needs),
                Positive(f.Minutes, 0.5, $"function “{Words.Clean(f.Name)}”, minutes")
            ))
            .ToList();
        var probes = form.Probes.Where(p => Words.Clean(p.Name).Length > 0).Select(p => Probe(p, origin)).ToList();
        var preparation = new Preparation(
            Positive(form.Open, 5, "minutes to open", zero: true),
            Positive(form.BoardOut, 5, "minutes to take the board out", zero: true),
            Positive(form.Lifted, 5, "minutes to lift a part", zero: true)
        );
        var modelId = id.Length > 0 ? id : "new";
        // From the profile the editing began with: what the form does not show stays as it was.
        var profile = (
            origin
            ?? new DeviceProfile(DeviceProfile.FormatName, modelId, name, "", DeviceKind.Handheld, [], null, [], [], [], [], preparation)
        ) with
        {
            Id = modelId,
            Name = name,
            Maker = Words.Clean(form.Maker),
            Kind = Kind<DeviceKind>(form.Kind, DeviceKind.Handheld),
            Revisions = Revisions(form.Revisions),
            Supply = Supply(form),
            Parts = parts,
            Feeds = feeds,
            Functions = functions,
            Probes = probes,
            Preparation = preparation,
            Generic = form.Existing && origin?.Generic == true,
            // A model made from a build is of that build; a build that is changed stays one.
            Archetype = form.Existing ? origin?.Archetype : null,
            Build = form.Existing ? origin?.Build : origin?.BuildId,
            Hazards = form.Hazards.Count > 0 ? form.Hazards : null,
            Note = Told(form.Note),
            Author = Told(form.Author),
            Licence = Told(form.Licence),
        };
        foreach (var section in ProfileSection.All.Where(s => form.Sections.ContainsKey(s.Key)))
        {
            profile = section.Read(profile, form.Sections[section.Key], out var unread);
            _problems.AddRange(unread);
        }

        foreach (var problem in ProfileValidator.Check(profile, library))
            Report(Place(problem.Place, profile), problem.Message);
        return profile;
    }

    private static string? Told(string? typed) => Words.Clean(typed) is { Length: > 0 } told ? told : null;

    private Part Part(PartRow row, DeviceProfile? origin)
    {
        var (id, name) = (IdOf(row.Id, row.Name), Words.Clean(row.Name));
        var before = origin?.FindPart(id);
        List<ModeOverride> weights = [];
        foreach (
            var piece in Words.Clean(row.Weights).Split([',', ';'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
        {
            if (piece.Split('=', StringSplitOptions.TrimEntries) is not [var mode, var told] || Number(told) is not { } weight)
            {
                Report($"part “{name}”, own weights", $"“{piece}”: write a failure mode and its chance, such as dirty=0.2.");
                continue;
            }

            weights.Add(
                before?.Modes?.FirstOrDefault(m => m.Mode == mode && m.Prior.Equals(weight))
                    ?? new ModeOverride(mode, weight, "the shop's own")
            );
        }

        return new Part(
            id,
            name,
            Words.Clean(row.Kind),
            Null(row.Board),
            Null(row.Refdes),
            before?.X,
            before?.Y,
            weights.Count > 0 ? weights : null,
            row.ComesOff,
            before?.Package,
            before?.Hazards,
            before?.Kind == row.Kind ? before?.Class : null
        );
    }

    private Probe Probe(ProbeRow row, DeviceProfile? origin)
    {
        var name = Words.Clean(row.Name);
        var kind = Kind<ProbeKind>(row.Kind, ProbeKind.Volts);
        double? Limit(string? text, string which)
        {
            if (Words.Clean(text).Length == 0)
                return null;
            if (Number(text) is { } value)
                return value;
            Report(
                $"probe “{name}”, {which}",
                $"“{text}” is not a number. Write it in {TradeLibrary.Of(kind).Unit}, such as 4.75 or 22e-6."
            );
            return null;
        }

        var spans = List(row.Spans);
        return new Probe(
            IdOf(row.Id, row.Name),
            name,
            Words.Clean(row.Where),
            kind,
            Id(row.At),
            Id(row.Toward),
            spans.Count > 0 ? spans : null,
            Id(row.Rail),
            Kept(
                row,
                origin,
                new Expectation(Limit(row.Low, "low"), Limit(row.High, "high"), TradeLibrary.Of(kind).Unit, Null(row.Text))
            ),
            Kind<AccessState>(row.State, AccessState.Closed),
            Positive(row.Minutes, 1, $"probe “{name}”, minutes"),
            row.Unloaded
        );
    }

    /// <summary>Limits that nobody changed keep the nominal value from which they were computed.</summary>
    private static Expectation Kept(ProbeRow row, DeviceProfile? origin, Expectation told) =>
        origin?.FindProbe(IdOf(row.Id, row.Name))?.Expect is { Nominal: not null } before
        && before.Low == told.Low && before.High == told.High && before.Unit == told.Unit
            ? before with { Text = told.Text }
            : told;

    private Supply? Supply(ProfileForm form)
    {
        double? Value(string? text, string place)
        {
            if (Words.Clean(text).Length == 0)
                return null;
            if (Number(text) is > 0 and var value)
                return value;
            Report(place, $"“{text}” is not a number above 0.");
            return null;
        }

        var rails = Words
            .Clean(form.Rails)
            .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(line =>
            {
                if (
                    RailPattern().Match(line) is { Success: true } match
                    && Number(match.Groups[2].Value) is { } volts
                    && Number(match.Groups[3].Value) is { } percent and >= 0 and <= 100
                )
                    return new Rail(match.Groups[1].Value.Trim(), volts, Math.Round(percent / 100, 6));
                Report("rails", $"“{line}”: write a rail as “logic: 5 V ±5 %”.");
                return null;
            })
            .OfType<Rail>()
            .ToList();
        var cells = Value(form.Cells, "cells");
        if (cells is not null && cells != Math.Floor(cells.Value))
            Report("cells", $"“{form.Cells}” is not a whole number.");
        var supply = new Supply(
            (int?)cells,
            Null(form.Chemistry),
            Null(form.AdapterKind),
            Value(form.AdapterVolts, "adapter volts"),
            Value(form.AdapterAmps, "adapter amperes"),
            Null(form.Polarity),
            rails.Count > 0 ? rails : null
        );
        return supply == new Supply(null, null, null, null, null, null, null) ? null : supply;
    }

    private List<Revision> Revisions(string? text) =>
        Words
            .Clean(text)
            .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Select(line =>
            {
                if (line.Split(':', 2, StringSplitOptions.TrimEntries) is [{ Length: > 0 } id, var tell])
                    return new Revision(id, tell);
                Report("revisions", $"“{line}”: write the revision, a colon and how to tell it.");
                return new Revision(line, "");
            })
            .ToList();

    /// <summary>Names the row instead of its index.</summary>
    private static string Place(string place, DeviceProfile profile)
    {
        if (IndexPattern().Match(place) is not { Success: true } match)
            return place;
        var n = int.Parse(match.Groups[2].Value, CultureInfo.InvariantCulture);
        return match.Groups[1].Value switch
        {
            "parts" => $"part “{profile.Parts[n].Name}”",
            "functions" => $"function “{profile.Functions[n].Name}”",
            "probes" => $"probe “{profile.Probes[n].Name}”",
            "connectors" => $"connector “{profile.Connectors![n].Name}”",
            "feeds" => $"feed {profile.Feeds[n].From} > {profile.Feeds[n].To}",
            _ => place,
        };
    }

    private double Positive(string? text, double otherwise, string place, bool zero = false)
    {
        if (Words.Clean(text).Length == 0)
            return otherwise;
        if (Number(text) is { } value && (value > 0 || zero && value >= 0) && value <= 600)
            return value;
        Report(place, $"“{text}” is not a number of minutes.");
        return otherwise;
    }

    private static double? Number(string? text) =>
        double.TryParse(
            Words.Clean(text).Replace(',', '.').Replace('−', '-'),
            NumberStyles.Float,
            CultureInfo.InvariantCulture,
            out var value
        )
        && Math.Abs(value) <= JsonGate.MostNumber
            ? value
            : null;

    private static T Kind<T>(string? text, T otherwise)
        where T : struct, Enum =>
        Enum.GetValues<T>().Where(v => ProfileForm.Kebab(v.ToString()) == Words.Clean(text)).Select(v => (T?)v).FirstOrDefault()
        ?? otherwise;

    private static List<PartId> List(string? text) =>
        [.. Words.Clean(text).Split([' ', ',', ';', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries).Select(id => new PartId(id))];

    private static string? Null(string? text) => Words.Clean(text) is { Length: > 0 } clean ? clean : null;

    private static PartId? Id(string? text) => Null(text) is { } id ? new PartId(id) : default(PartId?);

    private static string IdOf(string? id, string? name) => Words.Clean(id) is { Length: > 0 } typed ? typed : Slug(name);

    private static string Slug(string? text)
    {
        var slug = new StringBuilder();
        foreach (var c in Words.Clean(text).ToLowerInvariant().Normalize(NormalizationForm.FormD))
        {
            if (char.IsAsciiLetterOrDigit(c))
                slug.Append(c);
            else if (slug.Length > 0 && slug[^1] != '-' && CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
                slug.Append('-');
        }

        return slug.ToString().Trim('-');
    }

    private void Report(string place, string message) => _problems.Add(new ProfileProblem(place, message));

    [GeneratedRegex("^[a-z0-9][a-z0-9-]{0,60}$")]
    private static partial Regex IdPattern();

    [GeneratedRegex(@"^([^:]+):\s*([-−+]?[\d.,]+)\s*V?\s*(?:±|\+-)\s*([\d.,]+)\s*%?$")]
    private static partial Regex RailPattern();

    [GeneratedRegex(@"^(\w+)\[(\d+)\]")]
    private static partial Regex IndexPattern();
}
