using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>People: how they are reached, who of them are one, who has not been here for long.</summary>
public sealed class PeopleDeskTests : IDisposable
{
    private readonly TestShop _shop = new();
    private readonly OwnerStore _owners;

    public PeopleDeskTests() => _owners = new OwnerStore(_shop.Database, _shop.Time);

    public void Dispose() => _shop.Dispose();

    private long Owner(long job) => _shop.Jobs.Find(job)!.CustomerId!.Value;

    [Fact]
    public void Several_ways_are_kept_and_the_first_stands_beside_the_name()
    {
        var job = _shop.TakeIn(owner: "Nell Orrin");
        var id = Owner(job);
        ContactWay[] ways = [new("mail", "nell@mail.example"), new("phone", "0170 555 12"), new("address", "Mill Lane 3")];
        _shop.People.Save(id, "Nell Orrin", ways).Done.ShouldNotBeNull();
        _owners.Contacts(id).ShouldBe(ways);
        _shop.Jobs.Find(job)!.CustomerContact.ShouldBe("nell@mail.example");
        _shop.People.List("mail.example", false, 0, 10).Single().Id.ShouldBe(id);
        ContactWay[] none = [new("mail", "nell at mail"), new("phone", "none"), new("pigeon", "grey one"), new("mail", new string('a', 201) + "@b")];
        foreach (var wrong in none)
            _shop.People.Save(id, "Nell Orrin", [wrong]).Refusal.ShouldNotBeNull(wrong.Value);
        _shop.People.Save(id, "", ways).Refusal.ShouldNotBeNull();
        _owners.Contacts(id).ShouldBe(ways);
    }

    [Fact]
    public void A_contact_told_at_the_door_is_one_of_the_ways()
    {
        var mail = Owner(_shop.TakeIn(owner: "One", contact: "one@mail.example"));
        var phone = Owner(_shop.TakeIn(owner: "Two", contact: "0170 555 99"));
        var address = Owner(_shop.TakeIn(owner: "Three", contact: "Mill Lane 3"));
        new[] { mail, phone, address }.Select(id => _owners.Contacts(id).Single().Kind).ShouldBe(["mail", "phone", "address"]);
    }

    [Fact]
    public void Two_that_are_one_share_their_jobs_until_it_is_taken_back()
    {
        var (a, b) = (_shop.TakeIn(owner: "Nell Orrin", contact: "0170 555 12"), _shop.TakeIn(owner: "Nel Orrin", contact: "nell@mail.example"));
        var (one, other) = (Owner(a), Owner(b));
        one.ShouldNotBe(other);
        _shop.People.Alike(_owners.Find(one)!).Select(p => p.Id).ShouldBe([other]);
        _shop.People.Merge(other, one).Done.ShouldNotBeNull();
        Owner(b).ShouldBe(one);
        _owners.Contacts(one).Select(w => w.Value).ShouldBe(["0170 555 12", "nell@mail.example"]);
        _shop.People.List("", false, 0, 10).Select(p => p.Id).ShouldNotContain(other);
        _shop.People.Merge(other, one).Refusal.ShouldNotBeNull();
        // A unit that came since stays where it is.
        var c = _shop.TakeIn(owner: "Nell Orrin", contact: "0170 555 12");
        _shop.People.Part(other).Done.ShouldNotBeNull();
        (Owner(a), Owner(b), Owner(c)).ShouldBe((one, other, one));
        _shop.People.Part(other).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void Merging_moves_no_money_and_both_are_taken_out_together()
    {
        var (a, b) = (_shop.TakeIn(owner: "Nell Orrin"), _shop.TakeIn(owner: "Nelly Orrin-Vint"));
        var (one, other) = (Owner(a), Owner(b));
        _shop.Money.Pay(b, new Payment { Kind = "deposit", Amount = 10, Day = DayNow() }).Done.ShouldNotBeNull();
        var before = _shop.Money.Balance(Account.Owners);
        _shop.People.Merge(other, one).Done.ShouldNotBeNull();
        _shop.Money.Balance(Account.Owners).ShouldBe(before);
        foreach (var job in (long[])[a, b])
        {
            _shop.AllWork(job, proving: true);
            _shop.HandOver.Close(new CloseOrder(job, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        }

        _shop.OwnerData.Erase(one, "Nell Orrin").Done.ShouldNotBeNull();
        _owners.Find(other)!.Name.ShouldStartWith(OwnerStore.ErasedName);
        _owners.Contacts(one).ShouldBeEmpty();
        _shop.People.List("Orrin", false, 0, 10).ShouldBeEmpty();
    }

    [Fact]
    public void Who_has_not_been_here_for_years_is_listed()
    {
        var job = _shop.TakeIn(owner: "Nell Orrin");
        _shop.AllWork(job, proving: true);
        _shop.HandOver.Close(new CloseOrder(job, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        var here = _shop.TakeIn(owner: "Ada Vint");
        _shop.Time.Advance(TimeSpan.FromDays(366 * 2));
        _shop.TakeIn(owner: "Odo Marsh");
        _shop.People.List("", true, 0, 10).ShouldBeEmpty();
        _shop.People.SetYears(1).Done.ShouldNotBeNull();
        // One whose unit is still in the shop has not gone.
        _shop.People.List("", true, 0, 10).Select(p => p.Name).ShouldBe(["Nell Orrin"]);
        _shop.People.SetYears(0).Refusal.ShouldNotBeNull();
        here.ShouldBeGreaterThan(0);
    }

    private string DayNow() => Mendro.Core.Quantities.DayText.Write(DateOnly.FromDateTime(_shop.Time.GetUtcNow().Date));
}
