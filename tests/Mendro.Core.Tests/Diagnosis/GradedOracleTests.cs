using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Findings by degree, and findings of one moment, against the sum over every combination of faults.</summary>
public class GradedOracleTests
{
    private static readonly ReadingDegree[] VoltDegrees =
    [
        ReadingDegree.Untold,
        ReadingDegree.Missing,
        ReadingDegree.Sagging,
        ReadingDegree.Low,
        ReadingDegree.High,
    ];

    /// <summary>Modes of every effect in a row: cells, contact, wire, switch, load; a volts point behind each but the last, a buzzer
    /// over each, a light at the third box and a start at the last.</summary>
    private static DeviceModel Row(Func<int, double> prior)
    {
        (string Id, ModeEffect Effect, bool Resistive)[] modes =
        [
            ("flat", ModeEffect.Degraded, false),
            ("crust", ModeEffect.Open, true),
            ("loose", ModeEffect.Intermittent, false),
            ("broken", ModeEffect.Open, false),
            ("short", ModeEffect.Short, false),
            ("dead", ModeEffect.Dead, false),
        ];
        var kinds = modes
            .Select(
                (m, i) =>
                    new PartKind(
                        $"k{i}",
                        m.Id,
                        [new FailureMode(m.Id, m.Id, m.Effect, prior(i), null, null, null, "made up") { Resistive = m.Resistive }]
                    )
            )
            .ToList();
        var methods = modes.Select((m, i) => MadeUp.Mends($"m{i}", 5, new Cure($"k{i}", m.Id, 0.7))).ToList();
        var looks = new List<Look> { new("nothing", "nothing"), new("pressed", "pressed"), new("dim", "dim") };
        var library = new TradeLibrary(
            kinds,
            [new FunctionKind("light", "Light", "works", looks), new FunctionKind("work", "Work", "works", looks)],
            methods,
            [],
            [],
            []
        );
        var last = modes.Length - 1;
        var profile = new DeviceProfile(
            DeviceProfile.FormatName,
            "row",
            "Row",
            "",
            DeviceKind.Accessory,
            [],
            null,
            Enumerable.Range(0, modes.Length).Select(i => new Part($"p{i}", $"Part {i}", $"k{i}")).ToList(),
            Enumerable.Range(0, last).Select(i => new Feed($"p{i}", $"p{i + 1}", Carries.Power)).ToList(),
            [new DeviceFunction("light", "Light", "light", ["p2"]), new DeviceFunction("work", "Work", "work", [$"p{last}"])],
            [
                .. Enumerable.Range(0, last).Select(i => MadeUp.VoltsAfter($"v{i}", $"p{i}", $"p{i + 1}")),
                .. Enumerable
                    .Range(0, modes.Length)
                    .Select(i => new Probe(
                        $"c{i}",
                        $"Over {i}",
                        "",
                        ProbeKind.Continuity,
                        null,
                        null,
                        [$"p{i}"],
                        null,
                        new Expectation(null, 1, "beep"),
                        AccessState.Closed,
                        1
                    )),
            ],
            new Preparation(1, 1, 1)
        );
        return new DeviceModel(profile, library);
    }

    [Fact]
    public void Any_mix_of_degrees_moments_force_and_repairs_equals_the_sum_over_all_states()
    {
        var compared = 0;
        for (var seed = 0; seed < 150; seed++)
        {
            var random = new Random(seed);
            var model = Row(_ => 0.03 + 0.3 * random.NextDouble());
            var bench = new Bench(model).Fails("work", Any(random, "nothing", "pressed", "dim", null));
            for (var n = 0; n < 9; n++)
                bench.Add(Something(random, bench.Events.Count));
            var unit = new UnitCase(model, bench.Events);
            unit.Network.Faults.Count.ShouldBeLessThan(20, "small enough to be summed");
            var outcome = unit.Infer();
            var (evidence, faults, _) = BruteForce.Enumerate(unit.Network, unit.Observed);
            outcome.IsOk.ShouldBe(evidence > 0, $"seed {seed}: {outcome.Problem}");
            if (!outcome.IsOk)
                continue;
            outcome.Value!.Sampled.ShouldBeFalse();
            outcome.Value.EvidenceProbability.ShouldBe(evidence, evidence * 1e-9, $"seed {seed}");
            for (var f = 0; f < faults.Length; f++)
                outcome.Value.Fault(f).ShouldBe(faults[f], 1e-9, $"seed {seed}, {unit.Network.Faults[f].Id}");
            compared++;
        }

        compared.ShouldBeGreaterThan(140);
    }

    private static T Any<T>(Random random, params T[] of) => of[random.Next(of.Length)];

    private static BenchEvent Something(Random random, int id)
    {
        var function = Any(random, "light", "work");
        return random.Next(8) switch
        {
            0 => new FunctionTried(id, function, true),
            1 => new FunctionTried(id, function, false, Any(random, "nothing", "pressed", "dim", null)),
            2 or 3 => Taken($"v{random.Next(5)}", Any(random, VoltDegrees)),
            4 => Taken(
                $"c{random.Next(6)}",
                Any(random, ReadingDegree.Untold, ReadingDegree.Resistive, ReadingDegree.Open)
            ),
            5 => new Provoked(id, function, Any(random, Provocation.Pressed, Provocation.Warmed), random.Next(2) == 0),
            6 => new ProbeTaken(id, $"v{random.Next(5)}", ProbeOutcome.Jumps),
            _ => Done(random.Next(6)),
        };

        RepairDone Done(int part) => new(id, $"p{part}", $"m{part}");

        ProbeTaken Taken(string probe, ReadingDegree degree) =>
            random.Next(3) == 0
                ? new ProbeTaken(id, probe, ProbeOutcome.Normal)
                : new ProbeTaken(id, probe, ProbeOutcome.Abnormal, Degree: degree);
    }

