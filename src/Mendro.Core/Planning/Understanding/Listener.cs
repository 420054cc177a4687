using System.Globalization;
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
                "changed", "renewed", "minutes", "blown",
            ]
        )
        .Concat(SaidConcepts.Shipped.Words)
        .ToHashSet();

    /// <summary>True for a word that says something of a unit, or says little anywhere: it is no name.</summary>
    public static bool SaysSomething(string word) =>
        word is "everything" or "otherwise" or "rest" or "fully" or "untested"
        || SmallWords.IsKnown(word)
        || Known.Contains(SaidWords.Mended(word, Known));

    private readonly DeviceProfile _profile;
    private readonly TradeLibrary _library;
    private readonly List<string> _words;
    private readonly List<string> _stems;
    private readonly bool[] _used;
    private readonly List<(int At, SaidFact Fact)> _facts = [];
    private readonly List<string> _unsure = [];

    public Listener(DeviceProfile profile, TradeLibrary library, List<string> words)
    {
        (_profile, _library) = (profile, library);
        _words = words.Select(w => SmallWords.IsKnown(w) ? w : SaidWords.Mended(w, Known)).ToList();
        // “player two” is what hangs on the second port.
        for (var n = 0; n + 1 < _words.Count; n++)
        {
            if (_words[n] == "player" && SmallWords.Number(_words[n + 1]) is { } number)
                (_words[n], _words[n + 1]) = ("port", number.ToString(CultureInfo.InvariantCulture));
            else if (_words[n] == "port" && SmallWords.Number(_words[n + 1]) is { } port)
                _words[n + 1] = port.ToString(CultureInfo.InvariantCulture);
            else if (_words[n] is "first" or "second" && _words[n + 1] is "player" or "controller" or "pad" or "port")
                (_words[n], _words[n + 1]) = ("port", _words[n] == "first" ? "1" : "2");
        }
        // “It comes on” is said of the unit; behind a name it is said of that.
        for (var n = 0; n + 1 < _words.Count; n++)
            if (_words[n] == "comes" && _words[n + 1] == "on" && (n == 0 || SaidWords.IsBreak(_words[n - 1]) || _words[n - 1] is "it" or "unit" or "console"))
                _words[n] = "powers";
        // “Player 2 port” says it twice.
        for (var n = _words.Count - 1; n > 1; n--)
            if (_words[n] is "port" or "controller" or "pad" && _words[n - 2] == "port" && SmallWords.Number(_words[n - 1]) is not null)
                _words.RemoveAt(n);
        _used = new bool[_words.Count];
        _stems = [.. _words.Select(Stem.Of)];
    }

    /// <summary>Hears the line.</summary>
    public Understanding Hear(string claim)
    {
        Marks();
        MarksByConcept();
        Claims();
        AllButOne();
        var clauses = Clauses();
        foreach (var (from, to) in clauses)
            HearFailures(from, to);
        foreach (var (from, to) in clauses)
            HearMissing(from, to);
        Counted();
        foreach (var (from, to) in clauses)
            HearConcepts(from, to);
        Except();
        foreach (var (from, to) in clauses)
            HearLikewise(from, to);
        foreach (var (from, to) in clauses)
            HearWorking(from, to, clauses.Count > 1);
        OfTwoTheWorse();
        for (var n = 0; n < _words.Count; n++)
        {
            // A word that names a function of which something is told has said its part.
            var told = ByWord(n) is { } function && _facts.Any(f => IsOf(f.Fact, function));
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

    private void HearFailures(int from, int to)
    {
        var heading = Heading(from);
        var (told, byName) = (heading, heading);
        for (var at = from; at < to; at++)
        {
            if (_used[at])
                continue;
            if (NamedFunction(at, to) is var (named, length))
            {
                told = byName = named;
                var next = at + length;
                if (State(next, to, named, out var end) is { } fact && !(fact.Passed && IsException(from)))
                {
                    Use(at, end);
                    Add(at, fact);
                    at = end - 1;
                }
                else if (length > 1)
                {
                    // A name of several words is not to be taken apart: “power button” is no power light.
                    Use(at, next);
                    at = next - 1;
                }

                if (length > 1)
                    continue;
            }

            foreach (var phrase in Lexicon.Phrases)
            {
                if (Match(phrase.Words, at, to) is not { } end || end == at)
                    continue;
                // “not garbled” is no garbled logo; what it is, is not said.
                if (at > from && _words[at - 1] is "not" or "never" && !phrase.Words[0].StartsWith("not", StringComparison.Ordinal))
                {
                    Use(at - 1, end);
                    _unsure.Add(string.Join(' ', _words.Skip(at - 1).Take(end - at + 1)));
                    at = end - 1;
                    break;
                }

                if (phrase.Look.Length == 0)
                {
                    Use(at, end);
                    at = end - 1;
                    break;
                }

                // “dead” alone is the unit; behind the name of something that was not understood it is that.
                if (end == at + 1 && phrase.Words[0] == "dead" && told is null && (OfSomethingElse(from, at) || IsPort(from, at)))
                    break;
                // “The brick hums”: one word is said of what stands right before it, which is no function here.
                if (phrase.Words.Count == 1 && told is null && at > from && IsSomethingElse(at - 1))
                    break;
                // “The disc skips when hot” says when, and of the disc.
                if (phrase.Look == "warm" && IsIf(_words[at]) && told is not null && !HasLook(told, "warm"))
                {
                    Use(at, end);
                    at = end - 1;
                    break;
                }

                // “Power light flickers” is said of the light, though lights have no such look.
                if (phrase.Words.Count == 1 && phrase.Kinds.Length > 0)
                    byName ??= NamedBefore(from, at) is { Kind: "power-light" } light ? light : null;
                var other = phrase.Words.Count == 1 && byName is not null && phrase.Kinds.Length > 0 && !phrase.Kinds.Split(',').Contains(byName.Kind);
                // “Picture dead” is said of the picture and not of the unit.
                var function =
                    other ? byName
                    : phrase.Words is ["dead"] && told is null && NamedBefore(from, at) is { } own ? own
                    : Meant(phrase, told, from, to);
                if (function is null)
                    continue;
                Use(at, end);
                told ??= function;
                Say(at, function, phrase.Look == "nothing" && IsPlace(end, to) ? HasLook(function, "one-side") ? "one-side" : "fail" : phrase.Look);
                at = end - 1;
                break;
            }
        }
    }

    /// <summary>The function named right before a word, with small words between, or null.</summary>
    private DeviceFunction? NamedBefore(int from, int at)
    {
        var n = at - 1;
        while (n > from && SmallWords.IsFiller(_words[n]) && ByWord(n) is null)
            n--;
        return n >= from && !_used[n] && !IsVerb(_words[n]) ? ByWord(n) : null;
    }

    /// <summary>True for a word that names something, but no function and nothing said of one.</summary>
    private bool IsSomethingElse(int at) =>
        !_used[at] && ByWord(at) is null && !SaidWords.IsBreak(_words[at]) && !SmallWords.IsKnown(_words[at]) && !Known.Contains(_words[at]);

    /// <summary>True when a word before names something that no function is known by.</summary>
    private bool OfSomethingElse(int from, int at) =>
        Enumerable
            .Range(from, at - from)
            .Any(n => !_used[n] && ByWord(n) is null && !SmallWords.IsFiller(_words[n]) && SmallWords.Number(_words[n]) is null);

    /// <summary>“Port 2”, of which the model may have none.</summary>
    private bool IsPort(int from, int at) => at - 2 >= from && _words[at - 2] == "port" && SmallWords.Number(_words[at - 1]) is not null;

    private void Say(int at, DeviceFunction function, string look)
    {
        if (look == "pass")
        {
            Add(at, new SaidFact(function.Id, true));
            return;
        }

        // “picture only when pressed” is one thing said, and so is “no picture unless it is pressed”.
        if (look is "pressed" or "warm" && _facts.FindLastIndex(f => IsOf(f.Fact, function) && !f.Fact.Passed) is >= 0 and var last)
            _facts.RemoveAt(last);
        // “Grey screen, no logo” tells no second failure.
        if (look == "fail" && _facts.Any(f => IsOf(f.Fact, function) && f.Fact is { Passed: false, Look: not null }))
            return;
        var known = HasLook(function, look);
        // “It does not charge: the light comes on and goes out.” The closer word stands for both.
        if (known && look != "nothing" && _facts.FindIndex(f => IsOf(f.Fact, function) && IsVague(f.Fact)) is >= 0 and var vague)
            _facts.RemoveAt(vague);
        Add(
            at,
            look == "pressed" && !known ? new SaidFact(function.Id, Provoked: true) : new SaidFact(function.Id, false, known ? look : null)
        );
    }

    private static bool IsVague(SaidFact fact) => fact is { Passed: false, Provoked: false, Look: null or "nothing" };

    /// <summary>What is said of a function right behind its name.</summary>
    private SaidFact? State(int at, int to, DeviceFunction function, out int end)
    {
        end = at;
        // “Reset button does nothing”: the word says what the name has said.
        if (end < to && _words[end] is "button" or "switch" && function.Kind is "reset" or "buttons")
            end++;
        while (end < to && _words[end] is "is" or "are" or "does" or "was" or "has" or "gives")
            end++;
        if (end >= to)
            return null;
        switch (_words[end])
        {
            // “Picture no, sound yes.”
            case "yes" when end + 1 >= to:
                end++;
                return new SaidFact(function.Id, true);
            case "no" or "none" when end + 1 >= to:
                end++;
                return new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null);
            case "nothing" or "dead" or "gone" or "out":
                end++;
                return new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null);
            case "no" when end + 1 < to && _words[end + 1] is "response" or "reaction" or "function" or "effect" or "action":
                end += 2;
                return new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null);
            case "not"
                when end + 1 < to
                    && (
                        _words[end + 1].StartsWith("work", StringComparison.Ordinal)
                        || _words[end + 1].StartsWith("respon", StringComparison.Ordinal)
                        || _words[end + 1] is "answer"
                    ):
                end += 2;
                return new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null);
            case "not"
                when end + 1 < to && _words[end + 1] is "detected" or "recognised" or "seen" or "found":
                end += 2;
                return new SaidFact(function.Id, false, new[] { "cannot-save", "not-read", "nothing" }.FirstOrDefault(l => HasLook(function, l)));
            case "works" or "work" or "ok" or "okay" or "fine" or "good":
                end++;
                // “works only when pressed” is not “works”.
                return end < to && (IsIf(_words[end]) || IsNowAndThen(_words[end]) || IsPlace(end, to)) ? null : new SaidFact(function.Id, true);
            case "stays" or "comes"
                when function.Kind == "power-light"
                    && end + 1 < to
                    && _words[end + 1] == "on"
                    && (end + 2 >= to || _words[end + 2] is not ("then" or "and" or "for")):
                end += 2;
                return new SaidFact(function.Id, true);
            case "on" when function.Kind == "power-light" && (end + 1 >= to || _words[end + 1] is not ("then" or "and" or "for")):
                end++;
                return new SaidFact(function.Id, true);
            default:
                return null;
        }
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
                && _words[k] is "a" or "an" or "the" or "it" or "its" or "my" or "any" or "very" or "really" or "to" or "just" or "still"
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
        || wanted.Length > ShortestPlural && wanted[^1] == 's' && wanted[..^1] == word
        || wanted.EndsWith('*') && word.StartsWith(wanted[..^1], StringComparison.Ordinal);

    /// <summary>“All games blink” and “it blinks” are one.</summary>
    private const int ShortestPlural = 4;

    private bool HasLook(DeviceFunction function, string look) => _library.FindLook(function.Kind, look) is not null;

    private static bool IsOf(SaidFact fact, DeviceFunction function) => fact.Function is { } told && told.Equals(function.Id);

    private void Use(int from, int to)
    {
        for (var n = from; n < to; n++)
            _used[n] = true;
    }

    private void Add(int at, SaidFact fact) => _facts.Add((at, fact));
}
