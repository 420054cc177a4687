using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>Which function of the model a word or a phrase is about.</content>
internal sealed partial class Listener
{
    /// <summary>The function a phrase is said of: the one named in the clause, else the likeliest that the model has.</summary>
    private DeviceFunction? Meant(Phrase phrase, DeviceFunction? told, (int From, int To) words, (int From, int To) clause)
    {
        var (from, to) = clause;
        if (phrase.Look == "pressed" && IsControl(words.To, to))
            return null;
        if (phrase.Kinds.Length == 0 && told is null && OfSomethingUnheard(words, clause))
            return null;
        // “The picture has stripes, gets better when pressed”, “no charging light, wiggling the plug helps.”
        if (
            phrase.Kinds.Length == 0
            && told is null
            && (_words[from] is "gets" or "becomes" or "goes" || phrase.Words[^1] == "helps")
            && (SubjectBefore(from) is [{ Function: { } named }] ? named : LastToFail(from)) is { } better
        )
            return better;
        if (phrase.Kinds.Length == 0)
            return told
                ?? OnOrOff(from, to)
                ?? OnlyNamed(words, clause)
                ?? GivingUp(clause)
                ?? Mentioned(from)
                ?? _profile.Functions.FirstOrDefault(f => f.Kind is "start-up" or "cartridge")
                ?? _profile.Functions.FirstOrDefault();
        var kinds = phrase.Kinds.Split(',');
        // “Buzzing in the headphones” is said of them, and what hums through the screen is the sound.
        var likewise = _words.GetRange(from, to - from).Exists(w => w is "too" or "also");
        var free = told is null && !likewise;
        if (free && At(from, to) is { } place && kinds.Contains(place.Kind) && !IsHeardThrough(phrase, place) && HasLook(place, phrase.Look))
            return place;
        if (told is not null && kinds.Contains(told.Kind) && (HasLook(told, phrase.Look) || phrase.Look == "fail"))
            return told;
        // The one thing that the clause names is meant, but for what hums through a screen, by whichever of its names.
        var only = free ? OnlyNamed(words, clause) : null;
        if (only is not null && !IsHeardThrough(phrase, only) && kinds.Contains(only.Kind) && (phrase.Look == "fail" || HasLook(only, phrase.Look)))
            return only;
        // “Power needs several pushes” is said of no game button, “port 4 is not seen” of no disc.
        if (
            only is not null
            && (
                kinds.Length == 1
                || only.Kind is "link" or "reset" or "wheel" or "tray" or "saving"
                || kinds[0] == "buttons" && phrase.Look is "hard-press" or "dead-centre"
            )
            && !kinds.Contains(only.Kind)
            // Sound and pictures come from discs and cartridges.
            && only.Kind is not ("speaker" or "picture" or "video-out")
            && !Enumerable.Range(words.From, words.To - words.From).Any(n => ByWord(n) is not null || OfConcept(n) is not null)
        )
            return null;
        return kinds
                .Select(k =>
                    Nearest(_profile.Functions.Where(f => IsKind(f, k) && (phrase.Look is "fail" or "pass" || HasLook(f, phrase.Look))), from, to)
                )
                .FirstOrDefault(f => f is not null)
            ?? Likeliest(kinds);
    }

    /// <summary>What was told last, before a word, to fail; null for nothing.</summary>
    private DeviceFunction? LastToFail(int before) =>
        _facts.Where(f => f.At < before && f.Fact is { Function: not null, Passed: false }).OrderBy(f => f.At).LastOrDefault().Fact is { Function: { } id }
            ? _profile.FindFunction(id)
            : null;

    /// <summary>“Gets tastier when I press”: what is said to change is a word that nobody knows.</summary>
    private bool OfSomethingUnheard((int From, int To) words, (int From, int To) clause) =>
        Enumerable.Range(clause.From, words.From - clause.From).Any(n => IsSomethingElse(n) && !(n > clause.From && IsIf(_words[n - 1])))
        && !Enumerable.Range(clause.From, clause.To - clause.From).Any(n => IsWork(_words[n]) || IsVerb(_words[n]));

    /// <summary>“Dies when shaken”: what gives up so.</summary>
    private DeviceFunction? GivingUp((int From, int To) clause) =>
        Enumerable.Range(clause.From, clause.To - clause.From).Select(GivesUpAt).FirstOrDefault(g => g is not null) is { } gives
            ? Likeliest([.. gives.How.Kinds])
            : null;

    private static bool IsHeardThrough(Phrase phrase, DeviceFunction place) => phrase.Look == "buzz" && place.Kind is "picture" or "video-out";

    /// <summary>The only function that a clause names beside some of its words, by whichever name, or null.</summary>
    private DeviceFunction? OnlyNamed((int From, int To) words, (int From, int To) clause)
    {
        var named = AllSubjects(clause.From, clause.To)
            .Where(s => s.At >= words.To || s.At + s.Length <= words.From)
            .Select(s => s.Function)
            .DistinctBy(f => f.Id)
            .ToList();
        return named.Count == 1 ? named[0] : null;
    }

    private DeviceFunction? Likeliest(string[] kinds) =>
        kinds.Select(k => Likeliest(k)).FirstOrDefault(f => f is not null);

