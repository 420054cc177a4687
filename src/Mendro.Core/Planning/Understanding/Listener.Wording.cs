using System.Globalization;

namespace Mendro.Core.Planning;

/// <content>Ways of saying it that are brought to one before anything is heard.</content>
internal sealed partial class Listener
{
    private static readonly string[] Events = ["drop", "dropped", "fall", "fell", "storm", "thunderstorm", "lightning", "move", "party"];

    /// <summary>“No red light” is no light, and the orange lamp of what charges tells of its charge.</summary>
    private void NameLamps()
    {
        var charges = _profile.Functions.Any(f => f.Kind == "charging");
        for (var n = _words.Count - 2; n >= 0; n--)
        {
            if (_words[n + 1] is not ("light" or "lamp" or "led") || !Colours.Contains(_words[n]))
                continue;
            if (charges && _words[n] is "orange" or "amber")
                (_words[n], _words[n + 1]) = ("charge", "light");
            else if (n > 0 && _words[n - 1] is "no" or "without")
                _words.RemoveAt(n);
        }
    }

    private static readonly HashSet<string> Colours = ["red", "green", "orange", "amber", "yellow", "blue", "white"];

    private void Reword()
    {
        // “player two”, “pad 2” is what hangs on the second port, where a unit has several.
        var numbered = PortsOfAll() is not null || NumberedPorts.Any();
        bool IsPlayer(string word) => word == "player" || numbered && word is ("pad" or "controller" or "joypad" or "gamepad");
        for (var n = 0; n + 1 < _words.Count; n++)
        {
            if (IsPlayer(_words[n]) && SmallWords.Number(_words[n + 1]) is { } number)
                (_words[n], _words[n + 1]) = ("port", number.ToString(CultureInfo.InvariantCulture));
            else if (_words[n] == "port" && SmallWords.Number(_words[n + 1]) is { } port)
                _words[n + 1] = port.ToString(CultureInfo.InvariantCulture);
            else if (_words[n] is "first" or "second" && _words[n + 1] is "player" or "controller" or "pad" or "port" or "joystick" or "joypad")
                (_words[n], _words[n + 1]) = ("port", _words[n] == "first" ? "1" : "2");
        }
        InPorts();
        NameLamps();
        Say(["there's"], "there", "is");
        Say(["that's"], "that", "is");
        // “A tint, a kind of yellow” goes on with what was said.
        for (var n = _words.Count - 3; n > 0; n--)
            if (SaidWords.IsBreak(_words[n]) && _words.Skip(n + 1).SkipWhile(w => w == "a").Take(2).ToList() is ["kind" or "sort", "of"])
                _words.RemoveAt(n);
        Say(["left", "to", "right"], "horizontal");
        Say(["top", "to", "bottom"], "vertical");
        // What comes before the game is no picture of it, and “nothing else” at the end says of nothing that it fails.
        foreach (var first in (string[])["title", "logo", "boot", "intro"])
            Say([first, "screen"], first);
        foreach (var more in (string[])["else", "more"])
            if (_words is [.., "nothing", var last] && last == more)
                _words.RemoveRange(_words.Count - 2, 2);
        // “It comes on” is said of the unit; behind a name it is said of that.
        for (var n = 0; n + 1 < _words.Count; n++)
            if (_words[n] == "comes" && _words[n + 1] == "on" && (n == 0 || SaidWords.IsBreak(_words[n - 1]) || _words[n - 1] is "it" or "unit" or "console"))
                _words[n] = "powers";
        // “Player 2 port” says it twice.
        for (var n = _words.Count - 1; n > 1; n--)
            if (_words[n] is "port" or "controller" or "pad" && _words[n - 2] == "port" && SmallWords.Number(_words[n - 1]) is not null)
                _words.RemoveAt(n);
        // “B sticks down” is said of B, and names no direction.
        for (var n = _words.Count - 1; n > 0; n--)
            if (_words[n] == "down" && _words[n - 1] is "sticks" or "stick" or "sticking" or "stuck" or "stays" or "pressed" or "pushed" or "held" or "jammed")
                _words.RemoveAt(n);
        Say(["all", "over", "the", "place"], "erratic");
        // “Headphone socket fine” is said of the phones.
        for (var n = _words.Count - 1; n > 0; n--)
            if (_words[n] is "socket" or "jack" or "outlet" && _words[n - 1] is "headphones" or "phones" or "phone" or "earphones")
                _words.RemoveAt(n);
        Say(["reset", "key"], "reset", "button");
        Say(["hard", "drive"], "hard", "disk");
        foreach (var shows in (string[])["game", "console", "unit"])
            Say([shows, "shows"], "shows");
        Columns();
        ByItself();
        Say(["on", "its", "side"], "sideways");
        // “Eject is dead, the power one works.”
        for (var n = 0; n + 1 < _words.Count; n++)
            if (_words[n] is "power" or "eject" or "reset" && _words[n + 1] == "one")
                _words[n + 1] = "button";
        // Where no button of that name is tried by itself, its way on is meant.
        if (!_profile.Functions.Any(f => f.Name == "Power button"))
            for (var n = _words.Count - 1; n > 0; n--)
                if (_words[n - 1] == "power" && _words[n] is "button" or "key" or "slider")
                    _words.RemoveAt(n);
        // “Port 2 is dead, the first one works.”
        for (var n = 0; n + 1 < _words.Count; n++)
            if (_words[n] is "first" or "second" && _words[n + 1] == "one" && _words.Contains("port"))
                (_words[n], _words[n + 1]) = ("port", _words[n] == "first" ? "1" : "2");
        // “It blinks on and off” says how often, and not that it goes off.
        foreach (var again in (string[])["blinks", "blinking", "flashes", "flashing", "flickers", "pulses"])
            Say([again, "on", "and", "off"], again);
        // “No sound with and without a headset” is said of both.
        foreach (var or in (string[])["and", "or"])
            Say(["with", or, "without"], "or");
        Say(["on", "the", "cross"], "on", "d-pad");
        Lamps();
        WhoeverDoesIt();
        Since();
    }

