using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What a clause says of its subject: that it is dead, bad, comes with a press, with heat, or by itself.</content>
internal sealed partial class Listener
{
    /// <summary>What is said of the subjects, and by which words; null where nothing bad is.</summary>
    private (SaidOf Kind, List<int> At)? Predicate(int from, int to, List<(int At, int Length, DeviceFunction Function)> subjects)
    {
        bool Own(int n) => subjects.Exists(s => n >= s.At && n < s.At + s.Length);
        var free = Enumerable.Range(from, to - from).Where(n => !_used[n] && !Own(n)).ToList();
        var clause = _words.GetRange(from, to - from);
        // “Up gets stuck when pressed” says no more of it by the press.
        if (First(free, n => _words[n] is "stuck" or "sticks" or "jammed" or "jams") is { } stuck && subjects.TrueForAll(s => HasLook(s.Function, "stuck")))
            return (SaidOf.ByItself, [stuck]);
        var areKeys = subjects.TrueForAll(s => s.Function.Kind is "buttons" or "reset");
        if (PressIn(from, to, free) is { } press)
            return (areKeys && press.Exists(n => IsHard(_words[n])) ? SaidOf.Hard : SaidOf.Pressed, press);
        if (WarmIn(from, to) is { } warm && (BadIn(from, free) is not null || DeadIn(from, to, free) is not null))
            return (SaidOf.Warm, warm);
        if (ByItselfIn(from, to) is { } itself)
            return (SaidOf.ByItself, itself);
        if (DeadIn(from, to, free) is { } dead)
        {
            var depends = Enumerable.Range(from, to - from).Any(n => IsIf(_words[n]) && !PressesAControl(n, to));
            return (HalfIn(from, to) ? SaidOf.OneSide : depends || clause.Exists(IsNowAndThen) ? SaidOf.Bad : SaidOf.Nothing, dead);
        }

        // “Dodgy hinge next to the screen”: what stands between is what is complained of.
        if (
            BadIn(from, free) is { } bad
            && Enumerable.Range(bad[^1] + 1, Math.Max(0, subjects[0].At - bad[^1] - 1)).All(n => _used[n] || SmallWords.IsKnown(_words[n]))
        )
            return (SaidOf.Bad, bad);
        var good = Enumerable.Range(from, to - from).Any(n => SmallWords.IsGood(_words[n]) && _words[n] != "on");
        // “Port 2 intermittent”, “picture comes and goes.”
        var byWord = subjects.TrueForAll(s => ByWord(s.At) is { } word && word.Id.Equals(s.Function.Id));
        var clear = good && byWord && !clause.Contains("only");
        if (!clear && First(free, n => IsNowAndThen(_words[n]) && _words[n] is not ("mostly" or "usually" or "forever")) is { } now)
            return (SaidOf.Bad, [now]);
        // “Image only visible from the side.”
        var isSeen = clause.Exists(w => w is "visible" or "readable" or "seen" or "audible");
        if (isSeen && First(free, n => _words[n] == "only") is { } seen)
            return (SaidOf.Bad, [seen]);
        // “Lights only after an hour.”
        if (First(free, n => _words[n] == "only" && n + 1 < to && IsWhen(_words[n + 1])) is { } condition)
            return (SaidOf.Bad, [condition]);
        // “The phones work in one ear.”
        if (good && HalfIn(from, to) && subjects.TrueForAll(s => HasLook(s.Function, "one-side") && s.Function.Kind != "buttons"))
            return (SaidOf.OneSide, [.. Enumerable.Range(from, to - from).Where(n => SmallWords.IsGood(_words[n]))]);
        // “Only half the screen shows anything.”
        return HalfIn(from, to) && First(free, n => _words[n] is "only" or "just") is { } only
            ? (clause.Exists(w => w is "left" or "right" or "ear") ? SaidOf.OneSide : SaidOf.Bad, [only])
            : null;
    }

    private bool HalfIn(int from, int to) => Enumerable.Range(from, to - from).Any(n => IsPlaceWord(n, to));

    /// <summary>True where the next words name a control: “power”, “the start button”.</summary>
    private bool IsControl(int at, int to)
    {
        while (at < to && _words[at] is "the" or "my" or "its" or "down")
            at++;
        return at < to
            && (
                _words[at] is "power" or "button" or "key" or "start" or "select" or "reset" or "eject" or "slider"
                || at + 1 < to && _words[at + 1] is "button" or "key"
            );
    }

    /// <summary>“When I press power” tells what was done, and no condition.</summary>
    private bool PressesAControl(int at, int to) =>
        Enumerable.Range(at, to - at).Any(n => SaidConcepts.Shipped.Press.Contains(_stems[n]) && IsControl(n + 1, to));

    private static bool IsHard(string word) => word is "hard" or "harder" or "firmly" or "force" or "shove" or "strong" or "strongly" or "firm" or "stomp";

    /// <summary>Words that say that pressing, moving or holding changes it, or null.</summary>
    private List<int>? PressIn(int from, int to, List<int> free)
    {
        // To press what is there to be pressed is no condition: “nothing when I press power”.
        var on = free.FindAll(n => SaidConcepts.Shipped.Press.Contains(_stems[n]) && !IsControl(n + 1, to));
        var condition = Enumerable
            .Range(from, to - from)
            .Where(n =>
                IsIf(_words[n]) && _words[n] != "whenever"
                || _words[n] is "needs" or "need" or "must" or "requires" or "slightest"
                || _words[n] is "to" && n > from && _words[n - 1] is "has" or "have" or "had"
            )
            .ToList();
        if (on.Count == 0 || condition.Count == 0 || IsDenied(from, on[0]))
            return null;
        return [.. on, .. condition, .. free.Where(n => IsHard(_words[n]))];
    }

