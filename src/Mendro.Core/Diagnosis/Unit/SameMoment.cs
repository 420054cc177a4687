using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// What is tried and measured one after another, with no work between, is tried in one moment of an intermittent fault: when it
/// fails one function it fails the others that need the part as well, and the volts behind it are missing; it does not draw anew.
/// What works just then clears it. A function that itself came and went says that the moment was none.
/// </summary>
internal sealed class SameMoment
{
    private readonly IReadOnlyList<PartFault> _faults;
    private readonly TradeLibrary _library;
    private readonly Dictionary<int, string> _failing = [];
    private readonly int[] _momentOf;
    private readonly Dictionary<int, List<(FunctionId Function, IReadOnlySet<PartId> Needs)>> _failures = [];
    private readonly HashSet<(int Moment, FunctionId Function)> _mixed = [];
    private readonly Dictionary<int, (FunctionId By, IReadOnlySet<PartId> Before)> _started = [];
    private readonly Dictionary<int, HashSet<PartId>> _charged = [];
    private readonly HashSet<int> _lit = [];
    private readonly (string By, IReadOnlySet<PartId> Parts) _light;
    private readonly IReadOnlySet<PartId> _toldToRun;
    private readonly HashSet<string> _notOfTheDead;
    private readonly HashSet<string> _ofTheStore;

    /// <summary>Divides the facts of a case into moments.</summary>
    public SameMoment(DeviceModel model, IReadOnlyList<PartFault> faults, BenchFacts facts, int count)
    {
        (_model, _faults, _library, _momentOf) = (model, faults, model.Library, new int[count]);
        _toldToRun = ToldToRun(model, facts, count);
        _notOfTheDead = model.Profile.Functions.Where(f => !OfTheDead.Contains(f.Kind)).Select(f => $"fn:{f.Id}").ToHashSet();
        _ofTheStore = model.Profile.Functions.Where(f => f.Kind != "charging").Select(f => $"fn:{f.Id}").ToHashSet();
        _light = model.Lit is { } picture ? ($"fn:{picture.Id}", model.LightOf(picture)) : ("", new HashSet<PartId>());
        var moment = 0;
        var last = new Dictionary<(int, FunctionId), bool>();
        for (var at = 0; at < count; at++)
        {
            if (facts[at] is RepairDone)
                moment++;
            _momentOf[at] = moment;
            // No picture even under a lamp: its light is not what it lacks.
            if (facts[at] is ProbeTaken taken && model.Profile.FindProbe(taken.ProbeId) is { } probe && model.PictureSeen(probe, taken) == false)
                _lit.Add(moment);
            if (facts[at] is not FunctionTried tried)
                continue;
            if (last.TryGetValue((moment, tried.FunctionId), out var passed) && passed != tried.Passed || tried.Starts > 1)
                _mixed.Add((moment, tried.FunctionId));
            last[(moment, tried.FunctionId)] = tried.Passed;
            if (tried.Passed)
            {
                Worked(model, moment, model.Profile.FindFunction(tried.FunctionId));
            }
            else
            {
                if (!_failures.TryGetValue(moment, out var list))
                    _failures[moment] = list = [];
                list.Add((tried.FunctionId, model.Closure(tried.FunctionId)));
                if (tried.LookId is { } look && model.Profile.FindFunction(tried.FunctionId) is { } shown && model.HasLook(shown, look))
                    (_looks.TryGetValue((moment, look), out var alike) ? alike : _looks[(moment, look)] = []).Add(tried.FunctionId);
            }
        }
    }

    private readonly DeviceModel _model;
    private readonly Dictionary<(int Moment, string Look), HashSet<FunctionId>> _looks = [];

