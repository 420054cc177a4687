namespace Mendro.Core.Profiles;

/// <summary>A board revision and how to tell it apart.</summary>
/// <param name="Id">Short id, such as <c>A</c>.</param>
/// <param name="Tell">What to look at to know it.</param>
public sealed record Revision(string Id, string Tell);
