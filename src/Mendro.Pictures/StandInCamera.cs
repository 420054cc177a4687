using SkiaSharp;

namespace Mendro.Pictures;

/// <summary>
/// A camera for the demo shop: it draws an opened shell, its outside as the sun left it and its inside as it was made, with a grey card
/// beside it, under a warm lamp. What it gives goes the same way as a photo of a phone.
/// </summary>
public static class StandInCamera
{
    private const int Width = 1200;
    private const int Height = 800;

    /// <summary>Takes a picture.</summary>
    /// <param name="yellowed">How far the outside has yellowed, 0 not at all to 1 a deep brown.</param>
    /// <param name="seed">Scratches and dust differ by it.</param>
    /// <returns>JPEG.</returns>
    public static byte[] Shell(double yellowed, int seed)
    {
        using var bitmap = new SKBitmap(Width, Height);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(Lamp(92, 88, 80));
        var random = new Random(seed);
        var inside = (206, 205, 200);
        var outside = ((int)(206 - 8 * yellowed), (int)(205 - 30 * yellowed), (int)(200 - 92 * yellowed));
        Half(canvas, 70, outside, front: true);
        Half(canvas, 430, inside, front: false);
        using (var card = new SKPaint { Color = Lamp(118, 118, 118), IsAntialias = true })
            canvas.DrawRect(950, 300, 180, 240, card);
        using var dust = new SKPaint { Color = Lamp(150, 140, 120).WithAlpha(120), IsAntialias = true, StrokeWidth = 2 };
        for (var n = 0; n < 60; n++)
        {
            var (x, y) = (random.Next(Width), random.Next(Height));
            canvas.DrawLine(x, y, x + random.Next(-9, 9), y + random.Next(-9, 9), dust);
        }

        using var data = bitmap.Encode(SKEncodedImageFormat.Jpeg, 92);
        return data.ToArray();
    }

    private static void Half(SKCanvas canvas, float y, (int R, int G, int B) plastic, bool front)
    {
        using var body = new SKPaint { Color = Lamp(plastic.R, plastic.G, plastic.B), IsAntialias = true };
        using var dark = new SKPaint { Color = Lamp(58, 58, 60), IsAntialias = true };
        using var edge = new SKPaint { Color = Lamp(120, 116, 108), IsAntialias = true, Style = SKPaintStyle.Stroke, StrokeWidth = 5 };
        canvas.DrawRoundRect(70, y, 800, 300, 90, 90, body);
        canvas.DrawRoundRect(70, y, 800, 300, 90, 90, edge);
        if (front)
        {
            canvas.DrawRoundRect(320, y + 50, 300, 200, 10, 10, dark);
            canvas.DrawCircle(200, y + 150, 56, dark);
            for (var key = 0; key < 3; key++)
                canvas.DrawRoundRect(700, y + 62 + key * 64, 96, 44, 12, 12, dark);
            return;
        }

        // Posts, ribs and the cut-out of the display.
        canvas.DrawRoundRect(330, y + 60, 280, 180, 8, 8, edge);
        foreach (var (px, py) in ((float, float)[])[(150, 50), (790, 50), (150, 250), (790, 250), (250, 150)])
            canvas.DrawCircle(px, y + py, 16, edge);
        for (var rib = 0; rib < 4; rib++)
            canvas.DrawLine(660, y + 80 + rib * 46, 820, y + 80 + rib * 46, edge);
    }

    // A warm lamp: less blue than daylight.
    private static SKColor Lamp(int r, int g, int b) => new((byte)Math.Min(255, r * 1.04), (byte)(g * 0.98), (byte)(b * 0.86));
}
