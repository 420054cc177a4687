using System.Reflection;
using System.Text.Json;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Profiles;

/// <summary>Every section of a profile takes part in a merge: found by reflection, so that a new one cannot be forgotten.</summary>
public class ProfileMergeMembersTests
{
    // What says which profile it is; a merge brings two histories of one profile together and keeps it. Who made what goes along by Take.
    private static readonly string[] Identity =
    [
        nameof(DeviceProfile.Format), nameof(DeviceProfile.Id), nameof(DeviceProfile.Generic), nameof(DeviceProfile.Archetype), nameof(DeviceProfile.Build),
        nameof(DeviceProfile.Author), nameof(DeviceProfile.Licence),
    ];

    private static readonly IReadOnlyList<DeviceProfile> All =
    [
        .. TradeLibrary.Shipped.Profiles, .. TradeLibrary.Shipped.Archetypes,
        // What only a shop says of its own models.
        TradeLibrary.Shipped.Profiles[0] with { Confirmed = [TypicalSections.Fasteners] },
        TradeLibrary.Shipped.Profiles[0] with { Confirmed = [TypicalSections.Connectors, TypicalSections.Fasteners] },
    ];

    public static TheoryData<string> Sections =>
        [.. typeof(DeviceProfile).GetConstructors()[0].GetParameters().Select(p => p.Name!).Where(n => !Identity.Contains(n))];

    [Theory]
    [MemberData(nameof(Sections))]
    public void What_one_side_changed_in_a_section_is_in_the_merged_profile_and_told_as_a_difference(string section)
    {
        var member = typeof(DeviceProfile).GetProperty(section)!;
        // Two profiles that differ there, with something on either side.
        var (origin, other) = (
            from one in All
            from two in All
            where Written(member, one) != Written(member, two) && Items(member, one) > 0 && Items(member, two) > 0
            select (one, two)
        ).First();
        var theirs = With(origin, member, member.GetValue(other));

        var merged = ProfileMerge.ThreeWay(origin, origin, theirs);
        merged.Contested.ShouldBeEmpty();
        Members(member, merged.Profile).ShouldBe(Members(member, theirs), ignoreOrder: true);
        // Changed by oneself, it stays.
        Members(member, ProfileMerge.ThreeWay(origin, theirs, origin).Profile).ShouldBe(Members(member, theirs), ignoreOrder: true);

        var differences = ProfileMerge.Between(origin, theirs);
        differences.ShouldNotBeEmpty();
        Members(member, ProfileMerge.Take(origin, theirs, differences.Select(d => d.Place).ToHashSet()))
            .ShouldBe(Members(member, theirs), ignoreOrder: true);
    }

    private static DeviceProfile With(DeviceProfile profile, PropertyInfo member, object? value)
    {
        // A copy whose one member is set, as “with” would.
        var copy = profile with { };
        member.SetValue(copy, value);
        return copy;
    }

    private static string Written(PropertyInfo member, DeviceProfile profile) => JsonSerializer.Serialize(member.GetValue(profile), ProfileJson.Options);

    private static List<string> Members(PropertyInfo member, DeviceProfile profile)
    {
        using var json = JsonDocument.Parse(Written(member, profile));
        return json.RootElement.ValueKind == JsonValueKind.Array
            ? json.RootElement.EnumerateArray().Select(e => e.GetRawText()).Distinct().ToList()
            : [json.RootElement.GetRawText()];
    }

    private static int Items(PropertyInfo member, DeviceProfile profile) =>
        member.GetValue(profile) switch
        {
            null => 0,
            string text => text.Length,
            System.Collections.ICollection items => items.Count,
            _ => 1,
        };
}
