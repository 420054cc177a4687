using Dapper;
using Mendro.Core.Library;
using Mendro.Core.Money;

namespace Mendro.Storage.Tests;

/// <summary>The file itself: migrations, pragmas, profiles with versions, settings.</summary>
public sealed class ShopDatabaseTests : IDisposable
{
    private readonly ShopFile _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void The_file_is_in_write_ahead_mode_with_foreign_keys_and_full_sync()
    {
        using var connection = _shop.Database.Open();
        connection.ExecuteScalar<string>("PRAGMA journal_mode").ShouldBe("wal");
        connection.ExecuteScalar<long>("PRAGMA foreign_keys").ShouldBe(1);
        connection.ExecuteScalar<long>("PRAGMA synchronous").ShouldBe(2);
    }

    [Fact]
    public void Migrating_twice_changes_nothing()
    {
        var job = _shop.TakeIn();
        _shop.Database.Migrate();
        _shop.Jobs.Find(job.Number)!.Id.ShouldBe(job.Id);
    }

    [Fact]
    public void A_job_cannot_name_a_profile_that_is_not_there() =>
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() =>
            _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank() with { ProfileVersion = 9 }, null, "", []))
        );

    [Fact]
    public void A_changed_profile_becomes_a_new_version_and_old_jobs_stay_on_theirs()
    {
        var shipped = TradeLibrary.Shipped;
        var changed = shipped.Profiles.Select(p => p.Id == "harrow-quartet" ? p with { Note = "changed" } : p).ToList();
        var job = _shop.TakeIn();
        _shop.Profiles.TakeIn(
            new TradeLibrary(shipped.PartKinds, shipped.FunctionKinds, shipped.Methods, shipped.Cautions, shipped.Marks, changed),
            demo: true
        );

        var latest = _shop.Profiles.Latest("harrow-quartet")!.Value;
        latest.Version.ShouldBe(2);
        latest.Profile.Note.ShouldBe("changed");
        _shop.Profiles.Find("harrow-quartet", job.ProfileVersion)!.Note.ShouldNotBe("changed");
        _shop.Profiles.Latest("pellin-atrium")!.Value.Version.ShouldBe(1);
        _shop.Profiles.All().Count(p => p.Id == "harrow-quartet").ShouldBe(1);
    }

    [Fact]
    public void A_shop_of_its_own_keeps_the_invented_models_it_has_used_and_loses_the_others()
    {
        var job = _shop.TakeIn();
        _shop.Profiles.Save(_shop.Profiles.Latest("tarn-leaflet")!.Value.Profile with { Note = "mine" });
        _shop.Profiles.TakeIn(TradeLibrary.Shipped, demo: false);
        var left = _shop.Profiles.All().Where(p => !p.Generic && p.Archetype is null).Select(p => p.Id);
        left.ShouldBe([job.ProfileId, "tarn-leaflet"], ignoreOrder: true);
        _shop.Profiles.Find(job.ProfileId, job.ProfileVersion).ShouldNotBeNull();
        _shop.Profiles.All().Count(p => p.Archetype is not null).ShouldBe(TradeLibrary.Shipped.Archetypes.Count);
        _shop.Profiles.All().Count(p => p.Generic).ShouldBe(6);
    }

    [Fact]
    public void Settings_are_kept()
    {
        var settings = new SettingsStore(_shop.Database);
        settings.Get().ShouldBe(ShopSettings.Default);
        var mine = new ShopSettings("Lamp & Sons", "SEK", 450.5m, 180);
        settings.Save(mine);
        settings.Save(mine with { Currency = "EUR" });
        new SettingsStore(_shop.Database).Get().ShouldBe(mine with { Currency = "EUR" });
    }

    [Fact]
    public void Two_writers_at_once_both_get_their_number()
    {
        var taken = new System.Collections.Concurrent.ConcurrentBag<long>();
        Parallel.For(0, 12, _ => taken.Add(_shop.TakeIn().Number));
        taken.Order().ShouldBe(Enumerable.Range(101, 12).Select(n => (long)n));
    }
}
