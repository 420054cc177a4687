using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>What a bench waits for with its hands free.</summary>
public enum WaitKind
{
    /// <summary>An agent works.</summary>
    Soak,

    /// <summary>It lies in boiling water.</summary>
    Boil,

    /// <summary>It dries.</summary>
    Dry,

    /// <summary>Glue or paint sets.</summary>
    Cure,

    /// <summary>It lies in the sun.</summary>
    Sun,

    /// <summary>A pack charges.</summary>
    Charge,

    /// <summary>It runs under watch.</summary>
    Play,
}

/// <summary>A wait of a method.</summary>
/// <param name="Kind">What is waited for.</param>
/// <param name="Minutes">Least minutes.</param>
/// <param name="Most">Minutes that the careful give it, or the longest it may have; null when there is only one figure.</param>
public sealed record StepWait(WaitKind Kind, double Minutes, double? Most = null);

/// <summary>One step of a method. What it puts on the unit is checked against all that is on it already.</summary>
/// <param name="Do">What to do, in words.</param>
/// <param name="Minutes">Hands-on minutes; null for its even share of what the method takes.</param>
/// <param name="Wait">A wait with the hands free that this step is; null for work.</param>
/// <param name="Agent">Agent that is put on, by its id among the materials.</param>
/// <param name="Surface">Surface that it is put on.</param>
/// <param name="Rinse">True when it is rinsed.</param>
/// <param name="Heat">Iron or air, °C.</param>
/// <param name="Power">True when the unit is switched on.</param>
/// <param name="Cautions">Cautions that belong to this very step.</param>
[JsonConverter(typeof(MethodStepConverter))]
public sealed record MethodStep(
    string Do,
    double? Minutes = null,
    StepWait? Wait = null,
    string? Agent = null,
    string? Surface = null,
    bool Rinse = false,
    double? Heat = null,
    bool Power = false,
    IReadOnlyList<string>? Cautions = null
);

/// <summary>The check with which a method ends. Where the model has a probe for it, the answer is that probe's reading.</summary>
/// <param name="Say">What to do and how it should be.</param>
/// <param name="Good">Answer when it is well.</param>
/// <param name="Bad">Answer when it is not.</param>
/// <param name="By">Kinds of probe of the treated part that this check is, the nearest first.</param>
public sealed record MethodCheck(string Say, string Good, string Bad, IReadOnlyList<ProbeKind> By);

/// <summary>Reads a step that is no more than words as words alone.</summary>
internal sealed class MethodStepConverter : JsonConverter<MethodStep>
{
    public override MethodStep Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.String)
            return new MethodStep(reader.GetString()!);
        var told = JsonSerializer.Deserialize<Told>(ref reader, options) ?? throw new JsonException("A step is empty.");
        return new MethodStep(
            told.Do,
            told.Minutes,
            told.Wait,
            told.Agent,
            told.Surface,
            told.Rinse,
            told.Heat,
            told.Power,
            told.Cautions
        );
    }

    public override void Write(Utf8JsonWriter writer, MethodStep value, JsonSerializerOptions options)
    {
        if (value == new MethodStep(value.Do))
            writer.WriteStringValue(value.Do);
        else
            JsonSerializer.Serialize(
                writer,
                new Told(
                    value.Do,
                    value.Minutes,
                    value.Wait,
                    value.Agent,
                    value.Surface,
                    value.Rinse,
                    value.Heat,
                    value.Power,
                    value.Cautions
                ),
                options
            );
    }

    // The same members without the converter.
    private sealed record Told(
        string Do,
        double? Minutes = null,
        StepWait? Wait = null,
        string? Agent = null,
        string? Surface = null,
        bool Rinse = false,
        double? Heat = null,
        bool Power = false,
        IReadOnlyList<string>? Cautions = null
    );
}
