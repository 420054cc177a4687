using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>A unit on the test bench: write down what happened, ask for the diagnosis.</summary>
internal sealed class Bench
{
    private readonly List<BenchEvent> _events = [];

    public Bench(string profileId)
        : this(Shipped.Profile(profileId)) { }

    public Bench(DeviceProfile profile)
        : this(new DeviceModel(profile, TradeLibrary.Shipped)) { }

    public Bench(DeviceModel model) => Model = model;

    public DeviceModel Model { get; }

    public IReadOnlyList<BenchEvent> Events => _events;

    public Bench Fails(string function, string? look = null) => Add(new FunctionTried(_events.Count, function, false, look));

    public Bench AllFail(string? look = null)
    {
        foreach (var function in Model.Profile.Functions)
            Fails(function.Id, Model.Library.FindFunctionKind(function.Kind)!.Looks.Any(l => l.Id == look) ? look : null);
        return this;
    }

    public Bench Works(params string[] functions)
    {
        foreach (var function in functions)
            Add(new FunctionTried(_events.Count, function, true));
        return this;
    }

    public Bench Reads(string probe, string reading)
    {
        var judged = ReadingJudge.Judge(Model.Profile, Model.Profile.FindProbe(probe)!, reading);
        judged.IsOk.ShouldBeTrue(judged.Problem);
        return Add(
            new ProbeTaken(_events.Count, probe, judged.Value!.Outcome, judged.Value.Reading.Word, judged.Value.On, judged.Value.Degree)
        );
    }

    public Bench Repairs(string part, string method) => Add(new RepairDone(_events.Count, part, method));

    public Bench Marked(string mark, SeenGrade grade = SeenGrade.Untold, string? place = null) =>
        Add(new MarkSeen(_events.Count, mark, grade, place));

    public Bench Add(BenchEvent happened)
    {
        _events.Add(happened);
        return this;
    }

    public UnitDiagnosis Diagnose()
    {
        var outcome = UnitDiagnosis.Make(Model, _events);
        outcome.IsOk.ShouldBeTrue(outcome.Problem);
        return outcome.Value!;
    }

    public Advice Advise(AccessState state = AccessState.Closed) => new MoveAdvisor(new BenchCosts()).Advise(Diagnose(), state);

    public double ShareOf(string part) => Diagnose().Parts[part].Share;
}