    /// <summary>Chance that a fault shows a look that several functions have at this moment, the same for each: it is one fact, whichever is
    /// told first. What is shared by all shows in all, and here it does. Null for a look of one function alone.</summary>
    private double? AsInOthers(int moment, string? look, int fault)
    {
        if (look is null || !_looks.TryGetValue((moment, look), out var alike) || alike.Count < 2)
            return null;
        if (!_each.TryGetValue((moment, look), out var each))
            _each[(moment, look)] = each = alike
                .Select(_model.Profile.FindFunction)
                .OfType<DeviceFunction>()
                .SelectMany(f => Shows(f, look))
                .ToLookup(l => l.Fault, l => l.P);
        if (each[fault].Count() < 2)
            return null;
        // Once as it looks in the mean, and in all others because it does so in one.
        var (mean, count, mode) = (Math.Min(0, each[fault].Average(Math.Log)), each[fault].Count(), _faults[fault].Mode);
        var other = Math.Log(EvidenceWeights.LooksAlike * (mode.Effect == ModeEffect.Intermittent ? 1 : EvidenceWeights.Fails(mode)));
        return Math.Exp((mean + (count - 1) * Math.Max(mean, other)) / count);
    }

    private readonly Dictionary<(int Moment, string Look), ILookup<int, double>> _each = [];

    private IEnumerable<Link> Shows(DeviceFunction function, string look) =>
        _model
            .FunctionLooks(function, look)
            .Links.Where(l => l.P > 0)
            .Select(l => _model.WouldShowInOthers(_faults[l.Fault], function, look) ? l with { P = l.P / EvidenceWeights.SharedLook } : l);

    /// <summary>True for something weak that may be what hums at this moment. What only drops volts, as a switch does, hums in no other
    /// way than by the volts that are missing.</summary>
    private bool Hums(int moment, PartFault fault) =>
        fault.Mode.Effect == ModeEffect.Degraded
        && !_library.Has(fault.Part.Kind, PartRole.Switch)
        && _looks.TryGetValue((moment, "buzz"), out var hum)
        && hum.Select(_model.Profile.FindFunction).OfType<DeviceFunction>().Any(f => _model.HasLook(fault, f, "buzz"));

    /// <summary>Share of what volts say that they say against a weak supply that hums: a meter shows the mean, and the hum lies above and
    /// below it (common practice: the supply is listened to or looked at, and ripple is read on the AC range).</summary>
    private const double MeanOfAHum = 0.3;

    /// <summary>Work was done: the moment is over.</summary>
    public void Over()
    {
        _failing.Clear();
        _leaves.Clear();
    }

    /// <summary>Share of what a fault does to a function that it still does in the moment as it is: where the unit runs, what would keep it
    /// from running does not fail the function tried next either.</summary>
    public double Leaves(FunctionId function, int fault) => _leaves.GetValueOrDefault(($"fn:{function}", fault), 1);

    private readonly Dictionary<(string By, int Fault), double> _leaves = [];

    /// <summary>Number of the moment of a fact.</summary>
    public int Of(int at) => _momentOf[at];

    /// <summary>True when an intermittent may be what fails a function at this moment.</summary>
    public bool MayFailNow(int fault) => _failing.ContainsKey(fault);

    /// <summary>Links of a trial in its moment.</summary>
    public IReadOnlyList<Link> Links(int at, FunctionTried tried, IEnumerable<Link> links) =>
        _mixed.Contains((_momentOf[at], tried.FunctionId))
            ? CameAndWent(tried, links.ToList())
            : InMoment(at, $"fn:{tried.FunctionId}", !tried.Passed, tried.LookId, links);

    /// <summary>Links of volts or a current in their moment.</summary>
    public IReadOnlyList<Link> Links(int at, ProbeTaken taken, IEnumerable<Link> links) =>
        InMoment(at, $"probe:{taken.ProbeId}", taken.Outcome == ProbeOutcome.Abnormal, null, links);

