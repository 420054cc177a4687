using System.Diagnostics.CodeAnalysis;

namespace Mendro.Core;

/// <summary>A value or the reason there is none; the reason is a sentence a technician can act on.</summary>
/// <typeparam name="T">What is returned when all went well.</typeparam>
public readonly record struct Outcome<T>
    where T : class
{
    private Outcome(T? value, string? problem) => (Value, Problem) = (value, problem);

    /// <summary>The value, or null when there is a problem.</summary>
    public T? Value { get; }

    /// <summary>The reason there is no value, or null when there is one.</summary>
    public string? Problem { get; }

    /// <summary>True when there is a value.</summary>
    [MemberNotNullWhen(true, nameof(Value))]
    [MemberNotNullWhen(false, nameof(Problem))]
    public bool IsOk => Problem is null && Value is not null;

    /// <summary>Wraps a value.</summary>
    public static Outcome<T> Ok(T value) => new(value, null);

    /// <summary>Wraps a problem.</summary>
    public static Outcome<T> Fail(string problem) => new(null, problem);
}
