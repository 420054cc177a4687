using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using NJsonSchema;

namespace Mendro.Core.Tests.Profiles;

/// <summary>Everything the library ships fits together.</summary>
public class ShippedLibraryTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    public static TheoryData<string> Profiles => [.. All.Select(p => p.Id)];

    private static IEnumerable<DeviceProfile> All => Library.Profiles.Concat(Library.Archetypes);

    [Theory]
    [MemberData(nameof(Profiles))]
    public void A_shipped_profile_has_no_problem(string id) => ProfileValidator.Check(All.Single(p => p.Id == id), Library).ShouldBeEmpty();

    [Theory]
    [MemberData(nameof(Profiles))]
    public async Task A_shipped_profile_fits_the_schema_and_survives_a_round_trip(string id)
    {
        var folder = Library.Archetypes.Any(a => a.Id == id) ? "Archetypes" : "Profiles";
        var json = TradeLibrary.ReadText($"{folder}/{id}.json");
        var schema = await JsonSchema.FromJsonAsync(TradeLibrary.ReadText("profile.schema.json"), TestContext.Current.CancellationToken);
        schema.Validate(json).ShouldBeEmpty();
        var profile = ProfileJson.Read(json).Value!;
        ProfileJson.Write(ProfileJson.Read(ProfileJson.Write(profile)).Value!).ShouldBe(ProfileJson.Write(profile));
        schema.Validate(ProfileJson.Write(profile)).ShouldBeEmpty();
    }

    [Fact]
    public async Task The_schema_refuses_what_the_format_does_not_know()
    {
        var schema = await JsonSchema.FromJsonAsync(TradeLibrary.ReadText("profile.schema.json"), TestContext.Current.CancellationToken);
        var json = TradeLibrary.ReadText("Profiles/harrow-quartet.json");
        schema.Validate(json.Replace("mendro.profile/1", "mendro.profile/9", StringComparison.Ordinal)).ShouldNotBeEmpty();
        schema.Validate(json.Replace("\"carries\": \"power\"", "\"carries\": \"steam\"", StringComparison.Ordinal)).ShouldNotBeEmpty();
    }

    /// <summary>The format is written once, in the types; <c>./mendro schema</c> writes the file anew after a change of them.</summary>
    [Fact]
    public void The_schema_is_what_the_types_say() => ProfileSchemaMaker.Make().ShouldBe(TradeLibrary.ReadText("profile.schema.json"));

    [Fact]
    public void The_documented_schema_is_the_one_that_ships() =>
        File.ReadAllText(Path.Combine(Shipped.Root(), "docs", "formats.md"))
            .ShouldContain(TradeLibrary.ReadText("profile.schema.json").TrimEnd());

    [Fact]
    public void Every_kind_of_device_has_a_generic_profile() =>
        Library.Profiles.Where(p => p.Generic).Select(p => p.Kind).ShouldBe(Enum.GetValues<DeviceKind>(), ignoreOrder: true);

    [Fact]
    public void Every_failure_mode_has_a_cure_and_a_source()
    {
        foreach (var kind in Library.PartKinds)
        {
            foreach (var mode in kind.Modes)
            {
                // Some damage nobody cures: there the advice is to stop.
                if ((kind.Kind, mode.Id) is ("trace", "ruined"))
                    continue;
                Library.Methods.Any(m => TradeLibrary.Success(m, kind.Kind, mode.Id) > 0).ShouldBeTrue($"{kind.Kind}.{mode.Id}");
                mode.Source.ShouldNotBeNullOrEmpty();
                mode.Prior.ShouldBeInRange(0.0001, 0.6);
            }
        }
    }

    [Fact]
    public void Cures_looks_and_cautions_name_things_that_exist()
    {
        foreach (var method in Library.Methods)
        {
            method.Source.ShouldNotBeNullOrEmpty();
            method.Minutes.ShouldBeGreaterThan(0);
            foreach (var caution in method.Cautions)
                Library.FindCaution(caution).ShouldNotBeNull($"{method.Id}: {caution}");
            // Damage done by a step may befall any part, so its cure names none.
            foreach (var cure in method.Cures.Where(c => c is not { Kind: "*", Mode: EvidenceWeights.StepDamage }))
                Library.FindPartKind(cure.Kind)!.Modes.Any(m => cure.Mode == "*" || m.Id == cure.Mode).ShouldBeTrue($"{method.Id}: {cure}");
        }

        foreach (var look in Library.PartKinds.SelectMany(k => k.Modes).SelectMany(m => m.Looks ?? []).Where(l => l.Function != "*"))
            Library.FindFunctionKind(look.Function)!.Looks.Select(l => l.Id).ShouldContain(look.Look);
        foreach (var mark in Library.Marks.Where(m => m.Caution is not null))
            Library.FindCaution(mark.Caution!).ShouldNotBeNull(mark.Id);
    }

    [Fact]
    public void What_burns_or_poisons_carries_its_caution()
    {
        // Trade rules, common practice: heat needs the burn caution, acid the acid one, a modification a stop.
        foreach (var method in Library.Methods)
        {
            if (method.Settings.Any(s => s.Contains("°C", StringComparison.Ordinal)))
                method.Cautions.ShouldContain("hot-tip", method.Id);
            if (method.Tools.Contains("alcohol"))
                method.Cautions.ShouldContain("alcohol-fire", method.Id);
            if (method.Tools.Any(t => t.Contains("vinegar", StringComparison.Ordinal)))
                method.Cautions.ShouldContain("acid", method.Id);
            if (method.Tools.Any(t => t.Contains("glass-fibre", StringComparison.Ordinal)))
                method.Cautions.ShouldContain("glass-fibre", method.Id);
        }

        Library.FindMethod("isolate-auth")!.Cautions.Select(c => Library.FindCaution(c)!).ShouldContain(c => c.Stop);
    }
}