    /// <summary>What fails just now would have failed this too. Of what comes and goes nobody knows which it was just then.</summary>
    private double Cleared(int moment, string by, PartFault fault, double p)
    {
        var failures = _failures.GetValueOrDefault(moment, []).Where(f => f.Needs.Contains(fault.Part.Id)).ToList();
        return failures.Count == 0 ? p
            : failures.All(f => _mixed.Contains((moment, f.Function))) ? PerhapsCleared(moment, by, fault, p)
            : fault.Mode.Effect == ModeEffect.Intermittent ? Math.Max(p, EvidenceWeights.ClearsAtTheMoment)
            : p;
    }

    /// <summary>Good volts say a little of what may have worked just then; more of them, on the same way, say it again.</summary>
    private double PerhapsCleared(int moment, string by, PartFault fault, double p) =>
        !by.StartsWith("probe:", StringComparison.Ordinal) ? p
        : _perhaps.Add((moment, fault.Id)) ? p * WorkedPerhaps
        : 0;

    private readonly HashSet<(int Moment, string Fault)> _perhaps = [];

    /// <summary>What is left of what good volts say against what comes and goes (value from memory).</summary>
    private const double WorkedPerhaps = 0.4;

    /// <summary>What came and went draws anew at each trial; what fails beside it and looks alike may come of the same.</summary>
    private List<Link> CameAndWent(FunctionTried tried, List<Link> links)
    {
        if (!tried.Passed)
            foreach (var link in links.Where(l => l.P > 0))
                _failing.TryAdd(link.Fault, $"fn:{tried.FunctionId}");
        return links;
    }

    /// <summary>Share of what a fault before the board does to picture, sound or buttons that it still does where the unit starts:
    /// nearly all of it was for want of a start (value from memory).</summary>
    private const double LostThoughStarted = 0.15;

    /// <summary>Share of the units that are dead and brought for something else: one in twenty, for who has a dead one says so (value from
    /// memory).</summary>
    private const double DeadAndNotSaid = 0.05;

    // Kinds of function of which a dead unit may well be told: nothing is seen, nothing comes out, nothing charges.
    private static readonly HashSet<string> OfTheDead = ["power-light", "start-up", "cartridge", "picture", "video-out", "backlight", "charging", "output"];

    /// <summary>The board and what lies before it in a unit that is brought for its sound or its buttons, of which nobody said that it is dead
    /// or does not start: empty where somebody did, or where the start was tried.</summary>
    private static IReadOnlySet<PartId> ToldToRun(DeviceModel model, BenchFacts facts, int count)
    {
        if (model.Profile.Functions.FirstOrDefault(f => f.Kind == "start-up") is not { } start)
            return new HashSet<PartId>();
        // A charge that fails says nothing of how it runs, and a picture with bars in it or without colour is one.
        bool Says(FunctionTried tried) =>
            model.Profile.FindFunction(tried.FunctionId)?.Kind is { } kind
            && (kind == "start-up" || !tried.Passed && kind != "charging" && OfTheDead.Contains(kind) && !IsAPicture(kind, tried.LookId));
        return Enumerable.Range(0, count).Any(at => facts[at] is FunctionTried tried && Says(tried))
            ? new HashSet<PartId>()
            : model.BeforeTheBoard(start).Union(start.Needs).ToHashSet();
    }

    /// <summary>True for what cannot have taken a function away just then, for what it does was there: a charge, a light.</summary>
    private bool IsNotForWantOfIt(int moment, string by, PartId part) =>
        _ofTheStore.Contains(by) && _charged.TryGetValue(moment, out var charges) && charges.Contains(part)
        || by == _light.By && _lit.Contains(moment) && _light.Parts.Contains(part);

    /// <summary>Share of what would leave a pack empty that may still show at its volts: where the unit runs just now, on its last charge at
    /// most (value from memory).</summary>
    /// <param name="by">Id of what would be looked for.</param>
    /// <param name="fault">Index of the fault.</param>
    public double MayBeEmpty(string by, int fault) =>
        _momentOf.Length > 0
        && by.StartsWith("probe:", StringComparison.Ordinal)
        && _charged.TryGetValue(_momentOf[^1], out var charges)
        && charges.Contains(_faults[fault].Part.Id)
        && _model.Profile.Probes.FirstOrDefault(p => by == $"probe:{p.Id}") is { At: { } at }
        && !charges.Contains(at)
            ? OnTheLastCharge
            : 1;

