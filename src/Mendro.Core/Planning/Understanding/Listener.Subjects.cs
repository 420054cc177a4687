using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What a clause speaks of: functions by name, by a word of it, buttons by their letter.</content>
internal sealed partial class Listener
{
    /// <summary>What the clause names and of which nothing bad is told yet, in its order, each once.</summary>
    private List<(int At, int Length, DeviceFunction Function)> Subjects(int from, int to) =>
        AllSubjects(from, to).FindAll(f => !IsToldToFail(f.Function));

    /// <summary>What the clause names, in its order.</summary>
    private List<(int At, int Length, DeviceFunction Function)> AllSubjects(int from, int to)
    {
        var found = new List<(int At, int Length, DeviceFunction Function)>();
        for (var at = from; at < to; at++)
        {
            if (SubjectAt(at, from, to) is not { } one)
                continue;
            // “The tube lights” says what it does.
            var does = IsVerb(_words[at]) || _words[at] == "lights" && found.Exists(f => f.At + f.Length == at);
            if (!does && !IsOfAnother(one.At + one.Length, from, to))
                found.Add(one);
            at = one.At + one.Length - 1;
        }

        // What stands behind a “when” tells when: “dies when the volume is turned up”.
        var cut = Enumerable.Range(from, to - from).FirstOrDefault(n => n > from && IsWhen(_words[n]), to);
        if (found.Exists(f => f.At < cut) || Enumerable.Range(from, cut - from).Any(n => GivesUpAt(n) is not null))
            found.RemoveAll(f => f.At > cut);
        return found;
    }

    /// <summary>“The picture cable is broken”, “disc tray sticks”: what stands first in a name of two tells of which kind the second is, and
    /// it is the second of which is spoken.</summary>
    private bool IsOfAnother(int next, int from, int to)
    {
        if (next >= to)
            return false;
        var (word, stem) = (_words[next], _stems[next]);
        if (IsThing(word) || SaidConcepts.Shipped.Marks.Any(m => m.Things.Contains(stem)))
            return word is not ("pin" or "pins" or "contact" or "contacts" or "loose");
        // Another function, told or not: of the two the tray is meant.
        if (!_used[next] && !IsVerb(word) && ButtonAt(next, from, to) is null && (ByWord(next) ?? OfConcept(next)) is not null)
            return word is not ("button" or "buttons" or "key" or "keys" or "output" or "light" or "lights");
        if (_used[next])
            return _facts.Exists(f => f.At == next && f.Fact.Function is not null && (ByWord(next) ?? OfConcept(next)) is { } told && IsOf(f.Fact, told));
        return !Says(word, stem);
    }

    /// <summary>A word that says something of what stands before it, and names nothing.</summary>
    private bool Says(string word, string stem) =>
        SmallWords.IsKnown(word)
        || IsSay(word)
        || IsIf(word)
        || IsNowAndThen(word)
        || IsShining(word)
        || Known.Contains(word)
        || Stems.Contains(stem)
        || SaidConcepts.Shipped.Complaints.Contains(stem)
        || SaidConcepts.Shipped.Press.Contains(stem)
        || SaidConcepts.Shipped.Dead.Contains(stem)
        || word is "no" or "not" or "never" or "nothing" or "neither" or "none" or "without" or "needs" or "need" or "must" or "takes"
        || word.EndsWith("ly", StringComparison.Ordinal)
        || word.EndsWith("ing", StringComparison.Ordinal)
        || word.EndsWith("ed", StringComparison.Ordinal)
        || word.EndsWith('s');

    private static bool IsWhen(string word) => IsIf(word) && word != "only";

    private (int At, int Length, DeviceFunction Function)? SubjectAt(int at, int from, int to) =>
        ButtonAt(at, from, to) is { } button ? (at, at + 1 < to && _words[at + 1] is "button" or "buttons" or "key" ? 2 : 1, button)
        // “Eject works, power does nothing” is said of two buttons.
        : _words[at] == "power" && !_used[at] && at + 1 < to && _words[at + 1] is "does" or "not" or "has" or "nothing"
            && _profile.Functions.FirstOrDefault(f => f.Name == "Power button") is { } power ? (at, 1, power)
        : _words[at] == "power" && !_used[at] && at + 1 < to && _words[at + 1] == "switch" && Likeliest(["power-light"]) is { } light ? (at, 2, light)
        // “The switch is stiff”: the one that puts it on.
        : _words[at] == "switch" && !_used[at] && (at == from || _words[at - 1] is "the" or "its" or "slide") && at + 1 < to
            && _words[at + 1] is not ("on" or "off" or "it") && Likeliest(["power-light"]) is { } on ? (at, 1, on)
        : _words[at] == "port" && at + 1 < to && SmallWords.Number(_words[at + 1]) is not null ? (OfConcept(at) is { } port ? (at, 2, port) : null)
        : FunctionAt(at, to) is { } named ? named
        : !_used[at] && NameWord(_words[at]) is { } word ? (at, 1, word)
        : null;

