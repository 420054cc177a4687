using System.Globalization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Web.Profiles;

/// <summary>A part as typed in the editor. A row without a name is no part.</summary>
public sealed class PartRow
{
    /// <summary>Id.</summary>
    public string? Id { get; set; }

    /// <summary>Name.</summary>
    public string? Name { get; set; }

    /// <summary>Library kind.</summary>
    public string? Kind { get; set; }

    /// <summary>Board.</summary>
    public string? Board { get; set; }

    /// <summary>Reference designator.</summary>
    public string? Refdes { get; set; }

    /// <summary>Pulls off its board without an iron.</summary>
    public bool ComesOff { get; set; }

    /// <summary>Own weights: <c>dirty=0.2, worn=0.05</c>.</summary>
    public string? Weights { get; set; }
}

/// <summary>A function as typed.</summary>
public sealed class FunctionRow
{
    /// <summary>Id.</summary>
    public string? Id { get; set; }

    /// <summary>Name.</summary>
    public string? Name { get; set; }

    /// <summary>Library kind.</summary>
    public string? Kind { get; set; }

    /// <summary>Part ids, by spaces or commas.</summary>
    public string? Needs { get; set; }

    /// <summary>Minutes to try it.</summary>
    public string? Minutes { get; set; }
}

/// <summary>A probe as typed.</summary>
public sealed class ProbeRow
{
    /// <summary>Id.</summary>
    public string? Id { get; set; }

    /// <summary>Name.</summary>
    public string? Name { get; set; }

    /// <summary>Where.</summary>
    public string? Where { get; set; }

    /// <summary>Kind.</summary>
    public string? Kind { get; set; }

    /// <summary>Part it is at.</summary>
    public string? At { get; set; }

    /// <summary>Part on the far side.</summary>
    public string? Toward { get; set; }

    /// <summary>Parts it spans.</summary>
    public string? Spans { get; set; }

    /// <summary>Part on the rail it is taken to ground from.</summary>
    public string? Rail { get; set; }

    /// <summary>Lowest good value.</summary>
    public string? Low { get; set; }

    /// <summary>Highest good value.</summary>
    public string? High { get; set; }

    /// <summary>What good looks like.</summary>
    public string? Text { get; set; }

    /// <summary>How far the unit must be apart.</summary>
    public string? State { get; set; }

    /// <summary>Minutes.</summary>
    public string? Minutes { get; set; }

    /// <summary>True when taken with the load unplugged.</summary>
    public bool Unloaded { get; set; }
}

/// <summary>A profile as it stands in the editor: everything is text until it is understood, so that nothing typed is lost.</summary>
public sealed class ProfileForm
{
    private const int SpareRows = 2;

    /// <summary>Version the editing began with, <c>id@version</c>; blank for a new model.</summary>
    public string? Base { get; set; }

    /// <summary>True when an existing model is changed.</summary>
    public bool Existing { get; set; }

    /// <summary>Id.</summary>
    public string? Id { get; set; }

    /// <summary>Name.</summary>
    public string? Name { get; set; }

    /// <summary>Maker.</summary>
    public string? Maker { get; set; }

    /// <summary>Kind of device.</summary>
    public string? Kind { get; set; }

    /// <summary>Note.</summary>
    public string? Note { get; set; }

    /// <summary>Who made the description.</summary>
    public string? Author { get; set; }

    /// <summary>Terms under which it may be given on.</summary>
    public string? Licence { get; set; }

    /// <summary>Revisions, one a line: <c>A: how to tell</c>.</summary>
    public string? Revisions { get; set; }

    /// <summary>Caution ids.</summary>
    public List<string> Hazards { get; set; } = [];

    /// <summary>Minutes to open.</summary>
    public string? Open { get; set; }

    /// <summary>Minutes from open to board out.</summary>
    public string? BoardOut { get; set; }

    /// <summary>Minutes from board out to a part lifted.</summary>
    public string? Lifted { get; set; }

    /// <summary>Number of cells.</summary>
    public string? Cells { get; set; }

    /// <summary>alkaline, nimh or liion.</summary>
    public string? Chemistry { get; set; }

    /// <summary>ac or dc.</summary>
    public string? AdapterKind { get; set; }

    /// <summary>Adapter volts.</summary>
    public string? AdapterVolts { get; set; }

    /// <summary>Least adapter current, amperes.</summary>
    public string? AdapterAmps { get; set; }

    /// <summary>Polarity of the plug.</summary>
    public string? Polarity { get; set; }

    /// <summary>Rails, one a line: <c>logic: 5 V ±5 %</c>.</summary>
    public string? Rails { get; set; }

