using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What alone is there, what comes with what fails, and what works for a while.</content>
internal sealed partial class Listener
{
    /// <summary>“There for a minute, then gone”.</summary>
    private bool IsForAWhile(int at, int to) =>
        _words[at] == "for"
        && Enumerable
            .Range(at + 1, Math.Min(4, to - at - 1))
            .Any(n => IsLater(_words[n]) || _words[n] is "seconds" or "second" or "moment" or "bit");

    /// <summary>“A black screen with sound”: what comes with it is there.</summary>
    private void WithThis(int from, int to)
    {
        var at = to - 1;
        if (at - 1 < from || _words[at - 1] != "with" || _used[at] || ByWord(at) is not { Kind: "speaker" or "picture" or "video-out" } there)
            return;
        if (_facts.Any(f => IsOf(f.Fact, there)) || !_facts.Exists(f => f.At >= from && f.At < to && f.Fact is { Passed: false, Function: not null }))
            return;
        Add(at, new SaidFact(there.Id, true));
        Use(at - 1, to);
    }

    /// <summary>“Sound comes only from the phones”: there it is, and the speaker is silent.</summary>
    private void OnlyFrom(int from, int to)
    {
        for (var at = from; at + 1 < to; at++)
        {
            if (_words[at] is not ("only" or "just"))
                continue;
            var place = at + 1;
            while (place < to && (IsFrom(_words[place]) || _words[place] is "via" or "with" or "comes" or "works" or "heard" or "plays" or "the" or "my"))
                place++;
            if (
                place >= to
                || place == at + 1
                || ByWord(place) is not { Kind: "phones" or "speaker" } there
                || !Enumerable.Range(at + 1, place - at - 1).Any(n => IsFrom(_words[n]) || _words[n] is "via" or "with")
                || _profile.Functions.FirstOrDefault(f => f.Kind is "phones" or "speaker" && f.Kind != there.Kind) is not { } other
            )
                continue;
            // “Sound left only in the phones” is said of one side of them.
            if (_facts.Any(f => IsOf(f.Fact, there)) || _words.GetRange(from, to - from).Exists(w => w is "left" or "right"))
                return;
            Add(place, new SaidFact(there.Id, true));
            if (!_facts.Any(f => IsOf(f.Fact, other)))
                Add(place, new SaidFact(other.Id, false, HasLook(other, "nothing") ? "nothing" : null));
            Use(at, place + 1);
            for (var n = from; n < at; n++)
                _used[n] |= _words[n] is "sound" or "audio" or "music" or "comes" or "works" or "is";
            return;
        }
    }

    /// <summary>“Only sound, no picture”: what alone is there works, where something else is told to fail.</summary>
    private void OnlyThis(int from, int to)
    {
        if (to - from != 2 || _words[from] is not ("only" or "just") || _used[to - 1] || ByWord(to - 1) is not { } there)
            return;
        if (_facts.Any(f => IsOf(f.Fact, there)) || !_facts.Exists(f => f.Fact is { Passed: false, Function: not null }))
            return;
        Add(to - 1, new SaidFact(there.Id, true));
        Use(from, to);
    }

    /// <summary>Where something is heard or seen: “in the left ear”.</summary>
    private static bool IsFrom(string word) => word is "in" or "on" or "from" or "through" or "over";

    /// <summary>“Eject is great”, “start-up and clock alright”: what is named by any of its names and of which nothing but good is said.</summary>
    private void HearWell(int from, int to)
    {
        // A pad that works does not show that each port does.
        var subjects = AllSubjects(from, to)
            .FindAll(s => !_facts.Any(f => IsOf(f.Fact, s.Function)) && _words[s.At] is not ("pad" or "joypad" or "gamepad" or "player"));
        if (subjects.Count == 0 || !AreJoined(subjects) || IsException(from))
            return;
        bool Own(int n) => subjects.Exists(s => n >= s.At && n < s.At + s.Length);
        var rest = Enumerable.Range(from, to - from).Where(n => !Own(n)).ToList();
        if (
            !rest.Exists(n => IsPlainGood(_words[n]) || IsShining(_words[n]) && subjects.TrueForAll(s => s.Function.Kind is "backlight" or "power-light"))
            || rest.Exists(n => IsDoubt(n, to) || !(SmallWords.IsKnown(_words[n]) || IsSay(_words[n]) || IsShining(_words[n])) || IsForAWhile(n, to))
        )
            return;
        foreach (var (at, length, function) in subjects)
        {
            Add(at, new SaidFact(function.Id, true));
            Use(at, at + length);
        }

        UseGood(from, to);
    }

    /// <summary>A word that leaves no clear “works”: a “not”, a condition, a part of it, now and then.</summary>
    private bool IsDoubt(int at, int to) =>
        _words[at] is "no" or "not" or "never" or "without" or "then" or "only" or "none" or "nothing" or "neither"
        || IsIf(_words[at])
        || IsNowAndThen(_words[at])
        || IsHalf(_words[at])
        || IsPlaceWord(at, to)
        || IsOtherSupply(_words[at]);
}