    private const double OnTheLastCharge = 0.15;

    /// <summary>What a function that worked shows of its moment: cells or a pack that are not empty, a light, a start.</summary>
    private void Worked(DeviceModel model, int moment, DeviceFunction? function)
    {
        if (function is { Kind: not "charging" } && model.ChargesOf(function.Id) is { Count: > 0 } charges)
            (_charged.TryGetValue(moment, out var known) ? known : _charged[moment] = []).UnionWith(charges);
        if (function is { Kind: "backlight" })
            _lit.Add(moment);
        if (function is { Kind: "start-up" })
            _started[moment] = (function.Id, model.BeforeTheBoard(function));
    }

    private static bool IsAPicture(string kind, string? look) => kind is "picture" or "video-out" && !NotShown(look) && !Conditions.Is(look);

    /// <summary>True for looks of a picture on which nothing is seen.</summary>
    internal static bool NotShown(string? look) => look is null or "nothing" or "blinks" or "solid-colour";

    /// <summary>True for what lies before the board that starts, and let it start at this moment.</summary>
    private bool LetItStart(int moment, PartFault fault) =>
        _started.TryGetValue(moment, out var started)
        && !_mixed.Contains((moment, started.By))
        && started.Before.Contains(fault.Part.Id);

    /// <summary>What is left of a fault before the board, or null: the unit started just then, or was brought as one that runs.</summary>
    private double? LeftOf(int moment, string by, PartFault fault) =>
        LetItStart(moment, fault) ? LostThoughStarted
        : _notOfTheDead.Contains(by) && _toldToRun.Contains(fault.Part.Id) ? DeadAndNotSaid
        : null;

    /// <summary>True for a part with lines of their own for each function: what works shows its own line.</summary>
    private bool IsLines(PartFault fault) => _library.Has(fault.Part.Kind, PartRole.Lines);

    private List<Link> InMoment(int at, string by, bool present, string? look, IEnumerable<Link> links)
    {
        var list = links.ToList();
        for (var n = 0; n < list.Count; n++)
        {
            var fault = _faults[list[n].Fault];
            if (list[n].P <= 0)
                continue;
            var comes = fault.Mode.Effect == ModeEffect.Intermittent;
            if (!present)
            {
                if (!IsLines(fault) && DeviceModel.Flickers(fault.Mode) >= Conditions.ComesAndGoes)
                    list[n] = list[n] with { P = Cleared(_momentOf[at], by, fault, list[n].P) };
                if (by.StartsWith("probe:", StringComparison.Ordinal) && Hums(_momentOf[at], fault))
                    list[n] = list[n] with { P = MeanOfAHum * list[n].P };
            }
            else if (IsNotForWantOfIt(_momentOf[at], by, fault.Part.Id))
            {
                list[n] = list[n] with { P = 0 };
                _leaves[(by, list[n].Fault)] = 0;
            }
            else if (
                by.StartsWith("fn:", StringComparison.Ordinal)
                && NotShown(look)
                && !IsLines(fault)
                && LeftOf(_momentOf[at], by, fault) is { } left
            )
            {
                list[n] = list[n] with { P = list[n].P * left };
                _leaves[(by, list[n].Fault)] = left;
            }
            else if (AsInOthers(_momentOf[at], look, list[n].Fault) is { } alike)
            {
                list[n] = list[n] with { P = alike };
                _failing.TryAdd(list[n].Fault, by);
            }
            else if (!_failing.TryAdd(list[n].Fault, by) && _failing[list[n].Fault] != by && comes)
            {
                list[n] = list[n] with { P = Math.Min(1, list[n].P / EvidenceWeights.Fails(fault.Mode) * EvidenceWeights.AtOneMoment) };
            }
        }

        return list;
    }
}