    /// <summary>Words that say that it comes with heat or with time, or null: “after half an hour”, “once it is hot”.</summary>
    private List<int>? WarmIn(int from, int to)
    {
        for (var at = from; at < to; at++)
        {
            if (_words[at] is not ("after" or "within" or "when" or "once" or "until" or "if"))
                continue;
            var end = Enumerable.Range(at + 1, Math.Min(5, to - at - 1)).FirstOrDefault(n => IsLater(_words[n]) || IsHot(_words[n]), -1);
            // Half a minute warms nothing.
            if (end > 0 && _words[end] == "minute")
                continue;
            if (end > 0 && (IsHot(_words[end]) || _words[at] is "after" or "within"))
                return [.. Enumerable.Range(at, end - at + 1)];
        }

        return null;
    }

    private static bool IsLater(string word) => word is "minutes" or "minute" or "mins" or "min" or "hour" or "hours" or "while";

    private static bool IsHot(string word) => word is "warm" or "hot" or "warmed" or "heated" or "warms";

    /// <summary>“By itself”, “on its own”, “all the time”, or null.</summary>
    private List<int>? ByItselfIn(int from, int to)
    {
        for (var at = from; at + 1 < to; at++)
            if (
                _words[at] == "by" && _words[at + 1] == "itself"
                || at + 2 < to && _words[at] is "on" or "of" && _words[at + 1] == "its" && _words[at + 2] == "own"
                || _words[at] is "always" or "permanently" && _words[at + 1] is "pressed" or "held" or "active"
            )
                return [.. Enumerable.Range(at, Math.Min(3, to - at))];
        return null;
    }

    /// <summary>Words that say that nothing comes of it, or null: “dead”, “does nothing”, “has no effect”, “do not”.</summary>
    private List<int>? DeadIn(int from, int to, List<int> free)
    {
        foreach (var n in free)
        {
            var next = n + 1 < to ? _words[n + 1] : "";
            if (SaidConcepts.Shipped.Dead.Contains(_stems[n]) && !IsDenied(from, n) && !IsHow(n + 1, to))
                return [n];
            // “No music in the left ear.”
            if (_words[n] is "no" or "without" && n + 1 < to && FunctionAt(n + 1, to) is not null)
                return [n];
            // “Red light off”, “the ring stays dark.”
            var isLast = next.Length == 0 && n > from;
            if (
                isLast
                && _words[n] is "off" or "dark" or "out"
                && NamedIn(from, n).LastOrDefault().Function?.Kind is "power-light" or "backlight" or "charging"
            )
                return [n];
            if (_words[n] == "nothing" && next is "" or "at" or "when" or "if" or "to" or "on" or "from" or "in" or "happens")
                return [n];
            if (_words[n] is "no" or "without" or "zero" && n + 1 < to && SaidConcepts.Shipped.Effects.Contains(_stems[n + 1]))
                return [n, n + 1];
            // “Neither shoulder works.”
            if (_words[n] is "neither" or "none" && free.Find(k => k > n && IsWork(_words[k])) is > 0 and var works)
                return [n, works];
            if (_words[n] is not ("not" or "never") || IsPartly(next))
                continue;
            if (next.Length == 0)
                return [n];
            var verb = Enumerable.Range(n + 1, Math.Min(3, to - n - 1)).FirstOrDefault(k => SaidConcepts.Shipped.Answers.Contains(_stems[k]), -1);
            if (verb > 0)
                return [n, verb];
        }

        return null;
    }

    private static bool IsPartly(string word) => word is "always" or "really" or "fully" or "quite" or "every" or "all" or "both";

    /// <summary>A word of complaint or of a unit that gives up, or null.</summary>
    private List<int>? BadIn(int from, List<int> free) =>
        First(free, n => IsComplaint(from, n)) is { } bad ? [bad]
        : First(free, n => _words[n] == "not" && n + 1 < _words.Count && IsPartly(_words[n + 1])) is { } partly ? [partly, partly + 1]
        // “Takes a minute before it lights.”
        : First(free, n => IsTakes(n)) is { } takes ? [takes]
        : free.Select(n => GivesUpAt(n)).FirstOrDefault(g => g is not null) is { } gives ? [.. Enumerable.Range(gives.At, gives.Length)]
        : null;

    private bool IsComplaint(int from, int at) =>
        SaidConcepts.Shipped.Complaints.Contains(_stems[at])
        && !IsDenied(from, at)
        && !(at > from && _words[at - 1] is "nothing" or "much" or "hardly");

    /// <summary>“Takes a minute”, “takes three pushes”.</summary>
    private bool IsTakes(int at) =>
        _words[at] is "takes" or "needs" or "took"
        && Enumerable
            .Range(at + 1, Math.Min(4, _words.Count - at - 1))
            .Any(n => IsLong(_words[n]) || IsTry(_words[n]) || SaidConcepts.Shipped.Press.Contains(_stems[n]));

    private static bool IsLong(string word) => IsLater(word) || word is "ages" or "forever" or "long" or "seconds";

    private static int? First(List<int> among, Func<int, bool> fits) => among.FindIndex(n => fits(n)) is >= 0 and var at ? among[at] : null;
}
