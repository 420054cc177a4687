using Mendro.Core.Money;

namespace Mendro.Shop;

/// <summary>Something that happened and is in the books, or is to be.</summary>
/// <param name="Key">What it is, such as <c>job:12:bought</c>: at most one entry of it stands.</param>
/// <param name="Basis">What it is made of: while that is the same its entry stands, whatever else has changed.</param>
/// <param name="Day">Day on which it happened.</param>
/// <param name="Make">Makes its entry, in the shop's currency; null where there is nothing to book, or no rate.</param>
internal sealed record BookMatter(string Key, string Basis, DateOnly Day, Func<BookEntry?> Make)
{
    /// <summary>One that stands as it is.</summary>
    public static BookMatter Stays(Storage.StandingEntry standing) => new(standing.Matter, standing.Basis, standing.OwnDay, () => null);
}
