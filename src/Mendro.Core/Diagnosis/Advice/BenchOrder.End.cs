using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Where the end of the work belongs.</content>
internal sealed partial class BenchOrder
{
    /// <summary>Puts the end of the work where it belongs: in front when nothing is left with a real chance, when the board is
    /// beyond repair, or when going on costs more than it brings; else behind what is worth doing.</summary>
    private void Stop(List<Move> moves, List<PartVerdict> hopeless, bool known)
    {
        if (hopeless.Count > 0)
        {
            moves.Insert(
                0,
                End(
                    Move.StopId,
                    "Stop: beyond repair",
                    $"{string.Join(", ", hopeless.Select(h => h.Part.Name))}: nothing cures that for good. Keep what is good for parts."
                )
            );
            return;
        }

        var chance = moves.Take(3).Select(m => m.Outlook?.ChanceToCure ?? 0).DefaultIfEmpty(0).Max();
        // Another piece in its place worked: what it named is dealt with, however little is known of why.
        if (!known && chance < NoRealChance && NamedBySwap(moves) is null)
        {
            var look = BeforeItIsSetAside() ?? AlongItsWay();
            if (look is not null)
            {
                moves.RemoveAll(m => m.Id == look.Id);
                moves.Insert(0, look);
            }

            moves.Insert(
                look is null ? 0 : 1,
                End(Move.AsideId, "Set it aside", AsideReason())
            );
            return;
        }

        // What is at stake is not known: nobody can say that it is too little.
        if (!costs.StakeKnown)
        {
            moves.Add(End(Move.StopId, "Stop here", "When what stands above has not helped, or the unit is not worth it."));
            return;
        }

        var plan = RepairPlan.Make(
            work.Shares,
            RepairOption.For(Diagnosis.Case, work.Shares, costs),
            new Reach(Model.Disassembly),
            work.State,
            costs
        );
        var worth = plan.Sequence.Count > 0 || known && moves[0].Minutes <= costs.UncuredMinutes;
        var stop = End(
            Move.StopId,
            "Stop: not worth going on",
            worth ? "When what stands above has not helped." : "What is left to try costs more than it brings."
        );
        if (worth)
            moves.Insert(Math.Max(1, moves.FindLastIndex(m => m.ExpectedMinutes < costs.UncuredMinutes) + 1), stop);
        else
            moves.Insert(0, stop);
    }

    /// <summary>Where nothing known explains it, what lies on its way alone is looked at before it is set aside: the library does not know
    /// everything.</summary>
    private Move? AlongItsWay()
    {
        if (Diagnosis.Unexplained < HalfTheBlame)
            return null;
        var own = Model.Closure(work.Target.Id).Except(Working).ToHashSet();
        double Takes(Probe probe) => probe.Minutes + Model.Disassembly.Minutes(work.State, Model.Disassembly.Goal(probe));
        return Model
            .Profile.Probes.Where(p => !work.Answered.Has(p) && p.Spans is { Count: > 0 } spans && spans.All(own.Contains) && Takes(p) <= MostAlongItsWay)
            .OrderBy(Takes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is not null);
    }

    private const double MostAlongItsWay = 8;

    /// <summary>Why it is set aside. Where nothing known explains it, that is said, with the cheapest looks that are left along its
    /// way.</summary>
    private string AsideReason()
    {
        const string write = "Write down how it looks: the next of its kind may tell what it is.";
        if (Diagnosis.Unexplained < HalfTheBlame)
            return "Nothing that is left has a real chance. " + write;
        var closure = Model.Closure(work.Target.Id);
        var looks = Model
            .Profile.Probes.Where(p => !work.Answered.Has(p) && p.PartIds().Any(closure.Contains))
            .OrderBy(p => p.Minutes + Model.Disassembly.Minutes(work.State, Model.Disassembly.Goal(p)))
            .Take(LooksNamed)
            .Select(p => MoveWords.Lower(p.Name))
            .ToList();
        return "Nothing known of this model explains it. "
            + (looks.Count > 0 ? $"What was not looked at along its way: {string.Join(", ", looks)}. Or t" : "T")
            + "each it what is missing. "
            + write;
    }

    private const int LooksNamed = 3;

    private Move End(string id, string title, string why) => new(id, title, why, 0, 0, 0, costs.UncuredMinutes, [], null);
}
