using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Repairs as moves.</content>
public sealed partial class MoveAdvisor
{
    private Move RepairMove(
        UnitDiagnosis diagnosis,
        DeviceFunction target,
        BlameShares blame,
        double[] shares,
        RepairOption option,
        RepairPlan plan,
        Ahead? ahead,
        Apart state
    )
    {
        var unit = diagnosis.Case;
        var prepare = unit.Model.Disassembly.Minutes(state, option.Goal);
        // Exact over several faults: treated faults count only with what the method leaves of them.
        var fails = unit.Model.FunctionFails(target);
        var success = option.Cures.ToDictionary(c => c.Fault, c => c.Success);
        var works =
            (1 - fails.Leak)
            * diagnosis.Posterior.ExpectedProduct(
                unit.LinksOf(fails)
                    .Select(l => l with { P = l.P * unit.Leaves(target.Id, l.Fault) })
                    .Select(l => (unit.UncuredPiece(l.Fault), success.TryGetValue(l.Fault, out var s) ? s + (1 - s) * (1 - l.P) : 1 - l.P))
                    .Concat(blame.UnknownPiece is { } unknown ? [(unknown, 0.0)] : [])
            );
        if (ahead?.Expected >= plan.ExpectedMinutes)
            ahead = null;
        var after =
            ahead is not null ? ahead.Title
            : plan.Sequence.Count > 1 ? plan.Sequence[1].Method.Name
            : null;
        var aim = string.Join(
            " or ",
            diagnosis.Suspects.Where(s => s.Share > 0.01 && success.ContainsKey(s.FaultIndex)).Select(s => s.Fault.Words).Take(2)
        );
        var why =
            $"Against {(aim.Length > 0 ? aim : option.Part.Name)}."
            + (option.Method.TradeOff is { } tradeOff ? $" {tradeOff}" : "")
            + (prepare > 0 ? $" {prepare:0} min of it to take the unit apart." : "");
        return new Move(
            option.MoveId,
            option.Method.Name,
            why,
            option.Method.Minutes + costs.RetestMinutes + prepare,
            prepare,
            option.Method.PartsCost,
            ahead?.Expected ?? plan.ExpectedMinutes,
            [new MoveOutcome($"{target.Name} works", works, [], null), new MoveOutcome("still fails", 1 - works, LeftOver(), after)],
            ahead?.Outlook ?? plan.Outlook,
            Repair: option,
            ChanceToWork: works
        );

        // When it did not help, what it treats is less to blame and the rest more.
        List<Suspect> LeftOver()
        {
            var left = shares.Select((share, f) => share * (1 - success.GetValueOrDefault(f))).ToArray();
            var failing = 1 - shares.Sum() + left.Sum();
            return failing <= 0 ? [] : Leading(unit, left.Select(x => x / failing).ToArray(), f => left[f] / failing);
        }
    }
}
