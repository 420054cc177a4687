using System.Text.RegularExpressions;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>What a probe shows: that it is off, how far, and what an eye or a finger said of it.</content>
public sealed partial class DeviceModel
{
    /// <summary>“The probe does not show what a good unit shows”.</summary>
    public FindingTemplate ProbeAbnormal(Probe probe) =>
        _templates.GetOrAdd(
            $"probe:{probe.Id}",
            id => new FindingTemplate(
                id,
                probe.Kind == ProbeKind.Press ? EvidenceWeights.FingerLeak
                    : TradeLibrary.Of(probe.Kind).ByEye ? EvidenceWeights.EyeLeak
                    : EvidenceWeights.ProbeLeak,
                probe.Kind switch
                {
                    ProbeKind.Volts or ProbeKind.Current => VoltsLinks(probe),
                    _ when probe.Rail is not null => RailLinks(probe),
                    _ => SpanLinks(probe),
                },
                probe switch
                {
                    { Kind: ProbeKind.Volts or ProbeKind.Current, At: { } at } => Damage(Graph.Upstream(at, powerOnly: true), 0.85),
                    { Rail: { } rail } => Damage(Graph.RailOf(rail).Members, 0.15),
                    _ => Damage(probe.PartIds(), 0.5),
                },
                probe.Kind is ProbeKind.Volts or ProbeKind.Current
            )
        );

    /// <summary>The finding that a bad reading is about: off by a degree, or bad in the way that the words name.</summary>
    public FindingTemplate Shown(Probe probe, ProbeTaken taken)
    {
        var plain = ProbeAbnormal(probe);
        if (taken.Outcome != ProbeOutcome.Abnormal)
            return plain;
        if (taken.Words is { Length: > 0 } words)
            return Named(probe, words) is { Count: > 0 } named ? Told(plain, named) : plain;
        var degree = taken.Degree;
        return degree == ReadingDegree.Untold
            ? plain
            : _templates.GetOrAdd($"{plain.Id}:{degree}", id => ByDegree(id, plain, probe, degree));
    }

    private FindingTemplate ByDegree(string id, FindingTemplate plain, Probe probe, ReadingDegree degree)
    {
        // What charges a pack that is measured shows there as the pack itself would.
        var charging = probe.At is { } at ? Graph.ChargeWays(Graph.Upstream(at, powerOnly: true)) : [];
        double Share(int fault) =>
            DegreeShares.Share(probe, Faults[fault].Mode, MakesVolts(fault) || charging.Contains(Faults[fault].Part.Id), degree);
        return new FindingTemplate(
            id,
            plain.Leak * DegreeShares.LeakShare(probe, degree),
            plain.Links.Select(l => l with { P = l.P * Share(l.Fault) }).ToList(),
            plain.Damage?.ToDictionary(d => d.Key, d => d.Value * 0.4),
            plain.Momentary
        );
    }

    /// <summary>Faults of the parts a probe touches that some words name; several words together name more closely than one: “eaten
    /// all over” is not “eaten”. Where the probe touches several parts, the words may name one: “C48 leaks”, “the inverter's”.</summary>
    public IReadOnlyList<int> Named(Probe probe, string words)
    {
        var text = words.ToLowerInvariant();
        var parts = PartsNamed(probe, text);
        var there = (parts.Count > 0 ? parts : probe.PartIds().Distinct()).SelectMany(FaultsOf).ToList();
        List<int> Of(Func<FailureMode, bool> says) => there.Where(f => says(Faults[f].Mode)).ToList();
        var named = Of(m => m.Words?.Any(w => w.Contains(' ') && SeenWords.SaysTogether(text, w)) == true);
        if (named.Count == 0)
            named = Of(m => m.Words?.Any(w => SeenWords.Says(text, w)) == true);
        // What comes and goes under a finger is loose, or dirty.
        if (named.Count == 0 && probe.Kind == ProbeKind.Press && SeenWords.ComesAndGoes(text))
            named = Of(m => m.Effect == ModeEffect.Intermittent || m.Resistive);
        return named.Count == 0 && parts.Count > 0 ? there : named;
    }

