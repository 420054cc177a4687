using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

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

    /// <summary>Share of failures by a short that look dim, and as many that go off at once: the rail sags before it is gone.</summary>
    public const double SaggingLook = 0.2;

    /// <summary>Chance that something seems to change when pressed, flexed or warmed though no contact is loose.</summary>
    public const double ProvokedLeak = 0.02;

    /// <summary>Of several failures in a row, an intermittent keeps at least this share: it may be solid just now.</summary>
    public const double SolidShare = 0.2;

    /// <summary>Chance that a function fails when the last step damaged a part it needs.</summary>
    public const double DamageFails = 0.9;

    /// <summary>Id of the failure mode “damaged in the last step”, which no part kind lists.</summary>
    public const string StepDamage = "step-damage";

    /// <summary>Chance that an intermittent shows a change when provoked in a certain way.</summary>
    public static double Changes(FailureMode mode, string functionKind, Provocation how)
    {
        double Looks(string look) =>
            (mode.Looks ?? [])
                .Where(l => l.Look == look && (l.Function == functionKind || l.Function == "*"))
                .Select(l => l.Share)
                .DefaultIfEmpty(0)
                .Max();
        var warm = Looks("warm");
        if (how == Provocation.Warmed)
            return mode.Effect == ModeEffect.Intermittent ? Math.Max(0.25, Math.Min(0.8, warm * 1.2)) : warm * 0.8;
        // What fails only when warm hardly minds a finger; dirty contacts do, as often as they are said to.
        if (mode.Effect == ModeEffect.Intermittent)
            return warm >= 0.5 ? 0.2 : JumpsWhenIntermittent;
        return Looks("pressed");
    }

    /// <summary>Link of an intermittent to the same result n times in a row: each trial draws anew.</summary>
    public static double InARow(FailureMode mode, double p, double fails, int trials) =>
        mode.Effect != ModeEffect.Intermittent || trials <= 1 ? p : p * Math.Max(SolidShare, Math.Pow(fails, trials - 1));

    /// <summary>Chance that a method cures a fault when it was already carried out on that part before.</summary>
    /// <param name="method">Method.</param>
    /// <param name="fault">Fault.</param>
    /// <param name="timesBefore">How often it was done before, 0 for the first time.</param>
    public static double Success(Method method, PartFault fault, int timesBefore) =>
        (
            fault.Mode.Id == StepDamage
                ? Math.Max(
                    TradeLibrary.Success(method, "*", StepDamage),
                    method.Type == MethodType.Replace && method.Cures.Any(c => c.Kind == fault.Part.Kind) ? 0.7 : 0
                )
                : TradeLibrary.Success(method, fault.Part.Kind, fault.Mode.Id)
        ) * Math.Pow(RepeatShare, timesBefore);

    /// <summary>Chance that a function that needs the part fails, by effect of the fault.</summary>
    public static double Fails(FailureMode mode) =>
        mode.Fails
        ?? mode.Effect switch
        {
            ModeEffect.Open or ModeEffect.Dead => 0.98,
            ModeEffect.Short => 0.9,
            ModeEffect.Intermittent => 0.5,
            _ => 0.35,
        };

    /// <summary>Chance that volts downstream of the part are missing or low.</summary>
    public static double VoltsAbnormal(FailureMode mode) =>
        mode.Effect switch
        {
            ModeEffect.Open or ModeEffect.Dead => 0.99,
            ModeEffect.Short => 0.9,
            ModeEffect.Intermittent => mode.Fails ?? 0.5,
            _ => 0.25,
        };
}
