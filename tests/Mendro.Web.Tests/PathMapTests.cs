using System.Xml.Linq;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Web.Drawing;

namespace Mendro.Web.Tests;

/// <summary>The path map of every shipped profile: nothing overlaps, no line crosses a block, every state is said in words.</summary>
public class PathMapTests
{
    public static TheoryData<string> Profiles => [.. TradeLibrary.Shipped.Profiles.Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(Profiles))]
    public void Blocks_have_cells_of_their_own_and_the_flow_never_runs_back(string id)
    {
        var layout = new MapLayout(Profile(id));
        layout.Blocks.Select(b => (b.Column, b.Row)).Distinct().Count().ShouldBe(layout.Blocks.Count);
        layout.Blocks.Count.ShouldBe(Profile(id).Parts.Count + Profile(id).Functions.Count);
        layout.Blocks.ShouldAllBe(b => b.Row >= 0 && b.Row < layout.Rows && b.Column >= 0 && b.Column < layout.Columns);
        layout.Lines.ShouldAllBe(l => l.From.Column <= l.To.Column);
    }

    [Theory]
    [MemberData(nameof(Profiles))]
    public void No_line_crosses_a_block(string id) => NoLineCrosses(new MapLayout(Profile(id)));

    private static void NoLineCrosses(MapLayout layout)
    {
        var router = new MapRouter(layout, 690);
        foreach (var routed in router.Lines)
        {
            for (var n = 1; n < routed.Points.Count; n++)
            {
                var (a, b) = (routed.Points[n - 1], routed.Points[n]);
                (a.X == b.X || Math.Abs(a.Y - b.Y) < 1e-9).ShouldBeTrue("lines run straight or at right angles");
                foreach (var block in layout.Blocks)
                {
                    var (left, top) = (router.Left(block) + 1, router.Top(block) + 1);
                    var (right, bottom) = (left + MapRouter.BlockWidth - 2, top + MapRouter.BlockHeight - 2);
                    var clear =
                        Math.Max(a.X, b.X) < left || Math.Min(a.X, b.X) > right || Math.Max(a.Y, b.Y) < top || Math.Min(a.Y, b.Y) > bottom;
                    clear.ShouldBeTrue($"{routed.Line.From.Id}→{routed.Line.To.Id} runs through {block.Id}");
                }
            }
        }
    }

    [Fact]
    public void Forty_parts_still_have_cells_of_their_own()
    {
        var parts = Enumerable.Range(0, 40).Select(i => new Part($"p{i}", $"Part {i}", "logic")).ToList();
        var feeds = Enumerable.Range(1, 39).Select(i => new Feed($"p{(i - 1) / 2}", $"p{i}", Carries.Power)).ToList();
        var profile = Profile("generic-cartridge") with
        {
            Parts = parts,
            Feeds = feeds,
            Probes = [],
            Functions = [new DeviceFunction("f", "F", "picture", ["p39"])],
        };
        var layout = new MapLayout(profile);
        layout.Blocks.Select(b => (b.Column, b.Row)).Distinct().Count().ShouldBe(41);
        NoLineCrosses(layout);
    }

    [Fact]
    public void States_are_drawn_and_said()
    {
        var model = new DeviceModel(Profile("harrow-quartet"), TradeLibrary.Shipped);
        var diagnosis = UnitDiagnosis
            .Make(
                model,
                [
                    new FunctionTried(1, "power-light", false, "nothing"),
                    new ProbeTaken(2, "tp3", ProbeOutcome.Normal),
                    new ProbeTaken(3, "tp4", ProbeOutcome.Abnormal),
                ]
            )
            .Value!;
        var svg = PathMapSvg.Draw(
            new MapScene(
                model,
                diagnosis.Verdict,
                new Dictionary<string, string> { ["tp3"] = "6.21 V", ["tp4"] = "0.02 V" },
                new Dictionary<string, string> { ["power-light"] = "nothing at all" },
                "tp5",
                id => "/p/" + id,
                id => "/part/" + id,
                id => "/fn/" + id
            )
        );
        var drawn = XDocument.Parse(svg);
        var labels = drawn.Descendants().Where(e => e.Name.LocalName == "title").Select(e => e.Value).ToList();
        // What feeds what is told in words too.
        labels.ShouldContain(l => l.StartsWith("Fuse: proved good; F1, main board; fed by Contacts", StringComparison.Ordinal));
        labels.ShouldContain(l =>
            l.Contains("; needs ", StringComparison.Ordinal) && l.StartsWith("Power light", StringComparison.Ordinal)
        );
        drawn
            .Descendants()
            .Where(e => e.Attribute("aria-current") is not null)
            .ShouldHaveSingleItem()
            .Attribute("data-id")!
            .Value.ShouldBe("tp5");
        labels.ShouldContain(l => l.StartsWith("Power switch: suspect, share of blame", StringComparison.Ordinal));
        labels.ShouldContain(l => l.StartsWith("Power light: nothing at all", StringComparison.Ordinal));
        labels.ShouldContain(l => l.StartsWith("Probe: After the switch, 0.02 V; middle leg", StringComparison.Ordinal));
        svg.ShouldContain("the fault lies in here");
        svg.ShouldNotContain("style=");
    }

    [Fact]
    public void Text_of_a_profile_is_encoded()
    {
        var profile = Profile("generic-cartridge");
        profile = profile with { Name = "<b>&\"", Parts = [profile.Parts[0] with { Name = "<script>" }, .. profile.Parts.Skip(1)] };
        var svg = PathMapSvg.Draw(
            new MapScene(
                new DeviceModel(profile, TradeLibrary.Shipped),
                null,
                new Dictionary<string, string>(),
                new Dictionary<string, string>(),
                null,
                null,
                null,
                null
            )
        );
        svg.ShouldNotContain("<script>");
        svg.ShouldContain("&lt;script&gt;");
    }

    private static DeviceProfile Profile(string id) => TradeLibrary.Shipped.Profiles.Single(p => p.Id == id);
}
