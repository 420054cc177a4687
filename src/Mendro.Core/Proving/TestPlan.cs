using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Proving;

/// <summary>Something to be tried before the unit leaves.</summary>
/// <param name="Id">Id: <c>function:</c>, <c>again:</c>, <c>check:</c>, <c>step:</c>, <c>joint:</c> or <c>recap:</c> and what it is about.</param>
/// <param name="Name">Name.</param>
/// <param name="How">How to try it.</param>
/// <param name="Good">What good looks like.</param>
/// <param name="Minutes">Minutes it takes.</param>
/// <param name="With">What is laid out for it.</param>
/// <param name="Because">Why it is obliged, beyond that everything is tried once.</param>
/// <param name="Function">Function of which it is a trial, or null.</param>
/// <param name="ScrewsIn">True when it belongs after the screws are in.</param>
/// <param name="State">State.</param>
/// <param name="Kept">Why it goes with this failing, or null.</param>
public sealed record TestItem(
    string Id,
    string Name,
    string How,
    string Good,
    double Minutes,
    IReadOnlyList<string> With,
    IReadOnlyList<string> Because,
    FunctionId? Function,
    bool ScrewsIn,
    ProofState State,
    string? Kept
)
{
    /// <summary>Id of the item that tries a function.</summary>
    public static string IdOf(FunctionId function) => $"function:{function}";

    /// <summary>True when it tries a function once more with the screws in.</summary>
    public bool IsAgain => Id.StartsWith(AgainPrefix, StringComparison.Ordinal);

    internal const string AgainPrefix = "again:";

    /// <summary>True when nothing more is to be done about it before the unit leaves.</summary>
    public bool Settled => State == ProofState.Proved || (State == ProofState.Fails && Kept is not null);
}

/// <summary>
/// What has to be tried before a unit leaves, in the order that costs least: every function, what its model asks for besides, and what
/// was disturbed on the way. First what can be tried before the screws go in, for a failure there saves the closing.
/// </summary>
/// <param name="Items">Items in order.</param>
/// <param name="MinutesLeft">Minutes of those that are open.</param>
/// <param name="IsApart">True while the unit lies open: what belongs after the screws cannot be tried yet.</param>
public sealed record TestPlan(IReadOnlyList<TestItem> Items, double MinutesLeft, bool IsApart)
{
    /// <summary>More likely to fail for every reason it is obliged (value from memory).</summary>
    private const double PerReason = 0.03;

    /// <summary>Items that are still open.</summary>
    public IEnumerable<TestItem> Open => Items.Where(i => !i.Settled);

    /// <summary>What was not tried since the last work on it, each function once.</summary>
    public IEnumerable<TestItem> NotTried => Items.Where(i => i.State is ProofState.NotTried or ProofState.Stale && !i.IsAgain);

    /// <summary>The one to try next, or null.</summary>
    public TestItem? Next => Open.FirstOrDefault(i => !(IsApart && i.ScrewsIn));

    /// <summary>True when all that can be tried open was tried, and the rest waits for the screws.</summary>
    public bool CloseNow => IsApart && Next is null && Open.Any();

    /// <summary>What still fails and goes all the same, such as “speaker (waiting for a part)”.</summary>
    public IEnumerable<string> ButFor =>
        Items.Where(i => i is { State: ProofState.Fails, Kept: not null, ScrewsIn: false }).Select(i => $"{i.Name} ({i.Kept})");

    /// <summary>Draws up the plan.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="history">Its past.</param>
    /// <param name="partFails">Chance that a part has a fault, 0 to 1, from the diagnosis.</param>
    public static TestPlan Make(DeviceModel model, TestHistory history, Func<PartId, double> partFails)
    {
        var items = new List<(TestItem Item, double Fails)>();
        items.AddRange(FunctionItems(model, history, partFails));
        items.AddRange((model.Profile.Checks ?? []).Select(c => CheckItem(model, history, c, partFails)).OfType<(TestItem, double)>());
        items.AddRange(history.Disturbed.Select(d => DisturbedItem(model, history, d)).OfType<(TestItem, double)>());
        var ordered = items
            .GroupBy(i => (i.Item.ScrewsIn, Stage: Stage(model, i.Item)))
            .OrderBy(g => g.Key)
            .SelectMany(g =>
            {
                // Those with the same things laid out stay together; what needs one thing more than another counts as its own.
                var by = g.ToDictionary(i => i.Item.Id, i => i.Item);
                return TestOrder
                    .Arrange([.. g.Select(i => new Trial(i.Item.Id, i.Fails, i.Item.Minutes, string.Join(", ", i.Item.With)))])
                    .Select(t => by[t.Id]);
            })
            .ToList();
        return new TestPlan(ordered, ordered.Where(i => !i.Settled).Sum(i => i.Minutes), history.Open);
    }

