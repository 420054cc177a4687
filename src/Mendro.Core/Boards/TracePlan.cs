using System.Text.Json;
using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>How a broken line is bridged.</summary>
public enum JumperSchool
{
    /// <summary>The whole run, from contact to contact: what is sick beside the break is out of it too.</summary>
    Bypass,

    /// <summary>Only the gap, between the nearest sound points.</summary>
    Patch,
}

/// <summary>What was decided for the traces and jumpers of one unit; kept as JSON.</summary>
public sealed record TracePlan
{
    /// <summary>Name of the format.</summary>
    public const string FormatName = "mendro.trace-plan/1";

    /// <summary>Name of the format.</summary>
    public string Format { get; init; } = FormatName;

    /// <summary>School.</summary>
    public JumperSchool School { get; init; }

    /// <summary>What is off the board now, so that what it hides can be reached.</summary>
    public IReadOnlyList<string> Off { get; init; } = [];

    /// <summary>Sort of wire for all; null to choose by current, length and room.</summary>
    public string? Wire { get; init; }

    /// <summary>Distance within which a new joint warms an old one, mm.</summary>
    public double ReheatMm { get; init; } = TraceLibrary.Shipped.Jumper.ReheatMm;

    /// <summary>Length to cut over length of the way, 1 to 10.</summary>
    public double Slack { get; init; } = TraceLibrary.Shipped.Jumper.Slack;

    /// <summary>Stripped at each end, mm.</summary>
    public double StripMm { get; init; } = TraceLibrary.Shipped.Jumper.StripMm;

    /// <summary>Reads one; a plan of another format is as good as none.</summary>
    public static TracePlan Read(string json)
    {
        try
        {
            var read = JsonSerializer.Deserialize<TracePlan>(json, ProfileJson.Options);
            return read?.Format == FormatName ? read : new TracePlan();
        }
        catch (JsonException)
        {
            return new TracePlan();
        }
    }

    /// <summary>Writes it.</summary>
    public string Write() => JsonSerializer.Serialize(this, ProfileJson.Options);
}
