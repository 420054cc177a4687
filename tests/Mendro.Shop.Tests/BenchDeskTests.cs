using System.Collections;
using System.Reflection;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>What is kept of a job: numbers and no tables, and only as long as nothing changes that bears on it.</summary>
public sealed class BenchDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private string AloneOfItsKind()
    {
        _shop.Profiles.Save(
            new DeviceProfile(
                DeviceProfile.FormatName,
                "disk-box",
                "Disk box",
                "",
                DeviceKind.Accessory,
                [],
                null,
                [new Part("disk", "Disk", "hard-disk")],
                [],
                [new DeviceFunction("disk", "Disk", "disc", ["disk"])],
                [],
                new Preparation(1, 1, 1)
            )
        );
        return "disk-box";
    }

    [Fact]
    public void Nothing_of_the_inference_is_kept_with_a_job()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Readings.Read(new ReadingOrder(number, "tp4", "0.02"));
        var seen = new HashSet<object>(ReferenceEqualityComparer.Instance);
        var types = new HashSet<Type>();
        Walk(_shop.View(number), seen, types);
        types.ShouldContain(typeof(UnitVerdict));
        types.ShouldNotContain(typeof(Posterior));
        types.ShouldNotContain(typeof(UnitCase));
        types.ShouldNotContain(typeof(UnitDiagnosis));
        types.Where(t => t == typeof(double[][])).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_kept_is_bounded_by_size()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.View(number);
        var (jobs, bytes) = _shop.Desk.Load;
        jobs.ShouldBe(1);
        bytes.ShouldBeInRange(1_000, 200_000);
        BenchDesk.MostBytes.ShouldBeLessThanOrEqualTo(64 * 1024 * 1024);
    }

    [Fact]
    public void The_shops_name_and_a_cause_elsewhere_leave_a_job_as_it_was_computed()
    {
        var (mine, other) = (_shop.TakeIn(AloneOfItsKind(), "disk"), _shop.TakeIn("harrow-quartet", "power-light"));
        var before = _shop.View(mine).Diagnosis;
        _shop.Settings.Save(ShopSettings.Default with { ShopName = "Another name", SecondLookMinutes = 33 });
        _shop.View(mine).Diagnosis.ShouldBeSameAs(before);
        // It shares no kind of part with the handheld: what is found there does not bear on it.
        _shop.Repairs.Log(new RepairOrder(other, "switch", "flush-switch", Cause: "dirty")).Done.ShouldNotBeNull();
        _shop.View(mine).Diagnosis.ShouldBeSameAs(before);
        // What it is worth does.
        _shop.Settings.Save(ShopSettings.Default with { RatePerHour = 90 });
        _shop.View(mine).Diagnosis.ShouldNotBeSameAs(before);
    }

    [Fact]
    public void A_cause_confirmed_in_a_sister_unit_is_learned_from_and_taken_back_again()
    {
        var (mine, other) = (_shop.TakeIn("harrow-quartet", "power-light"), _shop.TakeIn("harrow-quartet", "power-light"));
        double Dirty() => _shop.View(mine).Diagnosis!.Suspects.Single(s => s.Fault.Id == "switch.dirty").Share;
        var before = Dirty();
        var cause = _shop.Repairs.Log(new RepairOrder(other, "switch", "flush-switch", Cause: "dirty"));
        cause.Done.ShouldNotBeNull();
        Dirty().ShouldBeGreaterThan(before);
        var record = _shop.View(other).Records.Single(r => r.Body is CauseSeen);
        _shop.Readings.Withdraw(other, record.Id);
        Dirty().ShouldBe(before, 1e-12);
    }

    [Fact]
    public void An_action_that_was_taken_back_leaves_no_trace_in_what_is_known()
    {
        var (mine, other) = (_shop.TakeIn("harrow-quartet", "power-light"), _shop.TakeIn("harrow-quartet", "power-light"));
        double Dirty() => _shop.View(mine).Diagnosis!.Suspects.Single(s => s.Fault.Id == "switch.dirty").Share;
        var before = Dirty();
        Should.Throw<InvalidOperationException>(() =>
            _shop.Database.InOneTransaction<bool>(() =>
            {
                _shop.Repairs.Log(new RepairOrder(other, "switch", "flush-switch", Cause: "dirty")).Done.ShouldNotBeNull();
                throw new InvalidOperationException("taken back");
            })
        );
        Dirty().ShouldBe(before, 1e-12);
        // Another cause in the place of the one that was taken back is seen for what it is.
        _shop.Repairs.Log(new RepairOrder(other, "fuse", "replace-fuse", Cause: "open")).Done.ShouldNotBeNull();
        Dirty().ShouldBeLessThan(before);
    }

    [Fact]
    public void A_page_opens_one_connection_for_all_that_it_asks()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var before = _shop.Database.Opened;
        using (_shop.Database.OneConnection())
            _shop.View(number);
        (_shop.Database.Opened - before).ShouldBe(1);
        before = _shop.Database.Opened;
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Cause: "dirty", WorksNow: true)).Done.ShouldNotBeNull();
        (_shop.Database.Opened - before).ShouldBe(1);
    }

    private static void Walk(object? at, HashSet<object> seen, HashSet<Type> types)
    {
        if (at is null or string || at.GetType().IsPrimitive || at is DeviceModel || at is Type || !seen.Add(at))
            return;
        types.Add(at.GetType());
        if (at is IEnumerable list and not string)
        {
            foreach (var item in list)
                Walk(item, seen, types);
            if (at.GetType().Namespace?.StartsWith("Mendro", StringComparison.Ordinal) != true)
                return;
        }

        if (at.GetType().Namespace?.StartsWith("Mendro", StringComparison.Ordinal) != true)
            return;
        foreach (var field in at.GetType().GetFields(BindingFlags.Instance | BindingFlags.Public | BindingFlags.NonPublic))
            Walk(field.GetValue(at), seen, types);
    }

    [Fact]
    public void The_list_stands_in_the_order_that_the_shop_chose()
    {
        var (old, dear, owner, late) = (
            _shop.TakeIn(fails: "power-light", owner: null),
            _shop.TakeIn(fails: "power-light", owner: null),
            _shop.TakeIn(fails: "power-light"),
            _shop.TakeIn(fails: "power-light")
        );
        void Change(long number, Func<Job, Job> how) =>
            _shop.Jobs.SaveIntake(how(_shop.Jobs.Find(number)!), _shop.Jobs.Find(number)!.CustomerName, "");
        Change(old, j => j with { ValueWorking = 20, ValueAsIs = 8 });
        Change(dear, j => j with { ValueWorking = 200, ValueAsIs = 10 });
        Change(owner, j => j with { Promised = "2026-03-20" });
        Change(late, j => j with { Promised = "2026-03-04" });
        IEnumerable<long> By(BenchSort sort) =>
            NextLine.Rank(new[] { old, dear, owner, late }.Select(_shop.View), sort, new Core.Money.Amount(30, "EUR")).Select(l => l.Job.Number);
        By(BenchSort.Age).ShouldBe([old, dear, owner, late]);
        By(BenchSort.Promise).Take(2).ShouldBe([late, owner]);
        // What curing adds stands before the shop's own hour, and that before what adds next to nothing.
        By(BenchSort.Gain).First().ShouldBe(dear);
        By(BenchSort.Gain).Last().ShouldBe(old);
    }
}
