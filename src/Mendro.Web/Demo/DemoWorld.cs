using System.Globalization;
using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;

namespace Mendro.Web.Demo;

/// <summary>
/// Fills an empty shop with an invented world. Every step goes through the same stores and rules as a page would.
/// Steps: <c>mark ID</c>, <c>pass FUNCTION …</c>, <c>fail FUNCTION [LOOK]</c>, <c>failall [LOOK]</c>, <c>read PROBE TEXT</c>,
/// <c>starts FUNCTION pass|fail N</c>, <c>provoke FUNCTION HOW changed|same</c>, <c>swap FUNCTION PART=GEAR… RESULT</c> (gear by its number), <c>cause PART MODE</c>, <c>fix PART METHOD [MINUTES] [COST]</c>, <c>prove</c> (all functions pass), <c>stage NAME</c>,
/// <c>contacts CONNECTOR NUMBER=STATE…</c>, <c>hide PART.MODE …</c> (what the stand-in meter will find), <c>close</c> (case closed up), <c>shelf NAME REASON|NEXT</c>, <c>end NAME NOTE</c>, <c>day N</c> (days later).
/// </summary>
public sealed class DemoWorld(ShopDatabase database, SecondLookDesk secondLooks, PracticeDesk practice, ModelShelf models, TradeLibrary library, TimeProvider time)
{
    private const long PracticeSeed = 7;

    private static readonly (string Name, string Kind, int Uses)[] Pieces =
    [
        ("Bench console", "test-console", 34), ("Spare console, grey", "test-console", 4), ("Test cartridge 1", "test-cartridge", 26), ("Test cartridge 2", "test-cartridge", 3),
        ("Cable A", "test-cable", 38), ("Cable B, blue tape", "test-cable", 6), ("Bench screen", "test-screen", 0), ("Old set by the door", "test-screen", 0),
        ("Bench supply", "adapter", 30), ("Fresh cells, AA", "cells", 0), ("Drive from unit 119", "optical-drive", 2),
    ];

    private readonly SteppedClock _clock = new(time);

    /// <summary>Seeds the shop, unless it has jobs already.</summary>
    public void SeedOnce()
    {
        var jobs = new JobStore(database, _clock);
        if (jobs.All().Count > 0 || jobs.Deleted().Count > 0) return;
        new SettingsStore(database).Save(ShopSettings.Default with { ShopName = "Lantern Yard Repairs" });
        TakeGear();
        var world = JsonSerializer.Deserialize<List<DemoJob>>(Resource("demo-jobs.json"), ProfileJson.Options) ?? [];
        foreach (var job in world.OrderByDescending(j => j.Days)) Play(jobs, job);
        new GoodReadingStore(database, _clock).Add(GoodReadingFile.Read(Resource("demo-good-readings.csv"), out _));
        practice.Start("harrow-quartet", PracticeSeed);
    }

