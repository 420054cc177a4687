using System.Text.Json;
using CsCheck;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Boards;

/// <summary>Finding the broken segment of a net by the fewest beeps to be expected.</summary>
public class BreakSearchTests
{
    private static List<NetSegment> Chain(params double[] weights) =>
        weights.Select((w, n) => new NetSegment($"n{n}", $"n{n + 1}", w)).ToList();

    private static BreakSearch Search(
        IReadOnlyList<NetSegment> segments,
        IReadOnlyList<string>? reachable = null,
        params (string, string, bool)[] results
    )
    {
        var all = segments.SelectMany(s => new[] { s.A, s.B }).Distinct().ToList();
        return BreakSearch.Of(segments, reachable ?? all, results).Value!;
    }

    // Half-split of n equal segments: the external path length of the most even binary tree over n, n⌈lg n⌉ − 2^⌈lg n⌉ + n … over n
    // (Knuth, The Art of Computer Programming 3, 6.2.1): k + 2(n − 2^k)/n for 2^k ≤ n < 2^(k+1).
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(7)]
    [InlineData(8)]
    [InlineData(12)]
    [InlineData(16)]
    [InlineData(33)]
    [InlineData(64)]
    public void On_a_chain_of_equal_segments_half_split_is_the_best(int n)
    {
        var search = Search(Chain(Enumerable.Repeat(1.0, n).ToArray()));
        var k = (int)Math.Log2(n);
        search.Expected.ShouldBe(k + 2.0 * (n - (1 << k)) / n, 1e-9);
    }

    [Fact]
    public void What_is_likely_is_tested_first_and_a_beep_clears_its_way()
    {
        var chain = Chain(1, 1, 8, 1, 1);
        var search = Search(chain);
        search.Next.ShouldBe(new BeepTest("n2", "n3"));
        Search(chain, null, ("n2", "n3", false)).ShouldSatisfyAllConditions(
            s => s.Next.ShouldBeNull(),
            s => s.Expected.ShouldBe(0),
            s => s.Suspects.ShouldBe([new SuspectSegment("n2", "n3", 1)])
        );
        Search(chain, null, ("n2", "n3", true)).Suspects.Select(s => s.P).ShouldBe([0.25, 0.25, 0.25, 0.25]);
    }

    [Fact]
    public void What_the_points_do_not_tell_apart_stays_together()
    {
        // Only the ends and one point between are reached: 0–1–2 and 2–3–4 are one each.
        var search = Search(Chain(1, 2, 1, 1), ["n0", "n2", "n4"]);
        search.Expected.ShouldBe(1);
        Search(Chain(1, 2, 1, 1), ["n0", "n2", "n4"], ("n0", "n2", false)).ShouldSatisfyAllConditions(
            s => s.Next.ShouldBeNull(),
            s => s.Suspects.Select(x => Math.Round(x.P, 6)).ShouldBe([0.666667, 0.333333])
        );
        Search(Chain(1, 1), ["n0"]).Next.ShouldBeNull();
    }

    [Fact]
    public void Nonsense_is_told()
    {
        string Problem(IReadOnlyList<NetSegment> segments, IReadOnlyList<string> reachable, params (string, string, bool)[] results) =>
            BreakSearch.Of(segments, reachable, results).Problem!;
        var chain = Chain(1, 1);
        Problem([.. chain, new NetSegment("n2", "n0", 1)], ["n0"]).ShouldContain("ring");
        Problem([.. chain, new NetSegment("x", "y", 1)], ["n0"]).ShouldContain("hang together");
        Problem(chain, ["q"]).ShouldContain("“q” is no point");
        Problem(chain, ["n0"], ("n0", "n2", true)).ShouldContain("contradict");
        Problem(Chain(-1, 1), ["n0"]).ShouldContain("0 or more");
    }

    /// <summary>Trees of up to seven segments with weights and some points out of reach.</summary>
    private static readonly Gen<(List<NetSegment> Segments, List<string> Reachable)> Trees = Gen.Select(
        Gen.Int[1, 7],
        Gen.Int[0, 99].Array[8],
        Gen.Int[1, 9].Array[8],
        Gen.Int[0, 3].Array[8]
    )
        .Select(
            (count, parents, weights, hidden) =>
                (
                    Enumerable.Range(1, count).Select(n => new NetSegment($"p{parents[n - 1] % n}", $"p{n}", weights[n - 1])).ToList(),
                    Enumerable.Range(0, count + 1).Where(n => hidden[n] > 0).Select(n => $"p{n}").ToList()
                )
        );

    /// <summary>The least of every strategy there is, over the sets of segments still possible.</summary>
    private static double Least(List<NetSegment> segments, List<string> reachable, Func<string, double> cost)
    {
        var way = Walks(segments);
        var tests = reachable
            .SelectMany((a, n) => reachable.Skip(n + 1).Select(b => (Mask: way(a, b).Sum(s => 1 << s), Cost: cost(a) + cost(b))))
            .ToList();
        var total = segments.Sum(s => s.Weight);
        var known = new Dictionary<int, double>();

        double Best(int left)
        {
            if (known.TryGetValue(left, out var told))
                return told;
            var here = Enumerable.Range(0, segments.Count).Where(n => (left >> n & 1) != 0).Sum(n => segments[n].Weight) / total;
            var least = double.MaxValue;
            foreach (var (mask, minutes) in tests.Where(t => (t.Mask & left) != 0 && (t.Mask & left) != left))
                least = Math.Min(least, here * minutes + Best(left & mask) + Best(left & ~mask));
            return known[left] = least == double.MaxValue ? 0 : least;
        }

        return Best((1 << segments.Count) - 1);
    }

    [Fact]
    public void On_small_trees_no_strategy_of_all_needs_fewer_tests() =>
        Trees.Sample(
            tree =>
            {
                var search = Search(tree.Segments, tree.Reachable);
                search.Expected.ShouldBe(Least(tree.Segments, tree.Reachable, _ => 0.5), 1e-9);
                if (search.Next is { } next)
                    tree.Reachable.ShouldContain(next.A);
            },
            iter: 300
        );

    [Fact]
    public void Where_points_differ_in_minutes_no_strategy_of_all_takes_fewer() =>
        Trees.Sample(
            tree =>
            {
                static double Minutes(string point) => 0.15 + ((point[^1] - '0') % 3 == 0 ? 0.5 : 0);
                var search = BreakSearch.Of(tree.Segments, tree.Reachable, [], Minutes).Value!;
                search.Expected.ShouldBe(Least(tree.Segments, tree.Reachable, Minutes), 1e-9);
            },
            iter: 200
        );

    [Fact]
    public void Followed_to_its_end_it_encloses_the_break_and_takes_as_many_tests_as_it_said() =>
        Trees.Sample(
            tree =>
            {
                var (segments, reachable) = tree;
                var (way, total, mean) = (Walks(segments), segments.Sum(s => s.Weight), 0.0);
                for (var broken = 0; broken < segments.Count; broken++)
                {
                    var results = new List<(string, string, bool)>();
                    while (Search(segments, reachable, [.. results]).Next is { } test)
                        results.Add((test.A, test.B, !way(test.A, test.B).Contains(broken)));
                    var left = Search(segments, reachable, [.. results]).Suspects;
                    left.ShouldContain(s => s.A == segments[broken].A && s.B == segments[broken].B);
                    mean += segments[broken].Weight / total * results.Count;
                }

                Search(segments, reachable).Expected.ShouldBe(mean, 1e-9);
            },
            iter: 100
        );

    [Fact]
    public void The_file_answers_in_the_documented_shape()
    {
        var answer = BeepsFile.Answer(
            """{"format":"mendro.beeps/1","segments":[{"a":"x","b":"y","weight":1},{"a":"y","b":"z","weight":3}],"reachable":["x","y","z"],"results":[]}"""
        );
        JsonSerializer
            .Serialize(answer.Value, new JsonSerializerOptions(ProfileJson.Options) { WriteIndented = false })
            .ShouldBe("""{"test":["x","y"],"expectedTests":1,"suspects":[{"a":"y","b":"z","p":0.75},{"a":"x","b":"y","p":0.25}]}""");
        var done = BeepsFile.Answer("""{"segments":[{"a":"x","b":"y","weight":1}],"reachable":[],"results":[]}""");
        JsonSerializer.Serialize(done.Value, ProfileJson.Options).ShouldContain("\"test\": null");
        BeepsFile.Answer("""{"segments":[{"a":"x","weight":1}],"reachable":[]}""").Problem.ShouldBe("segments[0]: a, b and a weight are needed.");
    }

    private static Func<string, string, HashSet<int>> Walks(List<NetSegment> segments) =>
        (from, to) =>
        {
            HashSet<int>? Walk(string at, HashSet<int> gone) =>
                at == to
                    ? gone
                    : Enumerable
                        .Range(0, segments.Count)
                        .Where(s => !gone.Contains(s) && (segments[s].A == at || segments[s].B == at))
                        .Select(s => Walk(segments[s].A == at ? segments[s].B : segments[s].A, [.. gone, s]))
                        .FirstOrDefault(w => w is not null);
            return Walk(from, [])!;
        };
}
