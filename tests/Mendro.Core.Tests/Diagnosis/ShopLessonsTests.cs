using MathNet.Numerics.Distributions;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Learning: Beta updating against its closed form and a reference library, pooling, and what a lesson may not do.</summary>
public class ShopLessonsTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;
    private static readonly DeviceModel Quartet = Model("harrow-quartet");

    private static DeviceModel Model(string id) => new(Library.Profiles.Single(p => p.Id == id), Library);

    private static Lesson Lesson(DeviceModel model, string revision, params (PartId, string)[] causes) =>
        new(model.Profile, revision, causes);

    private static int Fault(DeviceModel model, string id) => Enumerable.Range(0, model.Faults.Count).Single(f => model.Faults[f].Id == id);

    [Fact]
    public void The_share_of_units_brought_in_equals_enumeration()
    {
        var model = MadeUp.SideBySide((0.1, ModeEffect.Dead, 0.8, 0), (0.3, ModeEffect.Dead, 0.8, 0), (0.02, ModeEffect.Dead, 0.8, 0));
        var network = new FaultNetwork(
            model.Faults.Select(f => new Fault(f.Id, f.Prior)).ToList(),
            [new Finding("work", EvidenceWeights.FunctionLeak, model.FunctionFails(model.Profile.Functions[0]).Links)]
        );
        var fails = BruteForce.Enumerate(network, [new Observed(0, true)]);
        var brought = new BroughtIn(model);
        brought.ChanceThatSomethingFails.ShouldBe(fails.Evidence, 1e-12);
        for (var f = 0; f < 3; f++)
        {
            brought.Share(f, model.Faults[f].Prior).ShouldBe(fails.Faults[f], 1e-12);
            brought.Prior(f, fails.Faults[f]).ShouldBe(model.Faults[f].Prior, 1e-12);
        }
    }

    [Fact]
    public void Updating_is_the_closed_form_of_the_Beta_distribution()
    {
        // Ten units, four with a dirty switch. Closed form: mean (c + k)/(c/p + n), here against MathNet's Beta too.
        var lessons = Enumerable
            .Range(0, 10)
            .Select(n => Lesson(Quartet, "", n < 4 ? ("switch", "dirty") : ("contacts", "crusted")))
            .ToList();
        var fault = Fault(Quartet, "switch.dirty");
        var brought = new BroughtIn(Quartet);
        var p = brought.Share(fault, Quartet.Faults[fault].Prior);
        const double c = ShopLessons.DefaultStrength;
        var beta = new Beta(c + 4, c * (1 - p) / p + 6);
        var pattern = new ShopLessons(lessons, Library).Patterns(Quartet, "").Single(x => x.Fault.Id == "switch.dirty");
        pattern.Learned.ShouldBe((c + 4) / (c / p + 10), 1e-12);
        pattern.Learned.ShouldBe(beta.Mean, 1e-12);
        pattern.Low.ShouldBe(beta.InverseCumulativeDistribution(0.05), 1e-9);
        pattern.High.ShouldBe(beta.InverseCumulativeDistribution(0.95), 1e-9);
        (pattern.Found, pattern.Units, pattern.Base).ShouldBe((4, 10, p));
        new ShopLessons(lessons, Library).Priors(Quartet, "")[fault].ShouldBe(brought.Prior(fault, beta.Mean), 1e-12);
    }

    [Fact]
    public void Without_lessons_nothing_changes() =>
        new ShopLessons([], Library).Priors(Quartet, "B").ShouldBe(Quartet.Faults.Select(f => f.Prior));

    [Fact]
    public void As_many_as_expected_leave_the_belief_where_it_was_and_narrow_it()
    {
        var brought = new BroughtIn(Quartet);
        var fault = Fault(Quartet, "contacts.crusted");
        var share = brought.Share(fault, Quartet.Faults[fault].Prior);
        const int units = 200;
        var found = (int)Math.Round(share * units);
        var lessons = Enumerable
            .Range(0, units)
            .Select(n => Lesson(Quartet, "", n < found ? ("contacts", "crusted") : ("light", "dead")))
            .ToList();
        var pattern = new ShopLessons(lessons, Library).Patterns(Quartet, "").Single(x => x.Fault.Id == "contacts.crusted");
        pattern.Learned.ShouldBe(share, 0.005);
        var few = new ShopLessons(lessons.Take(10).ToList(), Library).Patterns(Quartet, "").Single(x => x.Fault.Id == "contacts.crusted");
        (pattern.High - pattern.Low).ShouldBeLessThan((few.High - few.Low) / 2);
    }

    [Fact]
    public void A_rare_fault_is_not_forgotten_because_thirty_units_did_not_have_it()
    {
        var lessons = Enumerable.Range(0, 30).Select(_ => Lesson(Quartet, "", ("switch", "dirty"))).ToList();
        var fault = Fault(Quartet, "light.dead");
        var learned = new ShopLessons(lessons, Library).Priors(Quartet, "")[fault];
        learned.ShouldBeLessThan(Quartet.Faults[fault].Prior);
        learned.ShouldBeGreaterThan(0.7 * Quartet.Faults[fault].Prior);
    }

    [Fact]
    public void Another_revision_counts_half()
    {
        var lessons = Enumerable.Range(0, 6).Select(_ => Lesson(Quartet, "B", ("seal", "lifting"))).ToList();
        var learned = new ShopLessons(lessons, Library);
        var fault = Fault(Quartet, "seal.lifting");
        var (same, other, unknown) = (
            learned.Priors(Quartet, "B")[fault],
            learned.Priors(Quartet, "A")[fault],
            learned.Priors(Quartet, "")[fault]
        );
        same.ShouldBeGreaterThan(other);
        other.ShouldBeGreaterThan(Quartet.Faults[fault].Prior);
        unknown.ShouldBe(same, 1e-12);
    }

    [Fact]
    public void What_one_model_teaches_moves_the_same_kind_of_part_in_another()
    {
        var lessons = Enumerable.Range(0, 12).Select(_ => Lesson(Quartet, "", ("switch", "worn"))).ToList();
        var duet = Model("harrow-duet");
        var priors = new ShopLessons(lessons, Library).Priors(duet, "");
        priors[Fault(duet, "switch.worn")].ShouldBeGreaterThan(duet.Faults[Fault(duet, "switch.worn")].Prior);
        priors[Fault(duet, "switch.dirty")].ShouldBeLessThan(duet.Faults[Fault(duet, "switch.dirty")].Prior);
        // A kind that the teaching model does not have stays as it was.
        priors[Fault(duet, "ribbon.broken")].ShouldBe(duet.Faults[Fault(duet, "ribbon.broken")].Prior, 1e-3);
    }

    [Fact]
    public void A_stronger_library_learns_more_slowly()
    {
        var lessons = Enumerable.Range(0, 5).Select(_ => Lesson(Quartet, "", ("fuse", "open"))).ToList();
        var fault = Fault(Quartet, "fuse.open");
        double Learned(double strength) => new ShopLessons(lessons, Library, strength).Priors(Quartet, "")[fault];
        Learned(0.5).ShouldBeGreaterThan(Learned(2));
        Learned(2).ShouldBeGreaterThan(Learned(20));
        Learned(20).ShouldBeGreaterThan(Quartet.Faults[fault].Prior);
    }
}
