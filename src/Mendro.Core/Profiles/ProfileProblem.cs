namespace Mendro.Core.Profiles;

/// <summary>Something wrong with a profile, and where.</summary>
/// <param name="Place">Place in the file, such as <c>feeds[3].to</c>.</param>
/// <param name="Message">What is wrong, in words.</param>
public sealed record ProfileProblem(string Place, string Message);
