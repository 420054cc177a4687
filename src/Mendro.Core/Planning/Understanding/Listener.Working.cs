using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What is said to work, to do likewise, or to work now and then.</content>
internal sealed partial class Listener
{
    /// <summary>“Quiet, phones too.”</summary>
    private void HearLikewise(int from, int to)
    {
        if (!Enumerable.Range(from, to - from).Any(n => _words[n] is "too" or "also" or "neither" or "likewise" or "same" or "either"))
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
            _used[at] |= _words[at] is "neither" or "likewise" or "same" or "either";
    }

    private void HearWorking(int from, int to, bool several)
    {
        // “picture ok” stands for itself, whatever else is said beside it.
        for (var at = from; at + 1 < to; at++)
        {
            var next = _words[at + 1] is "is" or "are" or "all" && at + 2 < to ? at + 2 : at + 1;
            if (
                _used[at]
                || _used[next]
                || at > from && _words[at - 1] is "no" or "not" or "nothing"
                || _words[next] is not ("ok" or "okay" or "fine" or "good" or "works" or "work" or "perfect" or "there")
                || next + 1 < to && _words[next + 1] is "only" or "when" or "until"
                || ByWord(at) is not { } told
                || _facts.Any(f => IsOf(f.Fact, told))
            )
                continue;
            Add(at, new SaidFact(told.Id, true));
            Use(at, next + 1);
        }

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
            else if (SmallWords.IsGood(_words[at]))
                good = true;
            else if (!SmallWords.IsFiller(_words[at]))
                other = true;
        }

        // “only works in the middle” is not “works”.
        var clause = _words.GetRange(from, to - from);
        var negated = clause.Any(w => w is "no" or "not" or "never" or "without" or "only" || IsNowAndThen(w));
        if (clause.Contains("only"))
            UseGood(from, to);
        if (named.Count == 0 || negated || other && !good || !good && !several && !named.Any(n => IsVerb(_words[n])))
            return;
        foreach (var at in named)
        {
            var function = ByWord(at)!;
            if (_facts.Any(f => IsOf(f.Fact, function)))
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

    private static bool IsNowAndThen(string word) =>
        word is "intermittently" or "sometimes" or "occasionally" or "randomly" or "rarely" or "forever";

    private static bool IsVerb(string word) =>
        word is "charges" or "starts" or "boots" or "saves" or "reads" or "plays" or "runs" or "powers";

    /// <summary>“Everything works except the sound.”</summary>
    private void Except()
    {
        var at = _words.FindIndex(w => w is "everything" or "otherwise" or "rest" or "fully");
        if (at < 0)
            at = Enumerable.Range(0, Math.Max(0, _words.Count - 1)).FirstOrDefault(n => _words[n] == "all" && SmallWords.IsGood(_words[n + 1]), -1);
        if (at < 0)
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
            _used[n] = true;
            if (!_facts.Any(f => IsOf(f.Fact, function)))
                Add(n, new SaidFact(function.Id));
        }

        foreach (var function in _profile.Functions.Where(f => f.Kind is "power-light" or "start-up"))
            if (!_facts.Any(f => IsOf(f.Fact, function)))
                Add(at, new SaidFact(function.Id, true));
    }

    /// <summary>“Works about once in five.”</summary>
    private void Counted()
    {
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