    private static string Resource(string name)
    {
        using var stream = typeof(DemoWorld).Assembly.GetManifestResourceStream(name) ?? throw new InvalidOperationException($"{name} is not embedded.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }

    private void TakeGear()
    {
        _clock.Set(time.GetUtcNow().AddDays(-60));
        var gear = new GearStore(database, _clock);
        foreach (var (name, kind, uses) in Pieces) gear.AddUses(gear.Add(name, kind), uses);
    }

    private void Play(JobStore jobs, DemoJob told)
    {
        var records = new BenchRecordStore(database, _clock);
        var latest = new ProfileStore(database, _clock).Latest(told.Model) ?? throw new InvalidOperationException($"Demo: no profile {told.Model}.");
        _clock.Set(time.GetUtcNow().AddDays(-told.Days));
        var steps = told.Script.Select(s => s.Split(' ', 2)).Select(s => (Verb: s[0], Told: s.Length > 1 ? s[1] : "")).ToList();
        var atDoor = steps.TakeWhile(s => s.Verb is "mark" or "pass" or "fail" or "failall").ToList();
        var maker = Maker(latest.Profile, WorkStage.Intake);
        var job = jobs.TakeIn(new NewJob(new Job
        {
            ProfileId = told.Model, ProfileVersion = latest.Version, ModelName = latest.Profile.FullName, UnitName = told.Unit ?? "", Revision = told.Revision ?? "",
            Serial = told.Serial ?? "", Lot = told.Lot ?? "", Paid = told.Paid, Currency = "EUR", Claim = told.Claim ?? "", Accessories = told.Accessories ?? "",
            ValueWorking = told.Values?[0], ValueAsIs = told.Values?[1], ValueParts = told.Values?[2], Stage = WorkStage.Find, ReceivedAt = _clock.GetUtcNow(),
        }, told.Owner, told.Contact ?? "", atDoor.SelectMany(s => Tried(maker, latest.Profile, s.Verb, s.Told)).ToList()));
        foreach (var (verb, rest) in steps.Skip(atDoor.Count)) Step(jobs, records, jobs.Find(job.Number)!, latest.Profile, verb, rest);
    }

    private void Step(JobStore jobs, BenchRecordStore records, Job job, DeviceProfile profile, string verb, string rest)
    {
        _clock.Step(TimeSpan.FromMinutes(4));
        var words = rest.Split(' ');
        var maker = Maker(profile, job.Stage);
        void File(BenchRecord? record, AccessState? reached = null) =>
            records.Add((record ?? throw Wrong(job, verb, rest)) with { JobId = job.Id }, reached > job.Access ? reached : null);
        switch (verb)
        {
            case "pass" or "fail" or "failall" or "mark":
                foreach (var record in Tried(maker, profile, verb, rest)) File(record);
                break;
            case "read":
                var probe = profile.FindProbe(words[0]) ?? throw Wrong(job, verb, rest);
                var judged = ReadingJudge.Judge(profile, probe, rest[(words[0].Length + 1)..]);
                File(judged.IsOk ? maker.Probe(probe, judged.Value) : throw Wrong(job, verb, rest), probe.State);
                break;
            case "contacts":
                var marks = new ContactMarkStore(database, _clock);
                foreach (var pair in words[1..].Select(w => w.Split('=')))
                    marks.Add(job.Id, words[0], new ContactMark(int.Parse(pair[0], CultureInfo.InvariantCulture), Enum.Parse<ContactState>(pair[1], ignoreCase: true), null));
                break;
            case "hide":
                new StandInTruthStore(database).Hide(job.Id, words);
                break;
            case "starts":
                File(maker.Function(words[0], words[1] == "pass", null, "", int.Parse(words[2], CultureInfo.InvariantCulture)));
                break;
            case "provoke":
                File(maker.Provoke(words[0], Enum.Parse<Provocation>(words[1], ignoreCase: true), words[2] == "changed"));
                break;
            case "swap":
                var swaps = words[1..^1].Select(w => w.Split('=')).ToList();
                var stood = swaps.Select(w => int.Parse(w[1], CultureInfo.InvariantCulture)).Select(n => new StandIn(Gear.EngineId(n), Pieces[n - 1].Name, Pieces[n - 1].Kind)).ToList();
                var swapped = swaps.Select(w => new PartId(w[0])).ToList();
                File(maker.Swap(words[0], new SwapDetail(SwapPlanner.Chain(models.Get(job.ProfileId, job.ProfileVersion), words[0], swapped), swapped, stood), words[^1]));
                break;
            case "cause":
                File(maker.Cause(words[0], words[1], true));
                secondLooks.Consider(records.Of(job.Id).Last(r => r.Kind == RecordKind.Cause).Id);
                break;
            case "fix":
                var method = library.FindMethod(words[1]) ?? throw Wrong(job, verb, rest);
                var minutes = words.Length > 2 ? double.Parse(words[2], CultureInfo.InvariantCulture) : method.Minutes;
                var cost = words.Length > 3 ? decimal.Parse(words[3], CultureInfo.InvariantCulture) : method.PartsCost;
                if (job.Stage < WorkStage.Fix) jobs.SetStage(job.Id, WorkStage.Fix);
                File(Maker(profile, WorkStage.Fix).Repair(words[0], words[1], minutes, cost, "", ""), method.State);
                break;
            case "prove":
                if (job.Stage < WorkStage.Prove) jobs.SetStage(job.Id, WorkStage.Prove);
                foreach (var function in profile.Functions) File(Maker(profile, WorkStage.Prove).Function(function.Id, true, null));
                jobs.SetShelf(job.Id, Shelf.Ready, "everything works", "");
                break;
            case "stage":
                jobs.SetStage(job.Id, Enum.Parse<WorkStage>(rest));
                break;
            case "close":
                jobs.SetAccess(job.Id, AccessState.Closed);
                break;
            case "shelf":
                var reason = rest[(words[0].Length + 1)..].Split('|');
                jobs.SetShelf(job.Id, Enum.Parse<Shelf>(words[0]), reason[0], reason.Length > 1 ? reason[1] : "");
                break;
            case "end":
                var ending = Enum.Parse<JobEnd>(words[0]);
                jobs.Close(job.Id, ending, rest[words[0].Length..].Trim(), "", ending == JobEnd.ForSale ? job.ValueWorking : null);
                break;
            case "day":
                _clock.Step(TimeSpan.FromDays(double.Parse(rest, CultureInfo.InvariantCulture)));
                break;
            default:
                throw Wrong(job, verb, rest);
        }
    }

    private List<BenchRecord> Tried(RecordMaker maker, DeviceProfile profile, string verb, string rest)
    {
        var words = rest.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var records = verb switch
        {
            "mark" => [maker.Mark(words[0])],
            "pass" => words.Select(f => maker.Function(f, true, null)).ToList(),
            "fail" => [maker.Function(words[0], false, words.ElementAtOrDefault(1))],
            _ => profile.Functions.Select(f => maker.Function(f.Id, false, words.ElementAtOrDefault(0))).ToList(),
        };
        return records.Select(r => r ?? throw new InvalidOperationException($"Demo: {profile.Id} knows nothing of “{verb} {rest}”.")).ToList();
    }

    private RecordMaker Maker(DeviceProfile profile, WorkStage stage) => new(profile, library, stage, _clock.GetUtcNow());

    private static InvalidOperationException Wrong(Job job, string verb, string rest) => new($"Demo job {job.Number}: “{verb} {rest}” cannot be done.");

    /// <summary>A clock that the demo world sets, so that its history lies in the past.</summary>
    private sealed class SteppedClock(TimeProvider real) : TimeProvider
    {
        private DateTimeOffset _now = real.GetUtcNow();

        public override DateTimeOffset GetUtcNow() => _now;

        public void Set(DateTimeOffset at) => _now = at;

        /// <summary>Goes on, but never past the present.</summary>
        public void Step(TimeSpan by) => _now = _now + by < real.GetUtcNow() ? _now + by : real.GetUtcNow();
    }
}
