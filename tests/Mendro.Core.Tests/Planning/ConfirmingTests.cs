using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Planning;

/// <summary>What a model has from its build, confirmed or put right on the first unit.</summary>
public sealed class ConfirmingTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    private static DeviceProfile Model(string build) =>
        Library.Archetypes.Single(a => a.Id == build) with
        {
            Id = "shop-model",
            Name = "Moonbeam 2",
            Archetype = null,
            Build = build,
        };

    private static DeviceProfile Made(Outcome<Taught> taught)
    {
        taught.IsOk.ShouldBeTrue(taught.IsOk ? "" : taught.Problem);
        ProfileValidator.Check(taught.Value.Profile!, Library).ShouldBeEmpty();
        return taught.Value.Profile!;
    }

    [Theory]
    [InlineData(TypicalSections.Fasteners)]
    [InlineData(TypicalSections.Connectors)]
    public void As_here_takes_all_and_is_typical_no_more(string section)
    {
        var model = Model("build-console-front-loading");
        Library.IsTypical(model, section).ShouldBeTrue();
        var sure = Made(Confirming.AsHere(model, section));
        Library.IsTypical(sure, section).ShouldBeFalse();
        sure.Fasteners.ShouldBe(model.Fasteners);
        // The other section is as unconfirmed as before.
        Library.IsTypical(sure, TypicalSections.Refdes).ShouldBeTrue();
    }

    [Fact]
    public void Mixed_heads_take_the_places_of_those_drawn()
    {
        var model = Model("build-handheld-four-cell-grey");
        var back = model.Fasteners!.Where(f => f.Face == "back" && f.Driver is not null).ToList();
        var made = Made(Confirming.Screws(model, $"back: 3 cross 00, {back.Count - 3} tri-wing 6 mm"));
        var now = made.Fasteners!.Where(f => f.Face == "back" && f.Driver is not null).ToList();
        now.Take(3).ShouldAllBe(f => f.Driver == "cross 00" && f.LengthMm == null);
        now.Skip(3).ShouldAllBe(f => f.Driver == "tri-wing" && f.LengthMm == 6);
        now.Select(f => (f.Id, f.X, f.Y)).ShouldBe(back.Select(f => (f.Id, f.X, f.Y)));
        Library.IsTypical(made, TypicalSections.Fasteners).ShouldBeFalse();
    }

    [Fact]
    public void More_screws_come_out_with_the_step_and_have_no_place_yet()
    {
        var model = Model("build-handheld-four-cell-grey");
        var back = model.Fasteners!.Where(f => f.Face == "back" && f.Driver is not null).ToList();
        var made = Made(Confirming.Screws(model, $"back: {back.Count + 2} cross 0"));
        var more = made.Fasteners!.Where(f => model.Fasteners!.All(k => k.Id != f.Id)).ToList();
        more.Count.ShouldBe(2);
        more.ShouldAllBe(f => f.Face == "back" && f.X == null && f.LengthMm == null);
        made.Steps!.Single(s => s.Fasteners?.Contains(back[^1].Id) == true).Fasteners!.ShouldContain(more[0].Id);
    }

    [Fact]
    public void What_is_one_too_many_is_gone_from_the_steps_too()
    {
        var model = Model("build-handheld-four-cell-grey");
        var back = model.Fasteners!.Where(f => f.Face == "back" && f.Driver is not null).ToList();
        var made = Made(Confirming.Screws(model, $"back: {back.Count - 2} tri-wing"));
        made.Fasteners!.Count.ShouldBe(model.Fasteners!.Count - 2);
        made.Steps!.SelectMany(s => s.Fasteners ?? []).ShouldNotContain(back[^1].Id);
    }

    [Theory]
    [InlineData("a few", "is not a count and a head")]
    [InlineData("lid: 4 cross", "No screws are known on")]
    [InlineData("", "Say how many")]
    public void What_cannot_be_read_is_said(string line, string problem) =>
        Confirming.Screws(Model("build-handheld-four-cell-grey"), line).Problem!.ShouldContain(problem);

    [Fact]
    public void Contacts_are_called_as_counted_and_nobody_knows_what_they_carry()
    {
        var made = Made(Confirming.Contacts(Model("build-console-front-loading"), "connector", "72 contacts, two rows, called 1–36 top, 37–72 bottom"));
        var connector = made.Connectors!.Single();
        connector.Rows.Select(r => (r.Name, r.Contacts[0].Number, r.Contacts[^1].Number)).ShouldBe([("top", 1, 36), ("bottom", 37, 72)]);
        connector.Contacts.ShouldAllBe(c => c.Group == Confirming.UnknownLine);
        Library.IsTypical(made, TypicalSections.Connectors).ShouldBeFalse();
    }

    [Fact]
    public void The_same_contacts_called_otherwise_keep_their_lines()
    {
        var model = Model("build-console-front-loading");
        var before = model.Connectors!.Single().Contacts.ToDictionary(c => c.Number, c => c.Line);
        var numbers = before.Keys.Order().ToList();
        var made = Made(Confirming.Contacts(model, "connector", $"{numbers[^1]}-{numbers[0]} front"));
        made.Connectors!.Single().Contacts.ToDictionary(c => c.Number, c => c.Line).ShouldBe(before, ignoreOrder: true);
    }

    [Theory]
    [InlineData("72 contacts, 1–36 top", "36 contacts, not 72")]
    [InlineData("1-10 left, 10-20 right", "two rows")]
    [InlineData("1-10 by 2 left", "does not end at 10")]
    [InlineData("many", "Say the numbers")]
    public void Contacts_that_do_not_add_up_are_said(string line, string problem) =>
        Confirming.Contacts(Model("build-console-front-loading"), "connector", line).Problem!.ShouldContain(problem);
}
