using System.Diagnostics;
using System.Net;
using System.Text.RegularExpressions;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Tokens;
using ZXing;
using ZXing.Common;
using ZXing.QrCode;

namespace Mendro.Web.Tests;

/// <summary>Papers and labels: as a browser prints them, and the codes as an independent reader sees them.</summary>
public sealed partial class PaperPagesTests : IDisposable
{
    private readonly string _folder = Path.Combine(Path.GetTempPath(), "mendro-papers-" + Guid.NewGuid().ToString("N"));

    public PaperPagesTests() => Directory.CreateDirectory(_folder);

    public void Dispose() => Directory.Delete(_folder, true);

    [GeneratedRegex("M(\\d+) (\\d+)h1v1h-1z")]
    private static partial Regex Module();

    [Fact]
    public async Task Papers_fit_the_page_with_nothing_cut_and_their_fonts_in_them()
    {
        using var server = await RealServer.Open(
            Path.Combine(_folder, "shop"),
            null,
            "--demo",
            "true",
            "--contentRoot",
            Path.Combine(ArchitectureTests.Root(), "src", "Mendro.Web")
        );
        string[] paths =
        [
            "/Jobs/133/Sheet",
            "/Jobs/133/Sheet?kind=Sale",
            "/Jobs/128/Sheet?kind=Test",
            "/Jobs/123/Trays?all=true",
            "/Labels?jobs=101-140",
            "/Labels?jobs=133,134&paper=roll",
        ];
        await Print("A4,Letter", [.. paths.Select(p => server.Address + p)]);
        Fit(paths, "A4", 595, 842);
        Fit(paths, "Letter", 612, 792);
    }

    private void Fit(string[] paths, string format, int width, int height)
    {
        foreach (var (n, path) in paths.Index())
        {
            using var pdf = PdfDocument.Open(Path.Combine(_folder, $"{format}-{n}.pdf"));
            var pages = pdf.GetPages().ToList();
            var labels = path.StartsWith("/Labels", StringComparison.Ordinal);
            var roll = path.Contains("roll", StringComparison.Ordinal);
            foreach (var page in pages)
            {
                // Labels name their paper; 72 points an inch.
                var (w, h) = roll ? (62 / 25.4 * 72, 37 / 25.4 * 72) : labels ? (595, 842) : (width, (double)height);
                page.Width.ShouldBe(w, 1.5, path);
                page.Height.ShouldBe(h, 1.5, path);
                foreach (var letter in page.Letters.Where(l => !string.IsNullOrWhiteSpace(l.Value)))
                {
                    letter.BoundingBox.Left.ShouldBeGreaterThanOrEqualTo(0, path);
                    letter.BoundingBox.Right.ShouldBeLessThanOrEqualTo(page.Width, $"{path}: {letter.Value}");
                    letter.BoundingBox.Bottom.ShouldBeGreaterThanOrEqualTo(0, path);
                    letter.BoundingBox.Top.ShouldBeLessThanOrEqualTo(page.Height, path);
                }

                page.Letters.ShouldNotBeEmpty(path);
            }

            Embedded(pdf).ShouldBeTrue(path);
            var text = string.Concat(pages.Select(p => p.Text)).Replace(" ", "", StringComparison.Ordinal);
            // What is only for the screen is not on paper.
            text.ShouldNotContain("Tothebench");
            text.ShouldContain(path.Contains("123") ? "123" : path.Contains("128") ? "128" : "133", Case.Sensitive, path);
            if (roll)
                pages.Count.ShouldBe(2);
            else if (labels)
                pages.Count.ShouldBe(2);
            else
                pages.Count.ShouldBeInRange(1, 3, path);
        }
    }

