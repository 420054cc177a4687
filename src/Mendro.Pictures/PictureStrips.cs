using SkiaSharp;

namespace Mendro.Pictures;

/// <summary>Unpacks a large picture some rows at a time and makes of each square of its pixels one: all of it is never in memory.</summary>
internal static class PictureStrips
{
    private const int BytesOfPixel = 4;

    /// <summary>Reads it, at least as large as is kept.</summary>
    /// <param name="codec">The picture.</param>
    /// <param name="info">As it would be unpacked.</param>
    /// <param name="longest">Longer side of what is kept, pixels.</param>
    /// <returns>Null where it is small enough to be read whole, or of a kind that is not read by rows.</returns>
    public static SKBitmap? Read(SKCodec codec, SKImageInfo info, int longest)
    {
        var by = Math.Max(info.Width, info.Height) / longest;
        if (by < 2 || codec.StartScanlineDecode(info) != SKCodecResult.Success || codec.ScanlineOrder != SKCodecScanlineOrder.TopDown)
            return null;
        var (width, height) = (info.Width / by, info.Height / by);
        if (width < 1 || height < 1)
            return null;
        using var strip = new SKBitmap(info.WithSize(info.Width, by));
        var small = new SKBitmap(info.WithSize(width, height));
        for (var y = 0; y < height; y++)
        {
            if (codec.GetScanlines(strip.GetPixels(), by, strip.RowBytes) != by)
            {
                // Cut short.
                small.Dispose();
                return null;
            }

            Average(strip.GetPixelSpan(), strip.RowBytes, small.GetPixelSpan()[(y * small.RowBytes)..], width, by);
        }

        return small;
    }

    private static void Average(ReadOnlySpan<byte> strip, int stride, Span<byte> to, int width, int by)
    {
        var count = by * by;
        for (var x = 0; x < width; x++)
        for (var channel = 0; channel < BytesOfPixel; channel++)
        {
            var sum = count / 2;
            for (var row = 0; row < by; row++)
            for (var column = 0; column < by; column++)
                sum += strip[row * stride + (x * by + column) * BytesOfPixel + channel];
            to[x * BytesOfPixel + channel] = (byte)(sum / count);
        }
    }
}