    // “The buttons” are those that are called so, not the direction pad beside them.
    private DeviceFunction? Likeliest(string kind) =>
        (kind == "buttons" ? _profile.Functions.FirstOrDefault(f => IsKind(f, kind) && f.Name.Contains("button", StringComparison.OrdinalIgnoreCase)) : null)
        ?? _profile.Functions.FirstOrDefault(f => IsKind(f, kind));

    /// <summary>Of several functions of a kind the one with a word of the clause in its name, else the first.</summary>
    private DeviceFunction? Nearest(IEnumerable<DeviceFunction> functions, int from, int to)
    {
        var list = functions.ToList();
        if (list.Count < 2)
            return list.FirstOrDefault();
        var clause = _words.GetRange(from, to - from);
        var said = clause.Select(w => OtherName.GetValueOrDefault(w, w)).Where(w => w.Length > 3).ToList();
        DeviceFunction? With(IEnumerable<string> words) =>
            list.FirstOrDefault(f => words.Any(w => f.Name.Contains(w, StringComparison.OrdinalIgnoreCase)));
        // A button that is named, or all of them, are the buttons; “one button” may be any.
        var named = clause.Any(w => w is "buttons" or "start" or "select" or "fire" or "jump" || w.Length == 1 && w != "a");
        return With(said.Where(w => !w.StartsWith("button", StringComparison.Ordinal))) ?? (named ? With(said) : null) ?? list[0];
    }

    private static readonly Dictionary<string, string> OtherName = new()
    {
        ["d-pad"] = "direction",
        ["dpad"] = "direction",
        ["cross"] = "direction",
        ["left"] = "direction",
        ["right"] = "direction",
        ["up"] = "direction",
        ["down"] = "direction",
        ["a"] = "action",
        ["b"] = "action",
        ["x"] = "action",
        ["y"] = "action",
        ["fire"] = "action",
        ["l"] = "shoulder",
        ["r"] = "shoulder",
    };

    /// <summary>True for a function of a kind, or with a word in its name when the kind begins with <c>~</c>.</summary>
    private static bool IsKind(DeviceFunction function, string kind) =>
        kind.StartsWith('~')
            ? function.Kind is "buttons" or "saving" or "wheel" or "stick" && function.Name.Contains(kind[1..], StringComparison.OrdinalIgnoreCase)
            : function.Kind == kind;

    /// <summary>A function that is named by a word anywhere in the clause.</summary>
    private DeviceFunction? Mentioned(int from)
    {
        for (var at = from; at < _words.Count && !SaidWords.IsBreak(_words[at]); at++)
            if (ByWord(at) is { } function)
            {
                _used[at] = true;
                return function;
            }

        return null;
    }

    /// <summary>The function named behind “in”, “on” or “from” in a clause, or null.</summary>
    private DeviceFunction? At(int from, int to)
    {
        for (var n = from; n + 1 < to; n++)
        {
            if (!IsFrom(_words[n]))
                continue;
            var next = _words[n + 1] is "the" or "my" or "both" ? n + 2 : n + 1;
            if (next < to && ByWord(next) is { } function)
                return function;
        }

        return null;
    }

    /// <summary>“Goes off when shaken”, “must be wiggled to turn on”: the light is meant.</summary>
    private DeviceFunction? OnOrOff(int from, int to) =>
        Enumerable
            .Range(from + 1, Math.Max(0, to - from - 1))
            .Any(n => _words[n] is "on" or "off" && OnAndOff.Contains(_words[n - 1]))
            ? _profile.Functions.FirstOrDefault(f => f.Kind == "power-light")
            : null;

    private static readonly HashSet<string> OnAndOff =
        ["turn", "turns", "goes", "go", "comes", "come", "switch", "switches", "powers", "power"];

    private DeviceFunction? ByWord(int at)
    {
        // A charging light tells of the charging.
        if (at > 0 && _words[at] is "light" or "led" && _words[at - 1] is "charge" or "charging" or "charger" && Likeliest(["charging"]) is { } charging)
            return charging;
        foreach (var (word, kinds) in Lexicon.Functions)
            if (word == _words[at])
                return Likeliest(kinds.Split(','));
        return null;
    }

    /// <summary>A function by its own name, such as “eject button” or “controller port 1”.</summary>
    private (DeviceFunction Function, int Length)? NamedFunction(int at, int to)
    {
        (DeviceFunction, int)? best = null;
        foreach (var function in _profile.Functions)
        {
            string[] name = [.. function.Name.ToLowerInvariant().Split([' ', ',', '-'], StringSplitOptions.RemoveEmptyEntries).Select(SaidWords.Spelt)];
            // “port 1” says as much as “controller port 1”.
            for (var skip = 0; skip < name.Length; skip++)
            {
                var tail = name[skip..];
                if (
                    skip > 0 && tail.Length < 2
                    || at + tail.Length > to
                    || !tail.Zip(_words.Skip(at)).All(x => x.First.TrimEnd('s') == x.Second.TrimEnd('s'))
                )
                    continue;
                if (best is null || tail.Length > best.Value.Item2)
                    best = (function, tail.Length);
            }

            // “Eject works” is said of its button; “power” alone is said of much.
            if (best is null && name is [not "power", "button"] && name[0] == _words[at])
                best = (function, 1);
        }

        return best;
    }
}
