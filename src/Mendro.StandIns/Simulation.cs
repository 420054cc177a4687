using System.Text.Json.Serialization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;
using Mendro.StandIns.Physics;

namespace Mendro.StandIns;

/// <summary>Who works on the practice units.</summary>
public enum SimulatedPolicy
{
    /// <summary>Takes the advisor's first move each time.</summary>
    Advisor,

    /// <summary>A good technician with a fixed order: follows a dead supply with the meter, cleans before repairing, repairs before
    /// replacing.</summary>
    Checklist,

    /// <summary>A seasoned hand: knows for each complaint what to try in which order, keeps the laws of the bench, computes
    /// nothing.</summary>
    Seasoned,

    /// <summary>Knows the hidden faults and only repairs them: the limit nobody can beat.</summary>
    Oracle,
}

/// <summary>What a policy achieved.</summary>
/// <param name="Units">Number of units.</param>
/// <param name="Seed">Seed they were drawn with.</param>
/// <param name="Policy">Policy.</param>
/// <param name="MeanMinutes">Mean bench minutes a unit, cured or not.</param>
/// <param name="P90Minutes">Minutes that nine of ten units stay below.</param>
/// <param name="ShareCured">Share of units with every function working at the end, 0 to 1.</param>
/// <param name="MeanCost">Mean cost of parts, in the library's currency units.</param>
/// <param name="Worst">Units that took longest, when they were asked for.</param>
/// <param name="Dialogues">Every unit move by move, when they were asked for.</param>
public sealed record SimulationResult(
    int Units,
    long Seed,
    SimulatedPolicy Policy,
    double MeanMinutes,
    double P90Minutes,
    double ShareCured,
    double MeanCost,
    IReadOnlyList<WorkedUnit>? Worst = null,
    [property: JsonIgnore] IReadOnlyList<Dialogue>? Dialogues = null
)
{
    /// <summary>Units with a breach of each law of the bench, when dialogues were asked for.</summary>
    public IReadOnlyDictionary<string, int>? Breaches { get; init; }
}

/// <summary>A unit as a policy worked on it.</summary>
/// <param name="Number">Number of the unit within the seed.</param>
/// <param name="Faults">Faults it came with.</param>
/// <param name="Minutes">Minutes it took.</param>
/// <param name="Cured">True when everything worked at the end.</param>
/// <param name="Steps">What was done and what came of it.</param>
public sealed record WorkedUnit(int Number, IReadOnlyList<string> Faults, double Minutes, bool Cured, IReadOnlyList<string> Steps);

/// <summary>A world in which faults are not as frequent as the library says, and what a shop has learned of it.</summary>
/// <param name="ShiftSeed">Seed of the world's own frequencies; null when they are the library's.</param>
/// <param name="Learned">Closed jobs of the same model that the advisor has learned from, 0 or more.</param>
/// <param name="Strength">How many cases found the library's weights are worth when the shop learns.</param>
/// <param name="Kind">What the units obey.</param>
/// <param name="Proved">True when a unit is proved by a run of starts before it counts as cured; else one good trial is enough.</param>
public sealed record SimulatedWorld(
    long? ShiftSeed = null,
    int Learned = 0,
    double Strength = ShopLessons.DefaultStrength,
    WorldKind Kind = WorldKind.Network,
    bool Proved = true
);

/// <summary>What practice units obey.</summary>
public enum WorldKind
{
    /// <summary>The network that diagnoses them.</summary>
    Network,

    /// <summary>Circuits, signals, force and warmth.</summary>
    Physics,
}

/// <summary>Lets a policy work on drawn units and counts minutes, cures and cost.</summary>
public static class Simulation
{
    /// <summary>A unit is given up after this many minutes, by every policy alike.</summary>
    public const double LongestMinutes = 300;

    /// <summary>Costs in a simulation: a unit must not be given up early, since share cured is compared too.</summary>
    public static BenchCosts Costs { get; } = new(UncuredMinutes: LongestMinutes, OriginalityMinutes: 0, HarmMinutes: 20);

