using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>Taking apart, step by step: from it Mendro works out how far a unit has to be opened for a move, and the way back.</summary>
public sealed class StepSection : ProfileSection
{
    /// <inheritdoc/>
    public override string Key => "steps";

    /// <inheritdoc/>
    public override string Title => "Taking apart";

    /// <inheritdoc/>
    public override string Hint => "each step, what can be reached then, after which steps, which screws, minutes out and back";

    /// <inheritdoc/>
    public override string Example =>
        "back: Back shell off; frees psu, main; takes out s1, s2; care no-flex; check membranes on their pegs; 3 min, back 3 min; runs";

    /// <inheritdoc/>
    public override string Write(DeviceProfile profile) => TeardownText.Write(profile.Steps ?? []);

    /// <inheritdoc/>
    public override DeviceProfile Read(DeviceProfile profile, string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var read = TeardownText.ReadSteps(text, out problems);
        return profile with { Steps = read.Count > 0 ? read : null };
    }

    /// <inheritdoc/>
    public override void Check(DeviceProfile profile, TradeLibrary library, Action<string, string> report)
    {
        var steps = profile.Steps ?? [];
        var wrong = TeardownGraph.Problems(steps, []).ToList();
        foreach (var problem in wrong)
            report(problem.Place, problem.Message);
        var held = (profile.Fasteners ?? []).Select(f => f.Id).ToHashSet();
        var reached = profile
            .Parts.Select(p => p.Id.Value)
            .Concat(profile.Probes.Select(p => p.Id.Value))
            .Concat(profile.Parts.Select(p => p.Board).OfType<string>())
            .ToHashSet();
        for (var n = 0; n < steps.Count; n++)
        {
            foreach (var lost in (steps[n].Fasteners ?? []).Where(f => !held.Contains(f)))
                report($"steps[{n}].fasteners", $"there is no fastener “{lost}”.");
            foreach (var lost in (steps[n].Frees ?? []).Where(f => !reached.Contains(f)))
                report($"steps[{n}].frees", $"“{lost}” is no part, board or probe of this profile.");
            if (steps[n].Minutes > ProfileFormat.MostMinutes || steps[n].BackMinutes > ProfileFormat.MostMinutes)
                report($"steps[{n}].minutes", $"a step takes at most {ProfileFormat.MostMinutes} minutes.");
        }

        if (wrong.Count > 0 || TeardownGraph.Of(steps, []).Value is not { } graph)
            return;
        foreach (var lost in steps.SelectMany(s => s.Frees ?? []).Distinct().Where(id => !TeardownPlanner.Plan(graph, [id], []).IsOk))
            report("steps", $"“{lost}” is never reached: its steps wait for one another.");
    }
}
