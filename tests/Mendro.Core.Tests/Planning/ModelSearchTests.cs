using Mendro.Core.Library;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Planning;

/// <summary>Finding a model by typing, as far as it has been typed.</summary>
public class ModelSearchTests
{
    [Theory]
    [InlineData("minnow", "quillon-minnow")]
    [InlineData("Min", "quillon-minnow")]
    [InlineData("  HARROW duet ", "harrow-duet")]
    [InlineData("pellin-atrium-pad", "pellin-atrium-pad")]
    // A full name is itself, though others begin with it.
    [InlineData("Pellin Atrium", "pellin-atrium")]
    // Each word has a name word of its own: the p is not the maker's a second time.
    [InlineData("Pellin Atrium p", "pellin-atrium-pad")]
    [InlineData("pad atr", "pellin-atrium-pad")]
    public void One_model_fits(string typed, string id) =>
        ModelSearch.Fitting(typed, TradeLibrary.Shipped.Profiles).ShouldHaveSingleItem().Id.ShouldBe(id);

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("  - ")]
    [InlineData("zeppelin")]
    [InlineData("minnow zeppelin")]
    [InlineData("minnow minnow")]
    public void Nothing_or_a_stranger_fits_none(string? typed) => ModelSearch.Fitting(typed, TradeLibrary.Shipped.Profiles).ShouldBeEmpty();

    [Fact]
    public void A_makers_name_fits_all_of_its_models() =>
        ModelSearch
            .Fitting("quillon", TradeLibrary.Shipped.Profiles)
            .Select(p => p.Id)
            .ShouldBe(["quillon-minnow", "quillon-tripos"], ignoreOrder: true);
}
