using System.Net;
using Mendro.Core;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Profiles;

namespace Mendro.Web.Tests;

/// <summary>The reading bar everywhere, calculators, known-good readings and the contact map, through the pages.</summary>
public sealed class ReadingPagesTests : IDisposable
{
    // Its own for each test: these ask for what is in the shop as a whole.
    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public async Task The_bar_stands_where_there_is_something_to_read_and_files_where_it_stands()
    {
        var number = await _shop.TakeIn();
        foreach (var page in new[] { "Fix", "Why", "Swaps", "Compare", "Supply" })
            (await _shop.Page($"/Jobs/{number}/{page}"))
                .QuerySelector("#bar")!
                .GetAttribute("hx-get")
                .ShouldBe($"/Jobs/{number}/Bar?handler=Board{(page == "Compare" ? "&select=walk:every" : "")}", page);
        foreach (var page in new[] { "Intake", "HandOver", "Timeline" })
            (await _shop.Page($"/Jobs/{number}/{page}")).QuerySelector("#bar").ShouldBeNull(page);
        // Prove has its list; the bar comes when a reading is wanted.
        var prove = await _shop.Page($"/Jobs/{number}/Prove");
        prove.QuerySelector("#bar")!.HasAttribute("hx-get").ShouldBeFalse();
        prove.QuerySelector("[hx-target='#bar']")!.GetAttribute("hx-get").ShouldBe($"/Jobs/{number}/Bar?handler=Board&select=walk:every");
        using var bar = await _shop.Post(
            $"/Jobs/{number}/Prove",
            $"/Jobs/{number}/Bar?handler=Reading",
            true,
            ("probe", "tp3"),
            ("text", "6,2 V")
        );
        var sent = await WebShop.Parse(bar);
        sent.QuerySelector(".bar-said")!.TextContent.ShouldContain("Fuse, far side: 6.2 V, as expected");
        sent.QuerySelector(".bar-said")!.TextContent.ShouldContain("1.55 V a cell, full");
        sent.QuerySelector(".reading-bar")!.GetAttribute("data-select").ShouldNotBe("probe:tp3");
        sent.QuerySelector("#undo").ShouldNotBeNull();
        using var undone = await WebShop.Parse(await _shop.Post($"/Jobs/{number}/Prove", $"/Jobs/{number}/Bar?handler=Undo", true));
        undone.QuerySelector(".bar-said")!.TextContent.ShouldContain("Taken back");
        _shop.View(number).Records.ShouldNotContain(r => r.Body is ProbeReading);
    }

    [Theory]
    [InlineData("4k7")]
    [InlineData("4k7 ohm")]
    public async Task A_refused_reading_stays_typed_and_says_why(string typed)
    {
        var number = await _shop.TakeIn();
        using var bar = await _shop.Post(
            $"/Jobs/{number}/Fix",
            $"/Jobs/{number}/Bar?handler=Reading",
            true,
            ("probe", "tp3"),
            ("text", typed)
        );
        bar.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var sent = await WebShop.Parse(bar);
        sent.QuerySelector(".entry")!.GetAttribute("value").ShouldBe(typed);
        sent.QuerySelector("#verdict")!.TextContent.ShouldContain("wants volts");
    }

