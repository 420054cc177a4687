using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What is said of the unit without its name: it gives up while it runs, or runs on a condition.</content>
internal sealed partial class Listener
{
    private (int At, int Length, SaidConcepts.GivesUp How)? GivesUpAt(int at)
    {
        var next = at + 1 < _words.Count ? _words[at + 1] : SaidWords.Break;
        var bare = SaidWords.IsBreak(next) || IsIf(next) || next is "in" or "during";
        // “Switches off when a game is put in”, “resets during play.”
        foreach (var how in _used[at] ? [] : SaidConcepts.Shipped.Ends)
        {
            if (bare && how.Bare.Contains(_words[at]))
                return (at, 1, how);
            if (at + 1 < _words.Count && !_used[at + 1] && how.Told.Contains($"{_words[at]} {next}"))
                return (at, 2, how);
        }

        foreach (var how in SaidConcepts.Shipped.Ends)
        foreach (var words in how.Ways)
        {
            // “Cuts right out”: a small word may stand between.
            var n = at;
            for (var w = 0; w < words.Count && n >= 0; w++)
            {
                if (w > 0 && n < _words.Count && _stems[n] != words[w] && _words[n] is "itself" or "right" or "straight" or "suddenly" or "just")
                    n++;
                n = n < _words.Count && !_used[n] && _stems[n] == words[w] ? n + 1 : -1;
            }

            if (n > 0)
                return (at, n - at, how);
        }

        return null;
    }

    /// <summary>“Cuts out on the bus”, “freezes after half an hour”: said of the unit where nothing else is named before it.</summary>
    private void HearUnit(int from, int to)
    {
        // “Atrium, does nothing.”
        if (from == 0 && Enumerable.Range(from, to - from).Where(n => !IsUnit(n)).Select(n => _words[n]).ToList() is ["does" or "do", "nothing"] or ["nothing"])
        {
            if (_facts.Count == 0 && Likeliest(["power-light", "cartridge"]) is { } whole)
                Add(from, new SaidFact(whole.Id, false, HasLook(whole, "nothing") ? "nothing" : null));
            Use(from, to);
            return;
        }

        for (var at = from; at < to; at++)
        {
            if (_used[at] || GivesUpAt(at) is not var (_, length, how))
                continue;
            // “Reset does something odd: it hangs” tells what is odd.
            if (_words[from] == "it" && at == from + 1 && _facts.Exists(f => f.At < from && f.Fact is { Passed: false, Look: null, Function: not null }))
            {
                Use(at, at + length);
                return;
            }

            if (
                IsDenied(from, at)
                || Enumerable.Range(from, at - from).Any(n => !_used[n] && !IsUnit(n))
            )
                return;
            var free = Enumerable.Range(from, to - from).Where(n => !_used[n]).ToList();
            var press = PressIn(from, to, free);
            var warm = press is null ? WarmIn(from, to) : null;
            var function = warm is null
                ? Likeliest([.. how.Kinds])
                : how.Kinds.Select(Likeliest).FirstOrDefault(f => f is not null && HasLook(f, "warm"));
            if (function is null)
                return;
            Use(at, at + length);
            if (IsToldToFail(function))
                return;
            Add(at, Fact(function, press is not null ? SaidOf.Pressed : warm is not null ? SaidOf.Warm : SaidOf.Bad, at, length));
            Use(at, at + length);
            foreach (var n in press ?? warm ?? [])
                _used[n] = true;
            return;
        }
    }

    /// <summary>“Starts up fine once it has been pressed down hard.”</summary>
    private void HearPressed(int from, int to)
    {
        var verb = Enumerable
            .Range(from, to - from)
            .FirstOrDefault(n => IsVerb(_words[n]) || IsWork(_words[n]) || IsStart(_words[n]), -1);
        var free = Enumerable.Range(from, to - from).Where(n => !_used[n]).ToList();
        if (verb < 0)
            return;
        var disc = _words[verb] is "load" or "loads" or "read" ? Likeliest(["disc"]) : null;
        // A pad that works when its cord is bent has no start of its own.
        var whole = _profile.Kind == DeviceKind.Controller ? _profile.Functions.FirstOrDefault() : null;
        if ((disc ?? ByWord(verb) ?? Likeliest(["start-up", "cartridge"]) ?? whole) is not { } start)
            return;
        if (IsDenied(from, verb) || IsToldToFail(start))
            return;
        var press = PressIn(from, to, free);
        var only = Enumerable.Range(from, to - from).Any(n => _words[n] == "only" && n + 1 < to && IsWhen(_words[n + 1]));
        var takes = First(free, IsTakes) is not null;
        if (press is null && !only && !takes)
            return;
        Add(verb, Fact(start, press is null ? SaidOf.Bad : SaidOf.Pressed, verb, 1));
        Use(verb, verb + 1);
        UseGood(from, to);
        foreach (var n in press ?? [])
            _used[n] = true;
    }

    /// <summary>“Reads films but not games”: what it does with some and not with others fails.</summary>
    private void HearButNot(int from, int to)
    {
        if (from == 0 || to - from > 3 || _used[to - 1])
            return;
        // “Games no” says it the other way round.
        var isBut = _words[from - 1] == SaidWords.But && _words[from] is "not" or "no" or "never";
        var isNo = to - from == 2 && _words[to - 1] is "no" or "not" or "never" && _words[from] is "game" or "discs" or "disc" or "dvds" or "films" or "movies";
        if (!isBut && !isNo)
            return;
        var (start, end) = _clauses.Find(c => c.To == from - 1);
        if (Enumerable.Range(start, end - start).FirstOrDefault(n => IsVerb(_words[n]), -1) is not (>= 0 and var verb) || ByWord(verb) is not { } function)
            return;
        // Films and records come on discs.
        if (function.Kind == "start-up" && _words.GetRange(start, end - start).Exists(w => w is "dvds" or "dvd" or "cds" or "cd" or "films" or "movies"))
            function = Likeliest(["disc"]) ?? function;
        if (IsToldToFail(function))
            return;
        Add(from, new SaidFact(function.Id));
        Use(from, to);
        _used[verb] = true;
    }

    private static bool IsStart(string word) =>
        word is "go" or "load" or "loads" or "read" or "boot" or "run" or "start" or "recognised" or "seen" or "detected" or "found";

    /// <summary>A word before which nothing but the unit itself can stand.</summary>
    private bool IsUnit(int at) =>
        SmallWords.IsFiller(_words[at]) || SmallWords.Number(_words[at]) is not null || IsIf(_words[at]) || IsLater(_words[at]) || IsHot(_words[at])
        || _words[at] is "machine" or "system" or "randomly" or "whole" or "suddenly" or "then" or "keeps" or "often" or "first" or "which" or "but"
            or "half" or "few" or "couple" or "minutes" or "playing" or "while";
}
