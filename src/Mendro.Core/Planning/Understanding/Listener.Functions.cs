using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>Which function of the model a word or a phrase is about.</content>
internal sealed partial class Listener
{
    /// <summary>The function a phrase is said of: the one named in the clause, else the likeliest that the model has.</summary>
    private DeviceFunction? Meant(Phrase phrase, DeviceFunction? told, int from)
    {
        if (phrase.Kinds.Length == 0)
            return told
                ?? Mentioned(from)
                ?? _profile.Functions.FirstOrDefault(f => f.Kind is "start-up" or "cartridge")
                ?? _profile.Functions.FirstOrDefault();
        var kinds = phrase.Kinds.Split(',');
        if (told is not null && kinds.Contains(told.Kind) && (HasLook(told, phrase.Look) || phrase.Look == "fail"))
            return told;
        return kinds
                .Select(k => _profile.Functions.FirstOrDefault(f => f.Kind == k && (phrase.Look == "fail" || HasLook(f, phrase.Look))))
                .FirstOrDefault(f => f is not null)
            ?? kinds.Select(k => _profile.Functions.FirstOrDefault(f => f.Kind == k)).FirstOrDefault(f => f is not null);
    }

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

    private DeviceFunction? ByWord(int at)
    {
        foreach (var (word, kinds) in Lexicon.Functions)
            if (word == _words[at])
                return kinds.Split(',').Select(k => _profile.Functions.FirstOrDefault(f => f.Kind == k)).FirstOrDefault(f => f is not null);
        return null;
    }

    /// <summary>A function by its own name, such as “eject button” or “controller port 1”.</summary>
    private (DeviceFunction Function, int Length)? NamedFunction(int at, int to)
    {
        (DeviceFunction, int)? best = null;
        foreach (var function in _profile.Functions)
        {
            var name = function.Name.ToLowerInvariant().Split([' ', ',', '-'], StringSplitOptions.RemoveEmptyEntries);
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
        }

        return best;
    }
}
