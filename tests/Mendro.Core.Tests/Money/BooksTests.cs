using CsCheck;
using Mendro.Core.Money;

namespace Mendro.Core.Tests.Money;

/// <summary>The books balance whatever happens, and taxes add up to the cent.</summary>
public sealed class BooksTests
{
    private static readonly Currency Euro = new("EUR");
    private static readonly DateOnly Day = new(2026, 5, 4);

    private static Gen<decimal> Cents { get; } = Gen.Int[0, 50_000].Select(c => c / 100m);

    private static Gen<TaxRule> Tax { get; } = Gen.Select(Gen.Int[0, 27], Gen.Bool, (p, i) => new TaxRule(p, i));

    private static Gen<BookEntry> Matter { get; } =
        Gen.OneOf(
            Cents.Select(c => Books.Bought(Day, 1, "", c)),
            Gen.Select(Cents, Cents, (g, p) => Books.Received(Day, "x", g, p)),
            Gen.Select(Cents, Gen.Bool, (c, s) => Books.Used(Day, 1, "", c, s)),
            Gen.Select(Cents, Cents, Cents, Cents, Tax, (p, f, o, b, t) => Books.Sold(Day, 1, "", p, f, o, b, t, Euro)),
            Cents.Select(c => Books.GivenUp(Day, 1, "", c)),
            Cents.Select(c => Books.FromDonor(Day, 1, "", c)),
            Cents.Select(c => Books.OutOfDonor(Day, 1, "", c)),
            Gen.Select(Cents, Tax, (p, t) => Books.Charged(Day, 1, p, t, Euro)),
            Gen.Select(Cents, Gen.Bool, (c, back) => Books.Paid(Day, 1, back ? "paid back" : "paid", back ? -c : c))
        );

    /// <summary>Double entry: each matter adds up to nothing, so do all accounts after any sequence, also with some taken back.</summary>
    [Fact]
    public void Whatever_happens_the_books_balance() =>
        Gen.Select(Matter, Gen.Bool)
            .Array[0, 60]
            .Sample(drawn =>
            {
                var entries = drawn.SelectMany(d => d.Item2 ? new[] { d.Item1, Books.Back(d.Item1, Day, "taken back") } : [d.Item1]).ToList();
                entries.ShouldAllBe(e => e.Postings.Sum(p => p.Value) == 0);
                var sums = Books.Sums(entries);
                sums.Values.Sum().ShouldBe(0);
                // What was gained is what money, goods and debts are more: the other side of the same books.
                var gained = entries.Sum(e => e.Gain);
                gained.ShouldBe(sums.Where(s => s.Key < Account.Sales).Sum(s => s.Value));
            });

    // By hand: 119.00 with 19 % in it are 100.00 and 19.00; 100.00 with 19 % on top are 119.00; a third of a cent is rounded once.
    [Fact]
    public void Tax_in_or_on_a_price_adds_up()
    {
        new TaxRule(19, true).Of(119, Euro).ShouldBe((100m, 19m, 119m));
        new TaxRule(19, false).Of(100, Euro).ShouldBe((100m, 19m, 119m));
        new TaxRule(7, true).Of(9.99m, Euro).ShouldBe((9.34m, 0.65m, 9.99m));
        TaxRule.None.Of(9.99m, Euro).ShouldBe((9.99m, 0m, 9.99m));
        Gen.Select(Cents, Tax).Sample((price, tax) => tax.Of(price, Euro) is var (net, owed, paid) && net + owed == paid && Euro.Round(owed) == owed);
    }

    // A unit for 10 with parts for 2 sold at 50, fees 5, postage 4: 50 − 5 − 4 − 2 − 10 = 29 gained.
    [Fact]
    public void What_a_unit_brought_is_told_by_hand()
    {
        BookEntry[] entries =
        [
            Books.Bought(Day, 1, "attic", 10),
            Books.Used(Day, 1, "attic", 2, fromStock: true),
            Books.Sold(Day, 1, "attic", 50, 5, 4, 10, TaxRule.None, Euro),
        ];
        entries.Sum(e => e.Gain).ShouldBe(29);
        var sums = Books.Sums(entries);
        (sums[Account.Cash], sums[Account.Units], sums[Account.Stock]).ShouldBe((31, 0, -2));
    }
}
