namespace Mendro.Core.Money;

/// <summary>A grade of condition, as sheets and prices state it. What the grades are worth beside each other is a value from memory; own
/// sales soon say better.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="Tell">How to tell it.</param>
/// <param name="Worth">Usual price beside a good one.</param>
public sealed record ConditionGrade(string Id, string Name, string Tell, double Worth)
{
    /// <summary>As new.</summary>
    public static ConditionGrade AsNew { get; } = new("as-new", "As new", "no wear to be seen, all works", 1.35);

    /// <summary>Very good.</summary>
    public static ConditionGrade VeryGood { get; } = new("very-good", "Very good", "wear seen only from near, all works", 1.15);

    /// <summary>Good.</summary>
    public static ConditionGrade Good { get; } = new("good", "Good", "light scratches or yellowing, all works", 1);

    /// <summary>Worn.</summary>
    public static ConditionGrade Worn { get; } = new("worn", "Worn", "marks, yellowing or a poor label, all works", 0.8);

    /// <summary>Faulty.</summary>
    public static ConditionGrade Faulty { get; } = new("faulty", "Faulty", "something does not work or was not tried; it is said what", 0.45);

    /// <summary>All, the best first.</summary>
    public static IReadOnlyList<ConditionGrade> All { get; } = [AsNew, VeryGood, Good, Worn, Faulty];

    /// <summary>By id or name, or null.</summary>
    public static ConditionGrade? Find(string? id) =>
        All.FirstOrDefault(g => g.Id == id || string.Equals(g.Name, id?.Trim(), StringComparison.OrdinalIgnoreCase));
}
