using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What no phrase says: a thing and how it is, by base forms, in any order within a clause.</content>
internal sealed partial class Listener
{
    /// <summary>“The screws are all gone”, “pins in the port bent”: a mark is a thing and how it is.</summary>
    private void MarksByConcept()
    {
        foreach (var (from, to) in _clauses)
        foreach (var marked in SaidConcepts.Shipped.Marks)
        {
            if (
                _library.FindMark(marked.Mark) is not { } found
                || found.Kinds is { Count: > 0 } kinds && !kinds.Contains(_profile.Kind)
                || _facts.Any(f => f.Fact.Mark == marked.Mark)
                || Free(from, to, marked.Stems) is not { } said
                || IsDenied(from, said)
                || Enumerable.Range(from, to - from).Any(n => marked.Unless.Contains(_stems[n]))
                || GoesOnWith(from, to, said, marked.Unless)
                || _words.GetRange(from, to - from).Exists(IsIf)
            )
                continue;
            var thing = marked.Things.Count == 0
                ? said
                : Enumerable.Range(from, to - from).FirstOrDefault(n => n != said && marked.Things.Contains(_stems[n]), -1);
            if (thing < 0 || IsDenied(from, thing) && !marked.Mark.EndsWith("missing", StringComparison.Ordinal))
                continue;
            _used[said] = _used[thing] = true;
            Add(said, new SaidFact(null, Mark: marked.Mark, Grade: GradeAt(said)));
        }

        // What says it once more in the same clause, or how bad it is, has said its part.
        foreach (var (at, fact) in _facts.Where(f => f.Fact.Mark is not null))
        {
            var (from, to) = _clauses.Find(c => at >= c.From && at < c.To);
            foreach (var marked in SaidConcepts.Shipped.Marks.Where(m => m.Mark == fact.Mark))
                for (var n = from; n < to; n++)
                    _used[n] |= marked.Things.Contains(_stems[n]) || marked.Stems.Contains(_stems[n]) || IsGrade(n);
        }
    }

    /// <summary>“The colours are washed out, almost yellow”: a clause with nothing of its own goes on with the one before.</summary>
    private bool GoesOnWith(int from, int to, int said, IReadOnlySet<string> unless) =>
        _clauses.FindLast(c => c.To < from) is { To: > 0 } before
        && Enumerable.Range(from, to - from).All(n => n == said || SmallWords.IsFiller(_words[n]) || _words[n] is "almost" or "slightly" or "rather" or "quite")
        && Enumerable.Range(before.From, before.To - before.From).Any(n => unless.Contains(_stems[n]));

    private static readonly HashSet<string> Heavy =
    [
        "full", "thick", "thickly", "heavy", "heavily", "badly", "everywhere", "caked", "covered", "eaten", "rotten", "completely", "lots", "massive",
        "severe",
    ];

    private static readonly HashSet<string> Slight = ["slight", "slightly", "little", "bit", "trace", "traces", "spot", "spots", "lightly", "minor"];

    private bool IsGrade(int at) => Heavy.Contains(_words[at]) || Slight.Contains(_words[at]) || _words[at] == "over" && at > 0 && _words[at - 1] == "all";

    /// <summary>How bad it is by the words of its clause: “full of”, “thick”, “all over”; “slight”, “a spot of”.</summary>
    private SeenGrade? GradeAt(int at)
    {
        var (from, to) = _clauses.Find(c => at >= c.From && at < c.To);
        var clause = _words.GetRange(from, to - from);
        return clause.Exists(Heavy.Contains) || clause.Zip(clause.Skip(1)).Any(w => w is ("all", "over")) ? SeenGrade.Heavy
            : clause.Exists(Slight.Contains) ? SeenGrade.Slight
            : null;
    }

    /// <summary>“The led glows weak”, “lately crackly on the phones”: one function and one state that it can have.</summary>
    private void HearConcepts(int from, int to)
    {
        if (_words.GetRange(from, to - from).Exists(w => w is "used" or "earlier" or "formerly"))
            return;
        foreach (var state in SaidConcepts.Shipped.States)
        {
            var at = Enumerable
                .Range(from, to - from)
                .FirstOrDefault(n => !_used[n] && state.Stems.Contains(_stems[n]) && IsDenied(from, n) == state.Negated, -1);
            // “Does not always work” is not “does not work”.
            if (at < 0 || state.Negated && at > from && IsPartly(_words[at - 1]))
                continue;
            if (state.With.Count > 0 && !Enumerable.Range(from, to - from).Any(n => n != at && state.With.Contains(_stems[n])))
                continue;
            // “Silent when cold” comes and goes; what else is said of a function with a condition fails all the same.
            if (state.Look is "nothing" or "one-dead" && _words.GetRange(from, to - from).Exists(IsIf))
                continue;
            if (Subject(from, to, at, state) is not { } function || _facts.Any(f => IsOf(f.Fact, function)))
                continue;
            Use(at, at + 1);
            Add(at, new SaidFact(function.Id, false, state.Look == "fail" ? null : state.Look));
        }
    }

