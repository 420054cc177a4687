namespace Mendro.Core.Evidence;

/// <summary>How bad something looks.</summary>
public enum SeenGrade
{
    /// <summary>Not told.</summary>
    Untold,

    /// <summary>A trace of it.</summary>
    Slight,

    /// <summary>A lot of it.</summary>
    Heavy,
}