    [Theory]
    [InlineData(ReadingDegree.Missing)]
    [InlineData(ReadingDegree.Sagging)]
    [InlineData(ReadingDegree.Low)]
    [InlineData(ReadingDegree.High)]
    public void A_rail_by_degree_is_the_definition(ReadingDegree degree)
    {
        var model = Row(i => 0.04 + 0.02 * i);
        var probe = model.Profile.FindProbe("v3")!;
        var bench = new Bench(model).Add(new ProbeTaken(0, "v3", ProbeOutcome.Abnormal, Degree: degree));
        // Everything upstream of the point, and the short behind it, each by the share of its bad readings that are so far off.
        var reach = new[] { 0, 1, 2, 3, 4 };
        var expected = ByDefinition(
            model,
            set =>
                1
                - (1 - EvidenceWeights.ProbeLeak * DegreeShares.LeakShare(probe, degree))
                    * reach
                        .Where(f => set[f])
                        .Select(f =>
                            1
                            - EvidenceWeights.VoltsAbnormal(model.Faults[f].Mode)
                                * DegreeShares.Share(probe, model.Faults[f].Mode, false, degree)
                        )
                        .Aggregate(1.0, (a, b) => a * b)
        );
        Compare(bench, expected);
    }

    [Fact]
    public void What_is_seen_in_one_moment_is_one_fact_of_what_comes_and_goes()
    {
        // The light fails and with it the start and the volts: a loose joint that fails the one fails the others, nearly.
        var model = Row(_ => 0.1);
        var bench = new Bench(model)
            .Fails("light", "dim")
            .Fails("work", "pressed")
            .Add(new ProbeTaken(2, "v2", ProbeOutcome.Abnormal))
            .Add(new ProbeTaken(3, "v1", ProbeOutcome.Normal));
        var diagnosis = bench.Diagnose();
        var loose = model.Faults.ToList().FindIndex(f => f.Mode.Id == "loose");
        var unit = diagnosis.Case;
        double LinkOf(string finding) =>
            unit
                .Network.Findings.Single(f => f.Id.StartsWith(finding, StringComparison.Ordinal))
                .Links.Single(l => l.Fault == unit.UncuredPiece(loose))
                .P;
        var fails = EvidenceWeights.Fails(model.Faults[loose].Mode);
        var dim = model.FunctionLooks(model.Profile.FindFunction("light")!, "dim").Links.Single(l => l.Fault == loose).P;
        var pressed = model.FunctionLooks(model.Profile.FindFunction("work")!, "pressed").Links.Single(l => l.Fault == loose).P;
        LinkOf("fn:light").ShouldBe(dim, 1e-12, "the first draws");
        LinkOf("fn:work").ShouldBe(Math.Min(1, pressed / fails * EvidenceWeights.AtOneMoment), 1e-12, "the next goes with it");
        LinkOf("probe:v2").ShouldBe(Math.Min(1, 0.5 / fails * EvidenceWeights.AtOneMoment), 1e-12, "so do the volts behind it");
        var (_, faults, _) = BruteForce.Enumerate(unit.Network, unit.Observed);
        for (var f = 0; f < faults.Length; f++)
            diagnosis.Posterior.Fault(f).ShouldBe(faults[f], 1e-12);
    }

    [Fact]
    public void Degrees_of_a_rail_divide_one_finding_and_add_nothing()
    {
        var model = Row(_ => 0.1);
        var probe = model.Profile.FindProbe("v3")!;
        foreach (var mode in model.Faults.Select(f => f.Mode))
            VoltDegrees
                .Where(d => d != ReadingDegree.Untold)
                .Sum(d => DegreeShares.Share(probe, mode, false, d))
                .ShouldBe(1, 1e-9, mode.Id);
    }

    private static double[] ByDefinition(DeviceModel model, Func<bool[], double> present)
    {
        var posterior = new double[model.Faults.Count];
        double total = 0;
        for (var combination = 0; combination < 1 << posterior.Length; combination++)
        {
            var set = Enumerable.Range(0, posterior.Length).Select(f => (combination >> f & 1) != 0).ToArray();
            var weight = present(set);
            for (var f = 0; f < set.Length; f++)
                weight *= set[f] ? model.Faults[f].Prior : 1 - model.Faults[f].Prior;
            total += weight;
            for (var f = 0; f < set.Length; f++)
                posterior[f] += set[f] ? weight : 0;
        }

        return posterior.Select(p => p / total).ToArray();
    }

    private static void Compare(Bench bench, double[] expected)
    {
        var diagnosis = bench.Diagnose();
        for (var f = 0; f < expected.Length; f++)
            diagnosis.Posterior.Fault(diagnosis.Case.UncuredPiece(f)).ShouldBe(expected[f], 1e-9, bench.Model.Faults[f].Id);
    }
}
