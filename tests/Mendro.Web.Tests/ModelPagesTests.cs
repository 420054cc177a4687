using System.IO.Compression;
using System.Net;
using System.Text;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>Pages of a model as a whole: its check, its bench card, merged and split, given away and taken in with many others.</summary>
public sealed class ModelPagesTests(WebShop shop) : IClassFixture<WebShop>
{
    private readonly WebShop _shop = shop;

    private ProfileStore Profiles => _shop.Service<ProfileStore>();

    private static string Own(WebShop shop, string build, string name)
    {
        var profiles = shop.Service<ProfileStore>();
        var made = BuildChoice.Named(profiles.Latest(build)!.Value.Profile, name, profiles.Ids());
        profiles.Save(made);
        return made.Id;
    }

    [Fact]
    public async Task The_check_of_a_model_names_what_is_not_told_apart_and_its_button_mends_it()
    {
        var id = Own(_shop, "build-handheld-six-cell-tube", "Lantern");
        // Without the check that tells cable from board.
        var known = Profiles.Latest(id)!.Value.Profile;
        Profiles.Save(known with { Probes = known.Probes.Where(p => p.Id != "soundplug-beep").ToList() });
        var page = await _shop.Page($"/Models/{id}/Check");
        var line = page.QuerySelectorAll("section[aria-labelledby=alike] li")
            .Single(li => li.TextContent.Contains("Sound cable, broken", StringComparison.Ordinal));
        line.TextContent.ShouldContain("Sound board, chip dead");
        var told = line.QuerySelectorAll("input[name=line]").Select(i => i.GetAttribute("value")!).ToList();
        told.ShouldContain("beep at soundplug");
        using var response = await _shop.Post(
            $"/Models/{id}/Check",
            $"/Models/{id}/Check?handler=Teach",
            false,
            ("line", "beep at soundplug")
        );
        response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Profiles.Latest(id)!.Value.Profile.Probes.ShouldContain(p => p.Id == "soundplug-beep");
        (await _shop.Page($"/Models/{id}/Check"))
            .QuerySelectorAll("section[aria-labelledby=alike] li")
            .ShouldNotContain(li => li.TextContent.Contains("Sound cable, broken", StringComparison.Ordinal));
        using var nonsense = await _shop.Post($"/Models/{id}/Check", $"/Models/{id}/Check?handler=Teach", false, ("line", "gibberish"));
        nonsense.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(nonsense)).QuerySelector("[role=alert]")!.TextContent.ShouldContain("Begin with what is missing");
        // What ships has no buttons.
        (await _shop.Page("/Models/build-console-three-rails/Check"))
            .QuerySelector("input[name=line]")
            .ShouldBeNull();
        (await _shop.Page("/Models/no-such/Check", HttpStatusCode.NotFound)).ShouldNotBeNull();
    }

    [Fact]
    public async Task One_more_check_is_tried_on_practice_units_and_what_it_saves_is_told()
    {
        var id = Own(_shop, "build-picture-cable", "Lead");
        var whole = Profiles.Latest(id)!.Value.Profile;
        Profiles.Save(whole with { Probes = whole.Probes.Where(p => p.Id != "cord-press").ToList() });
        var (path, gains) = ($"/Models/{id}/Check?handler=Gain", _shop.Service<ProbeGainDesk>());
        var version = Profiles.Latest(id)!.Value.Version;
        using (var begun = await _shop.Post($"/Models/{id}/Check", path, true))
            (await WebShop.Parse(begun))
                .QuerySelector("#gain")!
                .ShouldSatisfyAllConditions(
                    g => g.GetAttribute("hx-get").ShouldBe(path),
                    g => g.QuerySelector("progress").ShouldNotBeNull()
                );
        await gains.Start(id, version);
        var done = gains.Of(id, version)!;
        (done.Finished, done.Problem, done.Done).ShouldBe((true, null, done.Total));
        done.Tried.ShouldNotBeEmpty();
        done.Tried.Select(t => t.Gain.MinutesSaved).ShouldBeInOrder(SortDirection.Descending);
        var page = await _shop.Page($"/Models/{id}/Check");
        page.QuerySelectorAll("#gain tbody tr").Length.ShouldBe(done.Tried.Count);
        page.QuerySelector("#gain")!.GetAttribute("hx-get").ShouldBeNull();
        // A model that has changed is measured anew.
        _shop.Service<ModelDesk>().Teach(id, "look at near: whole").Done.ShouldNotBeNull();
        gains.Of(id, version + 1).ShouldBeNull();
    }

    [Fact]
    public async Task A_measurement_can_be_stopped_and_begun_again()
    {
        var id = Own(_shop, "build-console-three-rails", "Long one");
        var (path, version) = ($"/Models/{id}/Check?handler=Gain", Profiles.Latest(id)!.Value.Version);
        var gains = _shop.Service<ProbeGainDesk>();
        var running = gains.Start(id, version);
        using (var stopped = await _shop.Post($"/Models/{id}/Check", path + "&stop=true", true))
            stopped.StatusCode.ShouldBe(HttpStatusCode.OK);
        await running;
        gains.Of(id, version)!.Problem.ShouldBe("It was stopped.");
        (await _shop.Page($"/Models/{id}/Check")).QuerySelector("#gain .btn.first")!.TextContent.ShouldContain("Try them");
        _ = gains.Start(id, version);
        gains.Of(id, version)!.Problem.ShouldBeNull();
        gains.Stop(id, version);
    }

    [Fact]
    public async Task Good_units_offer_limits_and_flag_those_they_break()
    {
        var id = Own(_shop, "build-handheld-four-cell-grey", "Grey");
        var probe = Profiles.Latest(id)!.Value.Profile.Probes.First(p => p is { Kind: ProbeKind.Volts, Expect: { Low: 4.75, High: 5.25 } });
        _shop
            .Service<GoodReadingStore>()
            .Add(new[] { 5.38, 5.40, 5.42 }.Select((v, n) => new GoodReading(id, "", probe.Id.Value, "V", v, $"unit {n}")));
        var offer = (await _shop.Page($"/Models/{id}/Check"))
            .QuerySelectorAll("input[name=line]")
            .Select(i => i.GetAttribute("value")!)
            .Single(l => l.StartsWith("limit", StringComparison.Ordinal));
        // Median 5.4 V, three spreads of 2 % to either side.
        offer.ShouldBe($"limit {probe.Id} 5.08 to 5.72");
        using var taken = await _shop.Post($"/Models/{id}/Check", $"/Models/{id}/Check?handler=Teach", false, ("line", offer));
        taken.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var now = Profiles.Latest(id)!.Value.Profile.FindProbe(probe.Id)!.Expect;
        (now.Low, now.High).ShouldBe((5.08, 5.72));
        (await _shop.Page($"/Models/{id}/Card")).QuerySelector("article")!.TextContent.ShouldContain("5.08–5.72 V");
    }

    [Fact]
    public async Task Two_models_are_made_one_on_their_page_and_it_is_taken_back_there()
    {
        var (one, two) = (Own(_shop, "build-pad-wired", "Pad one"), Own(_shop, "build-pad-wired", "Pad two"));
        Profiles.Save(Profiles.Latest(two)!.Value.Profile with { Note = "softer buttons" });
        var number = await _shop.TakeIn(two);
        var page = await _shop.Page($"/Models/{two}?into={one}");
        page.QuerySelectorAll("table.differences tbody th").Select(t => t.TextContent).ShouldBe(["name", "note"]);
        using var merged = await _shop.Post($"/Models/{two}", $"/Models/{two}?handler=Merge", false, ("into", one), ("take", "note"));
        merged.Headers.Location!.ToString().ShouldBe($"/Models/{one}");
        _shop.Jobs.Find(number)!.ProfileId.ShouldBe(one);
        Profiles
            .Latest(one)!
            .Value.Profile.ShouldSatisfyAllConditions(p => p.Note.ShouldBe("softer buttons"), p => p.Name.ShouldBe("Pad one"));
        // The old address leads on; the list has one of them.
        using (var moved = await _shop.Client.GetAsync($"/Models/{two}", TestContext.Current.CancellationToken))
            moved.Headers.Location!.ToString().ShouldBe($"/Models/{one}");
        var move = (await _shop.Page($"/Models/{one}")).QuerySelector("input[name=move]")!.GetAttribute("value")!;
        using var back = await _shop.Post($"/Models/{one}", $"/Models/{one}?handler=Back", false, ("move", move));
        back.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.Jobs.Find(number)!.ProfileId.ShouldBe(two);
        using var nobody = await _shop.Post($"/Models/{one}", $"/Models/{one}?handler=Merge", false, ("into", "build-pad-wired"));
        nobody.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_unit_on_a_build_is_named_on_its_teaching_page()
    {
        var number = await _shop.TakeIn("build-pad-wired");
        (await _shop.Page($"/Jobs/{number}/Teach")).QuerySelector("input[name=line]").ShouldBeNull();
        using var blank = await _shop.Post($"/Jobs/{number}/Teach", $"/Jobs/{number}/Teach?handler=Own", false, ("name", " "));
        (await WebShop.Parse(blank)).QuerySelector(".field-error")!.TextContent.ShouldContain("name");
        using var named = await _shop.Post($"/Jobs/{number}/Teach", $"/Jobs/{number}/Teach?handler=Own", false, ("name", "Plover pad"));
        named.Headers.Location!.ToString().ShouldBe($"/Jobs/{number}/Teach");
        _shop.Jobs.Find(number)!.ModelName.ShouldBe("Plover pad");
        (await _shop.Page($"/Jobs/{number}/Teach")).QuerySelector("input[name=line]").ShouldNotBeNull();
    }

    [Fact]
    public async Task All_models_go_to_another_shop_in_one_file_with_who_made_them()
    {
        var id = Own(_shop, "build-pad-wired", "Plover pad");
        Profiles.Save(Profiles.Latest(id)!.Value.Profile with { Author = "Ilka Dorn", Licence = "share alike" });
        var bytes = await _shop.Client.GetByteArrayAsync("/Models?handler=All", TestContext.Current.CancellationToken);
        using var other = new WebShop(demo: false, models: false);
        using (var came = await Send(other, bytes))
            (await WebShop.Parse(came)).QuerySelector("[role=status]")!.TextContent.ShouldContain("new models taken in; 0 are as yours");
        var theirs = other.Service<ProfileStore>();
        ProfileJson.Write(theirs.Latest(id)!.Value.Profile).ShouldBe(ProfileJson.Write(Profiles.Latest(id)!.Value.Profile));
        (await other.Page($"/Models/{id}")).Body!.TextContent.ShouldContain("by Ilka Dorn, share alike");
        // A second time, one changed there since: it is shown and not overwritten.
        theirs.Save(theirs.Latest(id)!.Value.Profile with { Note = "own words" });
        using var again = await Send(other, bytes);
        var page = await WebShop.Parse(again);
        page.QuerySelector("[role=status]")!.TextContent.ShouldContain("0 new models taken in");
        page.QuerySelectorAll("[role=status] form").Length.ShouldBe(1);
        theirs.Latest(id)!.Value.Profile.Note.ShouldBe("own words");
    }

    [Theory]
    [InlineData("bomb")]
    [InlineData("many")]
    [InlineData("broken")]
    [InlineData("wrong")]
    [InlineData("empty")]
    public async Task A_hostile_file_of_models_is_refused_and_nothing_of_it_is_kept(string how)
    {
        var good = ProfileJson.Write(TradeLibrary.Shipped.Archetypes[0] with { Id = "fine", Archetype = null });
        var before = Profiles.Ids();
        using var refused = await Send(
            _shop,
            how switch
            {
                "bomb" => Zip(("fine.json", good), ("bomb.json", new string(' ', 40_000_000))),
                "many" => Zip([
                    .. Enumerable
                        .Range(0, 501)
                        .Select(n => ($"{n}.json", good.Replace("\"fine\"", $"\"fine-{n}\"", StringComparison.Ordinal))),
                ]),
                "broken" => Zip(("fine.json", good))[..200],
                "wrong" => Zip(("fine.json", good), ("../../wrong.json", "{\"format\":\"mendro.profile/1\"}")),
                _ => Zip(("read.me", "nothing")),
            }
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(refused)).QuerySelector("[role=alert]").ShouldNotBeNull();
        Profiles.Ids().ShouldBe(before);
    }

    private static byte[] Zip(params (string Name, string Text)[] files)
    {
        using var file = new MemoryStream();
        using (var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, text) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }

        return file.ToArray();
    }

    private static async Task<HttpResponseMessage> Send(WebShop shop, byte[] file)
    {
        var token = (await shop.Page("/Models/Import")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var request = new HttpRequestMessage(HttpMethod.Post, "/Models/Import");
        request.Headers.Add("X-Mendro-Antiforgery", token);
        request.Content = new MultipartFormDataContent { { new ByteArrayContent(file), "file", "models.zip" } };
        return await shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
    }
}
