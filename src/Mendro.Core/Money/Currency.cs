using System.Text.Json;

namespace Mendro.Core.Money;

/// <summary>A currency by its ISO 4217 code.</summary>
/// <param name="Code">Three capital letters.</param>
public readonly record struct Currency(string Code)
{
    private const int UsualMinorUnits = 2;

    private static readonly Lazy<Facts> Known = new(Load);

    /// <summary>Currencies offered in pick lists; any three-letter code is accepted.</summary>
    public static IReadOnlyList<string> Common => Known.Value.Common;

    /// <summary>Digits after the point (ISO 4217 minor units): 0 for the yen, 3 for the Kuwaiti dinar, mostly 2.</summary>
    public int MinorUnits => Known.Value.MinorUnits.GetValueOrDefault(Code, UsualMinorUnits);

    /// <summary>Sign put before an amount, or null when the code stands behind it.</summary>
    public string? Sign => Known.Value.Signs.GetValueOrDefault(Code);

    /// <summary>Rounds to what can be paid: half away from zero, as a shop rounds.</summary>
    public decimal Round(decimal value) => decimal.Round(value, MinorUnits, MidpointRounding.AwayFromZero);

    /// <summary>True for three capital letters.</summary>
    public static bool IsCode(string? code) => code is { Length: 3 } && code.All(char.IsAsciiLetterUpper);

    /// <inheritdoc/>
    public override string ToString() => Code;

    private static Facts Load()
    {
        using var stream = typeof(Currency).Assembly.GetManifestResourceStream("Library/currencies.json")!;
        return JsonSerializer.Deserialize<Facts>(stream, JsonSerializerOptions.Web)!;
    }

    private sealed record Facts(
        string Source,
        IReadOnlyDictionary<string, int> MinorUnits,
        IReadOnlyDictionary<string, string> Signs,
        IReadOnlyList<string> Common
    );
}
