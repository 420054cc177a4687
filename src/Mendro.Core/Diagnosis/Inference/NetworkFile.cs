using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>Reads <c>mendro.network/1</c> and answers it: the <c>diagnose</c> command.</summary>
public static class NetworkFile
{
    /// <summary>The format name every network file carries.</summary>
    public const string FormatName = "mendro.network/1";

    /// <summary>Computes the posterior of a network file.</summary>
    /// <param name="json">Text of the file.</param>
    /// <param name="time">Clock for the reported milliseconds.</param>
    /// <returns>The answer, or a message that names the place of the error.</returns>
    public static Outcome<NetworkAnswer> Diagnose(string json, TimeProvider time)
    {
        if (ProfileJson.Deserialize<NetworkDocument>(json, out var document) is { } unreadable)
            return Outcome<NetworkAnswer>.Fail(unreadable);
        if (document is null)
            return Outcome<NetworkAnswer>.Fail("The file is empty.");
        if (document.Format != FormatName)
            return Outcome<NetworkAnswer>.Fail($"format: expected “{FormatName}”.");
        if (Build(document, out var network, out var observed) is { } problem)
            return Outcome<NetworkAnswer>.Fail(problem);

        var started = time.GetTimestamp();
        var outcome = NoisyOrInference.Infer(network, observed);
        if (!outcome.IsOk)
            return Outcome<NetworkAnswer>.Fail(outcome.Problem!);
        var posterior = outcome.Value;
        var faults = network.Faults.Select((f, i) => new FaultAnswer(f.Id, posterior.Fault(i))).ToList();
        var findings = network.Findings.Select((f, i) => new FindingAnswer(f.Id, posterior.Finding(i))).ToList();
        return Outcome<NetworkAnswer>.Ok(
            new NetworkAnswer(posterior.EvidenceProbability, faults, findings, time.GetElapsedTime(started).TotalMilliseconds)
        );
    }

    private static string? Build(NetworkDocument document, out FaultNetwork network, out List<Observed> observed)
    {
        network = new FaultNetwork([], []);
        observed = [];
        var faults = new List<Fault>();
        var faultIndex = new Dictionary<string, int>();
        foreach (var fault in document.Faults ?? [])
        {
            if (string.IsNullOrEmpty(fault.Id))
                return $"faults[{faults.Count}].id: missing.";
            if (!Probability(fault.Prior))
                return $"faults[{faults.Count}].prior: must be a number from 0 to 1.";
            if (!faultIndex.TryAdd(fault.Id, faults.Count))
                return $"faults[{faults.Count}].id: “{fault.Id}” is used twice.";
            faults.Add(new Fault(fault.Id, fault.Prior!.Value));
        }

        var findings = new List<Finding>();
        var findingIndex = new Dictionary<string, int>();
        foreach (var finding in document.Findings ?? [])
        {
            var place = $"findings[{findings.Count}]";
            if (string.IsNullOrEmpty(finding.Id))
                return $"{place}.id: missing.";
            if (!Probability(finding.Leak ?? 0))
                return $"{place}.leak: must be a number from 0 to 1.";
            if (!findingIndex.TryAdd(finding.Id, findings.Count))
                return $"{place}.id: “{finding.Id}” is used twice.";
            var links = new List<Link>();
            foreach (var link in finding.Links ?? [])
            {
                if (link.Fault is null || !faultIndex.TryGetValue(link.Fault, out var index))
                    return $"{place}.links[{links.Count}].fault: there is no fault “{link.Fault}”.";
                if (!Probability(link.P))
                    return $"{place}.links[{links.Count}].p: must be a number from 0 to 1.";
                if (links.Any(l => l.Fault == index))
                    return $"{place}.links[{links.Count}].fault: “{link.Fault}” is linked twice.";
                links.Add(new Link(index, link.P!.Value));
            }

            findings.Add(new Finding(finding.Id, finding.Leak ?? 0, links));
        }

        foreach (var seen in document.Observed ?? [])
        {
            var place = $"observed[{observed.Count}]";
            if (seen.Finding is null || !findingIndex.TryGetValue(seen.Finding, out var index))
                return $"{place}.finding: there is no finding “{seen.Finding}”.";
            if (seen.State is not ("present" or "absent"))
                return $"{place}.state: must be “present” or “absent”.";
            observed.Add(new Observed(index, seen.State == "present"));
        }

        network = new FaultNetwork(faults, findings);
        return null;
    }

    private static bool Probability(double? p) => p is >= 0 and <= 1;

    private sealed record NetworkDocument(
        string? Format,
        List<FaultEntry>? Faults,
        List<FindingEntry>? Findings,
        List<ObservedEntry>? Observed
    );

    private sealed record FaultEntry(string? Id, double? Prior);

    private sealed record FindingEntry(string? Id, double? Leak, List<LinkEntry>? Links);

    private sealed record LinkEntry(string? Fault, double? P);

    private sealed record ObservedEntry(string? Finding, string? State);
}

/// <summary>Answer of the <c>diagnose</c> command.</summary>
/// <param name="EvidenceProbability">Probability of everything observed.</param>
/// <param name="Faults">Posterior of every fault.</param>
/// <param name="Findings">Probability that each finding is, or would be, present.</param>
/// <param name="Milliseconds">Time of the inference.</param>
public sealed record NetworkAnswer(
    double EvidenceProbability,
    IReadOnlyList<FaultAnswer> Faults,
    IReadOnlyList<FindingAnswer> Findings,
    double Milliseconds
);

/// <summary>Posterior of one fault.</summary>
/// <param name="Id">Fault id.</param>
/// <param name="Posterior">Probability that it is present, 0 to 1.</param>
public sealed record FaultAnswer(string Id, double Posterior);

/// <summary>Probability of one finding.</summary>
/// <param name="Id">Finding id.</param>
/// <param name="Probability">Probability that it is present, 0 to 1.</param>
public sealed record FindingAnswer(string Id, double Probability);
