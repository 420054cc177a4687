using System.Globalization;
using Mendro.Core;
using Mendro.Core.Quantities;
using Mendro.Core.Stock;
using Mendro.Storage;

namespace Mendro.Web.Pages.Stock;

/// <summary>A bin as typed; read by the same rules as a line of a file.</summary>
public sealed class BinForm
{
    /// <summary>Fields by the names of the file's columns.</summary>
    public Dictionary<string, string?> Field { get; set; } = [];

    /// <summary>What stands in a field.</summary>
    public string this[string name] => Words.Clean(Field.GetValueOrDefault(name));

    /// <summary>Reads it.</summary>
    public Outcome<StockLine> Read() => StockFile.Line(name => this[name]);

    /// <summary>Fills the form from a bin.</summary>
    public static BinForm From(StockItem item)
    {
        var what = item.What;
        string N(double? value) => value?.ToString("0.############", CultureInfo.InvariantCulture) ?? "";
        return new BinForm
        {
            Field = new Dictionary<string, string?>
            {
                ["name"] = what.Name,
                ["sort"] = what.Sort,
                ["value"] = what.Value is { } value ? Reading.Format(value, StockSpec.UnitOf(what.Sort) ?? "") : "",
                ["volts"] = N(what.Volts),
                ["watts"] = N(what.Watts),
                ["size"] = what.Size,
                ["mount"] = what.Mount,
                ["colour"] = what.Colour,
                ["pins"] = what.Pins,
                ["model"] = what.Model,
                ["revision"] = what.Revision,
                ["bin"] = item.Bin,
                ["count"] = item.Count.ToString(CultureInfo.InvariantCulture),
                ["low"] = item.Low?.ToString(CultureInfo.InvariantCulture),
                ["cost"] = item.Cost?.ToString(CultureInfo.InvariantCulture),
                ["source"] = item.Source,
            },
        };
    }

    /// <summary>What is in a bin besides its name, in words.</summary>
    public static string WordsOf(StockSpec what) =>
        string.Join(
            ", ",
            new[]
            {
                what.Sort,
                what.Volts is { } volts ? FormattableString.Invariant($"{volts:0.##} V") : "",
                what.Watts is { } watts ? FormattableString.Invariant($"{watts:0.###} W") : "",
                what.Size,
                what.Mount,
                what.Colour,
                what.Pins.Length > 0 ? $"pins {what.Pins}" : "",
                what.Model,
                what.Revision.Length > 0 ? $"rev. {what.Revision}" : "",
            }.Where(w => w.Length > 0)
        );
}
