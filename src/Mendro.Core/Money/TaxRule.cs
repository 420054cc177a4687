namespace Mendro.Core.Money;

/// <summary>How a shop is taxed on what it sells, or one sale is. Which applies is for its own adviser to say.</summary>
public enum TaxTreatment
{
    /// <summary>Tax of the standard rate on the whole price.</summary>
    Standard,

    /// <summary>Tax of the reduced rate on the whole price.</summary>
    Reduced,

    /// <summary>Used goods bought of people who charge no tax: tax on the margin only, price less what was paid for it.</summary>
    Margin,

    /// <summary>No tax: a small business, or goods and buyers on which none falls.</summary>
    None,
}

/// <summary>Tax as the shop has set it; what applies is for its own adviser to say.</summary>
/// <param name="Percent">Standard rate, %; 0 for none.</param>
/// <param name="Inclusive">True when prices hold it already.</param>
public sealed record TaxRule(decimal Percent, bool Inclusive)
{
    /// <summary>Reduced rate, %.</summary>
    public decimal Reduced { get; init; }

    /// <summary>How units of the shop's own are sold: <see cref="TaxTreatment.Margin"/> for used goods; <see cref="TaxTreatment.None"/> means
    /// that the shop charges no tax on anything, as a small business.</summary>
    public TaxTreatment Treatment { get; init; }

    /// <summary>True when tax on what is bought is had back.</summary>
    public bool InputTax { get; init; }

    /// <summary>True when tax is owed as soon as something is paid ahead.</summary>
    public bool OnAhead { get; init; }

    /// <summary>No tax.</summary>
    public static TaxRule None { get; } = new(0, true);

    /// <summary>True when there is none to charge.</summary>
    public bool IsNone => Treatment == TaxTreatment.None || Percent <= 0;

    /// <summary>Rate of a treatment, %.</summary>
    public decimal Rate(TaxTreatment treatment) =>
        Treatment == TaxTreatment.None || treatment == TaxTreatment.None ? 0
        : treatment == TaxTreatment.Reduced ? Reduced
        : Percent;

    /// <summary>Parts a price into what stays and the tax, by the standard rate; both add up to what is paid.</summary>
    /// <param name="price">Price as it is named.</param>
    /// <param name="currency">Currency, for its smallest coin.</param>
    public (decimal Net, decimal Tax, decimal Paid) Of(decimal price, Currency currency) => Of(price, Rate(TaxTreatment.Standard), currency);

    /// <summary>The same for a unit that is sold.</summary>
    /// <param name="price">Price as it is named.</param>
    /// <param name="paid">What was paid for the unit once, 0 or more.</param>
    /// <param name="own">Treatment of this sale; null for the shop's usual one.</param>
    /// <param name="currency">Currency, for its smallest coin.</param>
    /// <remarks>On a margin the tax is always in the price, and none is owed where nothing was gained: the margin is the price less what was
    /// paid, and the tax its share p/(100+p) (Council Directive 2006/112/EC, articles 312 to 325).</remarks>
    public (decimal Net, decimal Tax, decimal Paid) OfSale(decimal price, decimal paid, TaxTreatment? own, Currency currency)
    {
        var treatment = own ?? Treatment;
        if (treatment != TaxTreatment.Margin || Treatment == TaxTreatment.None)
            return Of(price, Rate(treatment), currency);
        var tax = currency.Round(Math.Max(0, price - paid) * Percent / (100 + Percent));
        return (price - tax, tax, price);
    }

    /// <summary>Tax in a sum that holds it.</summary>
    public static decimal In(decimal sum, decimal percent, Currency currency) => percent <= 0 ? 0 : currency.Round(sum * percent / (100 + percent));

    private (decimal Net, decimal Tax, decimal Paid) Of(decimal price, decimal percent, Currency currency)
    {
        if (percent <= 0)
            return (price, 0, price);
        var tax = currency.Round(Inclusive ? price * percent / (100 + percent) : price * percent / 100);
        return Inclusive ? (price - tax, tax, price) : (price, tax, price + tax);
    }
}
