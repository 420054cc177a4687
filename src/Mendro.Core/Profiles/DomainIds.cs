using System.Text.Json.Serialization;

namespace Mendro.Core.Profiles;

/// <summary>
/// Ids of the domain as types, so that the compiler tells a part from a method. Text becomes an id where one is wanted, and
/// an id can be written as text; one sort of id never becomes another.
/// </summary>
/// <typeparam name="TSelf">The id.</typeparam>
public interface IDomainId<TSelf> : IComparable<TSelf>
    where TSelf : struct, IDomainId<TSelf>
{
    /// <summary>The id as text; never null.</summary>
    string Value { get; }

    /// <summary>Makes the id of a text.</summary>
    static abstract TSelf Of(string value);
}

/// <summary>Id of a part, unique in its profile.</summary>
/// <param name="Value">The id as text.</param>
[JsonConverter(typeof(DomainIdConverter<PartId>))]
public readonly record struct PartId(string Value) : IDomainId<PartId>
{
    /// <inheritdoc/>
    public string Value { get; } = Value ?? "";

    /// <inheritdoc/>
    public static PartId Of(string value) => new(value);

    /// <inheritdoc/>
    public int CompareTo(PartId other) => string.CompareOrdinal(Value, other.Value);

    /// <summary>Text where the id is wanted.</summary>
    public static implicit operator PartId(string value) => new(value);

    /// <summary>The id where text is wanted.</summary>
    public static implicit operator string(PartId id) => id.Value ?? "";

    /// <summary>Compares with text.</summary>
    public static bool operator ==(PartId id, string? text) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(PartId id, string? text) => id.Value != text;

    /// <summary>Compares with text.</summary>
    public static bool operator ==(string? text, PartId id) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(string? text, PartId id) => id.Value != text;

    /// <inheritdoc/>
    public override string ToString() => Value ?? "";
}

/// <summary>Id of a function, unique in its profile.</summary>
/// <param name="Value">The id as text.</param>
[JsonConverter(typeof(DomainIdConverter<FunctionId>))]
public readonly record struct FunctionId(string Value) : IDomainId<FunctionId>
{
    /// <inheritdoc/>
    public string Value { get; } = Value ?? "";

    /// <inheritdoc/>
    public static FunctionId Of(string value) => new(value);

    /// <inheritdoc/>
    public int CompareTo(FunctionId other) => string.CompareOrdinal(Value, other.Value);

    /// <summary>Text where the id is wanted.</summary>
    public static implicit operator FunctionId(string value) => new(value);

    /// <summary>The id where text is wanted.</summary>
    public static implicit operator string(FunctionId id) => id.Value ?? "";

    /// <summary>Compares with text.</summary>
    public static bool operator ==(FunctionId id, string? text) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(FunctionId id, string? text) => id.Value != text;

    /// <summary>Compares with text.</summary>
    public static bool operator ==(string? text, FunctionId id) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(string? text, FunctionId id) => id.Value != text;

    /// <inheritdoc/>
    public override string ToString() => Value ?? "";
}

/// <summary>Id of a probe, unique in its profile.</summary>
/// <param name="Value">The id as text.</param>
[JsonConverter(typeof(DomainIdConverter<ProbeId>))]
public readonly record struct ProbeId(string Value) : IDomainId<ProbeId>
{
    /// <inheritdoc/>
    public string Value { get; } = Value ?? "";

    /// <inheritdoc/>
    public static ProbeId Of(string value) => new(value);

    /// <inheritdoc/>
    public int CompareTo(ProbeId other) => string.CompareOrdinal(Value, other.Value);

    /// <summary>Text where the id is wanted.</summary>
    public static implicit operator ProbeId(string value) => new(value);

    /// <summary>The id where text is wanted.</summary>
    public static implicit operator string(ProbeId id) => id.Value ?? "";

    /// <summary>Compares with text.</summary>
    public static bool operator ==(ProbeId id, string? text) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(ProbeId id, string? text) => id.Value != text;

    /// <summary>Compares with text.</summary>
    public static bool operator ==(string? text, ProbeId id) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(string? text, ProbeId id) => id.Value != text;

    /// <inheritdoc/>
    public override string ToString() => Value ?? "";
}

/// <summary>Id of a method of the library.</summary>
/// <param name="Value">The id as text.</param>
[JsonConverter(typeof(DomainIdConverter<MethodId>))]
public readonly record struct MethodId(string Value) : IDomainId<MethodId>
{
    /// <inheritdoc/>
    public string Value { get; } = Value ?? "";

    /// <inheritdoc/>
    public static MethodId Of(string value) => new(value);

    /// <inheritdoc/>
    public int CompareTo(MethodId other) => string.CompareOrdinal(Value, other.Value);

    /// <summary>Text where the id is wanted.</summary>
    public static implicit operator MethodId(string value) => new(value);

    /// <summary>The id where text is wanted.</summary>
    public static implicit operator string(MethodId id) => id.Value ?? "";

    /// <summary>Compares with text.</summary>
    public static bool operator ==(MethodId id, string? text) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(MethodId id, string? text) => id.Value != text;

    /// <summary>Compares with text.</summary>
    public static bool operator ==(string? text, MethodId id) => id.Value == text;

    /// <summary>Compares with text.</summary>
    public static bool operator !=(string? text, MethodId id) => id.Value != text;

    /// <inheritdoc/>
    public override string ToString() => Value ?? "";
}
