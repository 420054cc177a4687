using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Reasons are numbers, not prose: each weight is the change of the odds when that finding is left out.</summary>
public class WhyTests
{
    [Fact]
    public void A_weight_is_the_change_of_the_odds_without_that_finding()
    {
        var bench = new Bench("harrow-quartet")
            .Fails("power-light", "nothing")
            .Reads("tp1", "6.24")
            .Reads("tp3", "6.21")
            .Reads("contacts-eye", "ok");
        var diagnosis = bench.Diagnose();
        var why = Why.Make(diagnosis);
        double Odds(UnitDiagnosis d, string fault) => d.Suspects.Single(s => s.Fault.Id == fault).Posterior is var p ? p / (1 - p) : 0;
        var reasons = why.Suspects.First(r => r.Suspect.Fault.Id == "switch.dirty");
        reasons.Prior.ShouldBe(reasons.Suspect.Fault.Prior);
        reasons.For.ShouldNotBeEmpty();
        foreach (var weight in reasons.For.Concat(reasons.Against))
        {
            // The same evidence without that one entry, diagnosed anew.
            var without = new Bench(bench.Model);
            for (var at = 0; at < bench.Events.Count; at++)
                if (at != weight.Event)
                    without.Add(bench.Events[at]);
            weight.OddsFactor.ShouldBe(Odds(diagnosis, "switch.dirty") / Odds(without.Diagnose(), "switch.dirty"), 1e-6);
        }

        // A good reading behind the fuse speaks for the switch, and nothing good speaks for it twice.
        bench
            .Events[reasons.For.Single(w => bench.Events[w.Event] is ProbeTaken { ProbeId.Value: "tp3" }).Event]
            .ShouldBeOfType<ProbeTaken>();
    }

    [Fact]
    public void What_speaks_against_is_told_too()
    {
        var bench = new Bench("harrow-quartet")
            .Fails("power-light", "nothing")
            .Reads("contacts-eye", "ok")
            .Reads("switch-press", "bad, flickers");
        var contacts = Why.Make(bench.Diagnose(), most: 12).Suspects.FirstOrDefault(s => s.Suspect.Fault.Id == "contacts.crusted");
        contacts.ShouldNotBeNull();
        contacts.Against.ShouldContain(w =>
            bench.Events[w.Event] is ProbeTaken && ((ProbeTaken)bench.Events[w.Event]).ProbeId == "contacts-eye"
        );
    }

    [Fact]
    public void The_explanations_of_a_finding_and_what_is_left_make_one()
    {
        var bench = new Bench("harrow-quartet")
            .Add(new MarkSeen(0, "yellowed"))
            .Add(new MarkSeen(1, "corrosion-contacts"))
            .Fails("power-light", "nothing")
            .Reads("tp1", "0.2")
            .Repairs("contacts", "acid-contacts")
            .Fails("power-light", "nothing");
        var why = Why.Make(bench.Diagnose());
        foreach (var finding in why.Findings)
        {
            // Four causes are told at most, none under one in fifty: what is left out is little.
            (finding.Causes.Sum(c => c.Share) + finding.Otherwise).ShouldBeInRange(0.75, 1 + 1e-9);
            finding.Causes.Zip(finding.Causes.Skip(1)).ShouldAllBe(c => c.First.Share >= c.Second.Share);
        }

        // A mark that hints at nothing needs no explanation; one seen before the repair may be cured since.
        why.Findings.ShouldNotContain(f => f.Event == 0);
        why.Findings.Single(f => f.Event == 1).Causes.ShouldContain(c => c.CuredSince && c.Fault.Id == "contacts.crusted");
    }
}
