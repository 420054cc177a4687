using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>A law of the bench that a dialogue breaks.</summary>
/// <param name="Law">Name of the law.</param>
/// <param name="Move">Index of the move that breaks it.</param>
public sealed record LawBreach(string Law, int Move);

/// <summary>
/// The laws of the bench (common practice, no source) that can be read off a dialogue alone, without knowing what the advice
/// believed.
/// </summary>
public static class BenchLaws
{
    /// <summary>A piece is not worked on after another in its place has failed just so.</summary>
    public const string SwappedIsSpared = "swapped-is-spared";

    /// <summary>Another piece worked: what it stood for is dealt with, the work does not end.</summary>
    public const string NamedIsDealtWith = "named-is-dealt-with";

    /// <summary>The last work is gone over at most twice.</summary>
    public const string GoneOverTwice = "gone-over-twice";

    /// <summary>Nothing is renewed twice, or treated the same way three times.</summary>
    public const string NotAgainAndAgain = "not-again-and-again";

    /// <summary>What a meter has found good at the part itself is not replaced.</summary>
    public const string GoodIsKept = "good-is-kept";

    /// <summary>The same work is not done twice in a row.</summary>
    public const string FindingBetween = "finding-between";

    /// <summary>The same check is not made twice with nothing done between.</summary>
    public const string AskedOnce = "asked-once";

    /// <summary>The work does not end while something that failed was not tried since it was worked on.</summary>
    public const string TriedBeforeTheEnd = "tried-before-the-end";

    /// <summary>All laws.</summary>
    public static IReadOnlyList<string> All { get; } =
        [SwappedIsSpared, NamedIsDealtWith, GoneOverTwice, NotAgainAndAgain, GoodIsKept, FindingBetween, AskedOnce, TriedBeforeTheEnd];

    /// <summary>Breaches of a dialogue, in order.</summary>
    public static IReadOnlyList<LawBreach> Read(Dialogue dialogue, DeviceModel model)
    {
        var found = new List<LawBreach>();
        var moves = dialogue.Moves;
        var failedWithout = new HashSet<string>();
        var named = new HashSet<string>();
        var good = new HashSet<string>();
        var asked = new HashSet<string>();
        var failing = dialogue.Told.Where(t => t.Result == "fail").Select(t => t.Function!.Value).ToHashSet();
        var waiting = new HashSet<FunctionId>();
        for (var n = 0; n < moves.Count; n++)
        {
            var move = moves[n];
            void Breach(string law) => found.Add(new LawBreach(law, n));
            switch (move.Kind)
            {
                case DialogueKind.Check:
                    if (!asked.Add(move.Id))
                        Breach(AskedOnce);
                    if (
                        model.Profile.FindProbe(move.Id[6..]) is { Spans: [var only], Kind: not ProbeKind.Volts } probe
                        && !TradeLibrary.Of(probe.Kind).ByEye
                    )
                    {
                        if (move.Answer == "ok")
                            good.Add(only.ToString());
                        else
                            good.Remove(only.ToString());
                    }

                    break;
                case DialogueKind.Swap when move.Answer == "fail":
                    failedWithout.Add(move.Part!);
                    break;
                case DialogueKind.Swap:
                    named.Add(move.Part!);
                    break;
                case DialogueKind.Trial:
                    FunctionId tried = move.Id[3..];
                    waiting.Remove(tried);
                    if (move.Answer == "pass")
                        failing.Remove(tried);
                    else
                        failing.Add(tried);
                    break;
                case DialogueKind.Repair:
                    Repair(move, n, Breach);
                    break;
                case DialogueKind.End:
                    if (named.Count > 0)
                        Breach(NamedIsDealtWith);
                    // What cannot be tried while the unit has no light, or does not start, is not waited for.
                    if (waiting.Any(w => !failing.Any(f => f != w && Blocks(f, w))))
                        Breach(TriedBeforeTheEnd);
                    break;
            }
        }

        return found;

        bool Blocks(FunctionId failed, FunctionId waits) =>
            model.Profile.FindFunction(failed) is { Kind: "power-light" or "start-up" or "cartridge" } start
            && model.Profile.FindFunction(waits) is { } function
            && UnitDiagnosis.WantsStart(model, function, start);

        void Repair(DialogueMove move, int n, Action<string> breach)
        {
            var before = moves.Take(n).Where(m => m.Kind == DialogueKind.Repair).ToList();
            var method = model.Library.FindMethod(move.Id[(move.Id.LastIndexOf(':') + 1)..])!;
            var same = before.Count(m => m.Id == move.Id);
            if (failedWithout.Contains(move.Part!))
                breach(SwappedIsSpared);
            if (method.Id == "rework-step" && before.Count(m => m.Id.EndsWith(":rework-step", StringComparison.Ordinal)) >= 2)
                breach(GoneOverTwice);
            if (same >= (method.Renews ? 1 : 2))
                breach(NotAgainAndAgain);
            if (method.Type == MethodType.Replace && good.Contains(move.Part!))
                breach(GoodIsKept);
            // A trial alone is the end of the work, no finding; what the check at its end shows is one.
            var last = moves.Take(n).LastOrDefault(m => m.Kind is not (DialogueKind.Trial or DialogueKind.Proof));
            if (last?.Id == move.Id && last.Answer == "done" && !moves.Take(n).Reverse().TakeWhile(m => m != last).Any(m => m.Answer is "pass"))
                breach(FindingBetween);
            named.Clear();
            asked.Clear();
            failedWithout.Clear();
            good.Remove(move.Part!);
            PartId part = move.Part!;
            waiting.UnionWith(failing.Where(f => model.Closure(f).Contains(part)));
        }
    }
}
