using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>Hears what a line says of one model, clause by clause.</summary>
internal sealed partial class Listener
{
    private static readonly HashSet<string> Known = Lexicon
        .Phrases.SelectMany(p => p.Words)
        .SelectMany(w => w.TrimEnd('?').Split('|'))
        .Select(w => w.TrimEnd('*'))
        .Concat(Lexicon.Functions.SelectMany(f => f.Word.Split(' ')))
        .Concat(Lexicon.Marks.SelectMany(m => m.Words.Split(' ').SelectMany(w => w.TrimEnd('?').Split('|'))))
        .Concat(
            [
                "stinks", "loud", "clear", "hums", "pressed", "garbled", "nothing", "picture", "already", "cleaned", "swapped", "replaced",
                "changed", "renewed", "minutes", "blown", "upper", "lower",
            ]
        )
        .Concat(SaidConcepts.Shipped.Words)
        .ToHashSet();

    // “Hissing” is a form of a word that is known, and no slip for “missing”.
    private static readonly HashSet<string> Stems = [.. SaidConcepts.Shipped.States.SelectMany(s => s.Stems)];

    /// <summary>True for a word that says something of a unit, or says little anywhere: it is no name.</summary>
    public static bool SaysSomething(string word) =>
        word is "everything" or "otherwise" or "rest" or "fully" or "untested"
        || SmallWords.IsKnown(word)
        || Known.Contains(SaidWords.Mended(word, Known));

    private readonly DeviceProfile _profile;
    private readonly TradeLibrary _library;
    private readonly List<string> _words;
    private readonly List<string> _stems;
    private readonly List<(int From, int To)> _clauses;
    private readonly bool[] _used;
    private readonly List<(int At, SaidFact Fact)> _facts = [];
    private readonly List<string> _unsure = [];

    public Listener(DeviceProfile profile, TradeLibrary library, List<string> words)
    {
        (_profile, _library) = (profile, library);
        _words = words.Select(w => SmallWords.IsKnown(w) || Stems.Contains(Stem.Of(w)) ? w : SaidWords.Mended(w, Known)).ToList();
        Reword();
        _used = new bool[_words.Count];
        _stems = [.. _words.Select(Stem.Of)];
        _clauses = Clauses();
        // “The charger gets warm but the minnow stays dead”: its name says nothing of it.
        var own = _profile.Name.ToLowerInvariant().Split(' ').Where(w => w.Length > 3 && !Known.Contains(w)).ToHashSet();
        for (var n = 0; n < _words.Count; n++)
            _used[n] = own.Contains(_words[n]);
    }

    /// <summary>Hears the line.</summary>
    public Understanding Hear(string claim)
    {
        Marks();
        MarksByConcept();
        Claims();
        AllButOne();
        foreach (var (from, to) in _clauses)
            OnlyFrom(from, to);
        foreach (var (from, to) in _clauses)
            HearFailures(from, to);
        UnderALamp();
        foreach (var (from, to) in _clauses)
            HearMissing(from, to);
        Counted();
        foreach (var (from, to) in _clauses)
            HearConcepts(from, to);
        foreach (var (from, to) in _clauses)
            HearVague(from, to);
        foreach (var (from, to) in _clauses)
            HearFrame(from, to);
        OfBoth();
        Except();
        foreach (var (from, to) in _clauses)
            HearLikewise(from, to);
        foreach (var (from, to) in _clauses)
            HearWorking(from, to, _clauses.Count > 1);
        foreach (var (from, to) in _clauses)
            HearWell(from, to);
        OfTwoTheWorse();
        WhatSoundsHasStarted();
        ButNotUnheard();
        for (var n = 0; n < _words.Count; n++)
        {
            // A word that names a function of which something is told has said its part.
            var told = (ByWord(n) ?? OfConcept(n)) is { } function && _facts.Any(f => IsOf(f.Fact, function));
            if (!_used[n] && !told && !SaidWords.IsBreak(_words[n]) && !SmallWords.IsFiller(_words[n]))
                _unsure.Add(_words[n]);
        }

        var facts = _facts.OrderBy(f => f.At).DistinctBy(f => f.Fact).ToList();
        return new Understanding(_profile, facts.ConvertAll(f => f.Fact), _unsure.Distinct().ToList(), claim)
        {
            Grounds = Grounds(facts.ConvertAll(f => f.At), claim),
        };
    }

    /// <summary>What is told to work and to fail in one line fails, unless it comes and goes: a false “works” clears the very part that is
    /// broken.</summary>
    private void OfTwoTheWorse()
    {
        if (_words.Exists(IsNowAndThen) || _facts.Exists(f => f.Fact.Starts > 1))
            return;
        foreach (var (_, fail) in _facts.Where(f => f.Fact is { Function: not null, Passed: false, Starts: 1, Provoked: false }).ToList())
            _facts.RemoveAll(f => f.Fact is { Passed: true, Starts: 1 } && f.Fact.Function.Equals(fail.Function));
    }

    /// <summary>“Both ports dead”: where two are tried apart, it is said of each.</summary>
    private void OfBoth()
    {
        for (var at = 0; at + 1 < _words.Count; at++)
        {
            if (_words[at] is not ("both" or "all" or "either") || !_words.Skip(at + 1).Take(2).Any(w => w is "port" or "ports"))
                continue;
            if (_facts.Find(f => f.At >= at && !f.Fact.Passed && OfKind(f.Fact, "link")) is not { Fact: not null } told)
                continue;
            foreach (var other in _profile.Functions.Where(f => f.Kind == "link" && !_facts.Exists(x => IsOf(x.Fact, f))))
                Add(told.At, told.Fact with { Function = other.Id });
        }
    }

