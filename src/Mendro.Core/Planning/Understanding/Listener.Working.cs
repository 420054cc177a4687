using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What is said to work, to do likewise, or to work now and then.</content>
internal sealed partial class Listener
{
    /// <summary>“Quiet on speaker and phones”, “no sound, not even headphones”: the second of a list that ends the clause has what the first
    /// has.</summary>
    private void HearLists(int from, int to)
    {
        for (var at = from + 1; at < to; at++)
        {
            var listed = _words[at - 1] is "and" or "or" || at > from + 1 && _words[at - 1] == "even" && _words[at - 2] == "not";
            if (!listed || at + 1 < to || _used[at] || ByWord(at) is not { } function || _facts.Any(f => IsOf(f.Fact, function)))
                continue;
            var last = _facts.Where(f => f.At < at && f.Fact is { Function: not null, Passed: false }).OrderBy(f => f.At).LastOrDefault();
            if (last.Fact is null || _words[at - 1] != "even" && last.At < from)
                continue;
            _used[at] = true;
            Add(at, new SaidFact(function.Id, false, last.Fact.Look is { } look && HasLook(function, look) ? look : null));
        }
    }

    /// <summary>“Quiet, phones too.”</summary>
    private void HearLikewise(int from, int to)
    {
        HearLists(from, to);
        if (!Enumerable.Range(from, to - from).Any(n => _words[n] is "too" or "also" or "neither" or "likewise" or "same" or "either" or "both"))
            return;
        for (var at = from; at < to; at++)
        {
            if (_used[at] || ByWord(at) is not { } function || _facts.Any(f => IsOf(f.Fact, function)))
                continue;
            _used[at] = true;
            var last = _facts.Where(f => f.At < at && f.Fact.Function is not null).OrderBy(f => f.At).LastOrDefault().Fact;
            if (last is null)
                continue;
            Add(at, new SaidFact(function.Id, last.Passed, last.Look is { } look && HasLook(function, look) ? look : null));
        }

        for (var at = from; at < to; at++)
            _used[at] |= _words[at] is "neither" or "likewise" or "same" or "either" or "both";
    }

