using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A failure that was filed without how it looks.</summary>
/// <param name="Record">The entry.</param>
/// <param name="Starts">How often it failed in a row.</param>
/// <param name="Function">What fails.</param>
/// <param name="Looks">How it may look.</param>
public sealed record UntoldLook(long Record, int Starts, DeviceFunction Function, IReadOnlyList<Look> Looks);
