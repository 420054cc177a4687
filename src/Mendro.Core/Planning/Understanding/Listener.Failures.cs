using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What is said to fail, and how: a function with its state, or a phrase.</content>
internal sealed partial class Listener
{
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
                if (State(next, to, named, out var end) is { } fact && !(fact.Passed && (IsException(from) || IsNeither(from, at))))
                {
                    Use(at, end);
                    Add(at, fact);
                    foreach (var (before, other) in PortsJoined(from, at))
                        Add(before, fact with { Function = other });
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
                // “One horizontal line is dead” is said of the picture, which has been heard.
                if (phrase.Words is ["dead"] && told is not null && !phrase.Kinds.Split(',').Contains(told.Kind) && _facts.Exists(f => IsOf(f.Fact, told)))
                {
                    Use(at, end);
                    break;
                }

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
                // A light that is named flickers itself; “CD audio skips” is said of the disc all the same.
                if (phrase.Words.Count == 1 && phrase.Kinds.Length > 0)
                    byName ??= NamedBefore(from, at) is { Kind: "power-light" } light ? light : null;
                var other = phrase.Words.Count == 1 && byName is not null && phrase.Kinds.Length > 0 && !phrase.Kinds.Split(',').Contains(byName.Kind);
                // “Reset has no click” says of the reset no more than that.
                if (other && at > from && _words[at - 1] == "no")
                    break;
                // “Picture dead” is said of the picture and not of the unit.
                var function =
                    other ? byName
                    : phrase.Words is ["dead"] && told is null && NamedBefore(from, at) is { } own ? own
                    : Meant(phrase, told, (at, end), (from, to));
                if (function is null)
                    continue;
                Use(at, end);
                var letter = Enumerable.Range(from, at - from).Any(n => ButtonAt(n, from, to) is not null);
                if (told is null && function.Kind == "buttons" && IsOfTheUnit(phrase) && !letter)
                    foreach (var rest in _profile.Functions.Where(f => f.Kind == "buttons" && f.Id != function.Id && !IsToldToFail(f)))
                        Say(at, rest, phrase.Look);
                told ??= function;
                Say(at, function, phrase.Look == "nothing" && IsPlace(end, to) ? HasLook(function, "one-side") ? "one-side" : "fail" : phrase.Look);
                at = end - 1;
                break;
            }
        }
    }

    /// <summary>“Dead”, “nothing works”: said of a pad, which has no light, it is said of all its buttons.</summary>
    private static bool IsOfTheUnit(Phrase phrase) => phrase.Look == "nothing" && phrase.Kinds.StartsWith("power-light", StringComparison.Ordinal);

    private bool IsNeither(int from, int at) => at > from && _words[at - 1] is "neither" or "none" or "no";

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

        // Both of two, or all, are not one or two of several.
        if (look == "one-dead" && HasLook(function, "nothing") && _clauses.Find(c => at >= c.From && at < c.To) is var (from, to))
            look = _words.GetRange(from, to - from).Exists(w => w is "both" or "all" or "every" or "none") ? "nothing" : look;
        // A button is there to be pressed: “only if you really press” says that it needs more of it.
        if (look == "pressed" && function.Kind == "buttons" && HasLook(function, "hard-press") && !OfACable(at))
            look = "hard-press";

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
            // “Red lamp off.”
            case "off" or "dark" when end + 1 >= to && function.Kind is "power-light" or "backlight":
                end++;
                return new SaidFact(function.Id, false, HasLook(function, "nothing") ? "nothing" : null);
            // “Eject works, power button not.”
            case "no" or "none" or "not" when end + 1 >= to:
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
}
