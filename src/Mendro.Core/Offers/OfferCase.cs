using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Core.Offers;

/// <summary>A question to a seller that parts the ways a unit may be.</summary>
/// <param name="Words">The question.</param>
/// <param name="YesChance">Chance of a yes, 0 to 1.</param>
/// <param name="Yes">Ways after a yes.</param>
/// <param name="No">Ways after a no.</param>
public sealed record OfferQuestion(string Words, double YesChance, IReadOnlyList<OfferWay> Yes, IReadOnlyList<OfferWay> No);

/// <summary>
/// A unit that nobody here has seen: the ways it may be, by its model and by what its seller says. Those words hold with a chance; where
/// they do not, something fails, as it does in units of this model.
/// </summary>
/// <param name="model">Model that it may be.</param>
/// <param name="heard">What is said of it: functions that work or fail, which hold with the chance, and marks, which are seen in the pictures or
/// told against the seller's own interest and are taken as they are.</param>
/// <param name="costs">Costs at the bench.</param>
/// <param name="trust">How often such words hold, 0 to 1.</param>
public sealed class OfferCase(DeviceModel model, IReadOnlyList<SaidFact> heard, BenchCosts costs, double trust)
{
    // What hardly ever fails, or nearly always does, need not be asked.
    private const double WorthAsking = 0.03;

    private readonly List<SaidFact> _said = heard.Where(f => f is { Function: not null, Provoked: false }).ToList();
    private readonly List<string> _marks = heard.Select(f => f.Mark).OfType<string>().Distinct().ToList();
    private readonly Dictionary<string, (Outlook Outlook, IReadOnlyList<PlanStep> Steps)?> _known = [];

    /// <summary>What is said, in words.</summary>
    public IEnumerable<string> Words =>
        _said
            .Select(f => $"{model.Profile.FindFunction(f.Function!.Value)!.Name} {(f.Passed ? "works" : "fails")}")
            .Concat(_marks.Select(m => MoveWords.Lower(model.Library.FindMark(m)?.Name ?? m)));

    /// <summary>Ways it may be, with weights that make up one.</summary>
    /// <param name="weight">Weight of all of them together.</param>
    /// <param name="more">What is told besides, and holds for certain as long as the rest does; null for nothing.</param>
    public IReadOnlyList<OfferWay> Ways(double weight, SaidFact? more = null)
    {
        List<SaidFact> facts = more is null ? [.. _said] : [.. _said, more];
        if (facts.Count == 0)
            return Anyhow(weight, []).ToList();
        var told = facts.Any(f => !f.Passed)
            ? Of(facts) is { } known
                ? [Way(weight * trust, known)]
                : Anyhow(weight * trust, [])
            : Anyhow(weight * trust, facts);
        return [.. told, .. Anyhow(weight * (1 - trust), [])];
    }

    /// <summary>Questions whose answers would tell something.</summary>
    public IEnumerable<OfferQuestion> Questions()
    {
        foreach (var function in model.Profile.Functions.Where(f => _said.All(s => s.Function is not { } told || told != f.Id)))
        {
            var works = 1 - Fails(function);
            if (works >= WorthAsking && works <= 1 - WorthAsking)
                yield return new OfferQuestion(
                    $"Does this work: {MoveWords.Lower(function.Name)}?",
                    works,
                    Ways(1, new SaidFact(function.Id, true)),
                    Ways(1, new SaidFact(function.Id, false))
                );
        }
    }

    /// <summary>One function or another fails, as often as it does in such units; of those that are said to work none.</summary>
    private IEnumerable<OfferWay> Anyhow(double weight, IReadOnlyList<SaidFact> works)
    {
        if (weight <= 0)
            return [];
        var fails = model
            .Profile.Functions.Where(f => works.All(w => w.Function is not { } told || told != f.Id))
            .Select(f => (Known: Of([.. works, new SaidFact(f.Id, false)]), Weight: Fails(f)))
            .Where(f => f.Known is not null && f.Weight > 0)
            .ToList();
        var sum = fails.Sum(f => f.Weight);
        // Everything is said to work: then nothing is to be cured.
        return fails.Count == 0
            ? [new OfferWay(weight, 0, works.Count > 0 ? [new OfferStep(0, 0, 1)] : [])]
            : fails.Select(f => Way(weight * f.Weight / sum, f.Known!.Value));
    }

    private double Fails(DeviceFunction function)
    {
        var finding = model.FunctionFails(function);
        return 1 - finding.Links.Aggregate(1 - finding.Leak, (none, l) => none * (1 - l.P * model.Faults[l.Fault].Prior));
    }

    private static OfferWay Way(double weight, (Outlook Outlook, IReadOnlyList<PlanStep> Steps) known)
    {
        var steps = known.Steps.Select(s => new OfferStep(s.Minutes, s.Parts, s.Cures)).ToList();
        // What the best way takes beyond the repairs alone is looking.
        var repairs = new OfferWay(weight, 0, steps);
        return repairs with { LookMinutes = Math.Max(0, known.Outlook.WorkMinutes - repairs.Minutes) };
    }

    private (Outlook Outlook, IReadOnlyList<PlanStep> Steps)? Of(IReadOnlyList<SaidFact> facts)
    {
        var key = string.Join(',', facts.Select(f => $"{f.Function}:{f.Passed}:{f.Look}"));
        if (_known.TryGetValue(key, out var known))
            return known;
        var events = facts
            .Select((f, n) => (BenchEvent)new FunctionTried(n + 1, f.Function!.Value, f.Passed, f.Look, 1))
            .Concat(_marks.Select((m, n) => new MarkSeen(facts.Count + n + 1, m)))
            .ToList();
        if (UnitDiagnosis.Make(model, events) is not { IsOk: true, Value: { Target: not null } diagnosis })
            return _known[key] = null;
        var advice = new MoveAdvisor(costs).Advise(diagnosis, AccessState.Closed);
        return _known[key] = (advice.Outlook ?? new Outlook(0, 0, 0), advice.Plan?.Steps ?? []);
    }
}
