using Mendro.Core.Dismantling;
using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.StandIns;

/// <summary>
/// Plays cases of practice against the advice: takes the first move each time, answers it from the case, and looks whether the
/// cure comes as early as a seasoned technician would be there.
/// </summary>
public sealed class CasebookPlayer(BenchCosts costs)
{
    /// <summary>Moves after which a case is given up.</summary>
    public const int MostMoves = 15;

    private readonly MoveAdvisor _advisor = new(costs);

    /// <summary>Plays a case.</summary>
    /// <param name="told">The case.</param>
    /// <param name="model">Its model.</param>
    public CaseResult Play(PracticeCase told, DeviceModel model)
    {
        var hand = new Hand(told, model);
        if (hand.Problem is { } unreadable)
            return new CaseResult(told.Id, false, "unreadable", [], told.Cures.Count, [], [], 0, unreadable);
        string? ended = null;
        while (ended is null && hand.Moves.Count < MostMoves)
        {
            var diagnosis = UnitDiagnosis.Make(model, hand.Events);
            ended =
                !diagnosis.IsOk ? "contradiction"
                : _advisor.Advise(diagnosis.Value, hand.Apart).Moves.FirstOrDefault() is not { } move ? "nothing-left"
                : hand.Take(move, diagnosis.Value);
        }

        ended ??= "too-long";
        var right = told.Stop ? ended is "stop" or "aside" or "nothing-left" : ended == "cured";
        var held =
            right && hand.Forbidden.Count == 0 && hand.Moves.Count <= told.Within.Moves && hand.Minutes <= told.Within.Minutes + 1e-9;
        return new CaseResult(told.Id, held, ended, hand.Met, hand.Missing, hand.Forbidden, hand.Moves, hand.Minutes);
    }

    /// <summary>One unit in the hand of one who does what the first line says.</summary>
    private sealed class Hand
    {
        private readonly PracticeCase _told;
        private readonly DeviceModel _model;
        private readonly List<BenchEvent> _events = [];
        private readonly List<IReadOnlyList<string>> _unmet;
        private readonly HashSet<PartId> _cured = [];

        public Hand(PracticeCase told, DeviceModel model)
        {
            (_told, _model, Apart, _unmet) = (told, model, model.Disassembly.At(told.Access), [.. told.Cures]);
            foreach (var fact in told.Facts)
                if (File(fact) is { } problem)
                    Problem ??= $"facts[{_events.Count}]: {problem}";
        }

        public string? Problem { get; }

        public IReadOnlyList<BenchEvent> Events => _events;

        public Apart Apart { get; private set; }

        public List<PlayedMove> Moves { get; } = [];

        public List<CureMet> Met { get; } = [];

        public List<string> Forbidden { get; } = [];

        public int Missing => _unmet.Count;

        public double Minutes { get; private set; }

        /// <summary>Does a move.</summary>
        /// <returns>How the case ended by it, or null when it goes on.</returns>
        public string? Take(Move move, UnitDiagnosis diagnosis)
        {
            if (_told.Never.Any(n => n.EndsWith('*') ? move.Id.StartsWith(n[..^1], StringComparison.Ordinal) : move.Id == n))
                Forbidden.Add(move.Id);
            Minutes += move.Minutes;
            var (answer, ended) = move switch
            {
                { Repair: { } repair } => Repair(repair, diagnosis),
                { Probe: { } probe } => (Measure(probe), null),
                { Function: { } function, SwapOut: { } part } => (Swap(function, part), null),
                { Function: { } function, Provoke: { } how } => (Provoke(function, how), null),
                { Function: { } function } => (Try(function), null),
                _ => (move.Title, move.Id),
            };
            Moves.Add(new PlayedMove(move.Id, answer, Math.Round(move.Minutes, 2)));
            if (move.Repair is { } done)
                Further(_model.Disassembly.Goal(done.Part.Id, done.Method.State));
            return ended;
        }

        private string Measure(Probe probe)
        {
            Further(_model.Disassembly.Goal(probe));
            // Once its part is cured a check shows what a sound one shows.
            var cured = probe.PartIds().Any(_cured.Contains) && !probe.PartIds().Any(Waiting().Contains);
            var told = cured ? null : _told.Answers.GetValueOrDefault($"probe:{probe.Id}");
            var reading = told ?? SoundReading(_model.Profile, probe);
            if (File(Entry() with { Probe = probe.Id, Reading = reading }) is not { } problem)
                return reading;
            // Who reads what cannot be right says “not so”, rather than reading it again.
            File(Entry() with { Probe = probe.Id, Reading = "bad" });
            return $"{reading} ({problem})";
        }

        private string Try(DeviceFunction function)
        {
            var answer = _told.Answers.GetValueOrDefault($"fn:{function.Id}") ?? "pass";
            FileTrial(function, answer);
            return answer;
        }

