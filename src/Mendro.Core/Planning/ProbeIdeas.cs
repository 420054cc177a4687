using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Planning;

/// <summary>A check that a model does not have and could.</summary>
/// <param name="Probe">The check.</param>
/// <param name="Part">The part it is at.</param>
/// <param name="Line">The line that teaches it; see <see cref="Teaching"/>.</param>
/// <param name="Shows">Chance that it shows each fault, by fault index of the model.</param>
/// <param name="Bits">What one answer of it tells of the cause of a failing unit, bits; each function weighed by how often it
/// fails.</param>
public sealed record ProbeIdea(Probe Probe, Part Part, string Line, IReadOnlyDictionary<int, double> Shows, double Bits);

/// <summary>
/// Thinks of checks to add to a model: volts behind a part that passes power on, a beep through it, a look at it, a finger on it;
/// each where the model has none of the kind, and the part fails in a way that such a check shows.
/// </summary>
public static class ProbeIdeas
{
    /// <summary>Checks that could be added, the most telling first.</summary>
    /// <param name="model">The model.</param>
    public static IReadOnlyList<ProbeIdea> For(DeviceModel model) =>
        model
            .Profile.Parts.Where(p => model.Library.FindPartKind(p.Kind)?.Gear != true)
            .SelectMany(p => Lines(model, p).Select(line => (Part: p, Line: line)))
            .Select(x => Idea(model, x.Part, x.Line))
            .OfType<ProbeIdea>()
            .Where(i => i.Bits > 0)
            .OrderByDescending(i => i.Bits)
            .ToList();

    private static IEnumerable<string> Lines(DeviceModel model, Part part)
    {
        var (profile, modes) = (model.Profile, model.FaultsOf(part.Id).Select(f => model.Faults[f].Mode).ToList());
        bool Has(params ProbeKind[] kinds) => profile.Probes.Any(p => kinds.Contains(p.Kind) && p.PartIds().Contains(part.Id));
        if (!Has(ProbeKind.Volts) && Volts(model, part) is { } range)
            yield return $"probe {part.Name} out at {part.Id} {range}";
        if (!Has(ProbeKind.Continuity, ProbeKind.Ohms, ProbeKind.Diode) && Passes(profile, part) && Shown(modes, ProbeKind.Continuity))
            yield return $"beep at {part.Id}";
        if (!Has(ProbeKind.Look) && Shown(modes, ProbeKind.Look))
            yield return $"look at {part.Id}";
        if (!Has(ProbeKind.Press) && Shown(modes, ProbeKind.Press))
            yield return $"press at {part.Id}";
    }

    private static bool Passes(DeviceProfile profile, Part part) =>
        profile.Feeds.Any(f => f.From == part.Id) && profile.Feeds.Any(f => f.To == part.Id);

    private static bool Shown(IEnumerable<FailureMode> modes, ProbeKind kind) =>
        modes.Any(m => DeviceModel.Detects(m, kind) >= ModelCheck.Telling);

    /// <summary>The range of good volts behind a part: as at another point of its rail, or by the rule of the trade.</summary>
    private static string? Volts(DeviceModel model, Part part)
    {
        var profile = model.Profile;
        if (profile.Feeds.FirstOrDefault(f => f.From == part.Id && f.Carries == Carries.Power) is null)
            return null;
        var bare = new Probe(
            new ProbeId("idea"),
            part.Name,
            "",
            ProbeKind.Volts,
            part.Id,
            null,
            null,
            null,
            new Expectation(null, null, "V"),
            AccessState.Open
        );
        var ruled = ExpectationRules.For(profile, bare).Probe.Expect;
        var expect = ruled is { Low: not null, High: not null } ? ruled : Alike(model, part);
        return expect is { Low: { } low, High: { } high }
            ? string.Create(CultureInfo.InvariantCulture, $"{low:0.###} to {high:0.###} V")
            : null;
    }

    /// <summary>What feeds the part on the same rail shows the same volts as the part itself, when it passes them on.</summary>
    private static Expectation? Alike(DeviceModel model, Part part)
    {
        var profile = model.Profile;
        var seen = new HashSet<PartId> { part.Id };
        var pending = new Queue<PartId>([part.Id]);
        while (pending.TryDequeue(out var at))
        {
            if (
                profile.Probes.FirstOrDefault(p => p.Kind == ProbeKind.Volts && p.At is { } point && point == at && !p.Unloaded) is
                { } known
            )
                return known.Expect;
            // Behind what makes another voltage nothing is known of it.
            if (model.Graph.Has(at, PartRole.Converter))
                return null;
            foreach (var feed in profile.Feeds.Where(f => f.To == at && f.Carries == Carries.Power && seen.Add(f.From)))
                pending.Enqueue(feed.From);
        }

        return null;
    }

    private static ProbeIdea? Idea(DeviceModel model, Part part, string line)
    {
        var read = Teaching.Read(model.Profile, model.Library, line);
        if (!read.IsOk || read.Value.Profile is not { } taught)
            return null;
        // Parts stay as they are, so that faults keep their index.
        var with = new DeviceModel(taught, model.Library);
        var probe = taught.Probes[^1];
        var shows = with.ProbeAbnormal(probe).Links.GroupBy(l => l.Fault).ToDictionary(g => g.Key, g => g.Max(l => l.P));
        return new ProbeIdea(probe, part, line, shows, Bits(model, shows));
    }

    /// <summary>Mutual information of the answer and the fault, one fault at a time, summed over the functions by how often each
    /// fails (Shannon 1948).</summary>
    private static double Bits(DeviceModel model, Dictionary<int, double> shows)
    {
        var bits = 0.0;
        foreach (var function in model.Profile.Functions)
        {
            var weights = model.FunctionFails(function).Links.Select(l => (l.Fault, W: l.P * model.Faults[l.Fault].Prior)).ToList();
            var all = weights.Sum(w => w.W);
            if (all <= 0)
                continue;
            var mean = weights.Sum(w => w.W * shows.GetValueOrDefault(w.Fault)) / all;
            bits += all * (Entropy(mean) - weights.Sum(w => w.W * Entropy(shows.GetValueOrDefault(w.Fault))) / all);
        }

        return bits;
    }

    private static double Entropy(double p) => p is <= 0 or >= 1 ? 0 : -p * Math.Log2(p) - (1 - p) * Math.Log2(1 - p);
}
