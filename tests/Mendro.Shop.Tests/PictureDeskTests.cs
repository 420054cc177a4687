using System.Text;
using Mendro.Core.Jobs;
using Mendro.Core.Pictures;
using Mendro.Pictures;
using Mendro.Storage;
using Mendro.Tests.Shared;

namespace Mendro.Shop.Tests;

/// <summary>Pictures: upright, clean, bounded; marked and measured.</summary>
public sealed class PictureDeskTests : IDisposable
{
    private static readonly PictureWords Plain = new("", "", "");

    private readonly TestShop _shop = new();
    private readonly long _number;

    public PictureDeskTests() => _number = _shop.TakeIn("harrow-quartet", fails: "start-up");

    public void Dispose() => _shop.Dispose();

    private IReadOnlyList<UnitPicture> Rows => _shop.PictureRows.Of(_shop.Jobs.Find(_number)!.Id);

    private int Files => System.IO.Directory.Exists(Path.Combine(_shop.Folder, "pictures"))
        ? System.IO.Directory.GetFiles(Path.Combine(_shop.Folder, "pictures"), "*", SearchOption.AllDirectories).Length
        : 0;

    public static TheoryData<string, byte[], string> Bad =>
        new()
        {
            { "cut short", TestPhoto.Held(1)[..^60], "cut short" },
            { "no picture", Encoding.UTF8.GetBytes("this is a letter to the shop, and long enough"), "no JPEG, PNG or WebP" },
            { "SVG with script", Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>"), "no JPEG" },
            { "zip", [0x50, 0x4B, 3, 4, 20, 0, 0, 0, 8, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0], "no JPEG" },
            { "HEIC", [0, 0, 0, 24, .. "ftypheic"u8, 0, 0, 0, 0, .. "mif1heic"u8], "HEIC" },
            { "empty", [], "no JPEG" },
            { "bomb", Bomb(), "million pixels" },
            { "broken head", [0xFF, 0xD8, 0xFF, .. new byte[60]], "broken" },
        };

    [Theory]
    [MemberData(nameof(Bad))]
    public void What_is_no_picture_or_too_much_of_one_is_refused_and_nothing_is_stored(string what, byte[] file, string why)
    {
        _shop.Pictures.Take(_number, file, Plain).Refusal.ShouldNotBeNull(what).Problem.ShouldContain(why);
        Rows.ShouldBeEmpty();
        Files.ShouldBe(0);
    }

    [Fact]
    public void A_picture_is_kept_by_its_hash_once_marked_taken_away_and_brought_back()
    {
        var id = _shop.Pictures.Take(_number, TestPhoto.Held(1), new PictureWords("condition", "before", "as it came")).Done!.Id;
        _shop.Pictures.Take(_number, TestPhoto.Held(1), Plain).Done.ShouldNotBeNull();
        // Two rows, one file and its small one.
        Rows.Count.ShouldBe(2);
        Files.ShouldBe(2);
        _shop.Pictures.Take(_number, TestPhoto.Held(1), new PictureWords("moon", "", "")).Refusal.ShouldNotBeNull();
        _shop.Pictures.Mark(_number, id, new PictureMark(MarkShape.Ring, 0.5, 1.2)).Refusal.ShouldNotBeNull();
        _shop.Pictures.Mark(_number, id, new PictureMark(MarkShape.Ring, 0.5, 0.2, Text: "crack")).Done.ShouldNotBeNull();
        _shop.Pictures.Mark(_number, id, new PictureMark(MarkShape.Number, 0.1, 0.2)).Done.ShouldNotBeNull();
        _shop.Pictures.Unmark(_number, id, 0).Done.ShouldNotBeNull();
        Rows[0].Drawn.ShouldBe([new PictureMark(MarkShape.Number, 0.1, 0.2)]);
        _shop.Pictures.Remove(_number, id, back: false).Done.ShouldNotBeNull();
        Rows.Count.ShouldBe(1);
        _shop.Pictures.Remove(_number, id, back: true).Done.ShouldNotBeNull();
        Rows[0].Caption.ShouldBe("as it came");
    }

    [Fact]
    public void Yellowing_is_measured_in_the_picture_and_less_after_the_treatment()
    {
        var before = _shop.Pictures.Take(_number, StandInCamera.Shell(0.9, 1), Plain).Done!.Id;
        var after = _shop.Pictures.Take(_number, StandInCamera.Shell(0.1, 1), Plain).Done!.Id;
        ColourMeasured Measured(long id, (double, double)? card)
        {
            _shop.Pictures.Measure(_number, id, (0.7, 0.85), (0.22, 0.4), card).Done.ShouldNotBeNull();
            return _shop.View(_number).All<ColourMeasured>().Last().Body;
        }

        (double, double) card = (0.86, 0.5);
        var (yellow, cured) = (Measured(before, card), Measured(after, card));
        yellow.DeltaE.ShouldBeGreaterThan(15);
        cured.DeltaE.ShouldBeLessThan(6);
        // Under the card the inside is a neutral plastic again, though the lamp was warm.
        yellow.Inside[2].ShouldBeInRange(-4, 6);
        Measured(before, null).Inside[2].ShouldBeGreaterThan(8);
        _shop.Pictures.Measure(_number, before, (1.5, 0), (0, 0), null).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void A_backup_holds_the_pictures_and_brings_them_back()
    {
        _shop.Pictures.Take(_number, TestPhoto.Held(1), Plain).Done.ShouldNotBeNull();
        var file = Path.Combine(_shop.Folder, "backups", "one.mendro");
        ShopBackup.Write(_shop.Folder, file, _shop.Time.GetUtcNow()).Files.ShouldContain(f => f.Name.StartsWith("pictures/"));
        var other = Path.Combine(_shop.Folder, "backups", "other");
        ShopBackup.Restore(file, other, _shop.Time.GetUtcNow());
        new PictureFiles(other).Read(Rows[0].Hash).ShouldBe(_shop.PictureFiles.Read(Rows[0].Hash));
    }

    // A PNG whose head says 50,000 × 50,000; the checksum of the head is right, so that it is its size that is refused.
    private static byte[] Bomb()
    {
        byte[] head = [.. "IHDR"u8, 0, 0, 0xC3, 0x50, 0, 0, 0xC3, 0x50, 8, 2, 0, 0, 0];
        byte[] sum = [0xC4, 0xCD, 0xAA, 0x9D];
        return [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 0, 0, 0, 13, .. head, .. sum, 0, 0, 0, 0, .. "IDAT"u8, 0x35, 0xAF, 0x06, 0x1E];
    }
}
