namespace Mendro.Pictures;

/// <summary>What a file is, by its first bytes; its name and what the browser says of it count for nothing.</summary>
internal enum PictureKind
{
    None,
    Jpeg,
    Png,
    WebP,
    Heic,
}

internal static class PictureKinds
{
    private static readonly string[] HeicBrands = ["heic", "heix", "hevc", "hevx", "heim", "heis", "mif1", "msf1", "avif", "avis"];

    /// <summary>Tells the kind (ISO 10918-1, PNG 3rd edition, RFC 9649, ISO 14496-12).</summary>
    public static PictureKind Of(ReadOnlySpan<byte> file)
    {
        if (file.Length < 16)
            return PictureKind.None;
        if (file[..3].SequenceEqual((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]))
            return PictureKind.Jpeg;
        if (file[..8].SequenceEqual((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]))
            return PictureKind.Png;
        if (file[..4].SequenceEqual("RIFF"u8) && file[8..12].SequenceEqual("WEBP"u8))
            return PictureKind.WebP;
        if (file[4..8].SequenceEqual("ftyp"u8) && HeicBrands.Contains(System.Text.Encoding.ASCII.GetString(file[8..12])))
            return PictureKind.Heic;
        return PictureKind.None;
    }
}
