using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Core.Sources;

/// <summary>
/// All numbers of the library with their sources, so that each can be asked where it comes from. A weight, a success, a limit has the
/// source that stands beside it; what stands beside nothing, as the shares of looks and the chance that a check finds a fault, is told
/// from memory, and says so.
/// </summary>
public static class LibraryNumbers
{
    private const string Remembered = "value from memory; the shop's own cases overrule it";

    /// <summary>All of them, in the order of the library.</summary>
    public static IEnumerable<LibraryNumber> Of(TradeLibrary library) =>
        [
            .. library.PartKinds.SelectMany(OfKind),
            .. library.Methods.SelectMany(m => OfMethod(m, library)),
            .. library.Ladders.SelectMany(OfLadder),
            .. library.Marks.SelectMany(OfMark),
            .. OfLimits(BenchLimits.Shipped),
            .. MaterialLibrary.Shipped.Agents.SelectMany(OfAgent),
            .. library.Archetypes.SelectMany(p => OfProfile(p, library)),
        ];

    private static IEnumerable<LibraryNumber> OfKind(PartKind kind)
    {
        foreach (var mode in kind.Modes)
        {
            LibraryNumber Make(string what, double value, string? source = null) =>
                new(kind.Kind, $"{kind.Name}: {mode.Name}", what, value, "", source ?? Remembered);
            yield return Make("first weight", mode.Prior, mode.Source);
            if (mode.Fails is { } fails)
                yield return Make("a function that needs it fails", fails);
            foreach (var (probe, chance) in mode.Detect ?? new Dictionary<ProbeKind, double>())
                yield return Make($"found by {probe.ToString().ToLowerInvariant()}", chance);
            foreach (var look in mode.Looks ?? [])
                yield return Make($"looks so: {look.Function}, {look.Look}", look.Share);
            if (mode.Eats is { } times)
                yield return Make("odds that traces beside it are eaten, times", times);
        }

        foreach (var group in kind.Classes ?? [])
        foreach (var weight in group.Modes)
            yield return new(
                kind.Kind,
                $"{kind.Name}: {kind.Modes.FirstOrDefault(m => m.Id == weight.Mode)?.Name ?? weight.Mode}",
                $"first weight, {group.Name}",
                weight.Prior,
                "",
                weight.Source ?? "common practice"
            );
    }

    private static IEnumerable<LibraryNumber> OfMethod(Method method, TradeLibrary library)
    {
        LibraryNumber Make(string what, double value, string unit, string source) => new(method.Id.Value, method.Name, what, value, unit, source);
        yield return Make("hands-on minutes", method.Minutes, "min", method.Source);
        yield return Make("chance to do damage", method.Harm, "", Remembered);
        yield return Make("cost of parts", (double)method.PartsCost, "", Remembered);
        foreach (var cure in method.Cures)
            yield return Make($"cures {library.FindPartKind(cure.Kind)?.Name ?? "any part"}, {cure.Mode}", cure.Success, "", method.Source);
        foreach (var wait in method.Steps.Select(s => s.Wait).OfType<StepWait>())
            yield return Make($"waits: {wait.Kind.ToString().ToLowerInvariant()}", wait.Minutes, "min", method.Source);
        foreach (var heat in method.Steps.Select(s => s.Heat).OfType<double>().Distinct())
            yield return Make("heat", heat, "°C", method.Source);
    }

    private static IEnumerable<LibraryNumber> OfLadder(ContactLadder ladder)
    {
        foreach (var rung in ladder.Rungs)
        {
            yield return new(ladder.Id, $"{ladder.Name}: {rung.Name}", "hands-on minutes", rung.Minutes, "min", rung.Source);
            yield return new(ladder.Id, $"{ladder.Name}: {rung.Name}", "plating that goes", rung.Wear, "", rung.Source);
        }
    }

    private static IEnumerable<LibraryNumber> OfMark(ConditionMark mark)
    {
        yield return new(mark.Id, mark.Name, "seen without a fault", mark.Leak, "", mark.Source);
        // What the trade says of wrecks is “stop”, with no figure: these are guesses of ours.
        if (mark.Lost is { } lost)
            yield return new(mark.Id, mark.Name, "stay dead whatever is done", lost, "", "value from memory");
        foreach (var hint in mark.Hints ?? [])
            yield return new(mark.Id, mark.Name, $"left by {hint.Kind}, {hint.Mode}", hint.P, "", mark.Source);
        if (mark.Mains is { } mains)
            foreach (var (what, volts) in ((string, double)[])[("from", mains.Low), ("to", mains.High)])
                yield return new(mark.Id, mark.Name, what, volts, "V", mark.Source);
    }

