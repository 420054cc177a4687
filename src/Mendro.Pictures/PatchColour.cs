using Mendro.Core.Colours;
using SkiaSharp;

namespace Mendro.Pictures;

/// <summary>Measures colour in a picture: the mean over a small round place, in light and not in numbers of the file.</summary>
public static class PatchColour
{
    /// <summary>Half width of the place, as a share of the longer side: some 30 pixels of a kept picture.</summary>
    public const double Radius = 0.015;

    /// <summary>Light at each place.</summary>
    /// <param name="picture">A picture as Mendro keeps it.</param>
    /// <param name="places">Places, 0 to 1 across and down.</param>
    /// <returns>One light a place, or null when the picture cannot be read.</returns>
    public static IReadOnlyList<LinearLight>? Measure(byte[] picture, IReadOnlyList<(double X, double Y)> places)
    {
        using var bitmap = SKBitmap.Decode(picture);
        if (bitmap is null)
            return null;
        var radius = Math.Max(1, (int)(Radius * Math.Max(bitmap.Width, bitmap.Height)));
        return places.Select(p => Mean(bitmap, (int)(p.X * bitmap.Width), (int)(p.Y * bitmap.Height), radius)).ToList();
    }

    private static LinearLight Mean(SKBitmap bitmap, int x, int y, int radius)
    {
        var (red, green, blue, count) = (0.0, 0.0, 0.0, 0);
        for (var dy = -radius; dy <= radius; dy++)
        for (var dx = -radius; dx <= radius; dx++)
        {
            var (px, py) = (Math.Clamp(x + dx, 0, bitmap.Width - 1), Math.Clamp(y + dy, 0, bitmap.Height - 1));
            if (dx * dx + dy * dy > radius * radius)
                continue;
            var pixel = bitmap.GetPixel(px, py);
            var light = LinearLight.FromSrgb(pixel.Red, pixel.Green, pixel.Blue);
            (red, green, blue, count) = (red + light.Red, green + light.Green, blue + light.Blue, count + 1);
        }

        return new LinearLight(red / count, green / count, blue / count);
    }
}
