using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>Checks what a JSON Schema cannot: references, cycles, probes that tell nothing.</summary>
public static class ProfileValidator
{
    /// <summary>All problems of a profile; an empty list means that it can be diagnosed.</summary>
    public static IReadOnlyList<ProfileProblem> Check(DeviceProfile profile, TradeLibrary library)
    {
        var problems = new List<ProfileProblem>();
        void Report(string place, string message) => problems.Add(new ProfileProblem(place, message));

        if (profile.Format != DeviceProfile.FormatName)
            Report("format", $"must be “{DeviceProfile.FormatName}”.");
        ReportTwice(profile.Parts.Select(p => p.Id), "parts", Report);
        ReportTwice(profile.Functions.Select(f => f.Id), "functions", Report);
        ReportTwice(profile.Probes.Select(p => p.Id), "probes", Report);
        foreach (
            var (place, count, most) in ((string, int, int)[])
                [
                    ("parts", profile.Parts.Count, ProfileFormat.MostParts),
                    ("feeds", profile.Feeds.Count, ProfileFormat.MostFeeds),
                    ("functions", profile.Functions.Count, ProfileFormat.MostFunctions),
                    ("probes", profile.Probes.Count, ProfileFormat.MostProbes),
                ]
        )
            if (count > most)
                Report(
                    place,
                    FormattableString.Invariant(
                        $"{count} are too many, {most} the most: a model that large is two models, or a board of its own."
                    )
                );
        if (profile.Parts.Count == 0)
            Report("parts", "a profile needs at least one part.");
        if (profile.Functions.Count == 0)
            Report("functions", "a profile needs at least one function to test.");

        var known = profile.Parts.Select(p => p.Id).ToHashSet();
        for (var i = 0; i < profile.Parts.Count; i++)
        {
            var part = profile.Parts[i];
            var kind = library.FindPartKind(part.Kind);
            if (kind is null)
                Report($"parts[{i}].kind", $"the library has no part kind “{part.Kind}”.");
            if (part.Class is not null && kind is not null && kind.ClassOf(part) is null)
                Report($"parts[{i}].class", $"“{part.Kind}” has no class “{part.Class}”.");
            foreach (var mode in part.Modes ?? [])
            {
                if (kind is not null && kind.Modes.All(m => m.Id != mode.Mode))
                    Report($"parts[{i}].modes", $"“{part.Kind}” has no failure mode “{mode.Mode}”.");
                if (mode.Prior is < 0 or > 1)
                    Report($"parts[{i}].modes", $"the weight of “{mode.Mode}” must be 0 to 1.");
            }
        }

        for (var i = 0; i < profile.Feeds.Count; i++)
        {
            if (!known.Contains(profile.Feeds[i].From))
                Report($"feeds[{i}].from", $"there is no part “{profile.Feeds[i].From}”.");
            if (!known.Contains(profile.Feeds[i].To))
                Report($"feeds[{i}].to", $"there is no part “{profile.Feeds[i].To}”.");
        }

        for (var i = 0; i < profile.Functions.Count; i++)
        {
            var function = profile.Functions[i];
            if (function.Needs.Count == 0)
                Report($"functions[{i}].needs", $"“{function.Name}” needs no part, so nothing can explain its failure.");
            foreach (var need in function.Needs.Where(n => !known.Contains(n)))
                Report($"functions[{i}].needs", $"there is no part “{need}”.");
            if (library.FindFunctionKind(function.Kind) is null)
                Report($"functions[{i}].kind", $"the library has no function kind “{function.Kind}”.");
        }

        for (var i = 0; i < profile.Probes.Count; i++)
            CheckProbe(profile.Probes[i], i, known, Report);
        foreach (var section in ProfileSection.All)
            section.Check(profile, library, Report);
        CheckCycles(profile, Report);
        CheckReach(profile, library, Report);
        return problems;
    }

    private static void CheckProbe(Probe probe, int i, HashSet<PartId> known, Action<string, string> report)
    {
        var named = probe.NamedParts();
        foreach (var id in named.Where(id => !known.Contains(id)))
            report($"probes[{i}]", $"there is no part “{id}”.");
        var tells = probe.Kind is ProbeKind.Volts or ProbeKind.Current
            ? probe.At is not null
            : probe.Spans is { Count: > 0 } || probe.At is not null || probe.Rail is not null;
        if (!tells)
            report($"probes[{i}]", $"“{probe.Name}” spans nothing: name the part it is at, or the parts it spans.");
        if (probe.Expect is { Low: { } low, High: { } high } && low > high)
            report($"probes[{i}].expect", $"low ({low}) is above high ({high}).");
        if (!(probe.Minutes > 0))
            report($"probes[{i}].minutes", "must be more than 0.");
    }

    private static void CheckCycles(DeviceProfile profile, Action<string, string> report)
    {
        // Kahn's algorithm: whatever cannot be taken away stands on a cycle or behind one.
        var waiting = profile
            .Parts.Select(p => p.Id)
            .Distinct()
            .ToDictionary(id => id, id => profile.Feeds.Count(f => f.To == id && f.From != f.To));
        var ready = new Queue<PartId>(waiting.Where(p => p.Value == 0).Select(p => p.Key));
        while (ready.TryDequeue(out var id))
        {
            waiting.Remove(id);
            foreach (var feed in profile.Feeds.Where(f => f.From == id && waiting.ContainsKey(f.To)))
                if (--waiting[feed.To] == 0)
                    ready.Enqueue(feed.To);
        }

        if (waiting.Count > 0)
            report("feeds", $"the flow runs in a circle through {string.Join(", ", waiting.Keys.Order())}.");
        foreach (var feed in profile.Feeds.Where(f => f.From == f.To))
            report("feeds", $"“{feed.From}” feeds itself.");
    }

    private static void CheckReach(DeviceProfile profile, TradeLibrary library, Action<string, string> report)
    {
        var graph = ProfileGraph.Of(profile, library);
        var used = new HashSet<PartId>();
        foreach (var function in profile.Functions)
            used.UnionWith(graph.Closure(function, library.FindFunctionKind(function.Kind)?.Medium));
        foreach (var part in profile.Parts.Where(p => !used.Contains(p.Id)))
            report("functions", $"no function needs “{part.Name}”, so its failure would never show.");
    }

    private static void ReportTwice<TId>(IEnumerable<TId> ids, string place, Action<string, string> report)
    {
        foreach (var twice in ids.GroupBy(id => id).Where(g => g.Count() > 1))
            report(place, $"the id “{twice.Key}” is used {twice.Count()} times.");
    }
}
