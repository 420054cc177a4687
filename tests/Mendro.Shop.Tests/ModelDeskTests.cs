using CsCheck;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Models merged, split, named and taken back: jobs, records, good readings and what was learned go along.</summary>
public sealed class ModelDeskTests : IDisposable
{
    private static readonly HashSet<string> Nothing = [];

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private DeviceProfile Latest(string id) => _shop.Profiles.Latest(id)!.Value.Profile;

    /// <summary>A second model, made from the first under another name.</summary>
    private string Second(string name = "Harrow Four")
    {
        var made = BuildChoice.Named(Latest("harrow-quartet"), name, _shop.Profiles.Ids());
        _shop.Profiles.Save(made);
        return made.Id;
    }

    private GoodReadingStore Good() => new(_shop.Database, _shop.Time);

    [Fact]
    public void Two_models_that_are_one_become_one_with_all_that_was_known_of_both()
    {
        var second = Second();
        var (a, b) = (_shop.TakeIn(fails: "power-light"), _shop.TakeIn(second, "power-light"));
        _shop.Teach.Teach(b, "part Choke behind switch").Done.ShouldNotBeNull();
        _shop.Readings.Read(new ReadingOrder(b, "tp3", "6.2 V")).Done.ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(b, "choke", "reflow", Cause: "cracked")).Refusal.ShouldBeNull();
        Good().Add([new GoodReading(second, "", "tp3", "V", 6.2, "unit one")]);
        var before = _shop.View(b);

        var done = _shop.ModelDesk.Merge(second, "harrow-quartet", Nothing).Done.ShouldNotBeNull();
        done.Id.ShouldBe("harrow-quartet");
        var after = _shop.View(b);
        after.Job.ProfileId.ShouldBe("harrow-quartet");
        after.Job.ModelName.ShouldBe(Latest("harrow-quartet").FullName);
        after.Records.Select(r => r.Body).ShouldBe(before.Records.Select(r => r.Body));
        after.Profile.FindPart("choke").ShouldNotBeNull();
        _shop.View(a).Job.ProfileVersion.ShouldBeLessThan(after.Job.ProfileVersion);
        Good().Of("harrow-quartet").Select(g => g.GoodUnit).ShouldBe(["unit one"]);
        // What was found in its units is known of the model that it is.
        new LessonStore(_shop.Database, _shop.Time)
            .Counts()
            .ShouldContain(c => c.ProfileId == "harrow-quartet" && c.PartId == "choke" && c.Found == 1);
        _shop.Profiles.All().ShouldNotContain(p => p.Id == second);
        // A page that was open since still takes a unit in, under the model that it is.
        _shop.View(_shop.TakeIn(second)).Job.ProfileId.ShouldBe("harrow-quartet");

