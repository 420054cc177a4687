using System.Text.Json;
using Mendro.Core.Money;

namespace Mendro.Shop;

/// <summary>Numbers of accounts as the shop's accountant has them; they stand in the journal file in the place of names.</summary>
public sealed class AccountNumbers
{
    /// <summary>Name under which they are kept.</summary>
    public const string Key = "account-numbers";

    private const int Longest = 12;

    private readonly Dictionary<Account, string> _own;

    private AccountNumbers(Dictionary<Account, string> own) => _own = own;

    /// <summary>Reads them; what cannot be read counts as none.</summary>
    public static AccountNumbers Read(string? json)
    {
        try
        {
            return new AccountNumbers(JsonSerializer.Deserialize<Dictionary<Account, string>>(json ?? "{}") ?? []);
        }
        catch (JsonException)
        {
            return new AccountNumbers([]);
        }
    }

    /// <summary>Takes what was typed: letters and digits, up to 12.</summary>
    /// <returns>Null when some of it is none.</returns>
    public static AccountNumbers? Of(IReadOnlyDictionary<Account, string> typed) =>
        typed.Values.All(v => v.Length <= Longest && v.All(c => char.IsAsciiLetterOrDigit(c) || c is '.' or '-'))
            ? new AccountNumbers(typed.Where(t => t.Value.Length > 0).ToDictionary())
            : null;

    /// <summary>Number of an account; its name where none is told.</summary>
    public string In(Account account) => Of(account) is { Length: > 0 } number ? number : account.ToString().ToLowerInvariant();

    /// <summary>Number of an account; blank where none is told.</summary>
    public string Of(Account account) => _own.GetValueOrDefault(account, "");

    /// <summary>Writes them.</summary>
    public string Write() => JsonSerializer.Serialize(_own);

    /// <summary>An account in words.</summary>
    public static string Words(Account account) =>
        account switch
        {
            Account.Cash => "Cash",
            Account.Bank => "Bank",
            Account.Stock => "Parts in bins",
            Account.Units => "Units bought",
            Account.Owners => "Owners owe",
            Account.Tax => "Tax owed",
            Account.InputTax => "Tax to be had back",
            Account.TaxAhead => "Tax on what was paid ahead",
            Account.Own => "Brought in and drawn",
            Account.Sales => "Sales",
            Account.Repairs => "Repairs",
            Account.PartsUsed => "Parts used",
            Account.UnitsGone => "Units that went",
            Account.Fees => "Fees",
            Account.Postage => "Postage",
            _ => "Other costs",
        };
}
