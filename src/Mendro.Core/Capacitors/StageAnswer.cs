using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>How a unit does after a stage, beside before.</summary>
public enum StageChange
{
    /// <summary>What worked works, what failed fails: the usual one while old parts are still in.</summary>
    AsBefore,

    /// <summary>What failed works now.</summary>
    Better,

    /// <summary>Something that worked does not any more.</summary>
    Worse,
}

/// <summary>What one word after a stage says of each function; what was ticked by hand says more.</summary>
public static class StageAnswer
{
    /// <summary>What each function did.</summary>
    /// <param name="stage">The stage.</param>
    /// <param name="change">The word.</param>
    /// <param name="ticked">What was ticked by hand.</param>
    /// <returns>Functions with what they did, or what has to be ticked first.</returns>
    public static Outcome<IReadOnlyDictionary<FunctionId, bool>> Of(
        RecapStage stage, StageChange change, IReadOnlyDictionary<FunctionId, bool> ticked)
    {
        var failing = stage.Expects.Where(e => e.Expects is StageExpectation.WorksNow or StageExpectation.MayStillFail).ToList();
        var due = failing.Where(e => e.Expects == StageExpectation.WorksNow).ToList();
        var works = stage.Expects.Where(e => e.Expects == StageExpectation.StillWorks).ToList();
        if (change == StageChange.Worse && !works.Exists(e => ticked.TryGetValue(e.Function.Id, out var still) && !still))
            return Outcome<IReadOnlyDictionary<FunctionId, bool>>.Fail("Tick what worked before and does not any more.");
        var better = failing.Count == 1 ? failing : due;
        if (change == StageChange.Better && better.Count == 0 && !failing.Exists(e => ticked.GetValueOrDefault(e.Function.Id)))
            return Outcome<IReadOnlyDictionary<FunctionId, bool>>.Fail("Tick what works now and did not before.");
        var tried = works.ToDictionary(e => e.Function.Id, _ => true);
        foreach (var (function, _) in failing)
            tried[function.Id] = change == StageChange.Better && better.Exists(b => b.Function.Id == function.Id);
        foreach (var (function, said) in ticked)
            tried[function] = said;
        return Outcome<IReadOnlyDictionary<FunctionId, bool>>.Ok(tried);
    }
}
