namespace Mendro.Core.Boards;

/// <summary>Sort of package.</summary>
public enum PackageShape
{
    /// <summary>Two rows of legs.</summary>
    Dual,

    /// <summary>Legs on four sides.</summary>
    Quad,

    /// <summary>One row.</summary>
    Row,
}

/// <summary>Where a leg stands, seen from above with the mark at the top left.</summary>
/// <param name="Number">Number of the leg, from 1.</param>
/// <param name="Side">left, bottom, right or top; of a single row bottom.</param>
/// <param name="Place">Place on its side from 1, in the order in which it is counted.</param>
/// <param name="OnSide">Legs on that side.</param>
/// <param name="X">From the left, 0 to 1 of the outline.</param>
/// <param name="Y">From the top, 0 to 1 of the outline.</param>
public sealed record PinPlace(int Number, string Side, int Place, int OnSide, double X, double Y);

/// <summary>
/// Counting legs: from the mark counterclockwise, seen from above (JEDEC standard numbering of dual-in-line and quad packages, value from
/// memory). From below the picture is mirrored, and the count goes clockwise.
/// </summary>
public sealed record PinLayout
{
    /// <summary>Most legs.</summary>
    public const int MostPins = 400;

    private PinLayout(PackageShape shape, int pins) => (Shape, Pins) = (shape, pins);

    /// <summary>Sort of package.</summary>
    public PackageShape Shape { get; }

    /// <summary>Number of legs.</summary>
    public int Pins { get; }

    /// <summary>Reads a package such as <c>dip-28</c>, <c>quad-64</c> or <c>row-5</c>.</summary>
    public static Outcome<PinLayout> Read(string? text)
    {
        if (text?.Trim().ToLowerInvariant().Split('-') is not [var shape, var count] || !int.TryParse(count, out var pins))
            return Outcome<PinLayout>.Fail("Say the package as dip-28, quad-64 or row-5.");
        if (pins is < 2 or > MostPins)
            return Outcome<PinLayout>.Fail($"A package has 2 to {MostPins} legs.");
        return shape switch
        {
            "dip" when pins % 2 == 0 => Outcome<PinLayout>.Ok(new PinLayout(PackageShape.Dual, pins)),
            "dip" => Outcome<PinLayout>.Fail("A package with two rows has an even number of legs."),
            "quad" when pins % 4 == 0 => Outcome<PinLayout>.Ok(new PinLayout(PackageShape.Quad, pins)),
            "quad" => Outcome<PinLayout>.Fail("A package with four sides has a number of legs that four divides."),
            "row" => Outcome<PinLayout>.Ok(new PinLayout(PackageShape.Row, pins)),
            _ => Outcome<PinLayout>.Fail("Say the package as dip-28, quad-64 or row-5."),
        };
    }

    /// <summary>Where a leg stands.</summary>
    /// <param name="number">Number of the leg, from 1.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no such leg.</exception>
    public PinPlace Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(number, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, Pins);
        if (Shape == PackageShape.Row)
            return new PinPlace(number, "bottom", number, Pins, (number - 0.5) / Pins, 1);
        var side = Pins / (Shape == PackageShape.Dual ? 2 : 4);
        var (turn, place) = ((number - 1) / side, (number - 1) % side + 1);
        var along = (place - 0.5) / side;
        return (Shape, turn) switch
        {
            (_, 0) => new PinPlace(number, "left", place, side, 0, along),
            (PackageShape.Dual, _) or (_, 2) => new PinPlace(number, "right", place, side, 1, 1 - along),
            (_, 1) => new PinPlace(number, "bottom", place, side, along, 1),
            _ => new PinPlace(number, "top", place, side, 1 - along, 0),
        };
    }

    /// <summary>A leg in words, counted from the nearer end.</summary>
    /// <param name="number">Number of the leg.</param>
    /// <param name="below">True when the board is seen from below.</param>
    public string Words(int number, bool below)
    {
        var pin = Of(number);
        if (Shape == PackageShape.Row)
            return pin.Place <= (Pins + 1) / 2
                ? $"{Nth(pin.Place)} from the {(below ? "right" : "left")}, where the mark is"
                : $"{Nth(Pins - pin.Place + 1)} from the {(below ? "left" : "right")}, away from the mark";
        var side = (pin.Side, below) switch
        {
            ("left", true) => "right",
            ("right", true) => "left",
            var (same, _) => same,
        };
        var (start, end) = pin.Side switch
        {
            "left" => ("top", "bottom"),
            "bottom" => below ? ("right", "left") : ("left", "right"),
            "right" => ("bottom", "top"),
            _ => below ? ("left", "right") : ("right", "left"),
        };
        return pin.Place <= (pin.OnSide + 1) / 2
            ? $"{side} side, {Nth(pin.Place)} from the {start}"
            : $"{side} side, {Nth(pin.OnSide - pin.Place + 1)} from the {end}";
    }

    private static string Nth(int n) =>
        (n % 100 is >= 11 and <= 13 ? 0 : n % 10) switch
        {
            1 => $"{n}st",
            2 => $"{n}nd",
            3 => $"{n}rd",
            _ => $"{n}th",
        };
}