    /// <summary>“Turns itself on at night” is said of the button that does it, and of nothing that it works.</summary>
    private void ByItself()
    {
        var button = _profile.Functions.Any(f => f.Name == "Power button") ? ["power", "button", "by", "itself"] : (string[])["itself"];
        foreach (var turns in (string[])["turns", "switches", "powers", "comes", "turned", "switched"])
        {
            Say([turns, "itself", "on"], button);
            Say([turns, "on", "by", "itself"], button);
            Say([turns, "on", "on", "its", "own"], button);
        }
    }

    /// <summary>“Two columns on the right side of the screen are missing” says of the columns that they are.</summary>
    private void Columns()
    {
        for (var n = 0; n + 1 < _words.Count; n++)
        {
            if (!(_words[n] is "column" or "columns" or "row" or "rows") || _words[n + 1] is not ("on" or "in" or "of" or "at"))
                continue;
            var end = Enumerable.Range(n + 1, Math.Min(8, _words.Count - n - 1)).FirstOrDefault(k => _words[k] is "screen" or "display" or "picture", -1);
            if (end > 0 && !Enumerable.Range(n + 1, end - n).Any(k => SaidWords.IsBreak(_words[k])))
                _words.RemoveRange(n + 1, end - n);
        }
    }

    /// <summary>“The charging lamp” is a light; a lamp that one sees something under is none.</summary>
    private void Lamps()
    {
        for (var n = 1; n < _words.Count; n++)
            if (_words[n] is "lamp" or "diode" && _words[n - 1] is "power" or "charge" or "charging" or "red" or "green" or "orange" or "status")
                _words[n] = "light";
    }

    /// <summary>“Whenever he tilts it” is “when you tilt it”.</summary>
    private void WhoeverDoesIt()
    {
        for (var n = 0; n < _words.Count; n++)
        {
            if (_words[n] == "whenever")
                _words[n] = "when";
            if (n + 2 >= _words.Count || !(_words[n] is "when" or "if") || _words[n + 1] is not ("he" or "she" or "they" or "one" or "someone"))
                continue;
            var verb = _words[n + 2];
            (_words[n + 1], _words[n + 2]) = ("you", verb.EndsWith("sses", StringComparison.Ordinal) || verb.EndsWith("ches", StringComparison.Ordinal)
                ? verb[..^2]
                : verb.TrimEnd('s'));
        }
    }

    /// <summary>“After a drop” tells what happened once; it is no condition under which it fails.</summary>
    private void Since()
    {
        for (var n = 0; n + 1 < _words.Count; n++)
        {
            var next = _words[n + 1] is "a" or "the" or "being" or "it" && n + 2 < _words.Count ? n + 2 : n + 1;
            if (_words[n] == "after" && Events.Contains(_words[next]))
                _words[n] = "since";
        }
    }

    // Several words that say what one says, or nothing.
    private void Say(string[] words, params string[] instead)
    {
        for (var n = 0; n + words.Length <= _words.Count; n++)
            if (_words.Skip(n).Take(words.Length).SequenceEqual(words))
            {
                _words.RemoveRange(n, words.Length);
                _words.InsertRange(n, instead);
            }
    }
}
