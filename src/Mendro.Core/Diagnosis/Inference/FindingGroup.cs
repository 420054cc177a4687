namespace Mendro.Core.Diagnosis;

/// <summary>The posterior over one group of faults that share present findings, and what can be asked of it.</summary>
internal interface IFindingGroup
{
    /// <summary>Natural logarithm of the probability of the group's evidence.</summary>
    double LogEvidence { get; }

    /// <summary>Expected product of one factor for each present fault, given the evidence.</summary>
    double ExpectedProduct(IReadOnlyList<(int Fault, double Factor)> factors);

    /// <summary>
    /// Posteriors after the evidence is weighted by the product of the factors of the present faults: with factors
    /// 1 − q that is the posterior when one more finding with these links was absent.
    /// </summary>
    /// <param name="factors">Fault and factor, 0 to 1.</param>
    /// <param name="posteriors">Receives the new posterior of every fault of the group.</param>
    /// <returns>The expected product, which is the chance of that absence but for its leak.</returns>
    double Reweigh(IReadOnlyList<(int Fault, double Factor)> factors, double[] posteriors);
}
