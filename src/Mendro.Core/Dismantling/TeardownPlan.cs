using Mendro.Core.Profiles;

namespace Mendro.Core.Dismantling;

/// <summary>How far a unit has to be taken apart.</summary>
/// <param name="Steps">Steps still to be done, in an order in which they can be.</param>
/// <param name="Fasteners">Fasteners that come out with them, and the holes to be left empty.</param>
public sealed record TeardownPlan(IReadOnlyList<TeardownStep> Steps, IReadOnlyList<Fastener> Fasteners)
{
    /// <summary>The plan of some steps, with those of all fasteners that come out with them.</summary>
    public static TeardownPlan Of(IReadOnlyList<TeardownStep> steps, IReadOnlyList<Fastener> fasteners)
    {
        var ids = steps.SelectMany(s => s.Fasteners ?? []).ToHashSet();
        return new TeardownPlan(steps, fasteners.Where(f => ids.Contains(f.Id)).ToList());
    }

    /// <summary>Minutes to take apart.</summary>
    public double Minutes => (double)Steps.Sum(s => (decimal)s.Minutes);

    /// <summary>Minutes to put back.</summary>
    public double BackMinutes => (double)Steps.Sum(s => (decimal)s.BackMinutes);

    /// <summary>Number of fasteners that the steps name, empty holes left out.</summary>
    public int FastenerCount =>
        Steps.SelectMany(s => s.Fasteners ?? []).Distinct().Count(id => Fasteners.FirstOrDefault(f => f.Id == id)?.NoScrew != true);

    /// <summary>Drivers needed, each once.</summary>
    public IReadOnlyList<string> Drivers =>
        Fasteners.Select(f => f.Driver).OfType<string>().Distinct().Order(StringComparer.Ordinal).ToList();

    /// <summary>Cautions in the order in which they come up, each once.</summary>
    public IReadOnlyList<string> Cautions => Steps.SelectMany(s => s.Cautions ?? []).Distinct().ToList();
}