    private bool OfKind(SaidFact fact, string kind) => fact.Function is { } function && _profile.FindFunction(function)?.Kind == kind;

    /// <summary>“Screen white, sound plays”: what plays has started, and the picture is what stays white.</summary>
    private void WhatSoundsHasStarted()
    {
        if (
            _facts.FindIndex(f => f.Fact is { Passed: false, Look: "solid-colour" } && OfKind(f.Fact, "start-up")) is not (>= 0 and var at)
            || !_facts.Exists(f => f.Fact.Passed && OfKind(f.Fact, "speaker"))
            || _profile.Functions.FirstOrDefault(f => f.Kind is "picture" or "video-out" && HasLook(f, "solid-colour")) is not { } picture
            || _facts.Exists(f => IsOf(f.Fact, picture))
        )
            return;
        _facts[at] = (_facts[at].At, _facts[at].Fact with { Function = picture.Id });
    }

    /// <summary>“The screen is dark, but one sees something with a torch”: it is the light behind it that is missing, and not the
    /// picture.</summary>
    private void UnderALamp()
    {
        var lit = Enumerable.Range(0, _words.Count).Where(IsLampAt).ToList();
        if (lit.Count == 0 || _profile.Functions.FirstOrDefault(f => f.Kind == "backlight") is not { } light)
            return;
        bool IsDark(SaidFact fact) =>
            fact is { Passed: false, Look: "nothing" or "dim" } && _profile.Functions.Any(p => p.Kind is "picture" or "start-up" && IsOf(fact, p));
        if (!_facts.Exists(f => IsOf(f.Fact, light)) && _facts.Find(f => IsDark(f.Fact)) is { Fact: not null } dark)
            _facts.Add((dark.At, new SaidFact(light.Id, false, "nothing")));
        if (!_facts.Exists(f => IsOf(f.Fact, light) && f.Fact.Look == "nothing"))
            return;
        _facts.RemoveAll(f => IsDark(f.Fact));
        if (_profile.Functions.FirstOrDefault(f => f.Kind == "picture") is { } seen && !_facts.Exists(f => IsOf(f.Fact, seen)))
            _facts.Add((lit[0], new SaidFact(seen.Id, true)));
        foreach (var n in lit)
            _used[n] = true;
    }

    /// <summary>“A torch”, “under a lamp”, “against the light”.</summary>
    private bool IsLampAt(int at) =>
        _words[at] is "torch" or "flashlight" or "lamp" or "sunlight" or "sun" or "daylight"
        || _words[at] == "light" && Enumerable.Range(Math.Max(0, at - 3), Math.Min(3, at)).Any(n => _words[n] is "under" or "against" or "bright" or "strong");

    private List<(int From, int To)> Clauses()
    {
        var clauses = new List<(int, int)>();
        var from = 0;
        for (var n = 0; n <= _words.Count; n++)
        {
            if (n < _words.Count && !SaidWords.IsBreak(_words[n]))
                continue;
            if (n > from)
                clauses.Add((from, n));
            from = n + 1;
        }

        return clauses;
    }

    /// <summary>End of a pattern that begins at a word, or null.</summary>
    private int? Match(IReadOnlyList<string> pattern, int at, int to)
    {
        var n = at;
        for (var p = 0; p < pattern.Count; p++)
        {
            var optional = pattern[p].EndsWith('?');
            var wanted = pattern[p].TrimEnd('?').Split('|');
            // Between two words of a phrase a small word may stand.
            var k = n;
            while (
                p > 0
                && k < to
                && k - n < 2
                && !wanted.Any(w => Fits(w, _words[k]))
                && _words[k] is "a" or "an" or "the" or "it" or "its" or "my" or "any" or "very" or "really" or "to" or "just" or "still" or "both" or "all"
                    or "completely" or "totally" or "entirely" or "absolutely" or "quite"
            )
                k++;
            if (k < to && !_used[k] && wanted.Any(w => Fits(w, _words[k])))
                n = k + 1;
            else if (!optional)
                return null;
        }

        return n;
    }

    private static bool Fits(string wanted, string word) =>
        wanted == "_"
        || wanted == word
        || wanted is "is" or "are" && word is "is" or "are" or "look" or "looks" or "seems" or "seem" or "appears" or "stays" or "remains"
        || wanted.Length > ShortestPlural && wanted[^1] == 's' && wanted[..^1] == word
        || wanted.EndsWith('*') && word.StartsWith(wanted[..^1], StringComparison.Ordinal);

    // “All games blink” and “it blinks” are one; “gas” is no plural.
    private const int ShortestPlural = 4;

    private bool HasLook(DeviceFunction function, string look) => _library.FindLook(function.Kind, look) is not null;

    private static bool IsOf(SaidFact fact, DeviceFunction function) => fact.Function is { } told && told.Equals(function.Id);

    private bool IsToldToFail(DeviceFunction function) => _facts.Exists(f => IsOf(f.Fact, function) && !f.Fact.Passed);

    private void Use(int from, int to)
    {
        for (var n = from; n < to; n++)
            _used[n] = true;
    }

    private void Add(int at, SaidFact fact) => _facts.Add((at, OfCharging(at, fact)));

    // “Charging light blinks” is said of the charging, though it names a light.
    private SaidFact OfCharging(int at, SaidFact fact) =>
        at > 0
        && _words[at - 1] is "charge" or "charging"
        && fact.Function is { } light
        && _profile.FindFunction(light)?.Kind == "power-light"
        && _profile.Functions.FirstOrDefault(f => f.Kind == "charging") is { } charging
            ? fact with { Function = charging.Id, Look = fact.Look is { } look && HasLook(charging, look) ? look : null }
            : fact;
}
