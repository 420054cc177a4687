namespace Mendro.Core.Planning;

/// <content>How often it starts: at the third try, once in five.</content>
internal sealed partial class Listener
{
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
            // “The disc takes three goes to be seen” counts no starts.
            var (first, last) = _clauses.Find(c => at >= c.From && at < c.To);
            if (Subjects(first, last).Select(s => s.Function).DistinctBy(f => f.Id).ToList() is [{ Kind: "disc" or "link" or "saving" or "tray" } counted])
                start = counted;
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
        word is "try" or "tries" or "attempt" or "attempts" or "go" or "goes" or "time" or "times" or "start" or "starts" or "resets" or "restarts";

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
