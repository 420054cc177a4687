using System.Text;
using QRCoder;

namespace Mendro.Web.Drawing;

/// <summary>QR codes (ISO/IEC 18004) as SVG: dark modules in one path, with the quiet zone of four modules that scanners need.</summary>
internal static class QrDrawing
{
    private const int Quiet = 4;

    /// <summary>What stands in the code of a job: short, so that its modules stay large, and understood by the search.</summary>
    public static string TextOf(string tag) => $"MENDRO-{tag}";

    /// <summary>Draws a text.</summary>
    public static string Draw(string text)
    {
        using var data = QRCodeGenerator.GenerateQrCode(text, QRCodeGenerator.ECCLevel.M);
        // The matrix has a quiet zone of its own; it is drawn as it stands.
        var modules = data.ModuleMatrix;
        var size = modules.Count;
        var quiet = Math.Max(0, Quiet - QuietOf(modules));
        var path = new StringBuilder();
        for (var y = 0; y < size; y++)
        for (var x = 0; x < size; x++)
            if (modules[y][x])
                path.Append(FormattableString.Invariant($"M{x + quiet} {y + quiet}h1v1h-1z"));
        var whole = size + 2 * quiet;
        return $"<svg class=\"qr\" viewBox=\"0 0 {whole} {whole}\" role=\"img\" aria-label=\"QR code: {System.Net.WebUtility.HtmlEncode(text)}\">"
            + $"<rect width=\"{whole}\" height=\"{whole}\" fill=\"#fff\"/><path d=\"{path}\" fill=\"#000\"/></svg>";
    }

    private static int QuietOf(List<System.Collections.BitArray> modules)
    {
        for (var n = 0; n < modules.Count; n++)
            if (modules[n].HasAnySet())
                return n;
        return 0;
    }
}
