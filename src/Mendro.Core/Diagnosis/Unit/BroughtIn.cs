using System.Runtime.CompilerServices;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// A shop sees a unit because something fails in it. How often a fault turns up among such units is therefore more
/// than its chance in the network, which is conditioned on the failure only when the evidence comes in. This turns one
/// into the other: P(fault | brought in) = P(fault) · P(some function fails | fault) / P(some function fails).
/// </summary>
public sealed class BroughtIn
{
    private static readonly ConditionalWeakTable<DeviceModel, BroughtIn> Known = [];

    private readonly double[] _factor;

    /// <summary>The factors of a model, made once.</summary>
    public static BroughtIn Of(DeviceModel model) => Known.GetValue(model, m => new BroughtIn(m));

    /// <summary>Prepares the factors of a model.</summary>
    public BroughtIn(DeviceModel model)
    {
        // Chance that a fault, when there, leaves every function working; findings are taken as independent given the faults.
        var hidden = new double[model.Faults.Count];
        Array.Fill(hidden, 1.0);
        var none = 1.0;
        foreach (var fails in model.Profile.Functions.Select(model.FunctionFails))
        {
            none *= 1 - fails.Leak;
            foreach (var link in fails.Links)
                hidden[link.Fault] *= 1 - link.P;
        }

        for (var f = 0; f < hidden.Length; f++)
            none *= 1 - model.Faults[f].Prior * (1 - hidden[f]);
        ChanceThatSomethingFails = 1 - none;
        _factor = model
            .Faults.Select(
                (fault, f) =>
                {
                    var others = none / (1 - fault.Prior * (1 - hidden[f]));
                    return (1 - others * hidden[f]) / ChanceThatSomethingFails;
                }
            )
            .ToArray();
    }

    /// <summary>Chance that some function fails in a unit drawn from the network, 0 to 1.</summary>
    public double ChanceThatSomethingFails { get; }

    /// <summary>How often a fault of a certain chance is found among units brought in, 0 to 1.</summary>
    public double Share(int fault, double prior) => Math.Min(1, prior * _factor[fault]);

    /// <summary>The chance in the network that gives this share among units brought in, 0 to 1.</summary>
    public double Prior(int fault, double share) => Math.Min(1, share / _factor[fault]);
}
