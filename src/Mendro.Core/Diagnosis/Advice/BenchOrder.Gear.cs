using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Laws of the bench's own gear and of trials with another piece.</content>
internal sealed partial class BenchOrder
{
    /// <summary>Of pieces that can be swapped and are as good by the figures to a minute the one that bears on most of the
    /// blame.</summary>
    private Move MostAtOnce(Move best) =>
        best.SwapOut is null
            ? best
            : Quick(QuickMinutes)
                .Where(m => m.SwapOut is not null && m.ExpectedMinutes <= best.ExpectedMinutes + AsGood)
                .MaxBy(ShareOfPiece) ?? best;

    /// <summary>The bench's own gear is distrusted: before anything is worked on for a picture or a sound another cable or screen is tried,
    /// and before anything long another cartridge or disc.</summary>
    private Move? GearFirst(Move best)
    {
        if (best.Known || best.Repair is not { } repair || IsGear(repair.Part.Id) || work.Answered.Showed(repair.Part.Id))
            return null;
        var medium = Model.Library.FindFunctionKind(work.Target.Kind)?.Medium is not null;
        if (best.Minutes < (medium ? WorthAGear : LongWork))
            return null;
        // The cable that brings it is tried whatever the figures think of it, and before anything long the screen that shows it too; a
        // cartridge or a disc that hardly can be it is not. Which of them comes first the figures say: of a screen that stays blank it is
        // the game.
        var pieces = work.Quick(QuickMinutes, GearMayBe).Where(m => m.SwapOut is { } piece && IsGear(piece));
        if (medium)
            pieces = pieces.Concat(work.SwapsAnyway(p => IsGear(p) && (KindOf(p)!.Has(PartRole.Lines) || best.Minutes >= LongWork && ShowsIt(p))));
        return pieces.Where(m => !IsSpared(m)).MaxBy(ShareOfPiece);
    }

    /// <summary>True for what a way ends in: nothing is fed by it.</summary>
    private bool ShowsIt(PartId part) => Model.Graph.OutOf(part).Count == 0;

    /// <summary>Share of the blame of the piece that a swap takes out.</summary>
    private double ShareOfPiece(Move swap) => Diagnosis.Parts.TryGetValue(swap.SwapOut!.Value, out var part) ? part.Share : 0;

    private bool IsGear(PartId part) => KindOf(part)?.Gear == true;

    /// <summary>Minutes of work before which another cable is tried, and another piece of any gear.</summary>
    private const double WorthAGear = 4;
    private const double LongWork = 15;

    /// <summary>Share of the blame from which a piece of gear is tried.</summary>
    private const double GearMayBe = 0.005;

    /// <summary>Another piece in its place worked: the piece is named, and is dealt with.</summary>
    private Move? NamedBySwap(List<Move> ranked)
    {
        var since = Diagnosis.Case.Events.Reverse().TakeWhile(e => e is not RepairDone { Claimed: false }).ToList();
        var named = since
            .OfType<SwapTried>()
            .Where(s => s is { Passed: true, Flickers: false } && Diagnosis.Complaints.Any(c => c.Open && c.Function.Id == s.FunctionId))
            .Select(s => Model.Closure(s.FunctionId).Except(s.Chain).ToHashSet())
            .FirstOrDefault();
        return named is null
            ? null
            : ranked
                .Where(m => m.Repair is { } r && named.Contains(r.Part.Id))
                .OrderBy(m => m.Repair!.Method.Type == MethodType.Clean ? 0 : 1)
                .ThenByDescending(m => m.Repair!.Chance / m.Minutes)
                .FirstOrDefault();
    }

    /// <summary>True for what tells nothing: another piece in place of a source that gives what it should, and whatever is about parts
    /// without which it fails just so.</summary>
    private bool IsSpared(Move move) =>
        move.SwapOut is { } source && (GivesWell(source) || Spared.Contains(source))
        || move.Repair is { } repair && Spared.Contains(repair.Part.Id)
        || move.Probe?.PartIds().ToList() is { Count: > 0 } parts && parts.TrueForAll(Spared.Contains);

    private HashSet<PartId> Spared => _spared ??= BlameShares.SwappedOut(Diagnosis.Case, work.Target.Id);

    private HashSet<PartId>? _spared;
}
