using System.Security.Cryptography;
using Mendro.Core;
using SkiaSharp;

namespace Mendro.Pictures;

/// <summary>
/// Takes a picture from a phone or a file: tells it by its bytes, refuses what is too large before it is unpacked, turns it upright,
/// scales it down and writes it anew. Position, time, maker and every other word in it are thereby gone.
/// </summary>
public static class PictureReader
{
    /// <summary>Largest file, bytes.</summary>
    public const int MostBytes = 24 * 1024 * 1024;

    /// <summary>Most pixels of a picture: phones send up to 50 million; unpacked they would take four bytes each.</summary>
    public const long MostPixels = 50_000_000;

    /// <summary>Longer side of what is kept, pixels.</summary>
    public const int LongestSide = 2000;

    /// <summary>Longer side in lists, pixels.</summary>
    public const int SmallSide = 320;

    private const int Quality = 86;
    private const int SmallQuality = 78;

    // One at a time: what cannot be unpacked in strips takes up to a fifth of a gigabyte.
    private static readonly Lock One = new();

    /// <summary>Reads a picture.</summary>
    /// <returns>The picture made anew, or why it is not taken.</returns>
    public static Outcome<CleanPicture> Read(byte[] file)
    {
        if (file.Length > MostBytes)
            return Fail($"A picture has at most {MostBytes / 1024 / 1024} MB; this one is larger. Take it smaller, or crop it.");
        switch (PictureKinds.Of(file))
        {
            case PictureKind.Heic:
                return Fail("This is an HEIC or AVIF picture, which not every browser shows. Set the phone to take JPEG, or send it as JPEG.");
            case PictureKind.None:
                return Fail("This is no JPEG, PNG or WebP picture.");
        }

        lock (One)
        {
            using var data = SKData.CreateCopy(file);
            using var codec = SKCodec.Create(data);
            if (codec is null || codec.Info.Width < 1 || codec.Info.Height < 1)
                return Fail("The picture cannot be read: it is broken.");
            if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
                return Fail(
                    FormattableString.Invariant(
                        $"A picture has at most {MostPixels / 1_000_000} million pixels; this one says it has {codec.Info.Width} × {codec.Info.Height}."
                    )
                );
            using var upright = Upright(codec);
            if (upright is null)
                return Fail("The picture is cut short or broken: send it again.");
            using var kept = Scaled(upright, LongestSide);
            using var small = Scaled(upright, SmallSide);
            var jpeg = Jpeg(kept, Quality);
            return Outcome<CleanPicture>.Ok(
                new CleanPicture(jpeg, Jpeg(small, SmallQuality), kept.Width, kept.Height, Convert.ToHexStringLower(SHA256.HashData(jpeg)))
            );
        }
    }

    private static SKBitmap? Upright(SKCodec codec)
    {
        // A JPEG is unpacked at the size that is kept, or the next larger one: a large photo takes a fraction of the memory.
        var scale = Math.Min(1f, (float)LongestSide / Math.Max(codec.Info.Width, codec.Info.Height));
        var size = codec.GetScaledDimensions(scale);
        using var srgb = SKColorSpace.CreateSrgb();
        var info = new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Premul, srgb);
        using var read = PictureStrips.Read(codec, info, LongestSide) ?? Whole(codec, info);
        if (read is null)
            return null;
        var turned = codec.EncodedOrigin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom
            or SKEncodedOrigin.LeftBottom;
        var upright = new SKBitmap(
            new SKImageInfo(
                turned ? read.Height : read.Width,
                turned ? read.Width : read.Height,
                SKColorType.Rgba8888,
                SKAlphaType.Opaque,
                srgb
            )
        );
        using var canvas = new SKCanvas(upright);
        // What a PNG leaves clear is paper.
        canvas.Clear(SKColors.White);
        canvas.SetMatrix(Turn(codec.EncodedOrigin, read.Width, read.Height));
        canvas.DrawBitmap(read, 0, 0, new SKSamplingOptions(SKFilterMode.Nearest));
        return upright;
    }

    // Scaled before it is turned: the large one is there once and no longer than it must.
    private static SKBitmap? Whole(SKCodec codec, SKImageInfo info)
    {
        var whole = new SKBitmap(info);
        if (codec.GetPixels(info, whole.GetPixels()) != SKCodecResult.Success)
        {
            whole.Dispose();
            return null;
        }

        if (Math.Max(info.Width, info.Height) <= 2 * LongestSide)
            return whole;
        using (whole)
            return Scaled(whole, LongestSide);
    }

    /// <summary>The eight ways in which a camera may hold a picture (Exif 2.32, tag 274): from its rows to how it stands upright.</summary>
    private static SKMatrix Turn(SKEncodedOrigin origin, int width, int height) =>
        origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, width, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, width, 0, -1, height, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, height, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, height, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, height, -1, 0, width, 0, 0, 1),
            SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, width, 0, 0, 1),
            _ => SKMatrix.Identity,
        };

    private static SKBitmap Scaled(SKBitmap from, int longest)
    {
        var scale = Math.Min(1.0, (double)longest / Math.Max(from.Width, from.Height));
        var to = new SKBitmap(
            from.Info.WithSize(Math.Max(1, (int)Math.Round(from.Width * scale)), Math.Max(1, (int)Math.Round(from.Height * scale)))
        );
        from.ScalePixels(to, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        return to;
    }

    private static byte[] Jpeg(SKBitmap bitmap, int quality)
    {
        using var data = bitmap.Encode(SKEncodedImageFormat.Jpeg, quality);
        return data.ToArray();
    }

    private static Outcome<CleanPicture> Fail(string why) => Outcome<CleanPicture>.Fail(why);
}
