using System.Buffers.Binary;
using SkiaSharp;

namespace Mendro.Tests.Shared;

/// <summary>Photos as phones make them, with what phones write into them.</summary>
internal static class TestPhoto
{
    /// <summary>Upright, it is 30 wide and 20 high, with a red quarter left above and a blue one right below, on grey.</summary>
    public static SKBitmap Upright()
    {
        var bitmap = new SKBitmap(30, 20);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.Gray);
        using var red = new SKPaint { Color = SKColors.Red };
        using var blue = new SKPaint { Color = SKColors.Blue };
        canvas.DrawRect(0, 0, 15, 10, red);
        canvas.DrawRect(15, 10, 15, 10, blue);
        return bitmap;
    }

    /// <summary>As its rows lie in the file when the camera was held a certain way (Exif 2.32, tag 274), 1 to 8.</summary>
    public static byte[] Held(int orientation, SKEncodedImageFormat format = SKEncodedImageFormat.Jpeg)
    {
        using var upright = Upright();
        var turned = orientation >= 5;
        using var rows = new SKBitmap(turned ? upright.Height : upright.Width, turned ? upright.Width : upright.Height);
        for (var y = 0; y < rows.Height; y++)
        for (var x = 0; x < rows.Width; x++)
        {
            // Row 0 and column 0 of the file are, by the standard: top and left (1), top and right (2), bottom and right (3) …
            var (ux, uy) = orientation switch
            {
                1 => (x, y),
                2 => (upright.Width - 1 - x, y),
                3 => (upright.Width - 1 - x, upright.Height - 1 - y),
                4 => (x, upright.Height - 1 - y),
                5 => (y, x),
                6 => (upright.Width - 1 - y, x),
                7 => (upright.Width - 1 - y, upright.Height - 1 - x),
                _ => (y, upright.Height - 1 - x),
            };
            rows.SetPixel(x, y, upright.GetPixel(ux, uy));
        }

        using var data = rows.Encode(format, 100);
        return format == SKEncodedImageFormat.Jpeg ? WithExif(data.ToArray(), orientation) : data.ToArray();
    }

    /// <summary>Writes an Exif block behind the first marker: orientation, the camera's maker, and where it was taken.</summary>
    public static byte[] WithExif(byte[] jpeg, int orientation)
    {
        byte[] tiff = Tiff(orientation);
        byte[] body = [.. "Exif\0\0"u8, .. tiff];
        var head = new byte[4];
        (head[0], head[1]) = (0xFF, 0xE1);
        BinaryPrimitives.WriteUInt16BigEndian(head.AsSpan(2), (ushort)(body.Length + 2));
        return [.. jpeg[..2], .. head, .. body, .. jpeg[2..]];
    }

    private static byte[] Tiff(int orientation)
    {
        using var stream = new MemoryStream();
        using var w = new BinaryWriter(stream);
        w.Write("II"u8);
        w.Write((ushort)42);
        w.Write(8u);
        // Three entries: maker, orientation, pointer to the position.
        w.Write((ushort)3);
        Entry(w, 0x010F, 2, 12, 8 + 2 + 36 + 4);
        Entry(w, 0x0112, 3, 1, (uint)orientation);
        Entry(w, 0x8825, 4, 1, 8 + 2 + 36 + 4 + 12);
        w.Write(0u);
        w.Write("Camera Works"u8);
        w.Write((ushort)2);
        Entry(w, 0x0001, 2, 2, 'N');
        Entry(w, 0x0002, 5, 3, 8 + 2 + 36 + 4 + 12 + 2 + 24 + 4);
        w.Write(0u);
        foreach (var (number, of) in ((uint, uint)[])[(48, 1), (12, 1), (30, 1)])
        {
            w.Write(number);
            w.Write(of);
        }

        return stream.ToArray();
    }

    private static void Entry(BinaryWriter w, ushort tag, ushort type, uint count, uint value)
    {
        w.Write(tag);
        w.Write(type);
        w.Write(count);
        w.Write(value);
    }
}
