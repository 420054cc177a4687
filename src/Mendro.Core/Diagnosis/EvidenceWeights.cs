using Mendro.Core.Methods;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// How surely a fault shows, where neither the profile nor the library says otherwise. Common practice, no source;
/// kept in one place so that they can be argued about.
/// </summary>
public static class EvidenceWeights
{
    /// <summary>Chance that a function fails with none of the profile's faults there: bench error or a cause the profile lacks.</summary>
    public const double FunctionLeak = 0.01;

    /// <summary>Chance of seeing one certain look with none of the profile's faults there.</summary>
    public const double LookLeak = 0.003;

    /// <summary>Chance that a meter reading is abnormal with nothing wrong.</summary>
    public const double ProbeLeak = 0.01;

    /// <summary>Chance that something judged by eye or hand seems wrong with nothing wrong.</summary>
    public const double EyeLeak = 0.04;

    /// <summary>Chance that a steady contact seems to jump.</summary>
    public const double JumpLeak = 0.01;

    /// <summary>Chance that an intermittent changes when it is pressed, flexed or touched.</summary>
    public const double JumpsWhenIntermittent = 0.8;

    /// <summary>Chance that a cause seen with one's own eyes is one.</summary>
    public const double Confirmation = 0.995;

    /// <summary>Chance of confirming a cause that is not there.</summary>
    public const double ConfirmationLeak = 0.002;

    /// <summary>A method tried again on the same part has this share of its first chance.</summary>
    public const double RepeatShare = 0.3;

    /// <summary>Share of failures with a look that the library does not list for the fault.</summary>
    public const double OtherLook = 0.03;

    /// <summary>Share of “nothing at all” among failures for want of power.</summary>
    public const double NothingForWantOfPower = 0.85;

    /// <summary>Chance that a method cures a fault when it was already carried out on that part before.</summary>
    /// <param name="method">Method.</param>
    /// <param name="fault">Fault.</param>
    /// <param name="timesBefore">How often it was done before, 0 for the first time.</param>
    public static double Success(Method method, PartFault fault, int timesBefore) =>
        TradeLibrary.Success(method, fault.Part.Kind, fault.Mode.Id) * Math.Pow(RepeatShare, timesBefore);

    /// <summary>Chance that a function that needs the part fails, by effect of the fault.</summary>
    public static double Fails(FailureMode mode) => mode.Fails ?? mode.Effect switch
    {
        ModeEffect.Open or ModeEffect.Dead => 0.98,
        ModeEffect.Short => 0.9,
        ModeEffect.Intermittent => 0.5,
        _ => 0.35,
    };

    /// <summary>Chance that volts downstream of the part are missing or low.</summary>
    public static double VoltsAbnormal(FailureMode mode) => mode.Effect switch
    {
        ModeEffect.Open or ModeEffect.Dead => 0.99,
        ModeEffect.Short => 0.9,
        ModeEffect.Intermittent => mode.Fails ?? 0.5,
        _ => 0.25,
    };
}