        _shop.ModelDesk.TakeBack(_shop.Moves.Of(second).Single().Id).Done!.Words.ShouldContain("1 job went back");
        var back = _shop.View(b);
        (back.Job.ProfileId, back.Job.ProfileVersion, back.Job.ModelName).ShouldBe(
            (second, before.Job.ProfileVersion, before.Job.ModelName)
        );
        back.Records.Select(r => r.Body).ShouldBe(before.Records.Select(r => r.Body));
        Good().Of(second).Select(g => g.GoodUnit).ShouldBe(["unit one"]);
        _shop.Profiles.All().ShouldContain(p => p.Id == second);
        new LessonStore(_shop.Database, _shop.Time)
            .Counts()
            .ShouldContain(c => c.ProfileId == second && c.PartId == "choke" && c.Found == 1);
        new LessonStore(_shop.Database, _shop.Time).Counts().ShouldNotContain(c => c.ProfileId == "harrow-quartet" && c.PartId == "choke");
    }

    [Fact]
    public void What_both_say_otherwise_is_ones_own_unless_chosen()
    {
        var second = Second();
        _shop.Profiles.Save(Latest(second) with { Note = "theirs", Author = "Ilka Dorn", Licence = "share alike" });
        _shop.ModelDesk.Merge(second, "harrow-quartet", new HashSet<string> { "note" }).Done.ShouldNotBeNull();
        var made = Latest("harrow-quartet");
        (made.Note, made.Author, made.Licence).ShouldBe(("theirs", "Ilka Dorn", "share alike"));
        made.Name.ShouldNotBe("Harrow Four");
    }

    [Fact]
    public void A_revision_that_is_another_model_takes_its_units_along_and_can_be_put_back()
    {
        var whole = Latest("harrow-quartet");
        var revision = whole.Revisions[0].Id;
        var (with, without) = (_shop.TakeIn(fails: "power-light"), _shop.TakeIn(fails: "power-light"));
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(with)! with { Revision = revision }, "Ilka Dorn", "");
        var done = _shop.ModelDesk.Split("harrow-quartet", revision, "Harrow Fifth").Done.ShouldNotBeNull();
        _shop.View(with).Job.ProfileId.ShouldBe(done.Id);
        _shop.View(without).Job.ProfileId.ShouldBe("harrow-quartet");
        Latest(done.Id).Revisions.Select(r => r.Id).ShouldBe([revision]);
        Latest(done.Id).FullName.ShouldBe($"{whole.Maker} Harrow Fifth".Trim());
        Latest("harrow-quartet").Revisions.ShouldNotContain(r => r.Id == revision);
        _shop.ModelDesk.Split("harrow-quartet", "no such", "X").Refusal!.Problem.ShouldContain("no revision");

        _shop.ModelDesk.TakeBack(_shop.Moves.Of(done.Id).Single().Id).Done.ShouldNotBeNull();
        _shop.View(with).Job.ProfileId.ShouldBe("harrow-quartet");
        Latest("harrow-quartet").Revisions.ShouldContain(r => r.Id == revision);
        _shop.Profiles.All().ShouldNotContain(p => p.Id == done.Id);
    }

    [Fact]
    public void A_unit_on_a_build_gets_a_model_of_its_own_with_the_same_advice()
    {
        var build = TradeLibrary.Shipped.Archetypes[0].Id;
        var number = _shop.TakeIn(build, TradeLibrary.Shipped.Archetypes[0].Functions[0].Id.Value);
        var before = _shop.View(number);
        _shop.Teach.Teach(number, "part Choke behind switch").Refusal!.Problem.ShouldContain("model of its own");
        var done = _shop.ModelDesk.GiveOwn(number, "  Pocket   thing ").Done.ShouldNotBeNull();
        var after = _shop.View(number);
        (after.Profile.Name, after.Profile.Build, after.Job.ProfileId).ShouldBe(("Pocket thing", build, done.Id));
        after.Advice.Moves.Select(m => m.Id).ShouldBe(before.Advice.Moves.Select(m => m.Id));
        _shop.ModelDesk.GiveOwn(number, " ").Refusal!.Problem.ShouldContain("name");
        _shop.ModelDesk.Teach(build, "revision B: none").Refusal!.Problem.ShouldContain("ships");
        _shop.ModelDesk.Teach(done.Id, "revision B: none").Done.ShouldNotBeNull();
        _shop.ModelDesk.Teach(done.Id, "gibberish").Refusal!.Problem.ShouldContain("Begin with");
    }

    private Deed<ModelChanged> Change(long number, string model) =>
        _shop.ModelChanges.Change(number, new OtherModel(model, "", "", new Dictionary<FunctionId, FunctionId>()));

    [Fact]
    public void A_move_whose_records_were_put_in_other_words_is_not_taken_back_but_changed_again()
    {
        var number = _shop.TakeIn(fails: "power-light");
        Change(number, "pellin-atrium").Done.ShouldNotBeNull();
        _shop.Readings.Try(new TrialOrder(number, "video", false, "nothing")).Refusal.ShouldBeNull();
        _shop.ModelDesk.TakeBack(_shop.Moves.Of("pellin-atrium").Single().Id).Refusal!.Problem.ShouldContain("change");
        Change(number, "harrow-quartet").Done.ShouldNotBeNull();
        _shop.View(number).Problem.ShouldBeNull();
    }

    [Fact]
    public void A_unit_taken_in_under_the_wrong_model_goes_to_the_right_one_with_its_records_and_back()
    {
        var second = Second();
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Readings.Read(new ReadingOrder(number, "tp3", "6.2 V")).Done.ShouldNotBeNull();
        var before = _shop.View(number);
        Change(number, "harrow-quartet").Refusal!.Problem.ShouldContain("already");
        Change(number, "no-such").Refusal!.Problem.ShouldContain("Choose");
        Change(number, second).Done.ShouldNotBeNull().Words.ShouldContain("is a Harrow Four now");
        var after = _shop.View(number);
        (after.Job.ProfileId, after.Job.ModelName).ShouldBe((second, Latest(second).FullName));
        after.Records.Select(r => r.Body).ShouldBe(before.Records.Select(r => r.Body));
        after.Advice.Moves.Select(m => m.Id).ShouldBe(before.Advice.Moves.Select(m => m.Id));
        _shop.ModelDesk.TakeBack(_shop.Moves.Of(second).Single().Id).Done.ShouldNotBeNull();
        _shop.View(number).Job.ProfileId.ShouldBe("harrow-quartet");
    }

    [Fact]
    public void Only_models_of_the_shop_are_merged_and_each_only_once()
    {
        var second = Second();
        _shop.ModelDesk.Merge(second, second, Nothing).Refusal.ShouldNotBeNull();
        _shop.ModelDesk.Merge(second, TradeLibrary.Shipped.Archetypes[0].Id, Nothing).Refusal.ShouldNotBeNull();
        _shop.ModelDesk.Merge(second, "no-such", Nothing).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.ModelDesk.Merge(second, "harrow-quartet", Nothing).Done.ShouldNotBeNull();
        _shop.ModelDesk.Merge(second, "harrow-quartet", Nothing).Refusal.ShouldNotBeNull();
        // Gone on to a third, the first move cannot be taken back before the second.
        var third = Second("Harrow Third");
        _shop.ModelDesk.Merge("harrow-quartet", third, Nothing).Done.ShouldNotBeNull();
        _shop.Moves.NowOf(second).ShouldBe(third);
        var first = _shop.Moves.Of(second).Single().Id;
        _shop.ModelDesk.TakeBack(first).Refusal!.Problem.ShouldContain("first");
        _shop.ModelDesk.TakeBack(_shop.Moves.Of(third).Single().Id).Done.ShouldNotBeNull();
        _shop.ModelDesk.TakeBack(first).Done.ShouldNotBeNull();
    }

    [Fact]
    public void In_whatever_order_models_are_taught_merged_split_and_put_back_records_stay_and_nothing_is_a_contradiction() =>
        Gen.Int[0, 5]
            .Array[1, 12]
            .Sample(
                steps =>
                {
                    using var shop = new TestShop();
                    var made = BuildChoice.Named(shop.Profiles.Latest("harrow-quartet")!.Value.Profile, "Harrow Four", shop.Profiles.Ids());
                    shop.Profiles.Save(made);
                    var numbers = new[] { shop.TakeIn(fails: "power-light"), shop.TakeIn(made.Id, "power-light") };
                    foreach (var number in numbers)
                        shop.Readings.Read(new ReadingOrder(number, "tp3", "6.2 V")).Done.ShouldNotBeNull();
                    var bodies = numbers.Select(n => shop.View(n).Records.Select(r => r.Body).ToList()).ToList();
                    foreach (var (step, n) in steps.Select((s, i) => (s, i)))
                    {
                        var number = numbers[n % 2];
                        switch (step)
                        {
                            case 0:
                                shop.Teach.Teach(number, $"part Choke {n} behind switch");
                                break;
                            case 1:
                                shop.ModelDesk.Merge(made.Id, "harrow-quartet", Nothing);
                                break;
                            case 2:
                                shop.Teach.TakeBack(number);
                                break;
                            case 3:
                                shop.ModelDesk.GiveOwn(number, $"Own {n}");
                                break;
                            case 4:
                                foreach (var move in shop.Moves.Of(made.Id).Concat(shop.Moves.Of("harrow-quartet")).Take(1))
                                    shop.ModelDesk.TakeBack(move.Id);
                                break;
                            default:
                                shop.Teach.Teach(number, $"limit tp3 {n + 1} to 6.4 V");
                                break;
                        }
                    }

                    for (var n = 0; n < numbers.Length; n++)
                    {
                        var view = shop.View(numbers[n]);
                        view.Records.Select(r => r.Body).ShouldBe(bodies[n]);
                        view.Diagnosis.ShouldNotBeNull();
                        ProfileValidator.Check(view.Profile, TradeLibrary.Shipped).ShouldBeEmpty();
                    }
                },
                iter: 25
            );
}