    /// <summary>True where nothing but small words stands between each and the next: “B and start”, “left or right on the d-pad”.</summary>
    private bool AreJoined(List<(int At, int Length, DeviceFunction Function)> subjects) =>
        subjects.Select(s => s.Function.Id).Distinct().Count() == 1
        || subjects
            .Zip(subjects.Skip(1))
            .All(pair => Enumerable.Range(pair.First.At + pair.First.Length, pair.Second.At - pair.First.At - pair.First.Length)
                .All(n => _words[n] is "and" or "or" or "nor" or "the" or "also" or "both" or "button" or "buttons" or "no"));

    /// <summary>A button by its letter or direction, or null: “B”, “left”; “start” where the unit has no start of its own.</summary>
    private DeviceFunction? ButtonAt(int at, int from, int to)
    {
        var word = _words[at];
        if (_used[at] || !Buttons.Contains(word))
            return null;
        var (before, after) = (at > from ? _words[at - 1] : "", at + 1 < to ? _words[at + 1] : "");
        var joined = before is "and" or "or" or "button" or "buttons" || after is "and" or "or" or "button" or "buttons" or "key";
        if (word == "a" && !joined && after.Length > 0 && !IsSaidOfOne(after))
            return null;
        if (word == "start" && !joined && _profile.Functions.Any(f => f.Kind is "start-up" or "cartridge"))
            return null;
        // “Turned all the way up”, “upside down”, “the left speaker” name no button.
        if (
            word is "left" or "right" or "up" or "down"
            && !(before is "" or "from" or "on" or "press" or "pressing"
                || before is "and" or "or" && at - 2 >= from && ButtonAt(at - 2, from, to) is not null
                || OtherName.GetValueOrDefault(before) == "direction")
        )
            return null;
        if (
            word is "left" or "right" or "up" or "down"
            && (after is "one" or "side" or "ear" or "half" or "corner" or "channel" or "speaker" or "stick" or "edge" or "third" or "part" or "top" or "bottom"
                || after is "shoulder" or "trigger" or "bumper" || _words.GetRange(from, to - from).Exists(w => w is "ear" or "channel"))
        )
            return null;
        return word is "l" or "r"
            ? Likeliest(["~shoulder", "~trigger"])
            : Nearest(_profile.Functions.Where(f => f.Kind == "buttons" && !IsKind(f, "~shoulder")), at, at + 1);
    }

    private static readonly HashSet<string> Buttons =
        ["a", "b", "c", "x", "y", "z", "l", "r", "select", "start", "fire", "left", "right", "up", "down", "diagonals", "diagonal"];

    private static bool IsSaidOfOne(string word) =>
        word is "is" or "are" or "does" or "not" or "dead" or "sticks" or "stuck" or "sticky" or "needs" or "only" or "works" or "hardly" or "has";

    /// <summary>The one function with this word in its name: “ring” of the ring light, “clock”, “wheels”.</summary>
    private DeviceFunction? NameWord(string word)
    {
        if (word.Length < 4 || CommonInNames.Contains(word))
            return null;
        var stem = Stem.Of(word);
        var with = _profile
            .Functions.Where(f => f.Name.ToLowerInvariant().Split([' ', ',', '-'], StringSplitOptions.RemoveEmptyEntries).Any(w => Stem.Of(w) == stem))
            .ToList();
        return with.Count == 1 ? with[0] : null;
    }

    private static readonly HashSet<string> CommonInNames =
    [
        "button", "buttons", "light", "port", "ports", "controller", "output", "sound", "picture", "left", "right", "power", "start", "started", "starts",
        "select", "kept", "settings", "reading", "read", "reads", "play", "plays", "hard", "console", "save", "saved", "saves", "seen", "card", "cards",
        "cartridge", "noticed", "pads", "sides", "screen",
    ];
}
