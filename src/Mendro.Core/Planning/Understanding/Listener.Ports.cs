using System.Globalization;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <content>Ports by their number, and what hangs in them.</content>
internal sealed partial class Listener
{
    private static readonly HashSet<string> HangsInAPort =
        ["pad", "pads", "controller", "controllers", "joypad", "joypads", "gamepad", "joystick", "joysticks"];

    /// <summary>“No pad works in port 1 or port 2” is said of the ports, in whichever the pad is; “either port” is each of them.</summary>
    private void InPorts()
    {
        var numbered = NumberedPorts.ToList();
        if (numbered.Count < 2)
            return;
        List<string> all = [.. numbered.SelectMany((n, at) => at == 0 ? new[] { "port", n } : ["and", "port", n])];
        foreach (var each in (string[])["either", "neither", "each", "any"])
            Say([each, "port"], each == "neither" ? [.. all, "not"] : [.. all]);
        for (var n = 0; n + 3 < _words.Count; n++)
            if (
                _words[n] == "ports"
                && _words[n + 2] is "and" or "or"
                && (SmallWords.Number(_words[n + 1]), SmallWords.Number(_words[n + 3])) is ({ } one, { } two)
            )
            {
                _words.RemoveRange(n, 4);
                _words.InsertRange(n, ["port", $"{one}", "and", "port", $"{two}"]);
            }
        foreach (var both in (string[])["both", "all", "the"])
            Say([both, "ports"], [.. all]);
        // From the last: a clause that grows shorter moves those behind it.
        foreach (var (from, to) in Clauses().AsEnumerable().Reverse())
            PutPortsFirst(from, to);
    }

    /// <summary>Numbers of the ports that are tried one by one.</summary>
    private IEnumerable<string> NumberedPorts =>
        _profile.Functions.Where(f => f.Kind == "link" && char.IsDigit(f.Name[^1])).Select(f => f.Name[^1].ToString(CultureInfo.InvariantCulture));

    /// <summary>“The pad does not work in port 2” becomes “port 2 does not work”.</summary>
    private void PutPortsFirst(int from, int to)
    {
        var clause = _words.GetRange(from, to - from);
        var at = clause.FindIndex(w => w == "port");
        var pad = clause.FindIndex(HangsInAPort.Contains);
        // “Works in port 1, not in port 2.”
        if (pad < 0 && clause is ["not", "in" or "on" or "at", "port", var number])
        {
            _words.RemoveRange(from, to - from);
            _words.InsertRange(from, ["port", number, "not", "work"]);
            return;
        }

        if (pad < 0 || at <= pad || !(clause[at - 1] is "in" or "into" or "on" or "at" or "with"))
            return;
        var last = at + 2;
        while (last + 2 < clause.Count && clause[last] is "or" or "and" or "nor" && clause[last + 1] == "port")
            last += 3;
        if (last > clause.Count || SmallWords.Number(clause[at + 1]) is null)
            return;
        // “No pad” denies what is said of it.
        var before = clause.Take(at - 1).Select((w, n) => n < pad && w == "no" ? "not" : w).Where((w, n) => n != pad && w is not ("the" or "a" or "any"));
        _words.RemoveRange(from, to - from);
        _words.InsertRange(from, [.. clause[at..last].Select(w => w is "or" or "nor" ? "and" : w), .. before, .. clause.Skip(last)]);
    }

    /// <summary>“Port 1 and port 2 are dead” says it of both: the ports that stand joined before one.</summary>
    private List<(int At, FunctionId Port)> PortsJoined(int from, int at)
    {
        var joined = new List<(int At, FunctionId Port)>();
        for (var n = at - 3; n >= from && _words[n] == "port" && _words[n + 2] is "and" or "or"; n -= 3)
            if (NamedFunction(n, n + 2) is { Function: { } port } && !_facts.Exists(f => IsOf(f.Fact, port)))
            {
                joined.Add((n, port.Id));
                Use(n, n + 3);
            }
        return joined;
    }
}
