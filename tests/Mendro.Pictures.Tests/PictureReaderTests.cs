using System.Text;
using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using Mendro.Tests.Shared;
using SkiaSharp;

namespace Mendro.Pictures.Tests;

/// <summary>Pictures as they come: upright, clean, bounded.</summary>
public sealed class PictureReaderTests
{
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    public void However_the_camera_was_held_the_picture_stands_upright(int orientation)
    {
        var read = PictureReader.Read(TestPhoto.Held(orientation)).Value!;
        (read.Width, read.Height).ShouldBe((30, 20));
        using var bitmap = SKBitmap.Decode(read.Jpeg);
        var (red, blue, grey) = (bitmap.GetPixel(6, 4), bitmap.GetPixel(24, 15), bitmap.GetPixel(24, 4));
        ((int)red.Red).ShouldBeGreaterThan(200);
        ((int)red.Blue).ShouldBeLessThan(60);
        ((int)blue.Blue).ShouldBeGreaterThan(200);
        ((int)blue.Red).ShouldBeLessThan(60);
        ((int)grey.Red).ShouldBeInRange(100, 156);
    }

    [Theory]
    [InlineData(SKEncodedImageFormat.Jpeg)]
    [InlineData(SKEncodedImageFormat.Png)]
    [InlineData(SKEncodedImageFormat.Webp)]
    public void Nothing_but_the_picture_is_kept(SKEncodedImageFormat format)
    {
        var sent = TestPhoto.Held(1, format);
        if (format == SKEncodedImageFormat.Jpeg)
        {
            // What is looked for is there before: the reader of it is independent of ours.
            var before = ImageMetadataReader.ReadMetadata(new MemoryStream(sent));
            before.OfType<GpsDirectory>().Single().GetRationalArray(GpsDirectory.TagLatitude)![0].ToInt32().ShouldBe(48);
            before.OfType<ExifIfd0Directory>().Single().GetDescription(ExifDirectoryBase.TagMake).ShouldBe("Camera Works");
        }

        var kept = PictureReader.Read(sent).Value!;
        foreach (var file in new[] { kept.Jpeg, kept.Small })
        {
            var after = ImageMetadataReader.ReadMetadata(new MemoryStream(file));
            after.ShouldAllBe(d => !(d is ExifDirectoryBase || d is GpsDirectory));
            Encoding.Latin1.GetString(file).ShouldNotContain("Exif");
            Encoding.Latin1.GetString(file).ShouldNotContain("Camera Works");
        }
    }

    [Fact]
    public void A_file_that_is_too_long_is_refused_unread() =>
        PictureReader.Read(new byte[PictureReader.MostBytes + 1]).Problem!.ShouldContain("24 MB");

    [Fact]
    public void A_large_picture_is_scaled_and_a_small_one_stays()
    {
        using var large = new SKBitmap(4000, 1000);
        using var data = large.Encode(SKEncodedImageFormat.Jpeg, 80);
        var kept = PictureReader.Read(data.ToArray()).Value!;
        (kept.Width, kept.Height).ShouldBe((2000, 500));
        using var small = SKBitmap.Decode(kept.Small);
        (small.Width, small.Height).ShouldBe((320, 80));
    }

    // A PNG of many pixels takes little as a file; unpacked whole it would take four bytes each.
    private static byte[] Plain(int width, int height)
    {
        using var bitmap = new SKBitmap(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Opaque));
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(SKColors.White);
            using var red = new SKPaint { Color = SKColors.Red };
            canvas.DrawRect(0, 0, width / 2f, height / 2f, red);
        }

        using var data = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return data.ToArray();
    }

    [Theory]
    [InlineData(6000, 4000)]
    [InlineData(7001, 3003)]
    [InlineData(3000, 8000)]
    public void A_large_picture_that_is_unpacked_by_rows_is_the_same_picture(int width, int height)
    {
        var read = PictureReader.Read(Plain(width, height)).Value!;
        Math.Max(read.Width, read.Height).ShouldBe(PictureReader.LongestSide);
        ((double)read.Width / read.Height).ShouldBe((double)width / height, 0.003 * width / height);
        using var bitmap = SKBitmap.Decode(read.Jpeg);
        SKColor At(double x, double y) => bitmap.GetPixel((int)(x * bitmap.Width), (int)(y * bitmap.Height));
        ((int)At(0.25, 0.25).Blue).ShouldBeLessThan(40);
        ((int)At(0.48, 0.48).Blue).ShouldBeLessThan(60);
        foreach (var (x, y) in new[] { (0.52, 0.25), (0.25, 0.52), (0.9, 0.9), (0.99, 0.99) })
            ((int)At(x, y).Blue).ShouldBeGreaterThan(200);
    }

    [Fact]
    public void More_than_fifty_million_pixels_are_refused_before_one_is_read()
    {
        var before = GC.GetAllocatedBytesForCurrentThread();
        // The first bytes of a PNG say how large it is; there is nothing behind them.
        byte[] head = [.. Plain(8, 8)];
        (head[18], head[19], head[22], head[23]) = (0x20, 0x00, 0x20, 0x00);
        var refused = PictureReader.Read(head);
        refused.IsOk.ShouldBeFalse();
        (GC.GetAllocatedBytesForCurrentThread() - before).ShouldBeLessThan(1_000_000);
    }
}
