namespace Mendro.Core.Jobs;

/// <summary>Names a kind of record in files and in the database.</summary>
/// <param name="key">Key, lower case; never changed once records of the kind are kept.</param>
[AttributeUsage(AttributeTargets.Class)]
public sealed class RecordKindAttribute(string key) : Attribute
{
    /// <summary>Key of the kind.</summary>
    public string Key { get; } = key;

    /// <summary>Version of its payload; raised when a reader of the one before could not understand it.</summary>
    public int Version { get; init; } = 1;
}
