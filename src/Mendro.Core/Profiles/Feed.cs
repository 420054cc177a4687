namespace Mendro.Core.Profiles;

/// <summary>One part feeding another.</summary>
/// <param name="From">Part id the flow comes from.</param>
/// <param name="To">Part id it goes to.</param>
/// <param name="Carries">What flows.</param>
public sealed record Feed(PartId From, PartId To, Carries Carries);
