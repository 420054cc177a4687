using Mendro.Core.Proving;
using Mendro.Core.Tests.Calculators;

namespace Mendro.Core.Tests.Proving;

/// <summary>Runs judged start by start, against Wald's formulas and against every run there is.</summary>
public class SequentialTestTests
{
    private static readonly SequentialTest Usual = new(0.02, 0.2, 0.05, 0.05);

    [Fact]
    public void Lines_and_steps_are_those_of_the_published_test()
    {
        // Wald 1945: ln(β/(1 − α)) and ln((1 − β)/α); 0.05 and 0.05 give ∓ln 19. Steps ln 10 and ln(0.8/0.98).
        Usual.AcceptBelow.ShouldBe(-Math.Log(19), 1e-12);
        Usual.RefuseAbove.ShouldBe(Math.Log(19), 1e-12);
        Usual.PerFailure.ShouldBe(2.302585, 1e-6);
        Usual.PerSuccess.ShouldBe(-0.202941, 1e-6);
        // By hand: 12 × −0.202941 = −2.435290; (2.944439 − 2.435290) / 0.202941 = 2.51, so three more.
        Usual.LogRatio(12, 0).ShouldBe(-2.435290, 1e-6);
        Usual.Decide(12, 0).ShouldBe(SequentialDecision.GoOn);
        Usual.StartsToAccept(12, 0).ShouldBe(3);
        Usual.Decide(15, 0).ShouldBe(SequentialDecision.Accept);
        Usual.StartsToAccept(15, 0).ShouldBe(0);
        // Two failures in three: 2 × 2.302585 − 0.202941 = 4.40 over 2.94.
        Usual.Decide(3, 2).ShouldBe(SequentialDecision.Refuse);
        Usual.FailuresToRefuse(0, 0).ShouldBe(2);
        // A failure costs 2.302585/0.202941 = 11.3 good starts.
        Usual.StartsToAccept(13, 1).ShouldBe(14);
    }

    /// <summary>Every run weighed: chance to be accepted and starts to be expected.</summary>
    private static (double Accepted, double Starts) Exact(SequentialTest test, double rate)
    {
        var open = new Dictionary<int, double> { [0] = 1 };
        var (accepted, expected) = (0.0, 0.0);
        for (var starts = 1; open.Values.Sum() > 1e-12 && starts < 20_000; starts++)
        {
            var next = new Dictionary<int, double>();
            foreach (var (failures, chance) in open)
            {
                expected += chance;
                foreach (var (more, p) in ((int, double)[])[(0, 1 - rate), (1, rate)])
                    switch (test.Decide(starts, failures + more))
                    {
                        case SequentialDecision.Accept:
                            accepted += chance * p;
                            break;
                        case SequentialDecision.GoOn:
                            next[failures + more] = next.GetValueOrDefault(failures + more) + chance * p;
                            break;
                    }
            }

            open = next;
        }

        return (accepted, expected);
    }

    [Theory]
    [InlineData(0.02, 0.2, 0.05, 0.05)]
    [InlineData(0.01, 0.1, 0.1, 0.05)]
    [InlineData(0.05, 0.3, 0.01, 0.1)]
    public void The_risks_are_kept_as_Walds_inequalities_promise(double accept, double refuse, double alpha, double beta)
    {
        var test = new SequentialTest(accept, refuse, alpha, beta);
        var (wrongly, falsely) = (1 - Exact(test, accept).Accepted, Exact(test, refuse).Accepted);
        // Wald 1945, section 3.4: α′ ≤ α/(1 − β), β′ ≤ β/(1 − α), α′ + β′ ≤ α + β.
        wrongly.ShouldBeLessThanOrEqualTo(alpha / (1 - beta) + 1e-9);
        falsely.ShouldBeLessThanOrEqualTo(beta / (1 - alpha) + 1e-9);
        (wrongly + falsely).ShouldBeLessThanOrEqualTo(alpha + beta + 1e-9);
    }

    [Theory]
    [InlineData(0.08)]
    [InlineData(0.10)]
    [InlineData(0.1095)]
    [InlineData(0.12)]
    [InlineData(0.14)]
    public void Operating_characteristic_and_expected_starts_meet_the_exact_ones_where_steps_are_small(double rate)
    {
        // The formulas leave out the overshoot: with steps of 0.18 and 0.02 against lines at 2.94 it is small.
        var test = new SequentialTest(0.10, 0.12, 0.05, 0.05);
        var (accepted, starts) = Exact(test, rate);
        test.AcceptChance(rate).ShouldBe(accepted, 0.02);
        test.ExpectedStarts(rate).ShouldBe(starts, 0.06 * starts);
    }

    [Fact]
    public void At_the_two_rates_the_characteristic_gives_the_two_risks()
    {
        Usual.AcceptChance(0.02).ShouldBe(0.95, 1e-6);
        Usual.AcceptChance(0.2).ShouldBe(0.05, 1e-6);
        Usual.AcceptChance(1e-9).ShouldBe(1, 1e-6);
        Usual.AcceptChance(0.999).ShouldBe(0, 1e-3);
    }

    [Fact]
    public void The_calculator_answers_under_the_agreed_names()
    {
        string[] given = ["accept=0.02", "refuse=0.2", "alpha=0.05", "beta=0.05", "starts=12", "failures=0"];
        Calc.Number("sequential-test", "logRatio", given).ShouldBe(-2.435290, 1e-6);
        Calc.Number("sequential-test", "acceptBelow", given).ShouldBe(-2.944439, 1e-6);
        Calc.Number("sequential-test", "refuseAbove", given).ShouldBe(2.944439, 1e-6);
        Calc.Number("sequential-test", "startsToAccept", given).ShouldBe(3);
        Calc.Text("sequential-test", "decision", given).ShouldBe("go on");
        Calc.Text("sequential-test", "decision", [.. given[..4], "starts=15"]).ShouldBe("accept");
        Calc.Text("sequential-test", "decision", [.. given[..4], "starts=3", "failures=2"]).ShouldBe("refuse");
        Calc.Problem("sequential-test", [.. given[..4], "starts=1", "failures=2"]).ShouldContain("failures");
        Calc.Problem("sequential-test", ["accept=0.2", "refuse=0.02", "starts=1"]).ShouldContain("refuse");
        Calc.Number("colour-difference", "deltaE", "l1=50", "a1=2.6772", "b1=-79.7751", "l2=50", "a2=0", "b2=-82.7485").ShouldBe(2.0425, 5e-5);
    }
}