        private string Provoke(DeviceFunction function, Provocation how)
        {
            if (how == Provocation.Flexed)
                Further(Disassembly.Goal(AccessState.Open));
            var key = $"provoke:{function.Id}:{how.ToString().ToLowerInvariant()}";
            var answer = _told.Answers.GetValueOrDefault(key) ?? "same";
            _events.Add(new Provoked(_events.Count, function.Id, how, answer == "changed"));
            return answer;
        }

        private string Swap(DeviceFunction function, PartId part)
        {
            // With a sound part it fails still.
            var answer = _told.Answers.GetValueOrDefault($"swap:{part}") ?? "fail";
            var chain = SwapPlanner.Chain(_model, function.Id, [part]);
            _events.Add(new SwapTried(_events.Count, function.Id, chain, answer == "pass", null, answer == "flicker"));
            return answer;
        }

        private (string Answer, string? Ended) Repair(RepairOption repair, UnitDiagnosis diagnosis)
        {
            var name = $"{repair.Part.Id}:{repair.Method.Id}";
            var done = _model.InOneGo(repair.Part, repair.Method);
            _events.AddRange(done.Select((x, n) => new RepairDone(_events.Count + n, x.Part.Id, x.Method.Id)));
            var met = _unmet.RemoveAll(list => list.Contains(name) || done.Any(x => list.Contains($"{x.Part.Id}:{x.Method.Id}")));
            if (met > 0)
                _cured.Add(repair.Part.Id);
            if (met > 0)
                Met.Add(new CureMet($"fix:{name}", Moves.Count + 1, Math.Round(Minutes, 2)));
            if (met > 0 && _unmet.Count == 0 && !_told.Stop)
                return ("everything works", "cured");
            // What failed is tried again: all of it when something was cured, else what could be the better for the work.
            var failing = _model.Profile.Functions.Where(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.Fails).ToList();
            var waiting = Waiting();
            foreach (var function in failing)
            {
                var closure = _model.Closure(function.Id);
                if (met == 0 && !closure.Contains(repair.Part.Id) && function != diagnosis.Target)
                    continue;
                var look = _events.OfType<FunctionTried>().Last(t => t.FunctionId == function.Id).LookId;
                var still = met == 0 || closure.Overlaps(waiting);
                var answer = still ? "fail" + (look is null ? "" : $":{look}") : "pass";
                if (met > 0 && _told.Answers.GetValueOrDefault($"fn:{function.Id}") is { } told)
                    answer = told;
                FileTrial(function, answer);
            }

            return (met > 0 ? "helps" : "still fails", null);
        }

        private HashSet<PartId> Waiting() => _unmet.SelectMany(list => list).Select(n => (PartId)n[..n.IndexOf(':')]).ToHashSet();

        private void FileTrial(DeviceFunction function, string answer)
        {
            var look = answer.StartsWith("fail:", StringComparison.Ordinal) ? answer[5..] : null;
            var known = _model.HasLook(function, look) ? look : null;
            _events.Add(new FunctionTried(_events.Count, function.Id, answer == "pass", known));
        }

        private string? File(EvidenceEntry entry)
        {
            var read = RecordKinds.FromEntry(entry, new EntryContext(_model, []));
            if (read.Value?.ToEvent(_events.Count) is not { } happened)
                return read.Problem ?? "nothing to note";
            _events.Add(happened);
            return null;
        }

        private void Further(int goal) => Apart = _model.Disassembly.After(Apart, goal);

        private static EvidenceEntry Entry() =>
            new(null, null, null, null, null, null, null, null, null, null, null, null, null, null, null, null);
    }

    /// <summary>What a probe shows on a sound part, as typed at the bar.</summary>
    public static string SoundReading(DeviceProfile profile, Probe probe)
    {
        var expect = ExpectationRules.For(profile, probe).Probe.Expect;
        double? value = (expect.Low, expect.High) switch
        {
            ({ } low, { } high) => (low + high) / 2,
            ({ } low, null) => low * 4,
            (null, { } high) => high / 5,
            _ => null,
        };
        return probe.Kind switch
        {
            ProbeKind.Look or ProbeKind.Press => "ok",
            ProbeKind.Continuity => "beep",
            _ when value is not { } number => "ok",
            ProbeKind.Volts => string.Create(CultureInfo.InvariantCulture, $"{value:0.###} V"),
            ProbeKind.Current => string.Create(CultureInfo.InvariantCulture, $"{value:0.######} A"),
            ProbeKind.Capacitance => string.Create(CultureInfo.InvariantCulture, $"{value * 1e6:0.######}u"),
            ProbeKind.Diode => string.Create(CultureInfo.InvariantCulture, $"{value:0.###} diode"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{value:0.###} ohm"),
        };
    }
}
