using Mendro.Core.Profiles;

namespace Mendro.Core.Stock;

/// <summary>Reads <c>mendro.order/1</c>: what is needed, and who offers it.</summary>
public static class OrderFile
{
    /// <summary>The format name.</summary>
    public const string FormatName = "mendro.order/1";

    /// <summary>Most parts that are needed.</summary>
    public const int MostNeeds = 500;

    /// <summary>Most suppliers.</summary>
    public const int MostSuppliers = 50;

    /// <summary>Most offers over all suppliers.</summary>
    public const int MostOffers = 20_000;

    /// <summary>Most of one part.</summary>
    public const int MostCount = 100_000;

    /// <summary>Digits after the point that a price can have.</summary>
    public const int MostDigits = 4;

    private const decimal MostPrice = 1_000_000;

    /// <summary>Reads a file. A part that is needed twice is needed as often as both say.</summary>
    /// <returns>The task, or what is wrong with its place.</returns>
    public static Outcome<OrderTask> Read(string json)
    {
        static Outcome<OrderTask> Fail(string problem) => Outcome<OrderTask>.Fail(problem);

        if (ProfileJson.Deserialize<Document>(json, out var told) is { } unreadable)
            return Fail(unreadable);
        if (told?.Format is not (null or FormatName))
            return Fail($"format: expected “{FormatName}”.");
        if (told?.Needs is not { } needs || told.Suppliers is not { } suppliers)
            return Fail("needs and suppliers: both are needed.");
        if (needs.Count > MostNeeds || suppliers.Count > MostSuppliers || suppliers.Sum(s => s?.Offers?.Count ?? 0) > MostOffers)
            return Fail($"at most {MostNeeds} needs, {MostSuppliers} suppliers and {MostOffers} offers.");
        for (var n = 0; n < needs.Count; n++)
            if (needs[n] is not { Part.Length: > 0, Count: >= 0 and <= MostCount })
                return Fail($"needs[{n}]: a part and a count of 0 to {MostCount} are needed.");
        for (var s = 0; s < suppliers.Count; s++)
            if (Wrong(suppliers[s]) is { } wrong)
                return Fail($"suppliers[{s}]{wrong}");
        if (suppliers.GroupBy(s => s!.Id).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return Fail($"suppliers: “{twice.Key}” is there twice.");
        return Outcome<OrderTask>.Ok(
            new OrderTask(
                needs.GroupBy(n => n!.Part!).Select(g => new OrderNeed(g.Key, g.Sum(n => n!.Count!.Value))).Where(n => n.Count > 0).ToList(),
                suppliers
                    .Select(s => new OrderSupplier(
                        s!.Id!,
                        s.Postage ?? 0,
                        s.FreeFrom,
                        (s.Offers ?? []).Select(o => new SupplierOffer(o!.Part!, o.Price!.Value, o.Available)).ToList()
                    ))
                    .ToList()
            )
        );
    }

    private static string? Wrong(Told? supplier)
    {
        if (supplier is not { Id.Length: > 0 })
            return ": an id is needed.";
        if (!Priced(supplier.Postage ?? 0))
            return $".postage: 0 to a million, with at most {MostDigits} digits after the point.";
        if (supplier.FreeFrom is { } free && !Priced(free))
            return $".freeFrom: 0 to a million, with at most {MostDigits} digits after the point; null for never.";
        var offers = supplier.Offers ?? [];
        for (var n = 0; n < offers.Count; n++)
        {
            if (offers[n] is not { Part.Length: > 0, Price: { } price } || !Priced(price))
                return $".offers[{n}]: a part and a price of 0 to a million with at most {MostDigits} digits after the point are needed.";
            if (offers[n]!.Available is < 0)
                return $".offers[{n}].available: 0 or more.";
        }

        return null;
    }

    private static bool Priced(decimal price) => price is >= 0 and <= MostPrice && decimal.Round(price, MostDigits) == price;

    private sealed record Need(string? Part, int? Count);

    private sealed record Offer(string? Part, decimal? Price, int? Available);

    private sealed record Told(string? Id, decimal? Postage, decimal? FreeFrom, IReadOnlyList<Offer?>? Offers);

    private sealed record Document(string? Format, IReadOnlyList<Need?>? Needs, IReadOnlyList<Told?>? Suppliers);
}
