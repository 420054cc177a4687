namespace Mendro.Core.Library;

/// <summary>One way in which benches do it.</summary>
/// <param name="Name">Name.</param>
/// <param name="Range">Its figures.</param>
/// <param name="Who">Who prefers it.</param>
/// <param name="TradeOff">What speaks for and against it.</param>
public sealed record RegimeOption(string Name, string Range, string Who, string TradeOff);

/// <summary>Something that benches argue about.</summary>
/// <param name="Id">Id.</param>
/// <param name="Topic">What about.</param>
/// <param name="Options">The ways, side by side.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="Methods">Methods that it concerns.</param>
/// <param name="Agents">Agents that it concerns, whatever the method.</param>
public sealed record Regime(
    string Id,
    string Topic,
    IReadOnlyList<RegimeOption> Options,
    string Source,
    IReadOnlyList<string>? Methods = null,
    IReadOnlyList<string>? Agents = null
)
{
    /// <summary>True when a method is one of those it concerns.</summary>
    public bool Concerns(Method method) =>
        Methods?.Contains(method.Id.Value) == true || method.Steps.Any(s => s.Agent is { } agent && Agents?.Contains(agent) == true);
}
