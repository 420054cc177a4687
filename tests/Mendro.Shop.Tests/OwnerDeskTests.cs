using System.Text.Json;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>What passes between the shop and an owner, and what a person may ask for.</summary>
public sealed class OwnerDeskTests : IDisposable
{
    private const string Name = "Ilka Dorn";

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private Job Job(long number) => _shop.Jobs.Find(number)!;

    private static QuoteGiven Quote(decimal low = 20, decimal likely = 30, decimal high = 50) =>
        new(low, likely, high, "EUR", "new switch", ConsentWay.Phone);

    private static QuoteAnswered Answer(bool yes, decimal? upTo = null) => new(yes, upTo, "EUR", Name, ConsentWay.Phone);

    [Fact]
    public void The_range_goes_from_low_to_high_and_grows_with_the_hour()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light");
        var range = _shop.Owners.Range(_shop.View(number));
        range.Low.Value.ShouldBeLessThanOrEqualTo(range.Likely.Value);
        range.Likely.Value.ShouldBeLessThan(range.High.Value);
        // Testing everything is in all three: 7 functions at half a minute and more.
        range.Low.Value.ShouldBeGreaterThan(0);
        _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 60 });
        _shop.Owners.Range(_shop.View(number)).High.Value.ShouldBeGreaterThan(range.High.Value);
    }

    [Fact]
    public void A_job_waits_for_the_answer_and_comes_back_with_it()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light");
        _shop.Owners.Quote(number, Quote(likely: 60), waits: true).Refusal.ShouldNotBeNull();
        _shop.Owners.Quote(number, Quote(), waits: true).Done.ShouldNotBeNull();
        Job(number).Shelf.ShouldBe(Shelf.WaitingOwner);
        _shop.Owners.Agreement(_shop.View(number)).State.ShouldBe(AgreementState.Waiting);
        _shop.Owners.Answer(number, Answer(true, 45)).Done!.Words.ShouldBe("Ilka Dorn agreed on the phone, up to €45.00");
        Job(number).Shelf.ShouldBe(Shelf.None);
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 200)).Done.ShouldNotBeNull();
        _shop.Owners.Agreement(_shop.View(number)).Caution.ShouldNotBeNull().ShouldContain("€45.00");
    }

    [Fact]
    public void Shop_stock_has_nobody_to_ask()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light", owner: null);
        _shop.Owners.Quote(number, Quote(), waits: false).Refusal!.Problem.ShouldContain("nobody");
    }

    [Fact]
    public void Who_was_told_is_reminded_after_a_week_and_who_was_not_is_to_be_called()
    {
        var number = _shop.TakeIn("harrow-quartet");
        _shop.AllWork(number, proving: true);
        Job(number).Shelf.ShouldBe(Shelf.Ready);
        _shop.Owners.Due().Single().Why.ShouldBe("ready: tell the owner");
        _shop.Owners.Tell(number, new OwnerTold(OwnerMatter.NotReached, Name, ConsentWay.Phone, "")).Done.ShouldNotBeNull();
        _shop.Owners.Due().Single().Why.ShouldBe("ready: not reached yet");
        _shop.Owners.Tell(number, new OwnerTold(OwnerMatter.Ready, Name, ConsentWay.Phone, "Friday")).Done.ShouldNotBeNull();
        _shop.Owners.Due().ShouldBeEmpty();
        _shop.Time.Advance(TimeSpan.FromDays(7));
        _shop.Owners.Due().Single().Why.ShouldBe("not picked up yet");
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false, To: Name)).Done.ShouldNotBeNull();
        _shop.Owners.Due().ShouldBeEmpty();
    }

    [Fact]
    public void A_unit_that_came_back_is_known_by_its_serial_number()
    {
        var first = _shop.TakeIn("harrow-quartet");
        var (second, other) = (_shop.TakeIn("harrow-quartet"), _shop.TakeIn("harrow-duet"));
        foreach (var number in (long[])[first, second, other])
            _shop.Jobs.SaveIntake(Job(number) with { Serial = "HQ-7" }, Name, "");
        var owners = new OwnerStore(_shop.Database, _shop.Time);
        owners.Earlier(Job(second)).Select(j => j.Number).ShouldBe([first]);
        owners.Earlier(Job(first)).ShouldBeEmpty();
        // The same number on another model is another unit.
        owners.Earlier(Job(other)).ShouldBeEmpty();
    }

    [Fact]
    public void All_that_is_kept_of_a_person_comes_as_a_file_and_goes_for_good_while_the_work_stays()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light", owner: "Renée “R” Dorn");
        _shop.Jobs.SaveIntake(
            Job(number) with
            {
                Claim = "Renée “R” Dorn says: dead",
            },
            "Renée “R” Dorn",
            "0700 004 555"
        );
        _shop.Owners.Quote(number, Quote(), waits: false).Done.ShouldNotBeNull();
        _shop.Owners.Answer(number, new QuoteAnswered(true, null, "EUR", "Renée “R” Dorn", ConsentWay.Phone, "call 0700 004 555")).Done
            .ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch")).Done.ShouldNotBeNull();
        var id = Job(number).CustomerId!.Value;
        var file = JsonDocument.Parse(_shop.OwnerData.Export(id)!).RootElement;
        file.GetProperty("format").GetString().ShouldBe("mendro.owner/1");
        file.GetProperty("contact").GetString().ShouldBe("0700 004 555");
        file.GetProperty("jobs")[0].GetProperty("claim").GetString().ShouldBe("Renée “R” Dorn says: dead");

        _shop.OwnerData.Erase(id, "Renée “R” Dorn").Refusal!.Problem.ShouldContain("still in the shop");
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "declined", null, false, To: "Renée “R” Dorn")).Done.ShouldNotBeNull();
        _shop.OwnerData.Erase(id, "renee").Refusal!.Problem.ShouldContain("exactly");
        _shop.OwnerData.Erase(id, "Renée “R” Dorn").Done.ShouldNotBeNull();
        // Nowhere in the database, neither the name nor the number, in whatever form; what was done is there.
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        using var connection = _shop.Database.Open();
        using var ask = connection.CreateCommand();
        ask.CommandText =
            "SELECT group_concat(words || payload || note) || (SELECT group_concat(words) FROM timeline) || (SELECT group_concat(claim) FROM jobs) "
            + "|| (SELECT group_concat(name || contact) FROM customers) || (SELECT group_concat(text) FROM job_texts) FROM bench_records";
        var all = (string)ask.ExecuteScalar()!;
        foreach (var gone in (string[])["Renée", "Ren\\u00", "Dorn", "0700 004 555"])
            all.ShouldNotContain(gone);
        all.ShouldContain("Erased owner");
        _shop.View(number).All<RepairLogged>().Count().ShouldBe(1);
        _shop.View(number).All<QuoteAnswered>().Single().Body.Who.ShouldStartWith("Erased owner");
    }

    [Fact]
    public void Afterwards_no_file_of_the_shop_holds_the_name_nor_the_number_and_an_older_backup_does_not_bring_them_back()
    {
        const string Person = "Tamsin Quillfeather";
        var number = _shop.TakeIn("harrow-quartet", fails: "power-light", owner: Person);
        _shop.Jobs.SaveIntake(
            Job(number) with
            {
                Claim = "Mrs Quillfeather says: dead; QUILLFEATHER's own cells",
                Accessories = "box, marked T. Quillfeather",
                Lot = "from tamsin  quillfeather",
            },
            Person,
            "0700 112 233; tamsin@quillfeather.example"
        );
        var (job, other) = (Job(number), _shop.TakeIn("harrow-duet", owner: "Ilka Dorn"));
        _shop
            .HandOver.Shelve(number, Shelf.WaitingPart, "wait: Quillfeather brings it", "ask Quillfeather", part: "Fuse for Tamsin Quillfeather")
            .Done.ShouldNotBeNull();
        _shop.HandOver.TakeDown(number).Done.ShouldNotBeNull();
        _shop.Stock.Want(number, "Fuse for Tamsin Quillfeather", 1).Done.ShouldNotBeNull();
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 5, Day = "2026-03-01", Words = "cash by Tamsin Quillfeather" }).Done.ShouldNotBeNull();
        // At another's job: the whole name is hers, a part of it is to be looked at.
        _shop.Jobs.SaveIntake(Job(other) with { Claim = "fetched by Tamsin Quillfeather, call 0700 112 233", ConditionNote = "Quilfeather?" }, "Ilka Dorn", "");
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "for Quillfeather", "", null, false, To: Person)).Done.ShouldNotBeNull();
        var id = job.CustomerId!.Value;
        var older = Path.Combine(_shop.Folder, "older.db");
        using (var connection = _shop.Database.Open())
            Dapper.SqlMapper.Execute(connection, "VACUUM INTO @older", new { older });

        var kept = _shop.OwnerData.Export(id)!;
        foreach (var told in (string[])["cash by", "Fuse for", "payments", "wanted"])
            kept.ShouldContain(told);
        _shop.OwnerData.Elsewhere(id).Select(e => e.Text).ShouldContain("Quilfeather?");
        _shop.OwnerData.Erase(id, Person).Done.ShouldNotBeNull();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        foreach (var file in Directory.EnumerateFiles(_shop.Folder, "*", SearchOption.AllDirectories).Where(f => f != older))
        {
            var bytes = File.ReadAllBytes(file);
            var text = System.Text.Encoding.Latin1.GetString(bytes) + System.Text.Encoding.Unicode.GetString(bytes);
            foreach (var gone in (string[])["quillfeather", "0700 112 233", "tamsin"])
                text.Contains(gone, StringComparison.OrdinalIgnoreCase).ShouldBeFalse($"{gone} in {Path.GetFileName(file)}");
        }

        Job(other).ConditionNote.ShouldBe("Quilfeather?");
        Job(other).Claim.ShouldBe($"fetched by Erased owner {id}, call ");

        // The older file in its place: who was taken out is taken out again.
        using (var connection = _shop.Database.Open())
            Dapper.SqlMapper.Execute(connection, "UPDATE customers SET name = @Person, contact = '' WHERE id = @id", new { Person, id });
        _shop.OwnerData.Again().ShouldBe(1);
        new OwnerStore(_shop.Database, _shop.Time).Find(id)!.Name.ShouldStartWith("Erased owner");
        _shop.OwnerData.Again().ShouldBe(0);
    }
}
