using System.Net;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>What Find grew: repeated starts, provocations, swap trials, reasons, patterns, second look, practice.</summary>
public sealed class FindPagesTests : IDisposable
{
    // Its own for each test: these ask for what is in the shop as a whole.
    private readonly WebShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private async Task<long> Failing(string profile, string function, string look = "nothing") =>
        await _shop.TakeIn(profile, ($"Form.Result[{function}]", "fail"), ($"Form.Look[{function}]", look));

    [Fact]
    public async Task Several_starts_are_one_entry()
    {
        var job = await Failing("quillon-minnow", "power-light");
        using var response = await _shop.Post(
            $"/Jobs/{job}/Find",
            $"/Jobs/{job}/Find?handler=Function",
            false,
            ("function", "power-light"),
            ("result", "pass"),
            ("times", "12")
        );
        response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var record = _shop.View(job).Records[^1];
        record.Body.ShouldBe(new FunctionTrial("power-light", true, null, 12));
        record.Words.ShouldContain("12 times running");
        using var refused = await _shop.Post(
            $"/Jobs/{job}/Find",
            $"/Jobs/{job}/Find?handler=Function",
            false,
            ("function", "power-light"),
            ("result", "pass"),
            ("times", "many")
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var page = await WebShop.Parse(refused);
        page.QuerySelector(".verdict .bad")!.TextContent.ShouldContain("“many” is not a number of starts");
        page.QuerySelector("input[name=times]")!.GetAttribute("value").ShouldBe("many");
    }

    [Fact]
    public async Task Pressing_and_flexing_are_filed_as_evidence()
    {
        var job = await Failing("quillon-minnow", "power-light");
        var page = await _shop.Page($"/Jobs/{job}/Find?select=provoke:power-light:flexed");
        page.QuerySelector(".reading-bar .at")!.TextContent.ShouldContain("Power light");
        using var response = await _shop.Post(
            $"/Jobs/{job}/Find",
            $"/Jobs/{job}/Find?handler=Provoke",
            false,
            ("function", "power-light"),
            ("how", "Flexed"),
            ("result", "changed")
        );
        response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var view = _shop.View(job);
        view.Records[^1]
            .ToEvent()
            .ShouldBeOfType<Provoked>()
            .ShouldBe(new Provoked(view.Records[^1].Id, "power-light", Provocation.Flexed, true));
        // The case had to be opened for it.
        view.Access.ShouldBe(AccessState.Open);
        // Dirt answers to force as a crack does.
        var mode = view.Diagnosis!.Suspects[0].Fault.Mode;
        (mode.Effect == ModeEffect.Intermittent || mode.Resistive).ShouldBeTrue(mode.Id);
    }

    [Fact]
    public async Task A_swap_trial_is_filed_and_moves_the_blame()
    {
        var gear = _shop.Service<GearStore>();
        var (own, spare) = (gear.Add("Cable A", "test-cable"), gear.Add("Cable B", "test-cable"));
        var job = await Failing("pellin-atrium", "video");
        var before = _shop.View(job).Diagnosis!.Parts["cable"].Share;
        var page = await _shop.Page($"/Jobs/{job}/Swaps");
        page.QuerySelectorAll("select[name='swap[cable]'] option")
            .Select(o => o.TextContent)
            .ShouldBe(["own", "Cable A", "Cable B", "another one"], ignoreOrder: true);
        using var response = await _shop.Post(
            $"/Jobs/{job}/Swaps",
            ("function", "video"),
            ("swap[cable]", $"g{spare}"),
            ("swap[screen]", ""),
            ("result", "pass")
        );
        response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(job).Diagnosis!.Parts["cable"].Share.ShouldBeGreaterThan(3 * before);
        gear.InUse().Single(g => g.Id == spare).Uses.ShouldBe(1);
        gear.InUse().Single(g => g.Id == own).Uses.ShouldBe(0);
        var matrix = await _shop.Page($"/Jobs/{job}/Swaps?function=video");
        matrix.QuerySelectorAll(".matrix tbody tr").Length.ShouldBe(3);
        matrix.QuerySelector(".matrix .swapped")!.TextContent.ShouldBe("Cable B");
        // Nothing swapped is the plain trial of the function.
        using var plain = await _shop.Post($"/Jobs/{job}/Swaps", ("function", "video"), ("result", "fail"));
        _shop.View(job).Records[^1].Body.ShouldBeOfType<FunctionTrial>();
        // A stand-in that is not offered is refused.
        using var odd = await _shop.Post($"/Jobs/{job}/Swaps", ("function", "video"), ("swap[cable]", "g99"), ("result", "pass"));
        odd.StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_swap_is_answered_in_a_shop_that_has_written_no_gear_down()
    {
        var job = await Failing("pellin-atrium", "video");
        var page = await _shop.Page($"/Jobs/{job}/Swaps?function=video&out=cable");
        page.QuerySelector("select[name='swap[cable]'] option[selected]")!.TextContent.ShouldBe("another one");
        page.QuerySelector("button[value=pass]")!.HasAttribute("autofocus").ShouldBeTrue();
        using var response = await _shop.Post(
            $"/Jobs/{job}/Swaps",
            ("function", "video"),
            ("swap[cable]", "another"),
            ("result", "pass"),
            ("back", "true")
        );
        response.Headers.Location!.ToString().ShouldEndWith($"/Jobs/{job}/Find");
        // The piece is named: it is dealt with.
        _shop.View(job).Advice.Moves[0].Repair!.Part.Id.Value.ShouldBe("cable");
        (await _shop.Page($"/Jobs/{job}/Swaps?function=video")).QuerySelector(".matrix .swapped")!.TextContent.ShouldBe("another");
    }

    [Fact]
    public async Task Worn_standard_gear_is_more_suspect_in_every_job()
    {
        var gear = _shop.Service<GearStore>();
        var job = await Failing("pellin-atrium-cartridge", "cartridge", "black-box");
        var clean = _shop.View(job).Diagnosis!.Parts["console"].Share;
        var id = gear.Add("Bench console", "test-console");
        gear.AddUses(id, 80);
        var worn = _shop.View(job).Diagnosis!.Parts["console"].Share;
        worn.ShouldBeGreaterThan(2 * clean);
        using var response = await _shop.Post("/Gear", $"/Gear?handler=Do&id={id}", false, ("act", "clean"));
        response.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        _shop.View(job).Diagnosis!.Parts["console"].Share.ShouldBe(clean, 1e-9);
    }

    [Fact]
    public async Task Why_names_what_speaks_for_a_suspect()
    {
        var job = await Failing("harrow-quartet", "power-light");
        using var filed = await _shop.Post(
            $"/Jobs/{job}/Find",
            $"/Jobs/{job}/Find?handler=Reading",
            false,
            ("probe", "contacts-eye"),
            ("text", "bad, green crust")
        );
        var page = await _shop.Page($"/Jobs/{job}/Why");
        var first = page.QuerySelector(".reason")!;
        first.TextContent.ShouldContain("Contacts, crusted");
        first.QuerySelector("ul[aria-label=for]")!.TextContent.ShouldContain("Contacts, by eye");
        page.QuerySelector("section[aria-labelledby=why-findings]")!.TextContent.ShouldContain("Power light: nothing at all");
    }

    [Fact]
    public async Task A_confirmed_cause_teaches_lists_second_looks_and_can_be_left_out()
    {
        // Six units of one board type: the last shelved with wrong figures, the others turn out to have a lifted leg.
        async Task<long> Wrong()
        {
            var number = await _shop.TakeIn(
                "pellin-atrium-cartridge",
                ("Form.Revision", "S1"),
                ("Form.Result[cartridge]", "pass"),
                ("Form.Result[picture]", "fail"),
                ("Form.Look[picture]", "garbled-sprites")
            );
            return number;
        }

        var shelved = await Wrong();
        using var clean = await _shop.Post(
            $"/Jobs/{shelved}/Find",
            $"/Jobs/{shelved}/Find?handler=Reading",
            false,
            ("probe", "edge-eye"),
            ("text", "ok")
        );
        _shop.Service<HandOverDesk>().Shelve(shelved, Shelf.SetAside, "out of ideas", "").Done.ShouldNotBeNull();
        var looks = _shop.Service<SecondLookStore>();
        // The shop draws its line a little above what this unit promises now.
        var job = _shop.Jobs.Find(shelved)!;
        var line = ShopSettings.Default.SecondLookMinutes;
        var promises = SecondLook.ChanceWithin(
            _shop.View(shelved).Model,
            BenchRecord.Events(_shop.View(shelved).Records),
            CaseContext.None,
            _shop.View(shelved).Apart,
            JobCosts.Of(job, ShopSettings.Default),
            line
        );
        promises.ShouldBeInRange(0.05, 0.8);
        _shop.Service<SettingsStore>().Save(ShopSettings.Default with { SecondLookChance = promises + 0.05 });
        var learned = _shop.View(shelved).Diagnosis!.Suspects.Single(s => s.Fault.Id == "legs2.lifted").Posterior;
        for (var n = 0; n < 6 && looks.Open().Count == 0; n++)
        {
            var unit = await Wrong();
            using var fix = await _shop.Post(
                $"/Jobs/{unit}/Fix?part=legs2",
                ("part", "legs2"),
                ("method", "resolder-legs"),
                ("cause", "lifted"),
                ("now", "pass")
            );
            fix.StatusCode.ShouldBe(HttpStatusCode.Redirect);
            (await _shop.Service<BenchRefresher>().Caught(TimeSpan.FromMinutes(3), everything: true)).ShouldBeTrue();
        }

        looks.Open().ShouldContain(l => l.JobId == _shop.Jobs.Find(shelved)!.Id);
        _shop.View(shelved).Diagnosis!.Suspects.Single(s => s.Fault.Id == "legs2.lifted").Posterior.ShouldBeGreaterThan(learned);
        var bench = await _shop.Page("/");
        bench
            .QuerySelector("section[aria-labelledby=second-look]")!
            .TextContent.ShouldContain(shelved.ToString(System.Globalization.CultureInfo.InvariantCulture));

        // One press takes it down from the shelf.
        using var taken = await _shop.Post("/", $"/?handler=Look&number={shelved}", false, ("act", "take"));
        taken.Headers.Location!.ToString().ShouldBe($"/Jobs/{shelved}/Find");
        _shop.Jobs.Find(shelved)!.Shelf.ShouldBe(Shelf.None);
        looks.Open().ShouldNotContain(l => l.JobId == _shop.Jobs.Find(shelved)!.Id);

        // Patterns shows the lesson; left out, the belief goes back.
        var patterns = await _shop.Page("/Patterns?model=pellin-atrium-cartridge");
        patterns.QuerySelector(".patterns tbody")!.TextContent.ShouldContain("Picture chip legs, a leg lifted off its pad");
        foreach (var cause in _shop.Database.AllJobs().SelectMany(j => _shop.Service<LessonStore>().Of(j.Id)))
        {
            using var excluded = await _shop.Post(
                "/Patterns",
                ("exclude", cause.RecordId.ToString(System.Globalization.CultureInfo.InvariantCulture))
            );
            excluded.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        }

        _shop.View(shelved).Diagnosis!.Suspects.Single(s => s.Fault.Id == "legs2.lifted").Posterior.ShouldBe(learned, 1e-9);
    }

    [Fact]
    public async Task A_part_of_a_practice_unit_is_swapped_for_one_that_works_and_its_past_stays_the_same()
    {
        using var started = await _shop.Post("/Practice", ("model", "pellin-atrium-pad"), ("seed", "5"));
        var number = long.Parse(started.Headers.Location!.ToString().Split('/')[2], System.Globalization.CultureInfo.InvariantCulture);
        var failing = _shop.View(number).Diagnosis!.Target!.Id;
        async Task<HttpStatusCode> Swap(string part)
        {
            var path = $"/Jobs/{number}/Swaps?handler=Practice";
            using var done = await _shop.Post($"/Jobs/{number}/Find", path, false, ("function", failing), ("part", part));
            return done.StatusCode;
        }

        (await Swap("console")).ShouldBe(HttpStatusCode.Redirect);
        var told = _shop.View(number).Records[^1];
        told.Words.ShouldContain("Test console → another");
        // Asked again it says the same, as what was done is played again first.
        (await Swap("console")).ShouldBe(HttpStatusCode.Redirect);
        _shop.View(number).Records[^1].Words.ShouldBe(told.Words);
        (await Swap("encoder")).ShouldBe(HttpStatusCode.NotFound);
        (await Swap("no-such")).ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_practice_unit_is_worked_on_like_any_other_and_scored()
    {
        using var started = await _shop.Post("/Practice", ("model", "pellin-atrium-pad"), ("seed", "5"));
        var number = long.Parse(started.Headers.Location!.ToString().Split('/')[2], System.Globalization.CultureInfo.InvariantCulture);
        (await _shop.Page($"/Practice/{number}")).QuerySelector("form button")!.TextContent.ShouldBe("Give up and show");
        // Typed readings are refused: the unit answers by itself.
        var probe = _shop.View(number).Profile.Probes[0];
        using var typed = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Reading",
            false,
            ("probe", probe.Id),
            ("text", "ok")
        );
        typed.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        // Nor can it be proved by saying so.
        var function = _shop.View(number).Profile.Functions[0].Id;
        using var claimed = await _shop.Post(
            $"/Jobs/{number}/Find",
            $"/Jobs/{number}/Find?handler=Function",
            false,
            ("function", function),
            ("result", "pass")
        );
        claimed.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var known = _shop.View(number).Records.Count;
        using var proved = await _shop.Post($"/Jobs/{number}/Prove", ("function", function), ("result", "pass"));
        _shop.View(number).Records.Count.ShouldBe(known);

        for (var n = 0; n < 60 && _shop.View(number).Advice.Moves.Count > 0; n++)
        {
            var move = _shop.View(number).Advice.Moves[0];
            using var done =
                move.Repair is { } repair ? await _shop.Post($"/Jobs/{number}/Fix", ("part", repair.Part.Id), ("method", repair.Method.Id))
                : move.SwapOut is { } swapped
                    ? await _shop.Post(
                        $"/Jobs/{number}/Find",
                        $"/Jobs/{number}/Swaps?handler=Practice",
                        false,
                        ("function", move.Function!.Id),
                        ("part", swapped)
                    )
                : await _shop.Post($"/Jobs/{number}/Find", $"/Jobs/{number}/Find?handler=Practice", false, ("select", move.Id));
            done.StatusCode.ShouldBe(HttpStatusCode.Redirect, move.Id);
        }

        var view = _shop.View(number);
        view.Diagnosis!.Target.ShouldBeNull();
        var score = _shop.Service<PracticeDesk>().Score(view);
        score.Mine.AllWork.ShouldBeTrue();
        score.Hidden.ShouldNotBeEmpty();
        // Whoever takes the advised moves with the bench's own costs needs about what the advisor needs.
        score.Mine.Minutes.ShouldBeLessThan(3 * score.Advisor.Minutes + 1);
        score.Best.Minutes.ShouldBeLessThanOrEqualTo(score.Mine.Minutes);
        var page = await _shop.Page($"/Practice/{number}");
        page.QuerySelector("[role=status]")!.TextContent.ShouldContain("Cured in");
        page.QuerySelectorAll(".walk").Length.ShouldBe(2);
        _shop.Service<LessonStore>().Counts().ShouldBeEmpty();
    }
}
