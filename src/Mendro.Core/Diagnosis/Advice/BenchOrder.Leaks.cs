using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Laws of what leaks: it goes on eating after the line is bridged.</content>
internal sealed partial class BenchOrder
{
    /// <summary>A line that was found eaten was eaten by something: what leaks on its board is looked at before the line is bridged, as the
    /// unit lies open for it.</summary>
    private Move? WhatAteIt()
    {
        var boards = EatenBoards;
        if (boards.Count == 0)
            return null;
        var seen = Diagnosis
            .Case.Events.OfType<ProbeTaken>()
            .Select(t => Model.Profile.FindProbe(t.ProbeId))
            .Where(p => p is not null && TradeLibrary.Of(p.Kind).ByEye)
            .SelectMany(p => p!.PartIds())
            .ToHashSet();
        var eaters = Model
            .Profile.Parts.Where(p => boards.Contains(p.Board) && !seen.Contains(p.Id) && Model.FaultsOf(p.Id).Any(Eats))
            .Select(p => p.Id)
            .ToHashSet();
        return Unanswered(work.State, QuickMinutes)
            .Where(p => TradeLibrary.Of(p.Kind).ByEye && p.PartIds().Any(eaters.Contains))
            .OrderBy(p => p.Minutes)
            .Select(work.CheckAnyway)
            .FirstOrDefault(m => m is { Outcomes: [{ Probability: >= MayShow }, ..] });
    }

    /// <summary>A leak that was seen on a board with an eaten line comes off whatever else works: it eats the next one.</summary>
    private bool GoesOnEating(Part part, double[] there) =>
        EatenBoards.Contains(part.Board) && Model.FaultsOf(part.Id).Sum(f => Eats(f) ? there[f] : 0) >= MostOfTheBlame;

    /// <summary>Boards on which a line was found eaten.</summary>
    private HashSet<string?> EatenBoards =>
        _eatenBoards ??= Model
            .Profile.Parts.Where(p => p.Board is not null && work.Answered.Showed(p.Id) && Model.FaultsOf(p.Id).Any(IsEaten))
            .Select(p => p.Board)
            .ToHashSet();

    private HashSet<string?>? _eatenBoards;

    private bool IsEaten(int fault) => Model.Faults[fault].Mode.Eaten && Diagnosis.Posterior.Fault(fault) >= MostOfTheBlame;

    private bool Eats(int fault) => Model.Faults[fault].Mode.Eats is not null;
}
