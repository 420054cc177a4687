using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>Connectors whose contacts can be swept one by one.</summary>
public sealed class ConnectorSection : ProfileSection
{
    /// <inheritdoc/>
    public override string Key => "connectors";

    /// <inheritdoc/>
    public override string Title => "Connectors";

    /// <inheritdoc/>
    public override string Hint => "for the contact map: the connector, then each row with its first number and step";

    /// <inheritdoc/>
    public override string Example =>
        "slot: Cartridge slot, part slot, probe slot-beep\nleft 1 +2: supply 5 V, address A0, data D0, ground";

    /// <inheritdoc/>
    public override string Known(TradeLibrary library) => $"Groups: {string.Join(", ", library.ContactGroups.Select(g => g.Id))}.";

    /// <inheritdoc/>
    public override string Write(DeviceProfile profile) => ConnectorText.Write(profile.Connectors ?? []);

    /// <inheritdoc/>
    public override DeviceProfile Read(DeviceProfile profile, string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var connectors = ConnectorText.Read(text, out problems);
        return profile with { Connectors = connectors.Count > 0 ? connectors : null };
    }

    /// <inheritdoc/>
    public override void Check(DeviceProfile profile, TradeLibrary library, Action<string, string> report)
    {
        var all = profile.Connectors ?? [];
        for (var i = 0; i < all.Count; i++)
            Check(profile, all, i, library, report);
    }

    private static void Check(
        DeviceProfile profile,
        IReadOnlyList<Connector> all,
        int i,
        TradeLibrary library,
        Action<string, string> report
    )
    {
        var connector = all[i];
        if (profile.FindPart(connector.Part) is null)
            report($"connectors[{i}].part", $"there is no part “{connector.Part}”.");
        if (connector.Probe is { } probe && profile.FindProbe(probe)?.Kind != ProbeKind.Continuity)
            report($"connectors[{i}].probe", $"“{probe}” is no continuity probe of this profile.");
        if (all.Count(c => c.Id == connector.Id) > 1)
            report($"connectors[{i}].id", $"the id “{connector.Id}” is used twice.");
        foreach (var twice in connector.Contacts.GroupBy(c => c.Number).Where(g => g.Count() > 1))
            report($"connectors[{i}].rows", $"there are {twice.Count()} contacts number {twice.Key}.");
        foreach (var group in connector.Contacts.Select(c => c.Group).Distinct().Where(g => library.ContactGroups.All(k => k.Id != g)))
        {
            var known = string.Join(", ", library.ContactGroups.Select(k => k.Id));
            report($"connectors[{i}].rows", $"the library has no contact group “{group}”; known: {known}.");
        }
    }
}