    /// <summary>“The light does not work”, “sound is gone”: said right behind the word for it.</summary>
    private void HearMissing(int from, int to)
    {
        for (var at = from; at + 1 < to; at++)
        {
            if (_used[at] || IsVerb(_words[at]) || (ByWord(at) ?? OfConcept(at)) is not { } function || _facts.Any(f => IsOf(f.Fact, function)))
                continue;
            var next = at + 1;
            while (next < to && _words[next] is "is" or "are" or "does" or "do" or "has" or "have" or "been" or "just" or "also" or "completely")
                next++;
            var end =
                next >= to || _used[next] ? -1
                : _words[next] is "gone" or "missing" or "kaput" or "broken" && (next + 1 >= to || SmallWords.IsFiller(_words[next + 1])) ? next + 1
                : _words[next] == "not" && next + 1 < to && !_used[next + 1] && IsWork(_words[next + 1]) ? next + 2
                : -1;
            // “Does not work when cold” is another thing, and “gone very low” is not gone.
            if (end < 0 || IsHow(end, to) || end < to && _words[end] is "when" or "if" or "until" or "unless" or "with" or "without" or "as")
                continue;
            Add(at, new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null));
            Use(at, end);
        }
    }

    /// <summary>True where the next word says how it is: “low”, “rather quiet”.</summary>
    private bool IsHow(int at, int to)
    {
        while (at < to && _words[at] is ("very" or "so" or "quite" or "rather" or "too" or "a" or "bit"))
            at++;
        return at < to && SaidConcepts.Shipped.States.Any(s => s.Stems.Contains(_stems[at]));
    }

    // “Upper display ok” says nothing of the lower one.
    private static bool IsHalf(string word) => word is "upper" or "lower" or "top" or "bottom" or "inner" or "outer";

    private static bool IsWork(string word) => word is "work" or "works" or "working" or "function" or "functions" or "functioning";

    /// <summary>“Picture and sound ok”: what is said behind the second is said of both.</summary>
    private void HearBoth(int from, int to)
    {
        for (var at = from; at + 3 < to; at++)
        {
            var good = _words[at + 3] is "is" or "are" or "both" && at + 4 < to ? at + 4 : at + 3;
            if (
                _words[at + 1] == "and"
                && SmallWords.IsGood(_words[good])
                && !_used[at]
                && !(good + 1 < to && IsIf(_words[good + 1]))
                && !(at > from && _words[at - 1] is "no" or "not" or "without")
                && ByWord(at) is { } one
                && ByWord(at + 2) is not null
                && !_facts.Any(f => IsOf(f.Fact, one))
            )
            {
                Add(at, new SaidFact(one.Id, true));
                Use(at, at + 2);
            }
        }
    }

    private void HearWorking(int from, int to, bool several)
    {
        // “Picture no, sound yes.”
        if (to - from >= 2 && _words[to - 1] is "yes" or "no" && !_used[to - 1] && !_used[to - 2] && ByWord(to - 2) is { } asked)
        {
            var passed = _words[to - 1] == "yes";
            if (!_facts.Any(f => IsOf(f.Fact, asked)))
                Add(to - 2, new SaidFact(asked.Id, passed, !passed && HasLook(asked, "nothing") ? "nothing" : null));
            Use(to - 2, to);
        }

        OnlyThis(from, to);
        WithThis(from, to);
        NowAndThen(from, to);
        HearBoth(from, to);
        // “picture ok” stands for itself, whatever else is said beside it.
        for (var at = from; at + 1 < to; at++)
        {
            var next = _words[at + 1] is "is" or "are" or "all" or "always" or "still" && at + 2 < to ? at + 2 : at + 1;
            if (
                _used[at]
                || _used[next]
                || at > from && (_words[at - 1] is "no" or "not" or "nothing" || IsHalf(_words[at - 1]))
                || !IsPlainGood(_words[next])
                    && !(IsShining(_words[next]) && next + 1 >= to && ByWord(at)?.Kind is "backlight" or "power-light" or "charging")
                || next + 1 < to && (IsIf(_words[next + 1]) || IsPlace(next + 1, to) || IsForAWhile(next + 1, to))
                || ByWord(at) is not { } told
                || _facts.Any(f => IsOf(f.Fact, told))
            )
                continue;
            Add(at, new SaidFact(told.Id, true));
            Use(at, next + 1);
            // “Works sometimes”: it comes and goes, which is a failure and no cleared part.
            if (Enumerable.Range(from, to - from).FirstOrDefault(n => IsNowAndThen(_words[n]), -1) is >= 0 and var now)
            {
                Add(at, new SaidFact(told.Id));
                _used[now] = true;
            }
        }

        if (IsException(from))
            return;
        var named = new List<int>();
        var good = false;
        var other = false;
        for (var at = from; at < to; at++)
        {
            if (_used[at])
            {
                other = true;
                continue;
            }

            if (ByWord(at) is not null)
                named.Add(at);
            else if (SmallWords.IsGood(_words[at]) && (_words[at] != "on" || IsLit(from, at)))
                good = true;
            else if (_words[at] == "on" && at + 1 < to && (ByWord(at + 1) is not null || SmallWords.IsFiller(_words[at + 1])))
                _used[at] = true;
            else if (!SmallWords.IsFiller(_words[at]))
                other = true;
        }

        // “only works in the middle” is not “works”.
        var clause = _words.GetRange(from, to - from);
        var negated = clause.Any(w =>
            w is "no" or "not" or "never" or "without" or "then"
            || IsIf(w)
            || IsNowAndThen(w)
            || IsOtherSupply(w)
        );
        negated |= clause.Contains("goes") && (clause.Contains("comes") || clause.Contains("off") || clause.Contains("out"));
        // “Ok on the left” is not “ok”; a shoulder is called so.
        negated |= Enumerable.Range(from, to - from).Any(n => IsPlaceWord(n, to) && n > from && _words[n - 1] is "the" or "on" or "in" or "one");
        negated |= named.Exists(n => n > from && IsHalf(_words[n - 1]));
        // What is told of it already, with its condition, is told whole.
        if (clause.Contains("only") || named.Count > 0 && named.TrueForAll(n => _facts.Any(f => IsOf(f.Fact, ByWord(n)!))))
            UseGood(from, to);
        if (named.Count == 0 || negated || other && !good || !good && !several && !named.Any(n => IsVerb(_words[n])))
            return;
        foreach (var at in named)
        {
            var function = ByWord(at)!;
            if (good && !IsSaidGood(from, to, at, named))
                continue;
            // Beside “select” it is the start button that is meant.
            if (_facts.Any(f => IsOf(f.Fact, function)) || _words[at] == "start" && _words.Contains("select"))
                continue;
            Add(at, new SaidFact(function.Id, true));
            _used[at] = true;
        }

        UseGood(from, to);
    }

    private static bool IsPlainGood(string word) =>
        word is "loud" or "clear" || SmallWords.IsGood(word) && word is not ("on" or "comes" or "lights" or "clean" or "well" or "normal");

    /// <summary>“Works now and then”, with nothing named: the unit comes and goes.</summary>
    private void NowAndThen(int from, int to)
    {
        var works = Enumerable
            .Range(from, to - from)
            .FirstOrDefault(n => !_used[n] && (IsWork(_words[n]) || _words[n] is "starts" or "boots" or "runs" or "plays"), -1);
        if (
            works < 0
            || !Enumerable.Range(from, to - from).Any(n => IsNowAndThen(_words[n]))
            || Enumerable.Range(from, to - from).Any(n => n != works && !IsNowAndThen(_words[n]) && (_used[n] || !SmallWords.IsFiller(_words[n])))
            || Heading(from) is not null
            || Likeliest(["start-up", "cartridge"]) is not { } unit
            || _facts.Any(f => IsOf(f.Fact, unit))
        )
            return;
        Add(works, new SaidFact(unit.Id, true));
        Add(works, new SaidFact(unit.Id));
        Use(from, to);
    }

    /// <summary>“The picture is there but in grey”: what a “but” goes on to say of the same thing, and nobody understands, leaves no clear
    /// “works”.</summary>
    private void ButNotUnheard()
    {
        foreach (var (from, to) in _clauses)
        {
            if (to >= _words.Count || _words[to] != SaidWords.But || _clauses.Find(c => c.From == to + 1) is not { To: > 0 } next)
                continue;
            // “But the glass stays blank” is said of another thing.
            var ofAnother = _words[next.From] is "the" or "a" or "an" or "my" or "one" or "no" or "nobody" or "nothing" or "none"
                || NamedIn(next.From, next.To).Any();
            if (ofAnother || Enumerable.Range(next.From, next.To - next.From).All(n => _used[n] || SmallWords.IsKnown(_words[n])))
                continue;
            _facts.RemoveAll(f => f.At >= from && f.At < to && f.Fact is { Passed: true, Function: not null });
        }
    }

    /// <summary>“Works” is filed only where it is said of that very thing: nothing that was not heard stands between the two. “There is a
    /// crack in the screen” says of no picture that it is there.</summary>
    private bool IsSaidGood(int from, int to, int at, List<int> named)
    {
        bool Clear(int n) => _used[n] || named.Contains(n) || IsSay(_words[n]) || SmallWords.IsKnown(_words[n]);
        return Enumerable
            .Range(from, to - from)
            .Any(n =>
                SmallWords.IsGood(_words[n])
                && n != at
                && (_words[n] != "there" || n > at || Between(n, at).All(k => _words[k] is "is" or "are" or "a" or "some" or "still" or "the" or "also"))
                && Between(n, at).All(Clear)
            );
    }

    private static IEnumerable<int> Between(int one, int other) =>
        Enumerable.Range(Math.Min(one, other) + 1, Math.Abs(one - other) - 1);

    private void UseGood(int from, int to)
    {
        for (var at = from; at < to; at++)
            _used[at] |= SmallWords.IsGood(_words[at]);
    }

    /// <summary>“The light is on”, but not “quiet on the phones”.</summary>
    private bool IsLit(int from, int at) =>
        at > from && _words[at - 1] is "light" or "led" or "lamp" or "is" or "comes" or "stays" or "turns" or "powers" or "lights";

    /// <summary>What runs on the adapter does not show that it runs on its cells.</summary>
    private static bool IsOtherSupply(string word) => word is "adapter" or "adaptor" or "supply" or "brick" or "mains" or "plugged" or "charger" or "usb";

    private static bool IsShining(string word) => word is "on" or "steady" or "green" or "lit" or "burns" or "glows" or "shines";

    private static bool IsNowAndThen(string word) =>
        word is "intermittently" or "intermittent" or "mostly" or "usually" or "sometimes" or "occasionally" or "randomly" or "rarely" or "forever";

    private static bool IsVerb(string word) =>
        word is "charges" or "starts" or "boots" or "saves" or "reads" or "plays" or "runs" or "powers";
}
