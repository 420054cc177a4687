namespace Mendro.Core.Money;

/// <summary>What usually goes through the bank. Where nothing does, cash and bank are not told apart.</summary>
/// <param name="Sales">What is sold.</param>
/// <param name="Bought">Units and lots that are bought.</param>
/// <param name="Orders">Parts that are ordered or bought for a job.</param>
/// <param name="Paid">What owners pay, unless it is told otherwise.</param>
public sealed record MoneyWays(bool Sales, bool Bought, bool Orders, bool Paid)
{
    /// <summary>Name under which it is kept.</summary>
    public const string Key = "money-ways";

    /// <summary>True when cash and bank are kept apart.</summary>
    public bool Apart => Sales || Bought || Orders || Paid;

    /// <summary>Reads it; blank for nothing through the bank.</summary>
    public static MoneyWays Read(string? text)
    {
        var told = (text ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        return new MoneyWays(told.Contains("sales"), told.Contains("bought"), told.Contains("orders"), told.Contains("paid"));
    }

    /// <summary>Writes it.</summary>
    public string Write() =>
        string.Join(',', new[] { (Sales, "sales"), (Bought, "bought"), (Orders, "orders"), (Paid, "paid") }.Where(w => w.Item1).Select(w => w.Item2));
}