    [Fact]
    public async Task The_code_of_a_label_is_read_by_a_scanner_and_the_search_knows_what_it_reads()
    {
        using var shop = new WebShop();
        var number = await shop.TakeIn();
        var page = await shop.Page($"/Labels?jobs={number}, 9999");
        page.QuerySelector(".notice.wrong")!.TextContent.ShouldContain("9999");
        var svg = page.QuerySelector("svg.qr")!;
        var size = int.Parse(svg.GetAttribute("viewBox")!.Split(' ')[2], System.Globalization.CultureInfo.InvariantCulture);
        const int Scale = 6;
        var light = Enumerable.Repeat((byte)255, size * Scale * size * Scale).ToArray();
        foreach (Match m in Module().Matches(svg.QuerySelector("path")!.GetAttribute("d")!))
        {
            var (x, y) = (Whole(m.Groups[1].Value), Whole(m.Groups[2].Value));
            for (var dy = 0; dy < Scale; dy++)
            for (var dx = 0; dx < Scale; dx++)
                light[(y * Scale + dy) * size * Scale + x * Scale + dx] = 0;
        }

        var source = new RGBLuminanceSource(light, size * Scale, size * Scale, RGBLuminanceSource.BitmapFormat.Gray8);
        var read = new QRCodeReader().decode(new BinaryBitmap(new HybridBinarizer(source)), new Dictionary<DecodeHintType, object>());
        read.ShouldNotBeNull().Text.ShouldBe($"MENDRO-{number}");
        (await shop.Page($"/Jobs?q={read.Text}")).Body!.TextContent.ShouldContain("Harrow Quartet");
    }

    [Fact]
    public async Task A_paper_comes_as_text_to_paste()
    {
        using var shop = new WebShop();
        var number = await shop.TakeIn();
        using var answer = await shop.Client.GetAsync(
            $"/Jobs/{number}/Sheet?kind=Test&handler=Text",
            TestContext.Current.CancellationToken
        );
        answer.Content.Headers.ContentType!.ToString().ShouldBe("text/plain; charset=utf-8");
        (await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldStartWith($"Test record {number} ");
        (await shop.Client.GetAsync("/Jobs/4711/Sheet?handler=Text", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
    }

    private static int Whole(string text) => int.Parse(text, System.Globalization.CultureInfo.InvariantCulture);

    private async Task Print(string formats, IReadOnlyList<string> addresses)
    {
        var start = new ProcessStartInfo("node", [Path.Combine("e2e", "pdf.mjs"), _folder, formats, .. addresses])
        {
            WorkingDirectory = ArchitectureTests.Root(),
            RedirectStandardError = true,
        };
        using var node = Process.Start(start)!;
        var wrong = await node.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        await node.WaitForExitAsync(TestContext.Current.CancellationToken);
        node.ExitCode.ShouldBe(0, wrong);
    }

    // Every font has its outlines in the file (ISO 32000-1, 9.5 and 9.9): drawn glyphs of its own, or a font program; one that were only
    // named would be replaced by the printer's.
    private static bool Embedded(PdfDocument pdf)
    {
        var fonts = 0;
        foreach (var at in pdf.Structure.CrossReferenceTable.ObjectOffsets.Keys)
        {
            if (
                pdf.Structure.GetObject(at).Data is not DictionaryToken font
                || !font.TryGet(NameToken.Type, out NameToken type)
                || type.Data != "Font"
                || !font.TryGet(NameToken.Subtype, out NameToken kind)
                || kind.Data == "Type0"
            )
                continue;
            fonts++;
            if (kind.Data == "Type3" ? !font.ContainsKey(NameToken.CharProcs) : !HasProgram(pdf, font))
                return false;
        }

        return fonts > 0;
    }

    private static bool HasProgram(PdfDocument pdf, DictionaryToken font) =>
        font.TryGet(NameToken.FontDescriptor, out IToken told)
        && (told is IndirectReferenceToken there ? pdf.Structure.GetObject(there.Data).Data : told) is DictionaryToken descriptor
        && descriptor.Data.Keys.Any(k => k.StartsWith("FontFile", StringComparison.Ordinal));
}
