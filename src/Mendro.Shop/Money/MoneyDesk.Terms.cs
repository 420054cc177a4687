using System.Globalization;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What the shop has set, tax, rates, bank, accounts, and what moved besides its jobs.</summary>
public sealed partial class MoneyDesk
{
    /// <summary>Tax that applies on a day, as the shop has set it.</summary>
    public TaxRule Tax(DateOnly day) => journal.Tax(day);

    /// <summary>Sets the tax from a day on; what was posted before stays as it is.</summary>
    public Deed<Done> SetTax(TaxRule tax, DateOnly from, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (tax.Percent is < 0 or > 100 || tax.Reduced is < 0 or > 100)
                    return Refusal.Invalid("A tax is 0 to 100 %.");
                if (tax.Treatment == TaxTreatment.Reduced)
                    return Refusal.Invalid("What is usual is the standard rate, the margin, or none. A single sale may be at the reduced rate.");
                journal.SetTax(from, tax);
                return new Done($"Kept, from {DayText.Write(from)} on.");
            }
        );

    /// <summary>Keeps what a foreign currency is worth.</summary>
    public Deed<Done> SetRate(string currency, DateOnly day, decimal rate, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (!Currency.IsCode(currency) || currency == settings.Get().Currency)
                    return Refusal.Invalid("Say a foreign currency by its three letters, such as USD.");
                if (rate is <= 0 or > 1_000_000)
                    return Refusal.Invalid($"One {currency} is worth more than nothing: such as 0.92.");
                money.SetRate(currency, day, rate);
                return new Done($"1 {currency} is {rate.ToString(CultureInfo.InvariantCulture)} {settings.Get().Currency} from {DayText.Write(day)}.");
            }
        );

    /// <summary>What usually goes through the bank.</summary>
    public MoneyWays Ways => MoneyWays.Read(settings.Value(MoneyWays.Key));

    /// <summary>Keeps what goes through the bank from now on; what was posted stays where it is.</summary>
    public Deed<Done> SetWays(MoneyWays ways, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                settings.SetValue(MoneyWays.Key, ways.Write());
                return new Done(ways.Apart ? "Kept: cash and bank stand apart from now on." : "Kept: all money is one.");
            }
        );

    /// <summary>Numbers of accounts as the shop's accountant has them.</summary>
    public AccountNumbers Numbers => AccountNumbers.Read(settings.Value(AccountNumbers.Key));

    /// <summary>Keeps them.</summary>
    public Deed<Done> SetNumbers(IReadOnlyDictionary<Account, string> typed, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (AccountNumbers.Of(typed) is not { } numbers)
                    return Refusal.Invalid("The number of an account has up to 12 letters and digits.");
                settings.SetValue(AccountNumbers.Key, numbers.Write());
                return new Done("Kept.");
            }
        );

    /// <summary>What the shop paid or took in besides its jobs, the newest first.</summary>
    public IReadOnlyList<OwnEntry> OwnEntries(int most) => journal.OwnEntries(most);

    /// <summary>Notes another cost, money brought in, an opening balance, or what was drawn.</summary>
    public Deed<Done> Note(OwnEntry entry, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (entry.Kind is not ("cost" or "brought" or "drawn" or "to-bank" or "from-bank") || entry.Amount <= 0)
                    return Refusal.Invalid("Say how much, and whether it is a cost, brought in, drawn, or carried to the bank or back.");
                if (entry.Way is not ("" or "cash" or "bank") || entry.TaxPercent is < 0 or > 100)
                    return Refusal.Invalid("It was paid in cash or through the bank, and tax in it is 0 to 100 %.");
                if (DayText.Read(entry.Day) is not { Year: > 1990 and < 2200 } || entry.Words.Length > LongestWords)
                    return Refusal.Invalid($"It has a day such as 2026-11-26, and words of up to {LongestWords} characters.");
                journal.AddOwn(entry);
                return new Done($"Noted: {new Amount(entry.Amount, Own)}.");
            }
        );

    /// <summary>Counts the drawer: what it holds more or less than the books say is posted.</summary>
    /// <param name="counted">What lies in it, in the shop's currency, 0 or more.</param>
    /// <param name="day">The shop's day at whose end it was counted.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> CountDrawer(decimal counted, DateOnly day, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (counted < 0)
                    return Refusal.Invalid("What lies in a drawer is 0 or more.");
                Settle();
                var told = journal.Balance(Account.Cash, day, Own);
                var more = counted - told;
                Amount In(decimal value) => new(value, Own);
                if (more == 0)
                    return new Done($"{In(counted)}: as the books say.");
                journal.AddOwn(
                    new OwnEntry
                    {
                        Kind = "counted",
                        Amount = more,
                        Day = DayText.Write(day),
                        Words = $"drawer counted: {In(counted)}, the books said {In(told)}",
                    }
                );
                return new Done($"{In(counted)} counted, {In(told)} by the books: {In(Math.Abs(more))} {(more > 0 ? "more" : "less")}, posted.");
            }
        );

    /// <summary>Takes such an entry away, or brings it back.</summary>
    public Deed<Done> Unnote(long id, bool back, string? once = null) => ledger.Once(once, () => journal.SetOwnDeleted(id, !back));
}
