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
                if (!_used[at] && Match(pattern, at, _words.Count) is { } end && end > at && _facts.All(f => f.Fact.Mark != mark))
                {
                    Use(at, end);
                    Add(at, new SaidFact(null, Mark: mark));
                }
        }
    }

    /// <summary>“The owner has cleaned it already”: work of another hand, believed less than one's own.</summary>
    private void Claims()
    {
        for (var at = 0; at < _words.Count; at++)
        {
            if (_used[at] || _words[at] is not ("cleaned" or "swabbed" or "cleaning"))
                continue;
            _used[at] = true;
            for (var n = 0; n < _words.Count; n++)
                if (
                    _words[n]
                    is "already"
                        or "contacts"
                        or "contact"
                        or "slot"
                        or "connector"
                        or "pins"
                        or "edge"
                        or "alcohol"
                        or "twice"
                        or "before"
                )
                    _used[n] = true;
            string[] wanted =
                _words.Contains("battery") || _words.Contains("terminals") || BayMeant() ? ["battery-contacts"]
                : _words.Contains("lens") ? ["optical-drive"]
                : _words.Contains("switch") ? ["power-switch"]
                : ["cartridge-edge", "cartridge-connector", "battery-contacts", "button-pad"];
            foreach (var word in new[] { "battery", "terminals", "lens", "switch" })
                for (var n = 0; n < _words.Count; n++)
                    _used[n] |= _words[n] == word;
            var part = wanted.Select(k => _profile.Parts.FirstOrDefault(p => p.Kind == k)).FirstOrDefault(p => p is not null);
            var method = part is null ? null : _library.MethodsFor(part.Kind).FirstOrDefault(m => m.Type == MethodType.Clean);
            if (part is not null && method is not null)
                Add(at, new SaidFact(null, Part: part.Id, Method: method.Id));
        }
    }

    /// <summary>The contacts of a handheld are those of its cells, unless the cartridge is spoken of.</summary>
    private bool BayMeant() =>
        _profile.Kind == DeviceKind.Handheld
        && _words.Contains("contacts")
        && !_words.Any(w => w is "slot" or "connector" or "cartridge" or "edge" or "pins" or "game");
}
