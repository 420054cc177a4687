using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>The unit as the goal: what is tried again first, and where to go on when one complaint has nothing left.</content>
public sealed partial class MoveAdvisor
{
    /// <summary>What was worked on since it failed is tried again before anything else: until then nobody knows what is still
    /// wrong.</summary>
    private List<Move> Again(UnitDiagnosis diagnosis, Apart state)
    {
        var waiting = diagnosis
            .Complaints.Where(c => c.State == ComplaintState.NotTriedSince && !diagnosis.Case.Forbids(c.Function))
            .Select(c => c.Function)
            .Where(f => UnitDiagnosis.CanBeTried(diagnosis.Case.Model, f, diagnosis.Case.Events))
            .ToList();
        return waiting
            .Select((f, n) => n == 0 ? new Work(diagnosis, f, state, this).TriedAgain() : Plain(f, MoveWords.AgainTitle(f), MoveWords.AgainReason))
            .ToList();
    }

    /// <summary>Advice that goes on with another complaint where the first has nothing left with a real chance, or nothing known explains it
    /// while something explains the other.</summary>
    private Advice Elsewhere(UnitDiagnosis diagnosis, DeviceFunction first, Apart state, Advice advice)
    {
        var unit = diagnosis.Case;
        foreach (var other in Goal.Order(unit.Model, unit.Events).Where(f => f.Id != first.Id))
        {
            if (!UnitDiagnosis.CanBeTried(unit.Model, other, unit.Events))
                continue;
            _ = new BlameShares(unit, other).Of(diagnosis.Posterior.Fault, out var unexplained);
            if (advice.Moves is not [{ Id: Move.AsideId }, ..] && unexplained >= NotExplained)
                continue;
            var found = new BenchOrder(new Work(diagnosis, other, state, this), costs).Advice();
            if (found.Moves is not [{ Ends: false }, ..])
                continue;
            var moves = found.Moves.Where(m => !m.Ends).ToList();
            return found with
            {
                Moves = [.. moves, .. advice.Moves.Where(m => moves.All(o => o.Id != m.Id))],
            };
        }

        return advice;
    }

    private static Move Plain(DeviceFunction function, string title, string why) =>
        new($"fn:{function.Id}", title, why, function.Minutes, 0, 0, function.Minutes, [], null, Function: function);

    internal sealed partial class Work
    {
        /// <summary>The goal tried once more, with what either answer would mean: as if it had failed again, and as if all were
        /// well.</summary>
        public Move TriedAgain()
        {
            var (unit, plain) = (Diagnosis.Case, Plain(Target, MoveWords.AgainTitle(Target), MoveWords.AgainReason));
            var failed = new FunctionTried(unit.Events.Count, Target.Id, false);
            var failing = UnitDiagnosis.Make(unit.Model, [.. unit.Events, failed], unit.Context);
            if (!failing.IsOk)
                return plain;
            var then = new Work(failing.Value, Target, State, _advisor).Plan;
            var fails = 1 - unit.WhatIf(Diagnosis.Posterior, unit.Model.FunctionFails(Target)).ProbabilityAbsent;
            return plain with
            {
                ExpectedMinutes = Target.Minutes + fails * then.ExpectedMinutes,
                Outlook = Outlook.Of(Target.Minutes, fails, then.Outlook, new Outlook(1, 0, 0)),
                Outcomes =
                [
                    new MoveOutcome("works", 1 - fails, [], null),
                    new MoveOutcome(
                        "still fails",
                        fails,
                        failing.Value.Suspects.Where(s => s.Share > 0.05).Take(2).ToList(),
                        then.Sequence.FirstOrDefault()?.Method.Name
                    ),
                ],
            };
        }
    }
}