    /// <summary>The one function that a clause names and of which the state may be said; without one, that of the clause before, when
    /// nothing was said of it.</summary>
    private DeviceFunction? Subject(int from, int to, int state, SaidConcepts.State said)
    {
        var named = NamedIn(from, to).Where(x => x.At != state).ToList();
        // “B hard” is said of B, though no function is called so; “too faint” goes on with what came before.
        var alone = Enumerable.Range(from, to - from).All(n => n == state || _words[n].Length > 1 || _words[n] == "a");
        // “The slot does not see anything” is said of the slot.
        var goesOn = Enumerable.Range(from, Math.Max(0, state - from)).All(n => _used[n] || !IsSomethingElse(n) && !IsThing(_words[n]));
        if (named.Count == 0 && from > 0 && !said.Alone && alone && goesOn)
            named = SubjectBefore(from);
        bool Has(DeviceFunction function) => said.Look == "fail" || HasLook(function, said.Look);
        var fitting = named.Where(x => said.Kinds.Contains(x.Function!.Kind) && Has(x.Function)).ToList();
        if (named.Count == 0 && said.Alone && Enumerable.Range(from, to - from).Any(n => said.Unless.Contains(_stems[n])))
            return null;
        if (named.Count == 0 && said.Alone)
            return Likeliest([.. said.Kinds]) is { } only && Has(only) ? only : null;
        if (fitting.Select(x => x.Function!.Id).Distinct().Count() != 1)
            return null;
        _used[fitting[0].At] = true;
        return fitting[0].Function;
    }

    private static bool IsThing(string word) =>
        word is "slot" or "cable" or "battery" or "batteries" or "cartridge" or "game" or "adapter" or "brick" or "charger" or "fan"
            or "motor" or "hinge" or "shell" or "wire" or "lead" or "cord" or "plug" or "socket" or "lens" or "cover" or "protector" or "grille" or "foil";

    /// <summary>What the nearest clause before that names something names first.</summary>
    private List<(int At, DeviceFunction? Function)> SubjectBefore(int from)
    {
        foreach (var (start, end) in _clauses.Where(c => c.To <= from).Reverse())
            if (NamedIn(start, end).Take(1).ToList() is { Count: 1 } first)
                return first;
        return [];
    }

    private IEnumerable<(int At, DeviceFunction? Function)> NamedIn(int from, int to) =>
        Enumerable
            .Range(from, to - from)
            .Select(n => (At: n, Function: OfConcept(n) ?? ButtonAt(n, from, to) ?? (_used[n] ? null : NameWord(_words[n]))))
            .Where(x => x.Function is not null);

    /// <summary>The function that a word names by its base form; “port 2” is no port of a unit that has one.</summary>
    private DeviceFunction? OfConcept(int at)
    {
        if (at + 1 < _words.Count && SmallWords.Number(_words[at + 1]) is not null)
            return NamedFunction(at, _words.Count)?.Function ?? (_words[at] == "port" ? PortsOfAll() : null);
        // “Colours” are the picture's, a colour may be the shell's.
        if (_words[at] == "colours")
            return Likeliest(["picture", "video-out"]);
        var named = SaidConcepts.Shipped.Functions.FirstOrDefault(f => f.Stems.Contains(_stems[at]));
        return named is null ? null : Likeliest([.. named.Kinds]);
    }

    /// <summary>All ports, where a unit has several that are tried as one.</summary>
    private DeviceFunction? PortsOfAll() =>
        _profile.Functions.FirstOrDefault(f => f.Kind == "link" && f.Name.EndsWith("ports", StringComparison.OrdinalIgnoreCase));

    /// <summary>A word of the clause that nothing has used yet, or null.</summary>
    private int? Free(int from, int to, IReadOnlySet<string> stems)
    {
        for (var n = from; n < to; n++)
            if (!_used[n] && stems.Contains(_stems[n]))
                return n;
        return null;
    }

    /// <summary>True when a “no” or “not” stands before a word, with up to two words between.</summary>
    private bool IsDenied(int from, int at) =>
        Enumerable.Range(Math.Max(from, at - 3), Math.Min(3, at - from)).Any(n => _words[n] is "no" or "not" or "never" or "without" or "none");

    /// <summary>True for “on the left”, “in one corner”: what is said holds for a part of it.</summary>
    private bool IsPlace(int at, int to) => Enumerable.Range(at, Math.Max(0, Math.Min(5, to - at))).Any(n => IsPlaceWord(n, to));

    private bool IsPlaceWord(int at, int to) =>
        _words[at] is "channel" or "half" or "corner" or "edge" or "third"
        || _words[at] is "left" or "right" or "top" or "bottom" or "one"
            && (
                at + 1 >= to && (_words[at] != "one" || at > 0 && _words[at - 1] is "on" or "in" or "only" or "just")
                || at + 1 < to && _words[at + 1] is "side" or "ear" or "earphones" or "end" or "channel" or "half"
            );

    /// <summary>The function that the clause before names and of which it says nothing else: “port 2: not recognised”.</summary>
    private DeviceFunction? Heading(int from)
    {
        var (start, end) = _clauses.LastOrDefault(c => c.To < from);
        if (end == 0 || _words[end] != SaidWords.Break)
            return null;
        return NamedFunction(start, end) is var (named, length) && start + length == end ? named : null;
    }

    /// <summary>A word that makes what is said depend on something.</summary>
    private static bool IsIf(string word) =>
        word is "when" or "if" or "while" or "until" or "unless" or "only" or "once" or "after" or "whenever";
}
