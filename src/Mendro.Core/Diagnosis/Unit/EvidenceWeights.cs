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
    public const double LookLeak = 0.0015;

    /// <summary>Chance that a meter reading is abnormal with nothing wrong.</summary>
    public const double ProbeLeak = 0.01;

    /// <summary>Chance that something judged by eye or hand seems wrong with nothing wrong.</summary>
    public const double EyeLeak = 0.04;

    /// <summary>Chance that something seems to answer to a finger with nothing wrong there.</summary>
    public const double FingerLeak = 0.015;

    /// <summary>Chance that a steady contact seems to jump.</summary>
    public const double JumpLeak = 0.01;

    /// <summary>Chance that a picture without its light is told as no picture: half hold no lamp to it (value from memory).</summary>
    public const double DarkToldAsNoPicture = 0.5;

    /// <summary>Chance that an intermittent changes when it is pressed, flexed or touched.</summary>
    public const double JumpsWhenIntermittent = 0.8;

    /// <summary>Chance that a cause seen with one's own eyes is one.</summary>
    public const double Confirmation = 0.995;

    /// <summary>Chance of confirming a cause that is not there.</summary>
    public const double ConfirmationLeak = 0.002;

    /// <summary>Share of its first chance that a method has when it is done again on the same part: what cleaning left once it mostly
    /// leaves again, while a new piece is as good as the first.</summary>
    public static double Again(Method method) =>
        method.Type switch
        {
            MethodType.Clean => 0.35,
            MethodType.Repair => 0.5,
            _ => 0.8,
        };

    /// <summary>Share of failures with a look that the library does not list for the fault.</summary>
    public const double OtherLook = 0.03;

    /// <summary>The same of “fails when warm”, for what lasts: dirt and wear mind warmth little (common practice, no source).</summary>
    public const double LastingMindsWarmth = 0.008;

    /// <summary>Share of “nothing at all” among failures for want of power.</summary>
    public const double NothingForWantOfPower = 0.85;

    /// <summary>Share of failures by a short that look dim, and as many that go off at once: the rail sags before it is gone.</summary>
    public const double SaggingLook = 0.2;

    /// <summary>Chance that a lasting break would have shown where a look says that the way works.</summary>
    public const double ProvedLasting = 0.97;

    /// <summary>The same of dirt and crust, which may pass enough for a moment.</summary>
    public const double ProvedResistive = 0.93;

    /// <summary>The same of a short on a rail that stands.</summary>
    public const double ProvedShort = 0.8;

    /// <summary>Of the faults of a place those that the words do not name keep this share.</summary>
    public const double OtherWord = 0.02;

    /// <summary>Chance of naming a fault that is not there: who says what he sees, sees it.</summary>
    public const double NamedLeak = 0.0005;

    /// <summary>Share of the chance with which cells or a pack are empty because nothing charges them.</summary>
    public const double EmptyForWantOfCharge = 0.75;

    /// <summary>Share of what a bay's contacts lose that lies between cell and contact, where volts of the cells show it; the rest lies
    /// between contact and board.</summary>
    public const double AtTheCells = 0.5;

    /// <summary>Chance that an intermittent that fails one function fails another that needs it just then.</summary>
    public const double AtOneMoment = 0.93;

    /// <summary>Chance that a cause that has shown one look in a function shows it in the next that fails by it.</summary>
    public const double LooksAlike = 0.88;

    /// <summary>Chance that a function's success has taken away what it is known to take away (common practice, no source).</summary>
    public const double GoneWith = 0.8;

    /// <summary>Share of a method's success that is believed when another says that he did it.</summary>
    public const double Hearsay = 0.5;

    /// <summary>Chance that the check at a method's end shows what it left uncured, where the library gives none for that way of
    /// looking.</summary>
    public const double CheckFinds = 0.75;

    /// <summary>Chance that the check at a method's end doubts what is well.</summary>
    public const double CheckDoubts = 0.05;

    /// <summary>Chance that an intermittent that fails one function would have failed another that worked just then.</summary>
    public const double ClearsAtTheMoment = 0.85;

    /// <summary>Chance that what failed a function a moment ago fails it again at the next trial, nothing but another piece of its chain being
    /// changed: what comes and goes may just then hold, dirt and what is weak may just then pass, what is broken stays so (values from
    /// memory).</summary>
    public static double GoesOnFailing(FailureMode mode) =>
        mode.Effect switch
        {
            ModeEffect.Intermittent => AtOneMoment,
            ModeEffect.Degraded => 0.95,
            _ => DeviceModel.Flickers(mode) >= Conditions.ComesAndGoes ? 0.95 : 0.998,
        };

    /// <summary>Chance that something seems to change when pressed, flexed or warmed though no contact is loose.</summary>
    public const double ProvokedLeak = 0.02;

    /// <summary>Of several failures in a row, an intermittent keeps at least this share: it may be solid just now.</summary>
    public const double SolidShare = 0.2;

    /// <summary>Chance that a cause the profile lacks comes and goes (value from memory).</summary>
    public const double UnknownComesAndGoes = 0.2;

    /// <summary>Share of a lasting fault's links that is left when the function worked with it before and fails now.</summary>
    public const double WorseSincePass = 0.15;

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
            return Warms(mode) ? 0.2 : JumpsWhenIntermittent;
        return Math.Max(Looks("pressed"), mode.Resistive ? mode.Detect?.GetValueOrDefault(ProbeKind.Press) ?? 0 : 0);
    }

    /// <summary>Link of an intermittent to the same result n times in a row: each trial draws anew. What fails when warm fails so every
    /// time.</summary>
    public static double InARow(FailureMode mode, double p, double fails, int trials) =>
        mode.Effect != ModeEffect.Intermittent || trials <= 1 || Warms(mode) ? p : p * Math.Max(SolidShare, Math.Pow(fails, trials - 1));

    /// <summary>True for what fails by warmth and comes back when it has cooled.</summary>
    private static bool Warms(FailureMode mode) => (mode.Looks ?? []).Any(l => l.Look == "warm" && l.Share >= 0.5);

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
        )
        * Math.Pow(Again(method), timesBefore)
        * (method.OneOfMany && fault.Prior >= AllAged ? OneIsNotAll : 1);

    /// <summary>Chance that a method cures a fault when other rungs of its ladder were tried on that part before and failed: what a
    /// lower rung cures a higher one cures too, so that only what it adds is left: (s − l) ÷ (1 − l).</summary>
    /// <param name="method">Method.</param>
    /// <param name="fault">Fault.</param>
    /// <param name="timesBefore">How often it was done before, 0 for the first time.</param>
    /// <param name="before">Methods carried out on that part before.</param>
    public static double Success(Method method, PartFault fault, int timesBefore, IEnumerable<Method> before)
    {
        var success = Success(method, fault, timesBefore);
        if (method.Ladder is null || success <= 0)
            return success;
        var failed = before
            .Where(m => m.Ladder == method.Ladder && m.Id != method.Id)
            .Select(m => Success(m, fault, 0))
            .DefaultIfEmpty(0)
            .Max();
        return failed >= success ? success * NothingAdded : (success - failed) / (1 - failed);
    }

    /// <summary>Share of its success that a rung keeps where a higher one has failed: the hand may have slipped.</summary>
    private const double NothingAdded = 0.1;

    /// <summary>Chance of a fault from which all pieces of a section are likely to have it.</summary>
    private const double AllAged = 0.1;

    /// <summary>Share of the success of treating one piece of a section in which all are likely to be bad.</summary>
    private const double OneIsNotAll = 0.5;

    /// <summary>Chance of a cure when the part was said to look slightly or heavily so: a wipe does for a film, not for a crust, which
    /// wants the part opened up and brushed.</summary>
    public static double Graded(double success, Method method, SeenGrade grade) =>
        (method.Type, grade) switch
        {
            (MethodType.Clean, SeenGrade.Slight) => 1 - (1 - success) * (success > 0 ? 0.4 : 1),
            (MethodType.Clean, SeenGrade.Heavy) when success < 0.9 => success * (method.State == AccessState.Closed ? 0.4 : 0.75),
            _ => success,
        };

    /// <summary>Chance that a function that needs the part fails, by effect of the fault.</summary>
    /// <remarks>What is broken for good fails every function that needs it, whatever it may have let through elsewhere: one pass
    /// clears it for all.</remarks>
    public static double Fails(FailureMode mode) =>
        mode.Fails
        ?? mode.Effect switch
        {
            ModeEffect.Open or ModeEffect.Dead => 0.98,
            ModeEffect.Short => 0.9,
            ModeEffect.Intermittent => 0.5,
            _ => 0.35,
        };

    /// <summary>Chance that a function of a certain kind fails: what merely works badly does not harm every kind.</summary>
    public static double FailsIn(FailureMode mode, string functionKind) =>
        mode.Only?.Contains(functionKind) == false ? OutOfItsWay
        : mode is { Effect: ModeEffect.Degraded, Looks: { Count: > 0 } looks }
        && !looks.Any(l => l.Function == functionKind || l.Function == "*")
            ? Math.Min(Fails(mode), ElsewhereFails)
        : Fails(mode);

    /// <summary>Chance that a fault harms a function that its part lies before but not in the way of.</summary>
    public const double OutOfItsWay = 0.01;

    /// <summary>Chance that a part that works badly harms a function of a kind that the library does not name for it.</summary>
    public const double ElsewhereFails = 0.08;

    /// <summary>Of how something shared by all functions looks in one of them this share is left: it would show in the others too.</summary>
    public const double SharedLook = 0.25;

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
