using Mendro.Core.Capacitors;
using Mendro.Core.Stock;

namespace Mendro.Core.Tests.Stock;

/// <summary>Capacitors between the list of orders, the bins and the capacitor job.</summary>
public sealed class StockCapacitorTests
{
    [Fact]
    public void Every_capacitor_of_the_catalogue_is_read_back_from_its_name()
    {
        foreach (var part in CapacitorLibrary.Shipped.Catalogue())
        {
            var back = StockCapacitor.Part(StockCapacitor.Named(part.Words), part.Id, 3, 0.2m)!;
            back.Farads.ShouldBe(part.Farads, part.Farads * 1e-9);
            (back.Volts, back.DiameterMm, back.HeightMm, back.Mount, back.Polar).ShouldBe(
                (part.Volts, part.DiameterMm, part.HeightMm, part.Mount, part.Polar)
            );
            (back.Count, back.Price, back.Source, back.Words).ShouldBe((3, 0.2m, CapacitorSource.Stock, part.Words));
        }
    }

    [Theory]
    [InlineData("power switch")]
    [InlineData("10 µF")]
    [InlineData("10 µF 16 V")]
    public void Another_name_is_only_a_name(string name) => StockCapacitor.Named(name).ShouldBe(new StockSpec(name));

    [Fact]
    public void A_bin_without_a_size_or_of_another_sort_goes_into_no_capacitor_job()
    {
        StockCapacitor.Part(new StockSpec("C", StockSpec.Capacitor, 10e-6, 16), "bin-1", 1, null).ShouldBeNull();
        StockCapacitor.Part(new StockSpec("R", StockSpec.Resistor, 10, 16, Size: "5x11"), "bin-1", 1, null).ShouldBeNull();
        StockCapacitor.Part(new StockSpec("C", StockSpec.Capacitor, 10e-6, 16, Size: "6.3x7"), "bin-1", 1, null)!.Words.ShouldBe("10 µF 16 V, 6.3 × 7 mm");
    }
}
