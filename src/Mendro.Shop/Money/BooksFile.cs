using System.Globalization;
using Mendro.Core;
using Mendro.Core.Money;
using Mendro.Core.Quantities;

namespace Mendro.Shop;

/// <summary>Books as CSV: an entry a line, or an account a line.</summary>
public static class BooksFile
{
    /// <summary>The books of a month as CSV; every line adds up to nothing, and the last ones are the sums.</summary>
    public static string Entries(MonthBooks books) =>
        CsvTable.Write(
            ["entry", "day", "what", "job", "lot", "reverses", "rate", "tax", .. Enum.GetValues<Account>().Select(a => a.ToString().ToLowerInvariant())],
            books
                .Entries.Select(e =>
                    (IReadOnlyList<string>)
                        [
                            .. Head(e),
                            e.Rate == 1 ? "" : N(e.Rate),
                            N(e.TaxPercent),
                            .. Enum.GetValues<Account>().Select(a => N(e.On(a))),
                        ]
                )
                .Append(["", "", "sum", "", "", "", "", "", .. Enum.GetValues<Account>().Select(a => N(books.Sums.GetValueOrDefault(a)))])
        );

    /// <summary>Entries line by line, for an accounting program: debit and credit of each account.</summary>
    /// <param name="books">Books.</param>
    /// <param name="currency">The shop's currency, ISO 4217.</param>
    /// <param name="numbers">Numbers of accounts.</param>
    public static string Lines(MonthBooks books, string currency, AccountNumbers numbers) =>
        CsvTable.Write(
            [
                "entry", "day", "what", "job", "lot", "reverses", "document", "account", "counter-account", "debit", "credit", "currency", "rate",
                "tax", "tax-code", "who",
            ],
            books.Entries.SelectMany(e =>
                e.Postings.Where(p => p.Value != 0)
                    .Select(p =>
                        (IReadOnlyList<string>)
                            [
                                .. Head(e),
                                e.Document,
                                numbers.In(p.Account),
                                Counter(e, p) is { } counter ? numbers.In(counter) : "",
                                p.Value > 0 ? N(p.Value) : "",
                                p.Value < 0 ? N(-p.Value) : "",
                                currency,
                                e.Rate == 1 ? "" : N(e.Rate),
                                N(e.TaxPercent),
                                e.TaxCode?.ToString().ToLowerInvariant() ?? "",
                                SpreadsheetText.Write(e.Who),
                            ]
                    )
            )
        );

    // What both files say of an entry first: number, day, what, job, lot, the entry it reverses.
    private static string[] Head(BookEntry e) =>
        [
            e.Number.ToString(CultureInfo.InvariantCulture),
            DayText.Write(e.Day),
            SpreadsheetText.Write(e.What),
            e.Job?.ToString(CultureInfo.InvariantCulture) ?? "",
            SpreadsheetText.Write(e.Lot),
            e.Reverses?.ToString(CultureInfo.InvariantCulture) ?? "",
        ];

    // The account on the other side; where there are several, the one of the greatest sum.
    private static Account? Counter(BookEntry entry, Posting posting) =>
        entry
            .Postings.Where(p => Math.Sign(p.Value) == -Math.Sign(posting.Value) && p.Value != 0)
            .OrderByDescending(p => Math.Abs(p.Value))
            .Select(p => (Account?)p.Account)
            .FirstOrDefault();

    private static string N(decimal value) => value == 0 ? "" : value.ToString("0.00##", CultureInfo.InvariantCulture);
}