    /// <summary>Of several parts that a probe touches those that some words name: by what is printed beside them, or by a word that
    /// only their name has; none when they name none, or all.</summary>
    private List<PartId> PartsNamed(Probe probe, string text)
    {
        var parts = probe.PartIds().Distinct().Select(Profile.FindPart).OfType<Part>().ToList();
        if (parts.Count < 2)
            return [];
        var printed = Refdes.Expand(text);
        static HashSet<string> Words(Part part) =>
            part.Name.ToLowerInvariant().Split(' ').Where(w => w.Length >= LeastName && w.All(char.IsLetter)).ToHashSet();
        var named = parts
            .Where(p =>
                Refdes.Expand(p.Refdes).Overlaps(printed)
                || Numbered().Matches(p.Name).Any(m => Regex.IsMatch(text, $@"\b{m.Groups[1].Value} ?{m.Groups[2].Value}\b", RegexOptions.IgnoreCase))
                || Words(p).Except(parts.Where(o => o.Id != p.Id).SelectMany(Words)).Any(w => SeenWords.Names(text, w))
            )
            .Select(p => p.Id)
            .ToList();
        return named.Count < parts.Count ? named : [];
    }

    /// <summary>A name with a number, such as “Line 2”.</summary>
    [GeneratedRegex("([A-Za-z]+) ([0-9]+)")]
    private static partial Regex Numbered();

    /// <summary>Letters that a word of a name has at least by which a part is known.</summary>
    private const int LeastName = 4;

    private FindingTemplate Told(FindingTemplate plain, IReadOnlyList<int> named) =>
        _templates.GetOrAdd(
            $"{plain.Id}:{string.Join(',', named)}",
            id => new FindingTemplate(
                id,
                EvidenceWeights.NamedLeak,
                plain.Links.Select(l => named.Contains(l.Fault) ? l : l with { P = l.P * EvidenceWeights.OtherWord }).ToList(),
                plain.Damage?.ToDictionary(d => d.Key, d => d.Value * 0.4)
            )
        );

    // What is seen by a lamp held to a dark screen. Common English.
    private static readonly string[] OnTheScreen = ["picture", "image", "game", "menu", "logo", "letters", "faint*"];

    /// <summary>Whether a look at what lights a picture found the picture itself, by the words for it: “a faint picture”, “no picture
    /// either”. Null where it says nothing of that, and for any other look.</summary>
    public bool? PictureSeen(Probe probe, ProbeTaken taken)
    {
        if (taken is not { Outcome: ProbeOutcome.Abnormal, Words: { } words } || Lit is not { } picture || !probe.PartIds().All(LightOf(picture).Contains))
            return null;
        var text = words.ToLowerInvariant();
        return OnTheScreen.Any(w => SeenWords.Says(text, w)) ? true
            : OnTheScreen.Any(w => SeenWords.Denies(text, w)) ? false
            : null;
    }

    /// <summary>The picture that has a light of its own; null where none has.</summary>
    public DeviceFunction? Lit => _lit.Value;

    private readonly Lazy<DeviceFunction?> _lit;

    /// <summary>“There is no picture under a lamp”: what gives light has no part in it.</summary>
    public FindingTemplate PictureUnderALamp(DeviceFunction picture)
    {
        var plain = FunctionFails(picture);
        var light = LightOf(picture);
        return _templates.GetOrAdd(
            $"lamp:{picture.Id}",
            id => plain with { Id = id, Links = plain.Links.Where(l => !light.Contains(Faults[l.Fault].Part.Id)).ToList() }
        );
    }

    /// <summary>Parts of the rail on which a reading has found a dead short; none for any other reading.</summary>
    public IReadOnlySet<PartId> ShortedBy(ProbeTaken taken) =>
        taken is { Outcome: ProbeOutcome.Abnormal, Degree: ReadingDegree.Short } && Profile.FindProbe(taken.ProbeId)?.Rail is { } rail
            ? Graph.RailOf(rail).Members
            : new HashSet<PartId>();

    private bool MakesVolts(int fault) => Graph.Has(Faults[fault].Part.Id, PartRole.Store);
}
