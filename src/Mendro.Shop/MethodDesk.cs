using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A method as the library page shows it for one kind of part.</summary>
/// <param name="Method">The method.</param>
/// <param name="Success">Best success on the kind by the library, 0 to 1.</param>
/// <param name="Tally">What the shop's own work says, or null.</param>
/// <param name="Usual">True when the shop goes this way first.</param>
/// <param name="Own">True for a method of the shop's own.</param>
public sealed record MethodLine(Method Method, double Success, MethodTally? Tally, bool Usual, bool Own)
{
    /// <summary>Success with the shop's cases added.</summary>
    public double Learned => Tally is { } tally ? MethodLearning.Success(Success, tally) : Success;
}

/// <summary>How a method held on a kind of part, whoever did it.</summary>
/// <param name="Method">The method.</param>
/// <param name="Kind">Name of the kind of part.</param>
/// <param name="Tally">What closed jobs say.</param>
/// <param name="CameBack">Share of the units that left as cured and came back for the same part, 90 % interval.</param>
public sealed record MethodHeld(Method Method, string Kind, MethodTally Tally, ShareInterval CameBack);

/// <summary>The method library of a shop: what ships, its own copies with their versions, its usual way, and what its work has shown.</summary>
public sealed class MethodDesk(MethodStore methods, ModelShelf models, Ledger ledger, TradeLibrary library)
{
    private readonly Lock _making = new();
    private string _said = "";
    private readonly HashSet<long> _counted = [];
    private MethodBook _book = new();

    /// <summary>Longest name, characters.</summary>
    public const int LongestName = 80;

    /// <summary>Takes in the shop's methods and what its closed jobs say of them; the advice goes by that.</summary>
    public void Refresh()
    {
        lock (_making)
        {
            var mark = methods.ClosedMark();
            _book = new MethodBook();
            _counted.Clear();
            Count(methods.Repairs());
            Use();
            Volatile.Write(ref _mark, mark);
        }
    }

    /// <summary>The same, where what is closed is not any more what it was.</summary>
    public void RefreshWhenChanged()
    {
        if (methods.ClosedMark() != Volatile.Read(ref _mark))
            Refresh();
    }

    private string _mark = "";

    /// <summary>A job was closed: what came of its repairs counts from now on.</summary>
    public void Closed(long number)
    {
        lock (_making)
        {
            var mark = methods.ClosedMark();
            var repairs = methods.Repairs(number);
            // Closed for the second time: what it said before is not to be counted on.
            if (repairs.Any(r => _counted.Contains(r.Job)))
            {
                _book = new MethodBook();
                _counted.Clear();
                repairs = methods.Repairs();
            }

            Count(repairs);
            Use();
            Volatile.Write(ref _mark, mark);
        }
    }

    /// <summary>Gives the library what the shop has and has learned, when it says something new.</summary>
    private void Use()
    {
        var shipped = TradeLibrary.Shipped.Methods;
        var own = methods.All().GroupBy(m => m.Method.Id).Select(g => g.Last()).ToList();
        var offered = MethodLearning.Apply(shipped.Concat(own.Where(o => !o.Retired).Select(o => o.Method)), _book.Tallies);
        // What says the same as before makes nothing to be worked out anew.
        var said = string.Join(
            ';',
            own.Select(o => FormattableString.Invariant($"{o.Method.Id} {o.Version} {o.Retired}"))
                .Concat(offered.SelectMany(m => m.Cures.Select(c => FormattableString.Invariant($"{m.Id} {c.Success}"))))
        );
        if (said == _said)
            return;
        _said = said;
        library.UseMethods(offered, own.Where(o => o.Retired).Select(o => o.Method).ToList());
    }

    /// <summary>Methods of a kind of part, gentlest first.</summary>
    public IReadOnlyList<MethodLine> Of(string partKind)
    {
        var usual = methods.Usual().GetValueOrDefault(partKind);
        var own = methods.All();
        return library
            .MethodsFor(partKind)
            .Select(m =>
            {
                var known = TradeLibrary.Shipped.FindMethod(m.Id);
                var plain = known ?? own.Last(o => o.Method.Id == m.Id).Method;
                return new MethodLine(
                    m,
                    plain.Cures.Where(c => c.Kind == partKind).Max(c => c.Success),
                    Tally(m.Id, partKind),
                    m.Id == usual,
                    known is null
                );
            })
            .ToList();
    }

    /// <summary>How the work of closed jobs held, method by method: what came back most first, then what was done most.</summary>
    public IReadOnlyList<MethodHeld> Held()
    {
        lock (_making)
            return _book
                .Tallies.Where(t => t.Value.Left > 0 && library.FindMethod(t.Key.Method) is not null)
                .Select(t => new MethodHeld(
                    library.FindMethod(t.Key.Method)!,
                    library.FindPartKind(t.Key.Kind)?.Name ?? t.Key.Kind,
                    t.Value,
                    ShareInterval.Make(t.Value.CameBack, t.Value.Left)
                ))
                .OrderByDescending(h => h.CameBack.Low)
                .ThenByDescending(h => h.CameBack.Share)
                .ThenByDescending(h => h.Tally.Left)
                .ThenBy(h => h.Method.Name, StringComparer.Ordinal)
                .ToList();
    }

