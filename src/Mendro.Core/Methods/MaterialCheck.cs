using System.Globalization;

namespace Mendro.Core.Methods;

/// <summary>
/// Checks what is put on a unit, one thing after the other: each agent against its surface, and every step against all that is still on
/// the unit. Mixtures that must never meet stop until what was there first is rinsed off and dried. Vapour that burns stops heat and
/// power until it has dried; water stops power until it has dried; what keeps eating or conducts, and dust, stop heat, power and grease
/// until they are off (common practice, no source; the mixtures as the library says).
/// </summary>
public static class MaterialCheck
{
    /// <summary>Checks a sequence. A step that is stopped counts as taken for those behind it: nothing becomes safe by being
    /// forbidden.</summary>
    public static SequenceReport Of(IReadOnlyList<SequenceStep> steps, MaterialLibrary library)
    {
        var unit = new OnTheUnit(library);
        var (verdicts, stops) = (new List<StepVerdict>(), new List<SequenceStop>());
        for (var n = 0; n < steps.Count; n++)
        {
            var step = steps[n];
            verdicts.Add(Judge(n, step, library));
            stops.AddRange(unit.Stops(step).Select(s => new SequenceStop(n, s.Rule, s.Reason)));
            unit.Take(step);
        }

        return new SequenceReport(verdicts, stops);
    }

    /// <summary>Agents of which something that keeps eating, conducts or grinds is still on a surface.</summary>
    public static IReadOnlyList<MaterialAgent> Residue(IReadOnlyList<SequenceStep> steps, string surface, MaterialLibrary library)
    {
        var unit = new OnTheUnit(library);
        foreach (var step in steps)
            unit.Take(step);
        return unit.Residue(surface);
    }

    private static StepVerdict Judge(int index, SequenceStep step, MaterialLibrary library)
    {
        if (library.FindAgent(step.Agent) is not { } agent)
            return new StepVerdict(index, MaterialVerdict.Safe, []);
        var rule =
            agent.Surfaces.GetValueOrDefault(step.Surface!)
            ?? new SurfaceRule(MaterialVerdict.TestFirst, "nobody has said: try a hidden spot");
        var reasons = new List<string>();
        if (rule.Reason is { } reason)
            reasons.Add(reason);
        if (step.Minutes > agent.MostMinutes)
            reasons.Add(string.Create(CultureInfo.InvariantCulture, $"leave it {agent.MostMinutes:0.#} min at most"));
        var verdict = rule.Verdict == MaterialVerdict.Safe && step.Minutes > agent.MostMinutes ? MaterialVerdict.TestFirst : rule.Verdict;
        return new StepVerdict(index, verdict, reasons);
    }

    /// <summary>Something that is still on the unit.</summary>
    private sealed class Left(MaterialAgent agent, string surface)
    {
        public MaterialAgent Agent { get; } = agent;

        public string Surface { get; } = surface;

        public bool Rinsed { get; set; }

        /// <summary>True once what keeps eating, conducts or grinds was wiped or washed off.</summary>
        public bool Off { get; set; }

        public double DriedMinutes { get; set; }

        /// <summary>Dried as long as it needs.</summary>
        public bool Dry => DriedMinutes >= Agent.DryMinutes;
    }

    private sealed class OnTheUnit(MaterialLibrary library)
    {
        private readonly List<Left> _left = [];
        private double? _rinseDried;

        /// <summary>Water of a rinse that has not dried.</summary>
        private bool RinseWet => _rinseDried < library.RinseDryMinutes;

        public IEnumerable<(string Rule, string Reason)> Stops(SequenceStep step)
        {
            if (step.Agent is { } agent)
                return Mixing(agent).Concat(library.FindAgent(agent)!.Grease ? Dust("grease grinds it in") : []);
            if (step.Heat is not null)
                return Burning("flammable-heat", "heat").Concat(Eating("heat"));
            return step.Power == true
                ? Burning("flammable-power", "a spark")
                    .Concat(Wet())
                    .Concat(Eating("power"))
                    .Concat(Dust("it bridges contacts under power"))
                : [];
        }

        public void Take(SequenceStep step)
        {
            if (library.FindAgent(step.Agent) is { } agent)
                Put(agent, step.Surface!);
            else if (step.Rinse == true)
                Rinse();
            else if (step.Dry is { } minutes)
                Dry(minutes, step.Enough == true);
        }

        public IReadOnlyList<MaterialAgent> Residue(string surface) =>
            _left.Where(l => l.Surface == surface && !l.Off && (l.Agent.Residue || l.Agent.Sheds)).Select(l => l.Agent).Distinct().ToList();

        private void Put(MaterialAgent agent, string surface)
        {
            foreach (var before in _left.Where(l => l.Surface == surface))
                if (agent.Removes?.Contains(before.Agent.Id) == true || agent.WipesDust && before.Agent.Sheds)
                    before.Off = true;
            _left.Add(new Left(agent, surface));
        }

        private void Rinse()
        {
            foreach (var left in _left)
                (left.Rinsed, left.Off) = (true, true);
            _rinseDried = 0;
        }

        private void Dry(double minutes, bool enough)
        {
            _rinseDried += enough ? Math.Max(minutes, library.RinseDryMinutes) : minutes;
            foreach (var left in _left)
                left.DriedMinutes += enough ? Math.Max(minutes, left.Agent.DryMinutes) : minutes;
            // What was rinsed and dried is gone, and so is what dries away by itself.
            _left.RemoveAll(l => l.Dry && (l.Agent.Volatile || l.Rinsed && !RinseWet));
        }

        private IEnumerable<(string, string)> Mixing(string agent) =>
            library
                .Mixtures.Select(m => (Mixture: m, Met: _left.Find(l => m.IsOf(l.Agent.Id, agent))))
                .Where(m => m.Met is not null)
                .Select(m =>
                    (
                        m.Mixture.Rule,
                        $"{m.Mixture.Reason} {m.Met!.Agent.Name} is still there: rinse it off and let it dry first. Fresh air, gloves, goggles."
                    )
                );

        private IEnumerable<(string, string)> Burning(string rule, string what) =>
            _left
                .Where(l => l.Agent.Flammable && !l.Dry)
                .Take(1)
                .Select(l => (rule, $"{l.Agent.Name} burns: its vapour must dry away before {what}{Wants(l.Agent.DryMinutes)}."));

        private IEnumerable<(string, string)> Wet()
        {
            if (_left.Find(l => l.Agent.Aqueous && !l.Dry) is { } wet)
                yield return ("wet-power", $"{wet.Agent.Name} left water: dry it before power{Wants(wet.Agent.DryMinutes)}.");
            else if (RinseWet)
                yield return ("wet-power", $"The rinse left water: dry it before power{Wants(library.RinseDryMinutes)}.");
        }

        private IEnumerable<(string, string)> Eating(string before) =>
            _left
                .Where(l => l.Agent.Residue && !l.Off)
                .Take(1)
                .Select(l =>
                    ("residue", $"What {l.Agent.Name} leaves keeps eating and may conduct: all of it must come off before {before}.")
                );

        private IEnumerable<(string, string)> Dust(string why) =>
            _left
                .Where(l => l.Agent.Sheds && !l.Off)
                .Take(1)
                .Select(l => ("shedding", $"{l.Agent.Name} leaves dust: wipe or rinse it off first, {why}."));

        private static string Wants(double minutes) => string.Create(CultureInfo.InvariantCulture, $" ({minutes:0.#} min at least)");
    }
}
