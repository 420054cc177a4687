namespace Mendro.Core.Planning;

/// <content>All but one: what works, and what is left out of it.</content>
internal sealed partial class Listener
{
    /// <summary>“Everything but the picture works”: the clause names what does not.</summary>
    private bool IsException(int from) =>
        from > 0
        && _words[from - 1] is SaidWords.But or SaidWords.Except
        && _words.Take(from - 1).All(w => w is "everything" or "all" or "every" || SmallWords.IsFiller(w) || SmallWords.IsGood(w))
        && _words.Take(from - 1).Any(w => w is "everything" or "all" or "every");

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
        // “Phones fine, everything else works”: what is said of the phones stands for itself.
        foreach (var (from, to) in _clauses.Where(c => c.To > at || !NamedIn(c.From, c.To).Any()))
            UseGood(from, to);
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
}