    /// <summary>The method that the shop goes first with on a kind of part, or null.</summary>
    public MethodId? Usual(string partKind) => methods.Usual().TryGetValue(partKind, out var method) ? method : (MethodId?)null;

    /// <summary>Versions of a method of the shop's own, the newest first; none of one that ships.</summary>
    public IReadOnlyList<ShopMethod> Versions(MethodId id) => methods.All().Where(m => m.Method.Id == id).Reverse().ToList();

    /// <summary>Copies a method to change it, or keeps a new version of one's own.</summary>
    /// <param name="basis">Method that is copied, or the shop's own.</param>
    /// <param name="changed">The method as changed; its id and sort are those of the basis.</param>
    /// <param name="once">Key of the form.</param>
    /// <returns>Id of the shop's method.</returns>
    public Deed<Done> Save(MethodId basis, Method changed, string? once = null) =>
        Refreshed(
            ledger.Once<Done>(
                once,
                () =>
                {
                    if (library.FindMethod(basis) is not { } from)
                        return Refusal.Missing;
                    if (Problem(changed) is { } problem)
                        return Refusal.Invalid(problem);
                    var own = methods.All().LastOrDefault(m => m.Method.Id == basis);
                    var id = own is not null ? basis : Free(basis);
                    methods.Add(changed with { Id = id, Type = from.Type }, own?.BasedOn ?? basis);
                    return new Done(id);
                }
            )
        );

    /// <summary>Takes a method of the shop's own off the offer, or puts it on again.</summary>
    public Deed<Done> Retire(MethodId id, bool retired, string? once = null) =>
        Refreshed(
            ledger.Once<Done>(
                once,
                () =>
                {
                    if (methods.All().All(m => m.Method.Id != id))
                        return Refusal.Missing;
                    methods.Retire(id, retired);
                    return new Done(id);
                }
            )
        );

    /// <summary>Says which way the shop goes first on a kind of part; null for none.</summary>
    public Deed<Done> SetUsual(string partKind, MethodId? method, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (library.FindPartKind(partKind) is null)
                    return Refusal.Missing;
                if (method is { } id && library.MethodsFor(partKind).All(m => m.Id != id))
                    return Refusal.Missing;
                methods.SetUsual(partKind, method);
                return new Done(partKind);
            }
        );

    private Deed<Done> Refreshed(Deed<Done> deed)
    {
        if (deed.Done is not null)
            Refresh();
        return deed;
    }

    private string? Problem(Method method)
    {
        if (method.Name.Trim().Length is 0 or > LongestName)
            return $"A method has a name of up to {LongestName} characters.";
        if (!(method.Minutes is > 0 and <= RepairDesk.MostMinutes))
            return "Its hands-on minutes are above 0.";
        if (method.PartsCost is < 0 or > 100_000)
            return "Its parts cost nothing or more.";
        if (method.Cures.Count == 0 && method.Place is null)
            return "Say what it cures: a line such as: power-switch dirty 0.7";
        if (method.Steps.Where(s => s.Wait is null).Sum(s => s.Minutes ?? 0) > method.Minutes)
            return "Its steps take longer than the method as a whole.";
        foreach (var step in method.Steps)
        {
            if (step.Agent is { } agent && MaterialLibrary.Shipped.FindAgent(agent) is null)
                return $"There is no agent “{agent}” among the materials.";
            if (step.Agent is not null && MaterialLibrary.Shipped.FindSurface(step.Surface) is null)
                return $"There is no surface “{step.Surface}” among the materials.";
            if ((step.Cautions ?? []).FirstOrDefault(c => library.FindCaution(c) is null) is { } caution)
                return $"There is no caution “{caution}”.";
        }

        return null;
    }

    private MethodId Free(MethodId basis)
    {
        var taken = methods.All().Select(m => m.Method.Id).ToHashSet();
        return Enumerable.Range(1, 1000).Select(n => (MethodId)$"own-{basis}-{n}").First(id => !taken.Contains(id));
    }

    private MethodTally? Tally(MethodId method, string partKind)
    {
        lock (_making)
            return _book.Tallies.GetValueOrDefault((method, partKind));
    }

    private void Count(IReadOnlyList<ClosedRepair> repairs)
    {
        foreach (var job in Outcomes(repairs))
            _book.Add(job);
        _counted.UnionWith(repairs.Select(r => r.Job));
    }

    private IEnumerable<JobOutcome> Outcomes(IReadOnlyList<ClosedRepair> repairs) =>
        repairs
            .GroupBy(r => r.Job)
            .Select(g =>
            {
                var first = g.First();
                var cured = first.StatedReason.Length == 0 && (first.Ending is nameof(JobEnd.Returned) or nameof(JobEnd.ForSale));
                var profile = models.Get(first.Model, first.Version).Profile;
                return new JobOutcome(
                    first.Serial.Length > 0 ? $"{first.Model} {first.Serial}" : $"job {first.Job}",
                    cured,
                    g.Select(r =>
                            profile.FindPart(r.Repair.Part) is { } part ? new RepairMade(part.Id, part.Kind, r.Repair.Method) : null
                        )
                        .OfType<RepairMade>()
                        .ToList()
                );
            });
}
