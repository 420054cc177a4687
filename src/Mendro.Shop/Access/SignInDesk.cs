using Mendro.Core.Access;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Where a browser is and what it says it is.</summary>
/// <param name="Browser">Its own words.</param>
/// <param name="Address">Address it comes from.</param>
public sealed record Visitor(string Browser, string Address);

/// <summary>What came of signing in.</summary>
/// <param name="Secret">What the cookie carries, or null when it failed.</param>
/// <param name="Session">The session, or null.</param>
/// <param name="Problem">Why it failed, or null.</param>
/// <param name="Wait">How long the answer is to wait.</param>
public sealed record SignInAnswer(string? Secret, SignedIn? Session, string? Problem, TimeSpan Wait)
{
    /// <summary>Word with which the code of the second factor is told; null where none is owed.</summary>
    public string? Owes { get; init; }
}

/// <summary>Signing in and out, and the sessions.</summary>
public sealed class SignInDesk(
    AccountStore accounts,
    SessionStore sessions,
    CodeStore codes,
    AccessLog log,
    IPasswordKeeper passwords,
    GuessGuard guard,
    SecondFactorDesk second,
    ShopDatabase database,
    TimeProvider time
)
{
    /// <summary>How long a session lasts at most.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromDays(30);

    /// <summary>How long a session lasts without being used.</summary>
    public static readonly TimeSpan Idle = TimeSpan.FromHours(18);

    /// <summary>How long a phone looks at its job.</summary>
    public static readonly TimeSpan PhoneLasts = TimeSpan.FromHours(8);

    /// <summary>How long the code of a phone holds.</summary>
    public static readonly TimeSpan JoinHolds = TimeSpan.FromMinutes(10);

    // The same for every failure: what was wrong is not told.
    private const string Wrong = "That name and password do not go together.";

    private const string BadCode = "That code does not hold: it was used, its time is over, or it is mistyped.";

    private const int LongestBrowser = 120;

    private static readonly TimeSpan Noted = TimeSpan.FromMinutes(1);

    // Guessing also costs the machine: few hashes at a time.
    private readonly SemaphoreSlim _hashing = new(2);
    private string? _nobody;

    /// <summary>Signs in with a password.</summary>
    public SignInAnswer SignIn(string? name, string? password, Visitor from)
    {
        var (told, word) = ((name ?? "").Trim(), password ?? "");
        var account = accounts.Find(told);
        var known = account is not null && sessions.WasAt(account.Id, from.Address);
        if (guard.Shut(told, from.Address, known) is { Ticks: > 0 } shut)
            return Failed($"Too many wrong passwords. Try again in {Math.Ceiling(shut.TotalMinutes):0} min, or ask an owner for a code.");
        // Who has no account takes as long as who has one.
        var fits = Fits(account is { Password.Length: > 0 } ? account.Password : Nobody, word) && account is { Password.Length: > 0, ClosedAt: null };
        if (!fits)
        {
            log.Add(told.Length > AccountDesk.LongestName ? told[..AccountDesk.LongestName] : told, "was not let in", from.Address);
            return new SignInAnswer(null, null, Wrong, guard.Wrong(told, from.Address, known));
        }

        guard.Right(told, from.Address);
        return Next(account!, from);
    }

    /// <summary>Signs in with the code of the second factor, after the password.</summary>
    /// <param name="word">Word that the password was answered with.</param>
    /// <param name="code">Code of the phone, or one for recovery.</param>
    /// <param name="from">Where it comes from.</param>
    public SignInAnswer SignInSecond(string? word, string? code, Visitor from)
    {
        if (second.Of(word) is not { ClosedAt: null } account)
            return Failed("That took too long. Sign in once more.");
        // Counted for itself: six digits bear few guesses.
        var name = "second:" + account.Name;
        if (guard.Shut(name, from.Address) is { Ticks: > 0 } shut)
            return Failed($"Too many wrong codes. Try again in {Math.Ceiling(shut.TotalMinutes):0} min.") with { Owes = word };
        if (!second.Takes(account, code))
        {
            log.Add(account.Name, "was not let in: wrong code", from.Address);
            return new SignInAnswer(null, null, "That code does not fit, or was used.", guard.Wrong(name, from.Address)) { Owes = word };
        }

        guard.Right(name);
        second.Done(word!);
        return Begin(account, from);
    }

    // Who has a second factor owes it after the password.
    private SignInAnswer Next(ShopAccount account, Visitor from) =>
        account.SecondSecret is null ? Begin(account, from) : new SignInAnswer(null, null, null, TimeSpan.Zero) { Owes = second.Wait(account.Id) };

    /// <summary>Sets a password with a one-time code, and signs in; whoever was signed in as this account is not any more.</summary>
    public SignInAnswer SetWithCode(string? code, string? password, Visitor from)
    {
        if (guard.Shut(ByCode(from), from.Address) is { Ticks: > 0 } shut)
            return Failed($"Too many wrong codes. Try again in {Math.Ceiling(shut.TotalMinutes):0} min.");
        var mark = OneTimeCode.Mark(code);
        if (codes.Look(mark, CodeStore.Recover) is not { } known || accounts.Find(known.AccountId) is not { ClosedAt: null } account)
            return new SignInAnswer(null, null, BadCode, guard.Wrong(ByCode(from), from.Address));
        // A password that cannot be taken does not use the code up.
        if (PasswordRule.Problem(password, account.Name) is { } wrong)
            return Failed(wrong);
        var hash = Hash(password!);
        return database.InOneTransaction(() =>
        {
            if (codes.Use(mark, CodeStore.Recover) is null)
                return Failed("That code was used.");
            accounts.SetPassword(account.Id, hash);
            sessions.End(account.Id);
            guard.Right(account.Name);
            log.Add(account.Name, "set a password with a code", from.Address);
            return Next(account, from);
        });
    }

    /// <summary>Signs in as somebody just made.</summary>
    public SignInAnswer Begin(ShopAccount account, Visitor from)
    {
        var secret = OneTimeCode.MakeSecret();
        database.InOneTransaction(() =>
        {
            log.Add(account.Name, "signed in", from.Address);
            return sessions.Begin(OneTimeCode.MarkOf(secret), account.Id, null, Short(from.Browser), from.Address, Longest);
        });
        return new SignInAnswer(secret, sessions.Find(OneTimeCode.MarkOf(secret)), null, TimeSpan.Zero);
    }

    /// <summary>Changes one's own password; all other sessions end.</summary>
    public Deed<Done> ChangePassword(SignedIn who, string? before, string? password, Visitor from)
    {
        if (accounts.Find(who.AccountId) is not { } account)
            return Refusal.Missing;
        if (!Fits(account.Password.Length > 0 ? account.Password : Nobody, before ?? ""))
            return Refusal.Invalid("That is not your password so far.");

        if (PasswordRule.Problem(password, account.Name) is { } wrong)
            return Refusal.Invalid(wrong);
        var hash = Hash(password!);
        return database.InOneTransaction(() =>
        {
            accounts.SetPassword(account.Id, hash);
            var ended = sessions.End(account.Id, but: who.Id);
            log.Add(who.Name, "changed the password", from.Address);
            return new Done(ended == 0 ? "The password is changed." : $"The password is changed; {ended} other sessions have ended.");
        });
    }

    /// <summary>The session of a secret while it holds; that it was seen is noted, once a minute.</summary>
    public SignedIn? Check(string secret)
    {
        if (sessions.Find(OneTimeCode.MarkOf(secret)) is not { } session)
            return null;
        var unseen = time.GetUtcNow() - session.SeenAt;
        if (unseen > Idle)
            return null;
        if (unseen > Noted)
            try
            {
                sessions.Seen(session.Id);
            }
            catch (ShopBusyException)
            {
                // It is noted the next time; looking at a page waits for nobody.
            }

        return session;
    }

    /// <summary>Sessions of somebody.</summary>
    public IReadOnlyList<SignedIn> SessionsOf(long account) => sessions.Of(account);

    /// <summary>Ends one session of an account, or all.</summary>
    public Deed<Done> End(string by, long account, long? session)
    {
        var ended = database.InOneTransaction(() =>
        {
            var count = sessions.End(account, session);
            if (count > 0)
                log.Add(by, $"ended {count} {(count == 1 ? "session" : "sessions")} of {accounts.Find(account)?.Name}");
            return count;
        });
        return ended == 0 ? Refusal.Missing : new Done(ended == 1 ? "The session has ended." : $"{ended} sessions have ended.");
    }

    /// <summary>Gives a code with which a phone joins to look at one job.</summary>
    public GivenCode PhoneCode(SignedIn by, long job)
    {
        var code = OneTimeCode.Make();
        codes.Add(OneTimeCode.Mark(code), CodeStore.Join, by.AccountId, job, JoinHolds);
        return new GivenCode(code, by.Name);
    }

    /// <summary>True while a phone's code holds; it is not used by looking.</summary>
    public bool CanJoin(string? code) => codes.Look(OneTimeCode.Mark(code), CodeStore.Join) is not null;

    /// <summary>A phone joins; the code is used up.</summary>
    public SignInAnswer Join(string? code, Visitor from)
    {
        if (guard.Shut(ByCode(from), from.Address) is { Ticks: > 0 })
            return Failed("Too many wrong codes. Try again later.");
        var answer = database.InOneTransaction(() =>
        {
            if (codes.Use(OneTimeCode.Mark(code), CodeStore.Join) is not { JobNumber: { } job } known)
                return null;
            if (accounts.Find(known.AccountId) is not { ClosedAt: null } account)
                return null;
            var secret = OneTimeCode.MakeSecret();
            log.Add(account.Name, FormattableString.Invariant($"a phone joined for job {job}"), from.Address);
            sessions.Begin(OneTimeCode.MarkOf(secret), account.Id, job, Short(from.Browser), from.Address, PhoneLasts);
            return new SignInAnswer(secret, sessions.Find(OneTimeCode.MarkOf(secret)), null, TimeSpan.Zero);
        });
        return answer
            ?? new SignInAnswer(null, null, "That code does not hold any more. Ask for a new one on the job's page.", guard.Wrong(ByCode(from), from.Address));
    }

    // Wrong codes count against where they come from, so that nobody shuts out the others.
    private static string ByCode(Visitor from) => "code:" + from.Address;

    private static string Short(string browser) => browser.Length > LongestBrowser ? browser[..LongestBrowser] : browser;

    private static SignInAnswer Failed(string why) => new(null, null, why, TimeSpan.Zero);

    private string Nobody => _nobody ??= passwords.Hash(OneTimeCode.MakeSecret());

    private bool Fits(string hash, string password) => password.Length <= PasswordRule.Longest && InTurn(() => passwords.Fits(hash, password));

    private string Hash(string password) => InTurn(() => passwords.Hash(password));

    private T InTurn<T>(Func<T> work)
    {
        _hashing.Wait();
        try
        {
            return work();
        }
        finally
        {
            _hashing.Release();
        }
    }
}
