using System.Net;
using System.Text;
using AngleSharp.Html.Dom;
using Mendro.Core.Jobs;
using Mendro.Pictures;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>Pictures through the pages: sent, shown, marked, measured, refused.</summary>
public sealed class PicturePagesTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    private async Task<HttpResponseMessage> Send(long number, params (string Name, byte[] File)[] files)
    {
        var path = $"/Jobs/{number}/Pictures";
        var token = (await _shop.Page(path)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var content = new MultipartFormDataContent { { new StringContent("before"), "side" }, { new StringContent("as it came"), "caption" } };
        foreach (var (name, file) in files)
            content.Add(new ByteArrayContent(file), "files", name);
        using var request = new HttpRequestMessage(HttpMethod.Post, path + "?handler=Take") { Content = content };
        request.Headers.Add("X-Mendro-Antiforgery", token);
        return await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
    }

    private IReadOnlyList<UnitPicture> Of(long number) => _shop.Service<PictureStore>().Of(_shop.Jobs.Find(number)!.Id);

    [Fact]
    public async Task A_picture_larger_than_any_other_form_is_taken_shown_marked_and_measured()
    {
        var number = await _shop.TakeIn();
        // Noise behind the end of a JPEG makes the file large without making the picture so: more than the two megabytes of other forms.
        byte[] large = [.. StandInCamera.Shell(0.8, 3), .. new byte[3 * 1024 * 1024]];
        using (var sent = await Send(number, ("IMG_1.jpg", large)))
            sent.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var picture = Of(number).Single();
        picture.Bytes.ShouldBeLessThan(1024 * 1024);
        var page = await _shop.Page($"/Jobs/{number}/Pictures");
        page.QuerySelector("svg.picture image")!.GetAttribute("href").ShouldBe($"/Pictures/{picture.Hash}");
        using (var file = await _shop.Client.GetAsync($"/Pictures/{picture.Hash}", TestContext.Current.CancellationToken))
        {
            file.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");
            file.Headers.CacheControl!.NoStore.ShouldBeTrue();
        }

        var at = $"/Jobs/{number}/Pictures";
        using (
            var marked = await _shop.Post(
                at,
                at + "?handler=Mark",
                false,
                ("id", $"{picture.Id}"),
                ("shape", "Ring"),
                ("x", "0.4"),
                ("y", "0.3"),
                ("text", "<b>crack</b>")
            )
        )
            marked.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await _shop.Page(at)).QuerySelector("svg.picture text")!.TextContent.ShouldBe("<b>crack</b>");
        using (
            var measured = await _shop.Post(
                at,
                at + "?handler=Measure",
                false,
                ("id", $"{picture.Id}"),
                ("inside", "0.7 0.85"),
                ("outside", "0.22 0.4"),
                ("card", "0.86 0.5")
            )
        )
            measured.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(number).All<ColourMeasured>().Single().Body.DeltaE.ShouldBeGreaterThan(10);
        // On the sheet that goes to the owner, with its marks.
        (await _shop.Page($"/Jobs/{number}/Sheet")).QuerySelectorAll(".sheet-pictures svg").Length.ShouldBe(1);
    }

    [Fact]
    public async Task What_is_no_picture_is_told_by_its_name_and_the_good_ones_are_taken()
    {
        var number = await _shop.TakeIn();
        var svg = Encoding.UTF8.GetBytes("<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>");
        using var sent = await Send(number, ("one.jpg", StandInCamera.Shell(0.2, 1)), ("evil.jpg", svg));
        sent.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(sent);
        page.QuerySelector(".notice.wrong")!.TextContent.ShouldBe("1 taken. evil.jpg: This is no JPEG, PNG or WebP picture.");
        Of(number).Count.ShouldBe(1);
    }

    [Theory]
    [InlineData("/Pictures/..%2f..%2fshop.db")]
    [InlineData("/Pictures/0000000000000000000000000000000000000000000000000000000000000000")]
    [InlineData("/Pictures/x")]
    public async Task Only_pictures_are_given_out(string path)
    {
        using var answer = await _shop.Client.GetAsync(path, TestContext.Current.CancellationToken);
        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Other_forms_still_take_two_megabytes()
    {
        var number = await _shop.TakeIn();
        using var content = new ByteArrayContent(new byte[3 * 1024 * 1024]);
        content.Headers.ContentType = new("application/x-www-form-urlencoded");
        using var sent = await _shop.Client.PostAsync($"/Jobs/{number}/HandOver", content, TestContext.Current.CancellationToken);
        sent.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }
}
