using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Profiles;

namespace Mendro.Core.Proving;

/// <summary>How a unit is started in a run that is to prove the cure of an intermittent fault.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">What is done.</param>
/// <param name="Share">Share of the starts, 0 to 1; all together 1 (common practice, no source).</param>
public sealed record StartCondition(string Id, string Name, double Share)
{
    /// <summary>The protocol: cold mostly, then with a hand on it, warm, and with another cartridge or disc.</summary>
    public static IReadOnlyList<StartCondition> Protocol { get; } =
    [
        new("cold", "cold", 0.4),
        new("wiggled", "pressed and wiggled", 0.25),
        new("warm", "warm", 0.2),
        new("other", "with another cartridge or disc", 0.15),
    ];
}

/// <summary>One start.</summary>
/// <param name="Under">Condition it was made under.</param>
/// <param name="Works">True when the function worked.</param>
public sealed record OneStart(string Under, bool Works);

/// <summary>A run of starts that is under way, and what it decides; kept as JSON.</summary>
/// <param name="Limits">What is accepted and refused, with which risks.</param>
/// <param name="Starts">Starts in order.</param>
public sealed record StartsUnderWay(SequentialTest Limits, IReadOnlyList<OneStart> Starts)
{
    /// <summary>Most starts of a run.</summary>
    public const int Most = 1000;

    /// <summary>What a shop accepts until it decides otherwise: 2 % is a good unit, 20 % is not cured (common practice, no source).</summary>
    public static SequentialTest Usual { get; } = new(0.02, 0.2, 0.05, 0.05);

    /// <summary>Failed starts.</summary>
    [JsonIgnore]
    public int Failures => Starts.Count(s => !s.Works);

    /// <summary>What the run decides, at the first start that decided it.</summary>
    [JsonIgnore]
    public SequentialDecision Decision
    {
        get
        {
            var failures = 0;
            for (var n = 0; n < Starts.Count; n++)
            {
                failures += Starts[n].Works ? 0 : 1;
                if (Limits.Decide(n + 1, failures) is var told && told != SequentialDecision.GoOn)
                    return told;
            }

            return SequentialDecision.GoOn;
        }
    }

    /// <summary>Further starts without a failure until it is accepted.</summary>
    [JsonIgnore]
    public int ToAccept => Limits.StartsToAccept(Starts.Count, Failures);

    /// <summary>The condition that lags farthest behind its share: the next start is made under it.</summary>
    [JsonIgnore]
    public StartCondition Next =>
        StartCondition.Protocol.MaxBy(c => c.Share * (Starts.Count + 1) - Starts.Count(s => s.Under == c.Id))!;

    /// <summary>Reads one; null when it cannot be read.</summary>
    public static StartsUnderWay? Read(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<StartsUnderWay>(json, ProfileJson.Options) is { Limits.Problem: null, Starts: not null } run ? run : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>Writes it.</summary>
    public string Write() => JsonSerializer.Serialize(this, ProfileJson.Options);
}
