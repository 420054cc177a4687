using System.Text.Json;
using System.Text.Json.Serialization;

namespace Mendro.Core.Profiles;

/// <summary>Writes an id as its text, also as the name of a member.</summary>
/// <typeparam name="TId">The id.</typeparam>
public sealed class DomainIdConverter<TId> : JsonConverter<TId>
    where TId : struct, IDomainId<TId>
{
    /// <inheritdoc/>
    public override TId Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String ? TId.Of(reader.GetString()!) : throw new JsonException("An id is text.");

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, TId value, JsonSerializerOptions options) => writer.WriteStringValue(value.Value);

    /// <inheritdoc/>
    public override TId ReadAsPropertyName(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        TId.Of(reader.GetString()!);

    /// <inheritdoc/>
    public override void WriteAsPropertyName(Utf8JsonWriter writer, TId value, JsonSerializerOptions options) =>
        writer.WritePropertyName(value.Value);
}
