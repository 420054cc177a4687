using Mendro.Core.Library;

namespace Mendro.Core.Tests.Methods;

/// <summary>The order in which cures are listed (common practice, no source).</summary>
public class GentlestFirstTests
{
    private static List<string> Listed(string build, string part)
    {
        var model = new Diagnosis.Bench(build).Model;
        return Method.GentlestFirst(model.MethodsFor(model.Profile.FindPart(part)!)).Select(m => m.Id.Value).ToList();
    }

    [Fact]
    public void A_connector_is_cleaned_then_brushed_then_bent_and_only_at_last_renewed()
    {
        var listed = Listed("build-console-top-loading", "connector");
        listed[0].ShouldBe("clean-connector");
        listed.IndexOf("brush-connector").ShouldBeLessThan(listed.IndexOf("tension-connector"));
        listed.IndexOf("straighten-pin").ShouldBeLessThan(listed.IndexOf("replace-slot"));
        listed[^1].ShouldBe("replace-slot");
    }

    [Fact]
    public void A_socket_is_cleaned_then_reflowed_then_renewed() =>
        Listed("build-console-top-loading", "av").ShouldBe(["clean-socket", "reflow-socket", "replace-output-socket"]);

    // Whatever the part: nothing that is kept is listed behind what is renewed, and nothing behind what cannot be undone.
    [Fact]
    public void Nothing_gentle_stands_behind_anything_harsh()
    {
        foreach (var build in TradeLibrary.Shipped.Archetypes)
        {
            var model = new Diagnosis.Bench(build).Model;
            foreach (var part in build.Parts)
            {
                var harshness = Method.GentlestFirst(model.MethodsFor(part)).Select(m => m.Harshness).ToList();
                harshness.ShouldBe(harshness.Order().ToList(), $"{build.Id} {part.Id}");
            }
        }
    }
}
