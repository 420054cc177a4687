namespace Mendro.Shop;

/// <summary>Why an action was not done.</summary>
public enum RefusalKind
{
    /// <summary>There is no such job, part or entry.</summary>
    Missing,

    /// <summary>The job takes nothing now.</summary>
    Locked,

    /// <summary>It was changed by somebody else since it was shown.</summary>
    Changed,

    /// <summary>What was asked for makes no sense as it stands.</summary>
    Invalid,
}

/// <summary>Why an action was not done, in words the technician can act on.</summary>
/// <param name="Kind">Sort of reason.</param>
/// <param name="Problem">The reason as a sentence.</param>
public sealed record Refusal(RefusalKind Kind, string Problem)
{
    /// <summary>There is no such thing.</summary>
    public static Refusal Missing { get; } = new(RefusalKind.Missing, "There is no such thing.");

    /// <summary>Lines of a file that cannot be taken: the first of them, a line each, and how many more there are.</summary>
    public static Refusal Lines(IReadOnlyList<string> problems) =>
        Invalid(string.Join("\n", problems.Take(LinesShown)) + (problems.Count > LinesShown ? $"\nand {problems.Count - LinesShown} more" : ""));

    private const int LinesShown = 12;

    /// <summary>What was asked for makes no sense as it stands.</summary>
    public static Refusal Invalid(string problem) => new(RefusalKind.Invalid, problem);
}

/// <summary>What came of an action: what was done, or why it was not.</summary>
/// <typeparam name="T">What was done.</typeparam>
public readonly record struct Deed<T>
    where T : class
{
    private Deed(T? done, Refusal? refusal) => (Done, Refusal) = (done, refusal);

    /// <summary>What was done, or null.</summary>
    public T? Done { get; }

    /// <summary>Why it was not, or null.</summary>
    public Refusal? Refusal { get; }

    /// <summary>Chooses by what came of it.</summary>
    public TAnswer Match<TAnswer>(Func<T, TAnswer> done, Func<Refusal, TAnswer> refused) =>
        Done is { } what ? done(what) : refused(Refusal!);

    /// <summary>It was done.</summary>
    public static implicit operator Deed<T>(T done) => new(done, null);

    /// <summary>It was not done.</summary>
    public static implicit operator Deed<T>(Refusal refusal) => new(null, refusal);
}