    private static IEnumerable<LibraryNumber> OfLimits(BenchLimits limits)
    {
        foreach (var cell in limits.Cells)
        foreach (
            var (what, volts) in ((string, double?)[])
                [
                    ("nominal", cell.Nominal),
                    ("fresh", cell.Fresh),
                    ("highest", cell.Highest),
                    ("weak below", cell.Low),
                    ("empty below", cell.Empty),
                    ("not charged again below", cell.Recharge),
                ]
        )
            if (volts is { } v)
                yield return new("cells", $"Cell, {cell.Name}", what, v, "V", cell.Source);
        foreach (
            var (what, value, unit, source) in ((string, double, string, string)[])
                [
                    ("save cell, new", limits.SaveCell.Fresh, "V", limits.SaveCell.Source),
                    ("save cell, doubtful below", limits.SaveCell.Doubtful, "V", limits.SaveCell.Source),
                    ("save cell, replaced below", limits.SaveCell.Replace, "V", limits.SaveCell.Source),
                    ("lithium cells differ by", limits.UnbalancedVolts, "V", "common practice"),
                    ("drop-out of a linear regulator", limits.Regulator.DropoutVolts, "V", limits.Regulator.Source),
                    ("its input at most", limits.Regulator.LargestInputVolts, "V", limits.Regulator.Source),
                    ("its junction to air", limits.Regulator.ThetaJunctionAirKelvinPerWatt, "K/W", limits.Regulator.Source),
                    ("a good contact", limits.Contact.GoodOhms, "Ω", limits.Contact.Source),
                    ("a dirty contact, from", limits.Contact.DirtyOhms, "Ω", limits.Contact.Source),
                    ("a short, below", limits.ShortOhms, "Ω", "common practice"),
                    ("junction, from", limits.Diode.Low, "V", limits.Diode.Source),
                    ("junction, to", limits.Diode.High, "V", limits.Diode.Source),
                    ("tolerance of a rail", limits.RailTolerance, "", "common practice"),
                    ("tolerance of an adapter", limits.AdapterTolerance, "", "common practice"),
                ]
        )
            yield return new("limits", "Limits of the bench", what, value, unit, source);
        foreach (var line in limits.Esr)
            yield return new(
                "limits",
                "Limits of the bench",
                FormattableString.Invariant($"ESR at {line.Microfarads:0.#} µF"),
                line.Ohms,
                "Ω",
                limits.EsrSource
            );
    }

    private static IEnumerable<LibraryNumber> OfAgent(MaterialAgent agent)
    {
        if (agent.DryMinutes > 0)
            yield return new(agent.Id, agent.Name, "dries in", agent.DryMinutes, "min", agent.Source);
        if (agent.MostMinutes is { } most)
            yield return new(agent.Id, agent.Name, "stays at most", most, "min", agent.Source);
    }

    private static IEnumerable<LibraryNumber> OfProfile(DeviceProfile profile, TradeLibrary library)
    {
        foreach (var part in profile.Parts)
        foreach (var weight in part.Modes ?? [])
        {
            var mode = library.FindPartKind(part.Kind)?.Modes.FirstOrDefault(m => m.Id == weight.Mode)?.Name ?? weight.Mode;
            yield return new(profile.Id, $"{profile.Name}: {part.Name}, {mode}", "first weight", weight.Prior, "", weight.Source ?? Remembered);
        }

        foreach (var probe in profile.Probes)
        foreach (var (what, value) in ((string, double?)[])[("from", probe.Expect.Low), ("to", probe.Expect.High)])
            if (value is { } limit && probe.Expect.Unit is not "beep")
                yield return new(
                    profile.Id,
                    $"{profile.Name}: {probe.Name}",
                    what,
                    limit,
                    probe.Expect.Unit,
                    probe.Expect.Nominal is { } nominal
                        ? FormattableString.Invariant($"common practice: {nominal:0.##} ±{probe.Expect.Tolerance * 100:0} %, computed")
                        : "common practice"
                );
    }
}