    private static IEnumerable<(TestItem, double)> FunctionItems(DeviceModel model, TestHistory history, Func<PartId, double> partFails)
    {
        foreach (var function in model.Profile.Functions)
        {
            var kind = model.Library.FindFunctionKind(function.Kind);
            var needs = function.Needs.SelectMany(n => model.Graph.Upstream(n)).Concat(function.Needs).ToHashSet();
            var reasons = Reasons(model, history, needs).ToList();
            var fails = Chance(needs, partFails, reasons.Count);
            (int At, bool Passed)? last = history.Functions.TryGetValue(function.Id, out var tried) ? tried : null;
            TestItem Item(string id, bool screwsIn, IReadOnlyList<string> because, int since) =>
                new(
                    id,
                    function.Name,
                    kind?.Try ?? "",
                    kind?.Pass ?? "works",
                    function.Minutes,
                    LaidOut.For(model.Profile, kind?.With ?? []),
                    because,
                    function.Id,
                    screwsIn,
                    last is { Passed: false } && history.WorkedOn.Contains(function.Id) ? ProofState.Stale : StateOf(last, since),
                    history.Kept.GetValueOrDefault(TestItem.IdOf(function.Id))
                );
            yield return (Item(TestItem.IdOf(function.Id), false, reasons, history.LastRepair), fails);
            // What goes through the shell is felt again once the screws are in, and so is the light; what fails open fails closed.
            if (history.WasOpened && last is not { Passed: false } && (kind?.Felt == true || function.Kind == "power-light"))
                yield return (
                    Item(
                        $"{TestItem.AgainPrefix}{function.Id}",
                        true,
                        ["the shell was off"],
                        history.Open ? int.MaxValue : Math.Max(history.LastClosing, history.LastRepair)
                    ),
                    PerReason
                );
        }
    }

    private static (TestItem, double)? CheckItem(DeviceModel model, TestHistory history, ProofCheck check, Func<PartId, double> partFails)
    {
        var since = check.After is null
            ? history.LastRepair
            : check.After.Select(p => history.Repairs.TryGetValue(p, out var at) ? at : -1).DefaultIfEmpty(-1).Max();
        // Checks for certain repairs are not asked for where those were not done.
        if (check.After is not null && since < 0)
            return null;
        var function = check.Function is { } proves ? model.Profile.FindFunction(proves) : null;
        var needs = (function?.Needs ?? []).ToHashSet();
        var because = check.After is null
            ? []
            : check.After.Where(history.Repairs.ContainsKey).Select(p => $"{model.Profile.FindPart(p)?.Name} was repaired").ToList();
        var id = $"check:{check.Id}";
        return (
            new TestItem(
                id,
                check.Name,
                check.How ?? "",
                check.Good ?? "as it should be",
                check.Minutes,
                check.With ?? [],
                because,
                null,
                check.Closed && history.WasOpened,
                StateOf(Last(history, id), check.Closed && history.Open ? int.MaxValue : since),
                history.Kept.GetValueOrDefault(id)
            ),
            Chance(needs, partFails, because.Count)
        );
    }