    /// <summary>Feeds as chains of text.</summary>
    public string? Feeds { get; set; }

    /// <summary>Sections as text, by key; one that is not here is left as it was.</summary>
    public Dictionary<string, string?> Sections { get; set; } = [];

    /// <summary>Parts.</summary>
    public List<PartRow> Parts { get; set; } = [];

    /// <summary>Functions.</summary>
    public List<FunctionRow> Functions { get; set; } = [];

    /// <summary>Probes.</summary>
    public List<ProbeRow> Probes { get; set; } = [];

    /// <summary>Puts a profile into the form.</summary>
    /// <param name="profile">Profile.</param>
    /// <param name="version">Its version.</param>
    /// <param name="existing">True to change this model, false to make another from it.</param>
    public static ProfileForm From(DeviceProfile profile, long version, bool existing)
    {
        static string? N(double? value) => value?.ToString("G15", CultureInfo.InvariantCulture);
        var form = new ProfileForm
        {
            Base = $"{profile.Id}@{version}",
            Existing = existing,
            Id = existing ? profile.Id : "",
            Name = existing ? profile.Name : "",
            Maker = existing ? profile.Maker : "",
            Kind = Kebab(profile.Kind.ToString()),
            Note = existing ? profile.Note : "",
            Author = profile.Author,
            Licence = profile.Licence,
            Revisions = existing ? string.Join('\n', profile.Revisions.Select(r => $"{r.Id}: {r.Tell}")) : "",
            Hazards = [.. profile.Hazards ?? []],
            Open = N(profile.Preparation.Open),
            BoardOut = N(profile.Preparation.BoardOut),
            Lifted = N(profile.Preparation.Lifted),
            Cells = profile.Supply?.Cells?.ToString(CultureInfo.InvariantCulture),
            Chemistry = profile.Supply?.Chemistry,
            AdapterKind = profile.Supply?.AdapterKind,
            AdapterVolts = N(profile.Supply?.AdapterVolts),
            AdapterAmps = N(profile.Supply?.AdapterAmps),
            Polarity = profile.Supply?.Polarity,
            Rails = string.Join('\n', (profile.Supply?.Rails ?? []).Select(r => $"{r.Name}: {N(r.Volts)} V ±{N(r.Tolerance * 100)} %")),
            Feeds = FeedText.Write(profile.Feeds),
            Sections = ProfileSection.All.ToDictionary(s => s.Key, s => (string?)s.Write(profile)),
            Parts = profile
                .Parts.Select(p => new PartRow
                {
                    Id = p.Id,
                    Name = p.Name,
                    Kind = p.Kind,
                    Board = p.Board,
                    Refdes = p.Refdes,
                    ComesOff = p.ComesOff,
                    Weights = string.Join(", ", (p.Modes ?? []).Select(m => $"{m.Mode}={N(m.Prior)}")),
                })
                .ToList(),
            Functions = profile
                .Functions.Select(f => new FunctionRow
                {
                    Id = f.Id,
                    Name = f.Name,
                    Kind = f.Kind,
                    Needs = string.Join(' ', f.Needs),
                    Minutes = N(f.Minutes),
                })
                .ToList(),
            Probes = profile
                .Probes.Select(p => new ProbeRow
                {
                    Id = p.Id,
                    Name = p.Name,
                    Where = p.Where,
                    Kind = Kebab(p.Kind.ToString()),
                    At = p.At,
                    Toward = p.Toward,
                    Spans = string.Join(' ', p.Spans ?? []),
                    Rail = p.Rail,
                    Low = N(p.Expect.Low),
                    High = N(p.Expect.High),
                    Text = p.Expect.Text,
                    State = Kebab(p.State.ToString()),
                    Minutes = N(p.Minutes),
                    Unloaded = p.Unloaded,
                })
                .ToList(),
        };
        form.AddSpareRows();
        return form;
    }

    /// <summary>Drops rows without a name and adds a few blank ones at the end of each list.</summary>
    public void AddSpareRows()
    {
        Parts = [.. Parts.Where(p => Words.Clean(p.Name).Length > 0), .. Enumerable.Range(0, SpareRows).Select(_ => new PartRow())];
        Functions =
        [
            .. Functions.Where(f => Words.Clean(f.Name).Length > 0),
            .. Enumerable.Range(0, SpareRows).Select(_ => new FunctionRow()),
        ];
        Probes = [.. Probes.Where(p => Words.Clean(p.Name).Length > 0), .. Enumerable.Range(0, SpareRows).Select(_ => new ProbeRow())];
    }

    /// <summary>Kebab case of an enumeration name, as the format writes it.</summary>
    public static string Kebab(string name) => System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName(name);
}
