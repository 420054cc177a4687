using CsCheck;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.StandIns.Physics;

namespace Mendro.StandIns.Tests;

/// <summary>The circuits of the units that obey physics, against Kirchhoff's laws and circuits worked out by hand.</summary>
public class PhysicsTests
{
    public static TheoryData<string> Profiles => [.. Mendro.Core.Library.TradeLibrary.Shipped.Profiles.Select(p => p.Id.ToString())];

    // 9 V over 1 kΩ and 2 kΩ: 6 V at the tap (Ohm's law, by hand).
    [Fact]
    public void A_divider_gives_what_Ohms_law_says()
    {
        var circuit = new NodalCircuit();
        var (source, tap) = (circuit.AddNode(), circuit.AddNode());
        circuit.AddSource(source, 9, 1e-6);
        circuit.AddResistor(source, tap, 1000);
        circuit.AddResistor(tap, 0, 2000);
        circuit.Solve()[tap].ShouldBe(6, 1e-4);
    }

    // A bridge out of balance, worked out by Thévenin's theorem: 10 V, arms 100/200 and 150/100 Ω, 50 Ω across.
    // Open-circuit: 10·200/300 − 10·100/250 = 2.6667 V; resistance 66.667 + 60 = 126.667 Ω; across 50 Ω: 0.75472 V.
    [Fact]
    public void A_bridge_gives_what_Thevenins_theorem_says()
    {
        var circuit = new NodalCircuit();
        var (top, left, right) = (circuit.AddNode(), circuit.AddNode(), circuit.AddNode());
        circuit.AddSource(top, 10, 1e-6);
        circuit.AddResistor(top, left, 100);
        circuit.AddResistor(left, 0, 200);
        circuit.AddResistor(top, right, 150);
        circuit.AddResistor(right, 0, 100);
        circuit.AddResistor(left, right, 50);
        var volts = circuit.Solve();
        (volts[left] - volts[right]).ShouldBe(0.75472, 1e-4);
    }

    [Fact]
    public void At_every_node_of_a_random_network_the_currents_sum_to_zero() =>
        Gen.Int[2, 8]
            .SelectMany(n => Gen.Select(Gen.Const(n), Gen.Double[1, 1e4].Array[n * n], Gen.Double[-1, 1].Array[n]))
            .Sample(
                (n, ohms, amps) =>
                {
                    var circuit = new NodalCircuit();
                    var nodes = Enumerable.Range(0, n).Select(_ => circuit.AddNode()).ToList();
                    for (var a = 0; a < n; a++)
                    {
                        circuit.AddResistor(nodes[a], 0, ohms[a * n + a]);
                        circuit.AddCurrent(nodes[a], amps[a]);
                        for (var b = a + 1; b < n; b++)
                            circuit.AddResistor(nodes[a], nodes[b], ohms[a * n + b]);
                    }

                    var volts = circuit.Solve();
                    for (var a = 0; a < n; a++)
                    {
                        var outward = volts[nodes[a]] / ohms[a * n + a];
                        for (var b = 0; b < n; b++)
                            if (b != a)
                                outward += (volts[nodes[a]] - volts[nodes[b]]) / ohms[Math.Min(a, b) * n + Math.Max(a, b)];
                        outward.ShouldBe(amps[a], 1e-5);
                    }
                },
                iter: 200
            );

    [Theory]
    [MemberData(nameof(Profiles))]
    public void A_sound_unit_works_and_every_point_of_it_reads_well(string id)
    {
        var model = Shipped.Model(id);
        // Bench errors are one in a hundred: what goes wrong on several units alike is none.
        var units = Enumerable.Range(0, 5).Select(n => PhysicalUnit.With(model, $"sound/{n}", [])).ToList();
        foreach (var function in model.Profile.Functions)
            units
                .Count(u => u.Try(function).Works)
                .ShouldBeGreaterThanOrEqualTo(
                    4,
                    $"{function.Id}: {string.Join(", ", model.Closure(function.Id).Select(p => $"{p} {units[0].Volts(p):0.##}"))}"
                );
        foreach (var probe in model.Profile.Probes)
        {
            var told = units.Select(u => u.Measure(probe)).ToList();
            told.Count(t => t.Outcome == ProbeOutcome.Normal).ShouldBeGreaterThanOrEqualTo(4, $"{probe.Id}: {told[0].Reading}");
        }
    }
}
