namespace Mendro.Core.Calculators;

/// <summary>All bench calculators.</summary>
public static class CalculatorShelf
{
    /// <summary>Calculators in the order of the page.</summary>
    public static IReadOnlyList<Calculator> All { get; } =
    [
        .. CodeCalculators.All,
        .. SupplyCalculators.All,
        .. CopperCalculators.All,
        .. WearCalculators.All,
        .. MixtureCalculators.All,
        .. SolderCalculators.All,
        .. ProofCalculators.All,
        .. StageCalculators.All,
    ];

    /// <summary>Finds a calculator by name.</summary>
    public static Calculator? Find(string name) => All.FirstOrDefault(c => c.Name == name);
}
