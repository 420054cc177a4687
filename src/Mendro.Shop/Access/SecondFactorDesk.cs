using System.Collections.Concurrent;
using Mendro.Core.Access;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Protects what must be read again, by keys that lie beside the database and not in it.</summary>
public interface ISecretKeeper
{
    /// <summary>Protects a secret.</summary>
    string Protect(string secret);

    /// <summary>Reads it again; null when it was protected by other keys.</summary>
    string? Read(string kept);
}

/// <summary>Recovery codes that were just made.</summary>
/// <param name="Codes">Codes, each of which works once.</param>
public sealed record NewCodes(IReadOnlyList<string> Codes);

/// <summary>The second factor of an account: set up, asked for, taken away.</summary>
public sealed class SecondFactorDesk(
    AccountStore accounts,
    SettingsStore settings,
    AccessLog log,
    IPasswordKeeper passwords,
    ISecretKeeper secrets,
    TimeProvider time
)
{
    private const string DemandedKey = "second-factor-owners";
    private const int MostWaiting = 200;
    private static readonly TimeSpan Waits = TimeSpan.FromMinutes(3);

    // Who has shown a password and still owes the code.
    private readonly ConcurrentDictionary<string, (long Account, DateTimeOffset Until)> _waiting = new();

    /// <summary>True when owners must have one in a shop that others reach.</summary>
    public bool Demanded => settings.Value(DemandedKey) == "yes";

    /// <summary>Says whether owners must have one.</summary>
    public void Demand(string by, bool demanded)
    {
        settings.SetValue(DemandedKey, demanded ? "yes" : "no");
        log.Add(by, demanded ? "owners must have a second factor" : "owners need no second factor");
    }

    /// <summary>Recovery codes that an account has left.</summary>
    public int RecoveryLeft(long account) => accounts.RecoveryLeft(account);

    /// <summary>Begins to set one up: nothing is kept before a code of it was shown.</summary>
    /// <returns>The secret in base 32, and the same as it is carried by the form.</returns>
    public (string Secret, string Carried) Begin()
    {
        var secret = SecondFactor.MakeSecret();
        return (secret, secrets.Protect(secret));
    }

    /// <summary>The secret that a form carries, or null.</summary>
    public string? Carried(string? carried) => carried is { Length: > 0 and < 2000 } ? secrets.Read(carried) : null;

    /// <summary>Sets it up when the code shows that the phone has it.</summary>
    /// <returns>Recovery codes, shown only now.</returns>
    public Deed<NewCodes> SetUp(SignedIn who, string? carried, string? code)
    {
        if (Carried(carried) is not { } secret)
            return Refusal.Invalid("Begin again: this was open for too long.");
        if (SecondFactor.Fits(secret, code, time.GetUtcNow(), null) is not { } step)
            return Refusal.Invalid("That code does not fit. Look whether the clocks of phone and shop are right, and type the one that is shown now.");
        var codes = Enumerable.Range(0, SecondFactor.RecoveryCodes).Select(_ => OneTimeCode.Make()).ToList();
        accounts.SetSecond(who.AccountId, secrets.Protect(secret), [.. codes.Select(OneTimeCode.Mark)]);
        accounts.UseStep(who.AccountId, step);
        log.Add(who.Name, "has a second factor now");
        return new NewCodes(codes);
    }

    /// <summary>Takes one's own away, by the password.</summary>
    public Deed<Done> Remove(SignedIn who, string? password)
    {
        if (accounts.Find(who.AccountId) is not { SecondSecret: not null } account)
            return Refusal.Missing;
        if (account.Password.Length == 0 || (password ?? "").Length > PasswordRule.Longest || !passwords.Fits(account.Password, password ?? ""))
            return Refusal.Invalid("That is not your password.");
        accounts.SetSecond(account.Id, null, []);
        log.Add(who.Name, "has no second factor any more");
        return new Done("The password alone lets you in again.");
    }

    /// <summary>Takes another's away, whose phone is gone.</summary>
    public Deed<Done> TakeAway(string by, long id)
    {
        if (accounts.Find(id) is not { SecondSecret: not null } account)
            return Refusal.Missing;
        accounts.SetSecond(id, null, []);
        log.Add(by, $"took the second factor of {account.Name} away");
        return new Done($"{account.Name} comes in by the password alone.");
    }

    /// <summary>A password was right and the code is still owed: a word to come back with.</summary>
    internal string Wait(long account)
    {
        var now = time.GetUtcNow();
        foreach (var (key, _) in _waiting.Where(w => w.Value.Until < now || _waiting.Count > MostWaiting).ToList())
            _waiting.TryRemove(key, out _);
        var word = OneTimeCode.MakeSecret();
        _waiting[word] = (account, now + Waits);
        return word;
    }

    /// <summary>Whose word it is, while it holds.</summary>
    internal ShopAccount? Of(string? word) =>
        word is { Length: > 0 } && _waiting.TryGetValue(word, out var waits) && waits.Until > time.GetUtcNow() ? accounts.Find(waits.Account) : null;

    /// <summary>The word was used.</summary>
    internal void Done(string word) => _waiting.TryRemove(word, out _);

    /// <summary>True for a code of the phone or one for recovery; it is used up by this.</summary>
    internal bool Takes(ShopAccount account, string? code)
    {
        if (account.SecondSecret is not { } kept)
            return false;
        if (secrets.Read(kept) is { } secret && SecondFactor.Fits(secret, code, time.GetUtcNow(), account.SecondStep) is { } step)
            return accounts.UseStep(account.Id, step);
        return code is { Length: > 6 and < 40 } && accounts.UseRecovery(account.Id, OneTimeCode.Mark(code));
    }
}
