using Mendro.Core.Diagnosis;
using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;

namespace Mendro.Core.Jobs;

/// <summary>Reads from the records of a job what has to be tried before the unit leaves.</summary>
public static class UnitTrail
{
    /// <summary>Reads it.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="bodies">Records that hold, in order.</param>
    public static TestHistory Of(DeviceModel model, IReadOnlyList<RecordBody> bodies)
    {
        var functions = new Dictionary<FunctionId, (int, bool)>();
        var checks = new Dictionary<string, (int, bool)>();
        var repairs = new Dictionary<PartId, int>();
        var (opened, soldered, recapped) = (new Dictionary<string, int>(), new Dictionary<string, int>(), new Dictionary<string, int>());
        var kept = new Dictionary<string, string>();
        var (closing, apart) = (-1, AccessState.Closed);
        for (var at = 0; at < bodies.Count; at++)
        {
            var body = bodies[at];
            var before = apart;
            apart = body.After(model, apart);
            if (before != AccessState.Closed && apart == AccessState.Closed)
                closing = at;
            if (body.ToEvent(0) is FunctionTried tried)
            {
                functions[tried.FunctionId] = (at, tried.Passed);
                if (tried.Passed)
                    kept.Remove(TestItem.IdOf(tried.FunctionId));
            }

            switch (body)
            {
                case RepairLogged repair when repair.Claimed != true:
                    repairs[repair.Part] = at;
                    if (model.Library.FindMethod(repair.Method)?.Steps.Any(s => s.Heat > 0) == true)
                        soldered[repair.Part] = at;
                    break;
                case CapacitorsFitted fitted:
                    recapped[fitted.Board] = at;
                    if (fitted.Part is { } renewed)
                        repairs[renewed] = at;
                    break;
                case StepTaken step:
                    opened[step.StepId] = at;
                    break;
                case TestDone done:
                    checks[done.Item] = (at, done.Passed);
                    if (done.Passed)
                        kept.Remove(done.Item);
                    break;
                case FaultKept fault:
                    kept[fault.Item] = fault.Told;
                    break;
            }
        }

        return new TestHistory(
            functions,
            checks,
            repairs,
            [
                .. opened.Select(o => new Disturbed(Disturbance.Opened, o.Key, o.Value)),
                .. soldered.Select(s => new Disturbed(Disturbance.Soldered, s.Key, s.Value)),
                .. recapped.Select(r => new Disturbed(Disturbance.Recapped, r.Key, r.Value)),
            ],
            closing,
            apart != AccessState.Closed,
            kept
        )
        {
            WorkedOn = Complaints.NotTriedSince(model, [.. bodies.Select((b, n) => b.ToEvent(n)).OfType<BenchEvent>()]),
        };
    }
}
