using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>What is said beside the functions: marks, and work by another hand.</content>
internal sealed partial class Listener
{
    private void Marks()
    {
        foreach (var (words, mark) in Lexicon.Marks)
        {
            if (_library.FindMark(mark) is not { } found || found.Kinds is { Count: > 0 } kinds && !kinds.Contains(_profile.Kind))
                continue;
            var pattern = words.Split(' ');
            for (var at = 0; at < _words.Count; at++)
            {
                if (_used[at] || Match(pattern, at, _words.Count) is not { } end || end == at)
                    continue;
                // A wheel that scratches is no scratched shell.
                if (mark == "scratches" && IsWheel(at))
                    continue;
                // A sticky button is no spilled drink.
                if (mark == "sticky" && OfButton(at))
                    continue;
                Use(at, end);
                // Told twice, as people do, it is still one mark.
                if (_facts.All(f => f.Fact.Mark != mark))
                    Add(at, new SaidFact(null, Mark: mark, Grade: GradeAt(at)));
            }
        }
    }

    private bool IsWheel(int at) =>
        Enumerable.Range(Math.Max(0, at - 3), Math.Min(3, at)).Any(n => _words[n] is "wheel" or "volume" or "knob" or "slider" or "pot" or "sound");

    private bool OfButton(int at) =>
        _words.Skip(at + 1).TakeWhile(w => !SaidWords.IsBreak(w)).Any(IsButton)
        || Enumerable.Range(Math.Max(0, at - 3), Math.Min(3, at)).Any(n => IsButton(_words[n]));

    private static bool IsButton(string word) => word is "button" or "buttons" or "key" or "keys" or "shoulder" or "trigger" or "bumper";

    private static readonly string[] AboutCleaning =
        ["already", "contacts", "contact", "slot", "connector", "pins", "edge", "alcohol", "twice", "before"];

    private static readonly (string Word, string Kind)[] Replaced =
    [
        ("fuse", "fuse"),
        ("fuses", "fuse"),
        ("capacitors", "capacitors"),
        ("switch", "power-switch"),
        ("batteries", "cells"),
        ("battery", "cells"),
        ("battery", "lithium-pack"),
        ("pack", "lithium-pack"),
        ("regulator", "regulator"),
        ("speaker", "speaker"),
        ("lens", "optical-drive"),
        ("laser", "optical-drive"),
        ("drive", "optical-drive"),
        ("cable", "test-cable"),
        ("adapter", "adapter"),
    ];

    /// <summary>“The owner has cleaned it already”, “swapped the fuse”: work of another hand, believed less than one's own.</summary>
    private void Claims()
    {
        for (var at = 0; at < _words.Count; at++)
        {
            if (_used[at])
                continue;
            if (_words[at] is "cleaned" or "swabbed" or "cleaning")
                Cleaned(at);
            else if (_words[at] is "recapped" or "re-capped" && !Wanted(at))
                Recapped(at);
            else if (_words[at] is "replaced" or "swapped" or "changed" or "renewed" or "new" or "fresh" && !Wanted(at))
                Renewed(at);
        }
    }

    /// <summary>What is asked for was not done yet: “needs the fuse replaced”.</summary>
    private bool Wanted(int at) =>
        Enumerable.Range(Math.Max(0, at - 4), Math.Min(4, at)).Any(n => _words[n] is "needs" or "need" or "wants" or "please" or "not");

    private void Cleaned(int at)
    {
        _used[at] = true;
        UseWords(AboutCleaning);
        string[] wanted =
            _words.Contains("battery") || _words.Contains("terminals") || BayMeant() ? ["battery-contacts"]
            : _words.Contains("lens") ? ["optical-drive"]
            : _words.Contains("switch") ? ["power-switch"]
            : ["cartridge-edge", "cartridge-connector", "battery-contacts", "button-pad"];
        UseWords("battery", "terminals", "switch");
        var part = wanted.Select(PartOf).FirstOrDefault(p => p is not null);
        var cleanings = part is null ? [] : _library.MethodsFor(part.Kind).Where(m => m.Type == MethodType.Clean).ToList();
        // Where the word says which of several it was, it is that.
        var method =
            cleanings.FirstOrDefault(m => _words.Contains("lens") && m.Name.Contains("lens", StringComparison.OrdinalIgnoreCase))
            ?? cleanings.FirstOrDefault();
        UseWords("lens");
        if (part is not null && method is not null)
            Add(at, new SaidFact(null, Part: part.Id, Method: method.Id));
    }

    private void Renewed(int at)
    {
        for (var n = Math.Max(0, at - 4); n < Math.Min(_words.Count, at + 4); n++)
        {
            if (_used[n] || SaidWords.IsBreak(_words[n]))
                continue;
            foreach (var (word, kind) in Replaced)
            {
                var of = word == _words[n] ? _profile.Parts.Where(p => p.Kind == kind).ToList() : [];
                if (of.Count == 0)
                    continue;
                // Which of two fuses it was is not said; capacitors are all of them.
                if (of.Count > 1 && kind != "capacitors")
                    return;
                var methods = _library.MethodsFor(kind).ToList();
                var method =
                    methods.FirstOrDefault(m => m.Type is MethodType.Replace or MethodType.Swap)
                    ?? methods.FirstOrDefault(m => m.Type == MethodType.Repair);
                if (method is null)
                    continue;
                Use(n, n + 1);
                Use(at, at + 1);
                UseWords("already");
                foreach (var one in of)
                    Add(at, new SaidFact(null, Part: one.Id, Method: method.Id));
                return;
            }
        }
    }

    /// <summary>“Already recapped”: every section, by another hand.</summary>
    private void Recapped(int at)
    {
        var sections = _profile.Parts.Where(p => p.Kind == "capacitors").ToList();
        if (sections.Count == 0 || _library.MethodsFor("capacitors").FirstOrDefault(m => m.Renews) is not { } recap)
            return;
        Use(at, at + 1);
        UseWords("already", "previous", "fully", "been");
        foreach (var part in sections)
            Add(at, new SaidFact(null, Part: part.Id, Method: recap.Id));
    }

    private Part? PartOf(string kind) => _profile.Parts.FirstOrDefault(p => p.Kind == kind);

    private void UseWords(params string[] words)
    {
        for (var n = 0; n < _words.Count; n++)
            _used[n] |= words.Contains(_words[n]);
    }

    /// <summary>The contacts of a handheld are those of its cells, unless the cartridge is spoken of.</summary>
    private bool BayMeant() =>
        _profile.Kind == DeviceKind.Handheld
        && _words.Contains("contacts")
        && !_words.Any(w => w is "slot" or "connector" or "cartridge" or "edge" or "pins" or "game");
}
