using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>A thing that is named and a word of complaint that is said of it: it fails, and nobody told how it looks.</content>
internal sealed partial class Listener
{
    /// <summary>“Something wrong with the sound”, “screen looks weird”, “buttons act up”, “bad picture”, “the light is not right”.</summary>
    private void HearVague(int from, int to)
    {
        for (var at = from; at < to; at++)
        {
            if (_used[at] || ComplaintAt(at, to) is not (> 0 and var length))
                continue;
            var end = at + length;
            // “Bad contact”, “good condition”: what is complained of is the next word, and no function.
            var said = Behind(end, to);
            if (said is null && (end >= to || _used[end] || IsLight(_words[end]) || IsIf(_words[end])))
                said = Before(from, at);
            // What was heard to work is heard again: “works strangely”.
            if (said is not { } found || IsToldToFail(found.Function))
                continue;
            // “Nothing wrong with the sound” is no complaint.
            if (IsDenied(from, at) || at > from && _words[at - 1] is "nothing" or "much" or "hardly")
                continue;
            Add(found.At, new SaidFact(found.Function.Id, false));
            Use(found.At, found.At + found.Length);
            Use(at, end);
            for (var n = from; n < to; n++)
                _used[n] |= IsSay(_words[n]);
        }
    }

    /// <summary>Words of a complaint that begins here, or 0: “weird”, “acts up”, “not right”.</summary>
    private int ComplaintAt(int at, int to) =>
        SaidConcepts.Shipped.Complaints.Contains(_stems[at]) ? 1
        : _words[at] == "off" && at + 1 < to && _words[at + 1] == "with" ? 2
        : at + 1 < to && _words[at + 1] == "up" && SaidConcepts.Shipped.Up.Contains(_stems[at]) ? 2
        : at + 1 < to
        && _words[at] is "not" or "never"
        && _words[at + 1] is "right" or "ok" or "okay" or "fine" or "good" or "great" or "normal" or "correct" or "proper" or "properly" or "well"
            ? 2
        : 0;

    /// <summary>What a complaint names right behind it: “bad picture”, “trouble with the left shoulder”.</summary>
    private (int At, int Length, DeviceFunction Function)? Behind(int from, int to)
    {
        for (var at = from; at < to; at++)
        {
            if (FunctionAt(at, to) is { } found)
                return found;
            if (IsIf(_words[at]))
                return null;
            if (!IsLight(_words[at]) && !IsPlaceWord(at, to) && _words[at] is not ("left" or "right"))
                return null;
        }

        return null;
    }

    /// <summary>What a complaint is said of right before it: “the sound is strange”, “d-pad acts weird”.</summary>
    private (int At, int Length, DeviceFunction Function)? Before(int from, int to)
    {
        for (var at = to - 1; at >= from; at--)
        {
            for (var start = Math.Max(from, at - 2); start <= at; start++)
                if (FunctionAt(start, to) is { } found && found.At + found.Length == at + 1)
                    return found;
            if (!IsLight(_words[at]) || _words[at] is "of" or "with" or "and" or "or" or "for" or "in")
                return null;
        }

        return null;
    }

    private (int At, int Length, DeviceFunction Function)? FunctionAt(int at, int to) =>
        // “R button broke off” is said of R.
        at > 0 && !_used[at] && _words[at] is "button" or "key" && ButtonAt(at - 1, at - 1, to) is { } button ? (at, 1, button)
        // A name that was heard and of which nothing was told is still free to have something said of it.
        : NamedFunction(at, to) is var (named, length) ? (at, length, named)
        : _used[at] ? null
        : (ByWord(at) ?? OfConcept(at)) is { } word ? (at, 1, word)
        : null;

    /// <summary>Small words that stand between a thing and what is said of it.</summary>
    private static bool IsLight(string word) => SmallWords.IsFiller(word) || IsSay(word);

    private static bool IsSay(string word) =>
        word is "looks" or "look" or "sounds" or "feels" or "acts" or "act" or "acting" or "behaves" or "works" or "work" or "shows" or "something"
            or "somehow" or "rather" or "quite" or "really" or "kind" or "sort" or "way" or "kinda" or "pretty" or "totally" or "mostly" or "reading"
            or "opens" or "closes" or "spins" or "moves" or "answers" or "responds" or "does" or "being" or "got" or "have" or "having" or "gives"
            or "its" or "somewhat";
}
