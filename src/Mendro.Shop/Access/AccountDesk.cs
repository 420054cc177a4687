using Mendro.Core.Access;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Hashes passwords and compares them.</summary>
public interface IPasswordKeeper
{
    /// <summary>The hash that is kept of a password.</summary>
    string Hash(string password);

    /// <summary>True when a password belongs to a hash.</summary>
    bool Fits(string hash, string password);
}

/// <summary>A code that was made, shown once.</summary>
/// <param name="Code">The code.</param>
/// <param name="For">Whom it is for.</param>
public sealed record GivenCode(string Code, string For);

/// <summary>The accounts of the shop: who may sign in, and as what.</summary>
public sealed class AccountDesk(
    AccountStore accounts,
    SessionStore sessions,
    CodeStore codes,
    AccessLog log,
    IPasswordKeeper passwords,
    ShopDatabase database
)
{
    /// <summary>How long the code of a new account or a forgotten password holds.</summary>
    public static readonly TimeSpan CodeHolds = TimeSpan.FromDays(1);

    /// <summary>Longest name.</summary>
    public const int LongestName = 40;

    private bool? _any;

    /// <summary>True once somebody may sign in: from then on everybody has to.</summary>
    public bool Any
    {
        get
        {
            // Once true it stays so: the last owner is never closed.
            if (_any is not true)
                _any = accounts.Any();
            return _any.Value;
        }
    }

    /// <summary>All accounts.</summary>
    public IReadOnlyList<ShopAccount> All() => accounts.All();

    /// <summary>Makes the first account, an owner's; refused once there is one.</summary>
    public Deed<ShopAccount> MakeFirst(string? name, string? password) =>
        Write<ShopAccount>(() =>
        {
            if (accounts.Any())
                return Refusal.Invalid("There is an owner already: sign in.");
            var clean = (name ?? "").Trim();
            if ((NameProblem(clean) ?? PasswordRule.Problem(password, clean)) is { } wrong)
                return Refusal.Invalid(wrong);
            var id = accounts.Add(clean, ShopRole.Owner, passwords.Hash(password!));
            log.Add(clean, "made the first account");
            return accounts.Find(id)!;
        });

    /// <summary>Adds an account; its person sets the password with the code.</summary>
    public Deed<GivenCode> Add(string by, string? name, ShopRole role) =>
        Write<GivenCode>(() =>
        {
            var clean = (name ?? "").Trim();
            if (NameProblem(clean) is { } wrong)
                return Refusal.Invalid(wrong);
            if (accounts.Find(clean) is { } there)
                return Refusal.Invalid(
                    there.ClosedAt is null ? $"“{there.Name}” has an account already."
                        : $"“{there.Name}” had an account. A name stays one person's: open it again, or choose another."
                );
            var id = accounts.Add(clean, role, "");
            log.Add(by, $"made an account for {clean}, {RoleRights.Name(role)}");
            return Give(id, clean);
        });

    /// <summary>Gives a code with which a password is set anew.</summary>
    public Deed<GivenCode> Recover(string by, string name) =>
        Write<GivenCode>(() =>
        {
            if (accounts.Find(name.Trim()) is not { ClosedAt: null } account)
                return Refusal.Invalid($"There is no open account “{name.Trim()}”.");
            log.Add(by, $"gave {account.Name} a code for a new password");
            return Give(account.Id, account.Name);
        });

    /// <summary>Gives another role.</summary>
    public Deed<Done> SetRole(string by, long id, ShopRole role) =>
        Write<Done>(() =>
        {
            if (accounts.Find(id) is not { ClosedAt: null } account)
                return Refusal.Missing;
            if (account.Role == ShopRole.Owner && role != ShopRole.Owner && accounts.Owners() < 2)
                return Refusal.Invalid("The last owner stays an owner. Make another one first.");
            accounts.SetRole(id, role);
            log.Add(by, $"made {account.Name} {RoleRights.Name(role)}, before {RoleRights.Name(account.Role)}");
            return new Done($"{account.Name} is {RoleRights.Name(role)} now.");
        });

    /// <summary>Closes an account and ends its sessions, or opens it again.</summary>
    public Deed<Done> SetClosed(string by, long id, bool closed) =>
        Write<Done>(() =>
        {
            if (accounts.Find(id) is not { } account)
                return Refusal.Missing;
            if (closed && account.Role == ShopRole.Owner && accounts.Owners() < 2)
                return Refusal.Invalid("The last owner stays. Make another one first.");
            accounts.SetClosed(id, closed);
            if (closed)
                sessions.End(id);
            log.Add(by, $"{(closed ? "closed" : "opened")} the account of {account.Name}");
            return new Done($"The account of {account.Name} is {(closed ? "closed; its sessions have ended" : "open again")}.");
        });

    private GivenCode Give(long id, string name)
    {
        var code = OneTimeCode.Make();
        codes.Add(OneTimeCode.Mark(code), CodeStore.Recover, id, null, CodeHolds);
        return new GivenCode(code, name);
    }

    private static string? NameProblem(string name) =>
        name.Length is 0 or > LongestName ? $"An account has a name of up to {LongestName} characters."
        : name.Any(char.IsControl) || name.Contains(':', StringComparison.Ordinal) ? "A name has letters, digits and spaces, no colon."
        : null;

    private Deed<T> Write<T>(Func<Deed<T>> work)
        where T : class => database.InOneTransaction(work);
}