    /// <summary>Runs a policy.</summary>
    /// <param name="model">Model.</param>
    /// <param name="units">Number of units, 1 or more.</param>
    /// <param name="seed">Seed; the same seed gives the same units to every policy.</param>
    /// <param name="policy">Policy.</param>
    /// <param name="world">World the units come from; null for the library's.</param>
    /// <param name="worst">How many of the units that took longest to tell of, those not cured first.</param>
    /// <param name="dialogues">True to tell every unit move by move.</param>
    public static SimulationResult Run(
        DeviceModel model,
        int units,
        long seed,
        SimulatedPolicy policy,
        SimulatedWorld? world = null,
        int worst = 0,
        bool dialogues = false
    )
    {
        world ??= new SimulatedWorld();
        var priors = world.ShiftSeed is { } shift ? PracticeUnit.ShiftedPriors(model, shift) : null;
        var context = world.Learned > 0 ? Learn(model, seed, world, priors) : CaseContext.None;
        var runs = new (double Minutes, bool Cured, decimal Cost)[units];
        var worked = new WorkedUnit?[worst > 0 ? units : 0];
        var told = new Dialogue?[dialogues ? units : 0];
        Parallel.For(
            0,
            units,
            n =>
            {
                HiddenUnit unit =
                    world.Kind == WorldKind.Physics ? PhysicalUnit.Draw(model, seed, n, priors) : PracticeUnit.Draw(model, seed, n, priors);
                var faults = unit.Present.Select(f => model.Faults[f].Id).Order(StringComparer.Ordinal).ToList();
                var bench = Work(model, unit, policy, context, proved: world.Proved);
                runs[n] = (bench.Minutes, bench.AllWork, bench.PartsCost);
                if (dialogues)
                    told[n] = new Dialogue(
                        model.Profile.Id,
                        seed,
                        n,
                        faults,
                        bench.Told,
                        bench.Moves,
                        bench.AllWork,
                        Math.Round(bench.Minutes, 2)
                    );
                if (worst > 0)
                    worked[n] = new WorkedUnit(
                        n,
                        faults,
                        bench.Minutes,
                        bench.AllWork,
                        bench.Steps.Select(s => FormattableString.Invariant($"{s.Title}: {s.Answer}, {s.Minutes:0.#} min")).ToList()
                    );
            }
        );
        var sorted = runs.Select(r => r.Minutes).Order().ToList();
        return new SimulationResult(
            units,
            seed,
            policy,
            sorted.Average(),
            sorted[(int)Math.Ceiling(0.9 * units) - 1],
            runs.Count(r => r.Cured) / (double)units,
            (double)runs.Average(r => r.Cost),
            worst > 0 ? worked.OfType<WorkedUnit>().OrderBy(w => w.Cured).ThenByDescending(w => w.Minutes).Take(worst).ToList() : null,
            dialogues ? told.OfType<Dialogue>().ToList() : null
        )
        {
            Breaches = dialogues ? Breached(told.OfType<Dialogue>(), model) : null,
        };
    }

    private static Dictionary<string, int> Breached(IEnumerable<Dialogue> dialogues, DeviceModel model)
    {
        var counts = BenchLaws.All.ToDictionary(law => law, _ => 0);
        foreach (var law in dialogues.SelectMany(d => BenchLaws.Read(d, model).Select(b => b.Law).Distinct()))
            counts[law]++;
        return counts;
    }

    /// <summary>Lets a policy work on one unit, from the baseline test to the end.</summary>
    /// <param name="model">Model.</param>
    /// <param name="unit">Unit.</param>
    /// <param name="policy">Who works on it.</param>
    /// <param name="context">What the shop knows.</param>
    /// <param name="proved">True when it is proved by a run of starts before it is closed.</param>
    public static PracticeBench Work(
        DeviceModel model,
        HiddenUnit unit,
        SimulatedPolicy policy,
        CaseContext? context = null,
        bool proved = false
    )
    {
        IPolicy who = policy switch
        {
            SimulatedPolicy.Advisor => new AdvisorPolicy(Costs, context ?? CaseContext.None),
            SimulatedPolicy.Checklist => new ChecklistPolicy(),
            SimulatedPolicy.Seasoned => new SeasonedPolicy(),
            _ => new OraclePolicy(Costs),
        };
        var bench = new PracticeBench(model, unit, Costs);
        bench.Baseline();
        while (bench.Minutes < LongestMinutes)
        {
            if (UnitDiagnosis.ChooseTarget(model, bench.Events) is { } target)
            {
                if (!who.Step(bench, target))
                    break;
                continue;
            }

            // What could not be tried before is tried now.
            var before = bench.Steps.Count;
            bench.Baseline();
            if (bench.Steps.Count == before && (!proved || bench.Prove()))
                break;
        }

        return bench;
    }

    /// <summary>What a shop that has closed some jobs of the model would know; its units are drawn apart from the measured ones.</summary>
    private static CaseContext Learn(DeviceModel model, long seed, SimulatedWorld world, double[]? priors)
    {
        var lessons = Enumerable
            .Range(0, world.Learned)
            .Select(n => PracticeUnit.Draw(model, seed, -1 - n, priors).Present)
            .Select(present => new Lesson(
                model.Profile,
                "",
                present.Select(f => (model.Faults[f].Part.Id, model.Faults[f].Mode.Id)).ToList()
            ))
            .ToList();
        return new CaseContext(new ShopLessons(lessons, model.Library, world.Strength).Priors(model, ""));
    }
}
