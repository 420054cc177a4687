using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What no narrower rule has heard: what a clause speaks of, and whether what it says of it is bad.</content>
internal sealed partial class Listener
{
    /// <summary>“Select has no effect”, “L and R need a shove”, “the ring stays dark”: one thing, or several joined by “and”, and one bad
    /// word for it.</summary>
    private void HearFrame(int from, int to)
    {
        var clause = _words.GetRange(from, to - from);
        if (clause.Exists(w => w is "used" or "earlier" or "formerly" or "previously" or "maybe" or "perhaps"))
            return;
        var subjects = Placed(Subjects(from, to), from);
        // “The sound cuts out” is not said of the unit, though more of the sound was told before.
        if (subjects.Count == 0 && AllSubjects(from, to).Count > 0)
            return;
        if (subjects.Count == 0 && GoesOn(from, to) is { } before)
            subjects = [before];
        if (subjects.Count == 0)
        {
            HearUnit(from, to);
            HearPressed(from, to);
            HearButNot(from, to);
            return;
        }

        // “Eject does not open the tray” is said of the eject.
        if (
            subjects.Count == 2
            && !AreJoined(subjects)
            && Enumerable.Range(subjects[0].At, subjects[1].At - subjects[0].At).Any(n => _words[n] is "not" or "no" or "never")
        )
            subjects.RemoveAt(1);
        if (!AreJoined(subjects) || Predicate(from, to, subjects) is not { } said)
            return;
        foreach (var (at, length, function) in subjects)
        {
            if (!IsToldToFail(function))
                Add(at, Fact(function, said.Kind, at, length));
            Use(at, at + length);
        }

        foreach (var n in said.At)
            _used[n] = true;
    }

    /// <summary>“No music in the left ear”: what is heard there is said of where it is heard.</summary>
    private List<(int At, int Length, DeviceFunction Function)> Placed(List<(int At, int Length, DeviceFunction Function)> subjects, int from)
    {
        var places = subjects.FindAll(s =>
            s.Function.Kind is "phones" or "speaker"
            && Enumerable.Range(from, s.At - from).Reverse().TakeWhile(n => n >= s.At - 3).Any(n => IsFrom(_words[n]))
        );
        return places.Count == 1 && subjects.TrueForAll(s => s.Function.Kind is "phones" or "speaker") ? places : subjects;
    }

    /// <summary>“Screen lights but shows nothing”: a clause that begins with what is done goes on with what the clause before named.</summary>
    private (int At, int Length, DeviceFunction Function)? GoesOn(int from, int to)
    {
        if (from == 0 || to - from > 5 || _words[from] is not ("shows" or "show" or "gives" or "displays" or "stays" or "says" or "not" or "does" or "has"))
            return null;
        var (start, end) = _clauses.FindLast(c => c.To < from);
        if (end == 0 || Subjects(start, end) is not [var only])
            return null;
        return (from, 0, only.Function);
    }

    /// <summary>What a clause may say of its subject.</summary>
    private enum SaidOf
    {
        Bad,
        Nothing,
        Pressed,
        Hard,
        ByItself,
        Warm,
        OneSide,
    }

    private SaidFact Fact(DeviceFunction function, SaidOf said, int at, int length)
    {
        string? Of(params string[] looks) => looks.FirstOrDefault(l => HasLook(function, l));
        return said switch
        {
            SaidOf.Pressed when function.Kind == "buttons" && !OfACable(at) => new SaidFact(function.Id, false, Of("hard-press")),
            SaidOf.Pressed => Of("pressed") is { } pressed ? new SaidFact(function.Id, false, pressed)
                : function.Kind is "wheel" or "tray" or "saving" ? new SaidFact(function.Id)
                : new SaidFact(function.Id, Provoked: true),
            SaidOf.Hard => new SaidFact(function.Id, false, Of("hard-press", "pressed")),
            SaidOf.ByItself => new SaidFact(function.Id, false, Of("stuck")),
            SaidOf.Warm => new SaidFact(function.Id, false, Of("warm")),
            SaidOf.OneSide => new SaidFact(function.Id, false, Of("one-side")),
            // One of several buttons that is dead is not all of them.
            SaidOf.Nothing when function.Kind == "buttons" && length > 0 && ButtonAt(at, at, at + 1) is not null =>
                new SaidFact(function.Id, false, Of("one-dead", "nothing")),
            SaidOf.Nothing => new SaidFact(function.Id, false, Of("nothing", "not-read", "cannot-save")),
            _ => new SaidFact(function.Id),
        };
    }

    /// <summary>“Works if the cord is bent”: it is the cord that is moved.</summary>
    private bool OfACable(int at)
    {
        var (from, to) = _clauses.Find(c => at >= c.From && at < c.To);
        return _words.GetRange(from, to - from).Exists(w => w is "cord" or "cable" or "lead" or "wire" or "plug" or "bent" or "bend");
    }
}
