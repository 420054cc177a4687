using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>What holds a unit together: for the screw map and the list of drivers.</summary>
public sealed class FastenerSection : ProfileSection
{
    /// <inheritdoc/>
    public override string Key => "fasteners";

    /// <inheritdoc/>
    public override string Title => "Screws and clips";

    /// <inheritdoc/>
    public override string Hint => "head and driver, length, place across and down the face (0 to 100), what hides it, its tray place";

    /// <inheritdoc/>
    public override string Example => "s1: tri-wing 1.5, 8 mm, at 12 80, on back, under foot, tray long\nh1: no screw, at 50 50";

    /// <inheritdoc/>
    public override string Known(TradeLibrary library) => "Without a driver: clip, foot, sticker, latch, solder.";

    /// <inheritdoc/>
    public override string Write(DeviceProfile profile) => TeardownText.Write(profile.Fasteners ?? []);

    /// <inheritdoc/>
    public override DeviceProfile Read(DeviceProfile profile, string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var read = TeardownText.ReadFasteners(text, out problems);
        return profile with { Fasteners = read.Count > 0 ? read : null };
    }

    /// <inheritdoc/>
    public override void Check(DeviceProfile profile, TradeLibrary library, Action<string, string> report)
    {
        var all = profile.Fasteners ?? [];
        for (var n = 0; n < all.Count; n++)
        {
            var fastener = all[n];
            if (all.Take(n).Any(f => f.Id == fastener.Id))
                report($"fasteners[{n}].id", $"the id “{fastener.Id}” is used twice.");
            if (fastener.X is null != fastener.Y is null)
                report($"fasteners[{n}]", "a place has both ends: at 12 80.");
            if (new[] { fastener.X, fastener.Y }.Any(v => v is { } p && !(p >= 0 && p <= 100)))
                report($"fasteners[{n}]", "a place is 0 to 100 across and down the face.");
            if (fastener.LengthMm is { } mm && !(mm > 0 && mm <= 200))
                report($"fasteners[{n}].lengthMm", "a length is up to 200 mm.");
        }
    }
}
