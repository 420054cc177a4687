namespace Mendro.Core.Diagnosis;

/// <summary>Something that may be wrong, independent of the others before anything is seen.</summary>
/// <param name="Id">Id, unique in the network.</param>
/// <param name="Prior">Chance that it is present before anything is seen, 0 to 1.</param>
public sealed record Fault(string Id, double Prior);

/// <summary>How surely a fault alone makes a finding present.</summary>
/// <param name="Fault">Index of the fault in the network.</param>
/// <param name="P">Probability, 0 to 1.</param>
public readonly record struct Link(int Fault, double P);

/// <summary>Something that can be seen or measured; present or absent.</summary>
/// <param name="Id">Id, unique in the network.</param>
/// <param name="Leak">Chance that it is present with no fault at all: bench error, or a cause the profile lacks.</param>
/// <param name="Links">Faults that can make it present.</param>
public sealed record Finding(string Id, double Leak, IReadOnlyList<Link> Links);

/// <summary>
/// A two-layer noisy-OR network: independent faults above, findings below. A finding is absent only if its leak
/// and every present fault linked to it fail to make it present.
/// </summary>
/// <param name="Faults">Faults.</param>
/// <param name="Findings">Findings.</param>
public sealed record FaultNetwork(IReadOnlyList<Fault> Faults, IReadOnlyList<Finding> Findings);

/// <summary>A finding that was looked for.</summary>
/// <param name="Finding">Index of the finding in the network.</param>
/// <param name="Present">True when it was seen.</param>
public readonly record struct Observed(int Finding, bool Present);
