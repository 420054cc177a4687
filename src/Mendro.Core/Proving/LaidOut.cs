using Mendro.Core.Profiles;

namespace Mendro.Core.Proving;

/// <summary>What is laid out for a trial, by what the unit plays: the library says “cartridge” for whatever goes in.</summary>
public static class LaidOut
{
    private const string Cartridge = "cartridge";
    private const string Disc = "disc";

    /// <summary>What is put in to try a unit, such as “disc”; null for one into which nothing goes.</summary>
    /// <param name="profile">Profile of the unit.</param>
    public static string? Game(DeviceProfile profile) =>
        profile.Parts.FirstOrDefault(p => p.Kind is "test-cartridge" or "test-disc") is not { } game ? null
        // “Test card” is a card.
        : game.Name.StartsWith("Test ", StringComparison.Ordinal) ? game.Name["Test ".Length..].ToLowerInvariant()
        : game.Kind == "test-disc" ? Disc
        : Cartridge;

    /// <summary>Things to lay out, with what this unit plays in place of a cartridge. A disc keeps no save: its card does.</summary>
    /// <param name="profile">Profile of the unit.</param>
    /// <param name="with">What the library lays out.</param>
    public static IReadOnlyList<string> For(DeviceProfile profile, IReadOnlyList<string> with) =>
        Game(profile) is { } game && game != Cartridge
            ? [.. with.Select(w => w.Replace(Cartridge, KeepsNoSave(game, w) ? "card" : game, StringComparison.Ordinal))]
            : with;

    private static bool KeepsNoSave(string game, string with) => game == Disc && with.Contains("save", StringComparison.Ordinal);
}
