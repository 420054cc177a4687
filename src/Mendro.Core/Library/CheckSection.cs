using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>What is tried before a unit of this model leaves, besides its functions.</summary>
public sealed class CheckSection : ProfileSection
{
    /// <inheritdoc/>
    public override string Key => "checks";

    /// <inheritdoc/>
    public override string Title => "Checks before it leaves";

    /// <inheritdoc/>
    public override string Hint => "besides its functions: how, what good looks like, what it proves, what is laid out, after which repairs";

    /// <inheritdoc/>
    public override string Example =>
        "slot2: Second card slot; how start from it; good starts at once; proves cartridge; with known-good cartridge; 2 min";

    /// <inheritdoc/>
    public override string Write(DeviceProfile profile) => ProofCheckText.Write(profile.Checks ?? []);

    /// <inheritdoc/>
    public override DeviceProfile Read(DeviceProfile profile, string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var read = ProofCheckText.Read(text, out problems);
        return profile with { Checks = read.Count > 0 ? read : null };
    }

    /// <inheritdoc/>
    public override void Check(DeviceProfile profile, TradeLibrary library, Action<string, string> report)
    {
        var all = profile.Checks ?? [];
        for (var n = 0; n < all.Count; n++)
        {
            var check = all[n];
            if (all.Take(n).Any(c => c.Id == check.Id))
                report($"checks[{n}].id", $"the id “{check.Id}” is used twice.");
            if (check.Function is { } proves && profile.FindFunction(proves) is null)
                report($"checks[{n}].function", $"there is no function “{proves}”.");
            foreach (var lost in (check.After ?? []).Where(p => profile.FindPart(p) is null))
                report($"checks[{n}].after", $"there is no part “{lost}”.");
        }
    }
}
