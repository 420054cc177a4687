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

    /// <summary>“Everything but the picture works”: the clause names what does not.</summary>
    private bool IsException(int from) =>
        from > 0
        && _words[from - 1] is SaidWords.But or SaidWords.Except
        && _words.Take(from - 1).All(w => w is "everything" or "all" or "every" || SmallWords.IsFiller(w) || SmallWords.IsGood(w))
        && _words.Take(from - 1).Any(w => w is "everything" or "all" or "every");

    /// <summary>“The light does not work”, “sound is gone”: said right behind the word for it.</summary>
    private void HearMissing(int from, int to)
    {
        for (var at = from; at + 1 < to; at++)
        {
            if (_used[at] || IsVerb(_words[at]) || ByWord(at) is not { } function || _facts.Any(f => IsOf(f.Fact, function)))
                continue;
            var next = at + 1;
            while (next < to && _words[next] is "is" or "are" or "does" or "do" or "has" or "have" or "been" or "just" or "also" or "completely")
                next++;
            var end =
                next >= to || _used[next] ? -1
                : _words[next] is "gone" or "missing" or "kaput" or "broken" && (next + 1 >= to || SmallWords.IsFiller(_words[next + 1])) ? next + 1
                : _words[next] == "not" && next + 1 < to && !_used[next + 1] && IsWork(_words[next + 1]) ? next + 2
                : -1;
            // “Does not work when cold” is another thing.
            if (end < 0 || end < to && _words[end] is "when" or "if" or "until" or "unless" or "with" or "without" or "as")
                continue;
            Add(at, new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null));
            Use(at, end);
        }
    }

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

        HearBoth(from, to);
        // “picture ok” stands for itself, whatever else is said beside it.
        for (var at = from; at + 1 < to; at++)
        {
            var next = _words[at + 1] is "is" or "are" or "all" && at + 2 < to ? at + 2 : at + 1;
            if (
                _used[at]
                || _used[next]
                || at > from && _words[at - 1] is "no" or "not" or "nothing"
                || _words[next] is not ("ok" or "okay" or "fine" or "good" or "works" or "work" or "perfect" or "there" or "loud" or "clear")
                    && !(IsShining(_words[next]) && next + 1 >= to && ByWord(at)?.Kind is "backlight" or "power-light")
                || next + 1 < to && (IsIf(_words[next + 1]) || IsPlace(next + 1, to))
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
        // What is told of it already, with its condition, is told whole.
        if (clause.Contains("only") || named.Count > 0 && named.TrueForAll(n => _facts.Any(f => IsOf(f.Fact, ByWord(n)!))))
            UseGood(from, to);
        if (named.Count == 0 || negated || other && !good || !good && !several && !named.Any(n => IsVerb(_words[n])))
            return;
        foreach (var at in named)
        {
            var function = ByWord(at)!;
            // Beside “select” it is the start button that is meant.
            if (_facts.Any(f => IsOf(f.Fact, function)) || _words[at] == "start" && _words.Contains("select"))
                continue;
            Add(at, new SaidFact(function.Id, true));
            _used[at] = true;
        }

        UseGood(from, to);
    }

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

    /// <summary>“Everything works except the sound.”</summary>
    private void Except()
    {
        var at = _words.FindIndex(w => w is "everything" or "otherwise" or "rest" or "fully");
        if (at < 0)
            at = Enumerable.Range(0, Math.Max(0, _words.Count - 1)).FirstOrDefault(n => _words[n] == "all" && SmallWords.IsGood(_words[n + 1]), -1);
        // “Works except the sound”: all of it works but that.
        if (at < 0 && _words.IndexOf(SaidWords.Except) is > 0 and var but && _words.Take(but).All(w => SmallWords.IsGood(w) || SmallWords.IsFiller(w)))
            at = 0;
        // “Otherwise untested” says that nothing was tried.
        var rest = at < 0 ? [] : _words.Skip(at).TakeWhile(w => !SaidWords.IsBreak(w)).ToList();
        if (
            at < 0
            || rest.Any(w => w is "dead" or "not" or "no" or "gone" or "broken")
            || !rest.Any(w => SmallWords.IsGood(w) || IsVerb(w))
                && rest[^1] is not ("does" or "do")
                && !(_words[at] is "everything" or "fully" && IsExceptThatWorks(at + rest.Count))
        )
            return;
        _used[at] = true;
        UseGood(0, _words.Count);
        var except = _words.IndexOf(SaidWords.Except);
        if (except < 0)
            except = _words.IndexOf(SaidWords.But);
        for (var n = Math.Max(at, except < 0 ? _words.Count : except); n < _words.Count; n++)
        {
            if (_used[n] || ByWord(n) is not { } function)
                continue;
            // “But scratched screen” says of the screen what the mark says.
            if (n > 0 && _facts.Any(f => f.Fact.Mark is not null && f.At >= Math.Max(except, n - 2) && f.At <= n + 2))
                continue;
            _used[n] = true;
            if (!_facts.Any(f => IsOf(f.Fact, function)))
                Add(n, new SaidFact(function.Id));
        }

        foreach (var function in _profile.Functions.Where(f => f.Kind is "power-light" or "start-up"))
            if (!_facts.Any(f => IsOf(f.Fact, function)))
                Add(at, new SaidFact(function.Id, true));
    }

    /// <summary>“Everything but the picture works”: the good word stands behind the exception.</summary>
    private bool IsExceptThatWorks(int at) =>
        at < _words.Count
        && _words[at] is SaidWords.But or SaidWords.Except
        && _words.Skip(at + 1).TakeWhile(w => !SaidWords.IsBreak(w)).Any(SmallWords.IsGood);

    /// <summary>“All buttons but A”, “everything works except the B button”: one is dead, and the others are not told to work as one.</summary>
    private void AllButOne()
    {
        var but = _words.FindIndex(w => w is SaidWords.But or SaidWords.Except);
        var works = but >= 0 && _words[but] == SaidWords.Except && _words.Take(but).Any(SmallWords.IsGood);
        if (but < 0 || !works && !_words.Take(but).Any(w => w is "all" or "every" or "everything" or "other" or "others" or "buttons"))
            return;
        var end = _words.FindIndex(but + 1, SaidWords.IsBreak);
        end = end < 0 ? _words.Count : end;
        var told = Enumerable
            .Range(but + 1, end - but - 1)
            .Where(n => _words[n] is not ("the" or "button" or "key" or "for") && !SmallWords.IsGood(_words[n]))
            .ToList();
        if (
            told.Count != 1
            || _words[told[0]] is not ("a" or "b" or "c" or "x" or "y" or "z" or "select" or "fire" or "jump" or "left" or "right" or "up" or "down")
            || Nearest(_profile.Functions.Where(f => f.Kind == "buttons"), told[0], told[0] + 1) is not { } buttons
        )
            return;
        Use(but + 1, end);
        Add(told[0], new SaidFact(buttons.Id, false, HasLook(buttons, "one-dead") ? "one-dead" : null));
        for (var n = 0; n < but; n++)
            _used[n] |= _words[n] is "buttons" or "button" or "all" or "every";
    }

    private static readonly string[] Ordinals = ["first", "second", "third", "fourth", "fifth", "sixth"];

    /// <summary>“On the third try” is two that failed, “after three attempts” three; then one that worked.</summary>
    private bool AtLast()
    {
        if (
            _profile.Functions.FirstOrDefault(f => f.Kind is "start-up" or "cartridge") is not { } start
            || _facts.Any(f => IsOf(f.Fact, start))
        )
            return false;
        for (var at = 0; at + 1 < _words.Count; at++)
        {
            if (Failed(at, out var from, out var end) is not { } failed)
                continue;
            Use(from, end);
            for (var n = 0; n < _words.Count; n++)
                _used[n] |= _words[n] is "start" or "starts" or "works" or "work" or "boots" or "loads" or "runs" or "only";
            Add(at, new SaidFact(start.Id, false, null, failed));
            Add(at, new SaidFact(start.Id, true));
            return true;
        }

        return false;
    }

    /// <summary>How many starts a way of counting them tells to have failed, and which words tell it; null when it is none.</summary>
    private int? Failed(int at, out int from, out int end)
    {
        (from, end) = (Math.Max(0, at - 1), at + 2);
        if (at > 0 && Array.IndexOf(Ordinals, _words[at]) is >= 1 and var before && IsTry(_words[at + 1]))
            return before;
        if (
            _words[at] is not ("after" or "at" or "on" or "needs" or "takes" or "took")
            || SmallWords.Number(_words[at + 1]) is not (>= 2 and <= 1000 and var tries)
        )
            return null;
        // “Three or four” counts as three.
        var last = at + 2;
        if (last + 2 < _words.Count && _words[last] == "or" && SmallWords.Number(_words[last + 1]) is not null)
            last += 2;
        (from, end) = (at, last + 1);
        return last < _words.Count && IsTry(_words[last]) ? tries : null;
    }

    private static bool IsTry(string word) =>
        word is "try" or "tries" or "attempt" or "attempts" or "go" or "goes" or "time" or "times" or "start" or "starts";

    /// <summary>“Works about once in five.”</summary>
    private void Counted()
    {
        if (AtLast())
            return;
        for (var at = 0; at + 2 < _words.Count; at++)
        {
            var joined = 1;
            while (
                at + joined < _words.Count
                && _words[at + joined] is "in" or "of" or "out" or "time" or "times" or "start" or "starts" or "tries"
            )
                joined++;
            if (joined < 2 || joined > 4)
                joined = 0;
            if (
                joined == 0
                || at + joined >= _words.Count
                || SmallWords.Number(_words[at]) is not { } good
                || SmallWords.Number(_words[at + joined]) is not { } all
            )
                continue;
            if (
                good >= all
                || all > 1000
                || (Mentioned(0) ?? _profile.Functions.FirstOrDefault(f => f.Kind is "start-up" or "cartridge")) is not { } function
            )
                continue;
            Use(at, Math.Min(_words.Count, at + joined + 1));
            for (var n = 0; n < _words.Count; n++)
                if (_words[n] is "works" or "work" or "about" or "times" or "time" or "starts" or "tries")
                    _used[n] = true;
            Add(at, new SaidFact(function.Id, true, null, good));
            Add(at, new SaidFact(function.Id, false, null, all - good));
            return;
        }
    }
}