    private static (TestItem, double)? DisturbedItem(DeviceModel model, TestHistory history, Disturbed disturbed)
    {
        if (disturbed.What == Disturbance.Opened && model.Profile.FindStep(disturbed.Id) is { } step)
        {
            var words = (step.Seats ?? []).Concat((step.Cables ?? []).Select(c => $"{c} fully in and latched")).ToList();
            if (words.Count == 0)
                return null;
            var (id, name) = ($"step:{step.Id}", (step.Name ?? step.Id));
            return (
                Item(
                    id,
                    $"After “{MoveWords.Lower(name)}”",
                    string.Join("; ", words),
                    "all seated, nothing pinched, nothing left over",
                    0.5,
                    (step.Cables ?? []).Count > 0 ? ["cables were unplugged"] : ["it was taken off"]
                ),
                PerReason * (1 + (step.Cables?.Count ?? 0))
            );
        }

        if (disturbed.What == Disturbance.Recapped)
            return (
                Item(
                    $"recap:{disturbed.Id}",
                    $"New capacitors, {MoveWords.Lower(model.Profile.FindBoard(disturbed.Id)?.Name ?? disturbed.Id)}",
                    "plus and stripe once more against the board; joints under the glass; then lay the shell on",
                    "none turned, none bridged, nothing touches or presses under the shell",
                    2,
                    ["capacitors renewed"]
                ),
                PerReason * 2
            );
        if (disturbed.What != Disturbance.Soldered || model.Profile.FindPart(new PartId(disturbed.Id)) is not { } part)
            return null;
        var neighbours = Neighbours(model, part);
        return (
            Item(
                $"joint:{part.Id}",
                $"Joints of {MoveWords.Lower(part.Name)}",
                "look under the glass for bridges, balls and splashes; push each leg; beep to its neighbours"
                    + (neighbours.Count > 0 ? $"; and at {string.Join(", ", neighbours.Select(n => MoveWords.Lower(n.Name)))} beside it" : ""),
                "wetted all round, nothing moves, no beep between neighbours",
                1,
                ["soldered"]
            ),
            PerReason * 2
        );

        TestItem Item(string id, string name, string how, string good, double minutes, IReadOnlyList<string> because) =>
            new(
                id,
                name,
                how,
                good,
                minutes,
                [],
                because,
                null,
                false,
                StateOf(Last(history, id), disturbed.At),
                history.Kept.GetValueOrDefault(id)
            );
    }

    /// <summary>Parts beside a part on its board: those nearest on the map of the model, three at most.</summary>
    private static IReadOnlyList<Part> Neighbours(DeviceModel model, Part part)
    {
        if (part is not { Board: { } board, X: { } x, Y: { } y })
            return [];
        return model
            .Profile.Parts.Where(p => p.Id != part.Id && p.Board == board && p is { X: not null, Y: not null })
            .Select(p => (p, Away: Math.Sqrt(Math.Pow(p.X!.Value - x, 2) + Math.Pow(p.Y!.Value - y, 2))))
            .OrderBy(p => p.Away)
            .Take(3)
            .Select(p => p.p)
            .ToList();
    }

    private static IEnumerable<string> Reasons(DeviceModel model, TestHistory history, HashSet<PartId> needs)
    {
        var repaired = history.Repairs.Keys.Where(needs.Contains).Select(p => model.Profile.FindPart(p)?.Name).OfType<string>().ToList();
        if (repaired.Count > 0)
            yield return $"{string.Join(", ", repaired.Take(3).Select(MoveWords.Lower))} repaired";
        var beside = history
            .Disturbed.Where(d => d.What == Disturbance.Soldered)
            .Select(d => model.Profile.FindPart(new PartId(d.Id)))
            .OfType<Part>()
            .Where(p => !needs.Contains(p.Id) && Neighbours(model, p).Any(n => needs.Contains(n.Id)))
            .Select(p => MoveWords.Lower(p.Name))
            .ToList();
        if (beside.Count > 0)
            yield return $"beside {string.Join(", ", beside.Take(3))}, soldered";
        var opened = history
            .Disturbed.Where(d => d.What == Disturbance.Opened)
            .Select(d => model.Profile.FindStep(d.Id))
            .OfType<TeardownStep>()
            .Where(s => (s.Cables ?? []).Count > 0 && (s.Frees ?? []).Any(f => needs.Any(n => n.Value == f)))
            .SelectMany(s => s.Cables!)
            .ToList();
        if (opened.Count > 0)
            yield return $"{string.Join(", ", opened.Take(3).Select(MoveWords.Lower))} unplugged";
    }

    /// <summary>Without its light nothing else can be tried, and what is seen on the screen not before start and picture.</summary>
    private static int Stage(DeviceModel model, TestItem item) =>
        item.Function is not { } id || model.Profile.FindFunction(id) is not { } function ? 1
        : function.Kind == "power-light" ? 0
        : model.Library.FindFunctionKind(function.Kind)?.OnScreen == true ? 2
        : 1;

    private static double Chance(IReadOnlyCollection<PartId> needs, Func<PartId, double> partFails, int reasons) =>
        1 - needs.Aggregate(Math.Pow(1 - PerReason, reasons), (all, p) => all * (1 - Math.Clamp(partFails(p), 0, 1)));

    private static (int At, bool Passed)? Last(TestHistory history, string id) =>
        history.Checks.TryGetValue(id, out var last) ? last : null;

    private static ProofState StateOf((int At, bool Passed)? last, int since) =>
        last is not { } tried ? ProofState.NotTried
        : !tried.Passed ? ProofState.Fails
        : tried.At > since ? ProofState.Proved
        : ProofState.Stale;
}