    [Fact]
    public async Task A_reading_that_is_a_reason_to_stop_shows_its_card_until_a_later_one_is_good()
    {
        var number = await _shop.TakeIn();
        using (
            await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", true, ("probe", "rail-ohms"), ("text", "beep"))
        ) { }
        (await _shop.Page($"/Jobs/{number}/Find"))
            .QuerySelectorAll(".caution.stop")
            .ShouldContain(c => c.TextContent.Contains("Short on the supply", StringComparison.Ordinal));
        // A short stands: what needs power says so, what does not is left alone.
        var warned = (await _shop.Page($"/Jobs/{number}/Find"))
            .QuerySelectorAll(".move")
            .Where(m => m.Words().Contains("only from the bench supply", StringComparison.Ordinal))
            .ToList();
        warned.ShouldNotBeEmpty();
        warned.ShouldAllBe(m =>
            !m.QuerySelector("summary")!.TextContent.Contains("by eye", StringComparison.Ordinal)
            && !m.QuerySelector("summary")!.TextContent.Contains("by buzzer", StringComparison.Ordinal)
        );
        using (
            await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", true, ("probe", "rail-ohms"), ("text", "4k7"))
        ) { }
        (await _shop.Page($"/Jobs/{number}/Find")).QuerySelector(".moves")!.TextContent.ShouldNotContain("Needs power");
        (await _shop.Page($"/Jobs/{number}/Find"))
            .QuerySelectorAll(".caution.stop")
            .ShouldNotContain(c => c.TextContent.Contains("Short on the supply", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_walk_by_meter_goes_along_the_supply()
    {
        var number = await _shop.TakeIn(more: ("Form.Result[power-light]", "fail"));
        using var bar = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            true,
            ("probe", "tp1"),
            ("text", "6.2"),
            ("walk", "supply"),
            ("metered", "true")
        );
        (await WebShop.Parse(bar)).QuerySelector(".reading-bar")!.GetAttribute("data-metered").ShouldBe("tp2");
    }

    // A unit that works has no advice to follow; every point in turn goes on all the same, and tells the page to fetch its table.
    [Fact]
    public async Task Every_point_in_turn_walks_on_without_a_failing_function()
    {
        var number = await _shop.TakeIn();
        using var bar = await _shop.Post(
            $"/Jobs/{number}/Compare",
            $"/Jobs/{number}/Bar?handler=Reading",
            true,
            ("probe", "tp1"),
            ("text", "6.2"),
            ("walk", "every"),
            ("metered", "true")
        );
        bar.Headers.GetValues("HX-Trigger-After-Settle").ShouldHaveSingleItem().ShouldContain("evidence-changed");
        var next = (await WebShop.Parse(bar)).QuerySelector(".reading-bar")!.GetAttribute("data-metered");
        next.ShouldNotBe("tp1");
        _shop.View(number).Profile.FindProbe(next!).ShouldNotBeNull();
        using var again = await _shop.Page($"/Jobs/{number}/Bar?handler=Board&select=walk:every");
        again.QuerySelector(".reading-bar")!.GetAttribute("data-metered").ShouldBe(next);
    }

    [Fact]
    public async Task Every_calculator_has_its_page_with_an_example()
    {
        foreach (var calculator in CalculatorShelf.All)
        {
            var page = await _shop.Page($"/Calculators/{calculator.Name}");
            page.QuerySelector("h1")!.TextContent.ShouldBe(calculator.Title);
            page.QuerySelectorAll(".calc-outputs dd").Length.ShouldBeGreaterThan(0, calculator.Name);
            page.QuerySelector("#calc-result")!.TextContent.ShouldContain(calculator.Source[..8]);
            foreach (var key in calculator.Keys)
                page.QuerySelector($"#calc [name={key.Name}]").ShouldNotBeNull($"{calculator.Name} {key.Name}");
        }

        await _shop.Page("/Calculators/nothing", HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_calculation_is_filed_in_a_job_and_a_slip_is_named_at_its_field()
    {
        var number = await _shop.TakeIn();
        using var filed = await _shop.Post(
            "/Calculators/battery-pack",
            $"/Calculators/battery-pack?job={number}",
            false,
            ("cells", "4"),
            ("chemistry", "alkaline"),
            ("measured", "4,6"),
            ("file", $"{number}")
        );
        filed.Headers.Location!.ToString().ShouldBe($"/Jobs/{number}/Find");
        var record = _shop.View(number).Records[^1];
        (record.Body.Key, record.Body.Sign).ShouldBe(("calculation", RecordSign.Bad));
        record.Words.ShouldStartWith("Battery pack: cells in series 4, chemistry alkaline, measured over all 4.6 V →");
        (await _shop.Page($"/Jobs/{number}/Find")).QuerySelector(".know")!.TextContent.ShouldContain("Battery pack");
        (await _shop.Page("/Calculators/battery-pack?cells=four&chemistry=alkaline"))
            .QuerySelector("#calc-result .wrong")!
            .TextContent.ShouldContain("Cells in series “four” is not a number");
        using var nowhere = await _shop.Post(
            "/Calculators/divider",
            "/Calculators/divider",
            false,
            ("vin", "9"),
            ("r1", "1k"),
            ("r2", "1k"),
            ("file", "<b>")
        );
        nowhere.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(nowhere)).QuerySelector("input[name=vin]")!.GetAttribute("value").ShouldBe("9");
    }

    [Fact]
    public async Task Hostile_input_is_drawn_as_text()
    {
        var page = await _shop.Page("/Calculators/resistor-code?code=" + Uri.EscapeDataString("</text><script>alert(1)</script>"));
        page.QuerySelectorAll("#calc-result script").ShouldBeEmpty();
        page.QuerySelector("#calc-result .wrong")!.TextContent.ShouldContain("no resistor code");
        (await _shop.Page("/Calculators/resistor-bands?bands=brown,black,red&measured=1k"))
            .QuerySelectorAll(".calc-drawing svg rect[fill]")
            .Length.ShouldBe(3);
    }

    [Fact]
    public async Task Good_readings_are_taken_in_shown_in_the_bar_and_compared_point_by_point()
    {
        var number = await _shop.TakeIn();
        var csv =
            "profile,revision,probe,unit,value,good_unit\nharrow-quartet,,tp3,V,6.20,one\nharrow-quartet,,tp3,V,6.24,two\nharrow-quartet,,tp3,V,6.22,three\n";
        using (var taken = await Import(csv))
            taken.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await _shop.Page($"/Jobs/{number}/Find?select=probe:tp3"))
            .QuerySelector("#verdict")!
            .TextContent.ShouldContain("known good 6.22 V ± 0.03 V, 3 units");
        using (await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", true, ("probe", "tp3"), ("text", "5.2")))
        { }
        var row = (await _shop.Page($"/Jobs/{number}/Compare")).QuerySelector("tbody tr")!;
        row.TextContent.ShouldContain("Fuse, far side");
        row.TextContent.ShouldContain("spreads below");
        using var csvOut = await _shop.Client.GetAsync("/Models/harrow-quartet/Good?handler=Csv", TestContext.Current.CancellationToken);
        (await csvOut.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain("harrow-quartet,,tp3,V,6.24,two");
    }

    [Theory]
    [InlineData("profile,revision,probe,unit,value,good_unit\nharrow-quartet,,tp3,V,6.20,one\nharrow-quartet,,tp3,V,lots,two\n", "line 3")]
    [InlineData("profile,revision,probe,unit,value,good_unit\npellin-atrium,,tp3,V,5,one\n", "is another model")]
    [InlineData("profile,revision,probe,unit,value,good_unit\nharrow-quartet,,contacts-eye,V,5,one\n", "no probe of this model")]
    public async Task A_file_with_a_bad_line_changes_nothing(string csv, string words)
    {
        using var refused = await Import(csv);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await WebShop.Parse(refused)).QuerySelector("[role=alert]")!.TextContent.ShouldContain(words);
        _shop.Service<GoodReadingStore>().Of("harrow-quartet").ShouldBeEmpty();
    }

    [Fact]
    public async Task A_proved_job_leaves_its_readings_when_it_is_closed()
    {
        var number = await _shop.TakeIn("pellin-atrium-pad");
        using (await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Reading", true, ("probe", "tp1"), ("text", "5.01")))
        { }
        (await _shop.Page($"/Jobs/{number}/HandOver")).QuerySelector("input[name=leave]").ShouldBeNull();
        foreach (var function in _shop.View(number).Profile.Functions)
            using (
                await _shop.Post(
                    $"/Jobs/{number}/Prove",
                    $"/Jobs/{number}/Prove?handler=Result",
                    true,
                    ("function", function.Id),
                    ("result", "pass")
                )
            ) { }
        (await _shop.Page($"/Jobs/{number}/HandOver")).QuerySelector("input[name=leave]").ShouldNotBeNull();
        using (await _shop.Post($"/Jobs/{number}/HandOver", $"/Jobs/{number}/HandOver", false, ("end", "Returned"), ("leave", "true"))) { }
        _shop
            .Service<GoodReadingStore>()
            .Of("pellin-atrium-pad")
            .ShouldHaveSingleItem()
            .ShouldBe(new Mendro.Core.Readings.GoodReading("pellin-atrium-pad", "", "tp1", "V", 5.01, $"job {number}"));
    }

    [Fact]
    public async Task A_connector_is_swept_and_filed_as_evidence()
    {
        var number = await _shop.TakeIn(
            "pellin-atrium-cartridge",
            ("Form.Result[cartridge]", "fail"),
            ("Form.Look[cartridge]", "garbled-logo")
        );
        var path = $"/Jobs/{number}/Contacts?connector=edge";
        (await _shop.Page($"/Jobs/{number}/Find?select=probe:trace-beep"))
            .QuerySelector($".reading-bar a[href='{path}']")
            .ShouldNotBeNull();
        var page = await _shop.Page(path);
        page.QuerySelectorAll(".contact").Length.ShouldBe(32);
        page.QuerySelector(".contact[aria-current]")!.GetAttribute("data-contact").ShouldBe("1");
        async Task<AngleSharp.Dom.IElement> Mark(string contact, string say = "", string text = "")
        {
            using var response = await _shop.Post(path, $"{path}&handler=Mark", true, ("contact", contact), ("say", say), ("text", text));
            return (await WebShop.Parse(response)).DocumentElement;
        }

        (await Mark("1", "beep")).QuerySelector(".contact[aria-current]")!.GetAttribute("data-contact").ShouldBe("3");
        (await Mark("3", text: "0.4")).QuerySelector("[data-contact='3']")!.ClassName!.ShouldContain("beep");
        (await Mark("5", text: "OL")).TextContent.ShouldContain("logo garbled");
        (await Mark("7", text: "5 V")).QuerySelector(".verdict")!.TextContent.ShouldContain("wants the buzzer");
        (await Mark("31", "short")).QuerySelector(".verdict")!.TextContent.ShouldContain("last of its row");
        using (await _shop.Post(path, $"{path}&handler=File")) { }
        var record = _shop.View(number).Records[^1];
        var swept = record.Body.ShouldBeOfType<ProbeReading>();
        (swept.Probe.Value, swept.Outcome, swept.Shown).ShouldBe(("trace-beep", ProbeOutcome.Abnormal, "2 of 3 beep; silent 5"));
        var cleared = await WebShop.Parse(await _shop.Post(path, $"{path}&handler=Clear", true));
        cleared.QuerySelectorAll(".contact.beep").ShouldBeEmpty();
        cleared.QuerySelectorAll("button").ShouldContain(b => b.TextContent == "bring back");
        var back = await WebShop.Parse(await _shop.Post(path, $"{path}&handler=BringBack", true));
        back.QuerySelectorAll(".contact.beep").Length.ShouldBe(2);
        using (await _shop.Post(path, $"{path}&handler=Undo", true)) { }
        using var nothing = await _shop.Post(path, $"{path}&handler=File");
        nothing.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await _shop.Page($"/Jobs/{number}/Contacts?connector=nowhere", HttpStatusCode.NotFound);
    }

    [Fact]
    public void The_editor_keeps_the_connectors()
    {
        var (before, version) = _shop.Service<ProfileStore>().Latest("harrow-quartet")!.Value;
        var form = Mendro.Web.Profiles.ProfileForm.From(before, version, existing: true);
        var after = new Mendro.Web.Profiles.ProfileFormReader(_shop.Library).Read(form, before);
        after.Connectors.ShouldHaveSingleItem().Contacts.ShouldBe(before.Connectors!.Single().Contacts);
        form.Sections["connectors"] = "slot: Cartridge slot, part nowhere, probe slot-eye\nsingle 1 +1: ground, magic X";
        var reader = new Mendro.Web.Profiles.ProfileFormReader(_shop.Library);
        reader.Read(form, before);
        reader.Problems.Select(p => p.Place).Distinct().ShouldBe(["connector “Cartridge slot”"]);
        reader.Problems.Count.ShouldBe(3);
    }

    [Fact]
    public void A_section_that_the_form_does_not_show_is_kept_on_save()
    {
        var (before, version) = _shop.Service<ProfileStore>().Latest("harrow-quartet")!.Value;
        var form = Mendro.Web.Profiles.ProfileForm.From(before, version, existing: true);
        form.Sections.Clear();
        form.Note = "another note";
        var after = new Mendro.Web.Profiles.ProfileFormReader(_shop.Library).Read(form, before);
        after.Connectors.ShouldBe(before.Connectors);
        after.Note.ShouldBe("another note");
        form.Sections["connectors"] = "";
        new Mendro.Web.Profiles.ProfileFormReader(_shop.Library).Read(form, before).Connectors.ShouldBeNull();
    }

    private async Task<HttpResponseMessage> Import(string csv)
    {
        var token = (await _shop.Page("/Models/harrow-quartet/Good")).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        using var content = new MultipartFormDataContent { { new StringContent(csv), "file", "good.csv" } };
        using var request = new HttpRequestMessage(HttpMethod.Post, "/Models/harrow-quartet/Good") { Content = content };
        request.Headers.Add("X-Mendro-Antiforgery", token);
        return await _shop.Client.SendAsync(request, TestContext.Current.CancellationToken);
    }
}
