using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Pictures;
using Mendro.Storage;

namespace Mendro.Shop.Demo;

/// <content>What each step of a told job does.</content>
public sealed partial class DemoWorld
{
    private void Step(Job job, DeviceModel model, string verb, string rest)
    {
        _clock.Step(TimeSpan.FromMinutes(4));
        var (words, open) = (rest.Split(' '), new OpenJob(job, model));
        long File(RecordBody? body, WorkStage? stage = null, Func<BenchRecord, BenchRecord>? more = null)
        {
            var filed = Bench.File(open, body ?? throw Wrong(job, verb, rest), stage ?? job.Stage, more);
            Bench.Settle(new OpenJob(Jobs.Find(job.Number)!, model), body.Step);
            return filed.Id;
        }

        switch (verb)
        {
            case "pass" or "fail" or "failall" or "mark":
                foreach (var body in Tried(model, verb, rest))
                    File(body);
                break;
            case "read":
                var probe = model.Profile.FindProbe(words[0]) ?? throw Wrong(job, verb, rest);
                var judged = ReadingJudge.Judge(model.Profile, probe, rest[(words[0].Length + 1)..]);
                File(judged.IsOk ? ProbeReading.Of(probe, judged.Value) : throw Wrong(job, verb, rest));
                break;
            case "contacts":
                var marks = new ContactMarkStore(database, _clock);
                foreach (var pair in words[1..].Select(w => w.Split('=')))
                    marks.Add(
                        job.Id,
                        words[0],
                        new ContactMark(Number(pair[0]), Enum.Parse<ContactState>(pair[1], ignoreCase: true), null)
                    );
                break;
            case "point":
                File(new PointNoted(words[0], words[1], words[2]), WorkStage.Fix);
                break;
            case "crack":
                File(new BoardCracked(words[0], NetText.ReadLine(rest[(words[0].Length + 1)..]) ?? throw Wrong(job, verb, rest)), WorkStage.Fix);
                break;
            case "beep" or "silent":
                File(new LineBeeped(words[0], words[1], verb == "beep", string.Join(' ', words[2..])), WorkStage.Fix);
                break;
            case "hide":
                new StandInTruthStore(database).Hide(job.Id, words);
                break;
            case "starts":
                File(FunctionTrial.Make(model, words[0], words[1] == "pass", null, Number(words[2])));
                break;
            case "provoke":
                File(ProvokeTrial.Make(model, words[0], Enum.Parse<Provocation>(words[1], ignoreCase: true), words[2] == "changed"));
                break;
            case "swap":
                var swaps = words[1..^1].Select(w => w.Split('=')).Select(w => (Part: new PartId(w[0]), Piece: Number(w[1]))).ToList();
                var stood = swaps
                    .Select(s => new SwapPiece(Gear.EngineId(s.Piece), Pieces[s.Piece - 1].Name, Pieces[s.Piece - 1].Kind))
                    .ToList();
                var swapped = swaps.Select(s => s.Part).ToList();
                File(
                    new SwapTrial(
                        words[0],
                        Enum.Parse<SwapResult>(words[^1], ignoreCase: true),
                        SwapPlanner.Chain(model, words[0], swapped),
                        swapped,
                        stood
                    )
                );
                break;
            case "cause":
                secondLooks.Consider(File(CauseSeen.Make(model, words[0], words[1], true)));
                break;
            case "fix":
                var minutes = words.Length > 2 ? double.Parse(words[2], CultureInfo.InvariantCulture) : default(double?);
                var cost =
                    words.Length > 3 ? decimal.Parse(words[3], CultureInfo.InvariantCulture) : library.FindMethod(words[1])?.PartsCost;
                File(
                    RepairLogged.Make(model, words[0], words[1]),
                    WorkStage.Fix,
                    r => r with { Minutes = minutes ?? r.Minutes, Cost = cost }
                );
                break;
            case "prove":
                foreach (var function in model.Profile.Functions)
                {
                    var now = new OpenJob(Jobs.Find(job.Number)!, model);
                    Bench.File(now, new FunctionTrial(function.Id, true), WorkStage.Prove);
                    Bench.Settle(now, JobStep.Proving);
                }

                break;
            case "stage":
                Jobs.Move(
                    job,
                    job.Status with
                    {
                        Stage = Enum.Parse<WorkStage>(rest),
                    },
                    $"On to {StageWords.Name(Enum.Parse<WorkStage>(rest))}"
                );
                break;
            case "close":
                File(new AccessNoted(AccessState.Closed));
                break;
            case "shelf":
                var reason = rest[(words[0].Length + 1)..].Split('|');
                Must(
                    HandOver.Shelve(job.Number, Enum.Parse<Shelf>(words[0]), reason[0], reason.Length > 1 ? reason[1] : ""),
                    job,
                    verb,
                    rest
                );
                break;
            case "end":
                var ending = Enum.Parse<JobEnd>(words[0]);
                var order = new CloseOrder(
                    job.Number,
                    ending,
                    rest[words[0].Length..].Trim(),
                    "",
                    ending == JobEnd.ForSale ? job.ValueWorking : null,
                    false
                );
                Must(HandOver.Close(order), job, verb, rest);
                break;
            case "quote":
                var range = words[..3].Select(w => decimal.Parse(w, CultureInfo.InvariantCulture)).ToList();
                File(new QuoteGiven(range[0], range[1], range[2], job.Currency, string.Join(' ', words[3..]), ConsentWay.Phone), job.Stage);
                break;
            case "picture":
                var shell = StandInCamera.Shell(double.Parse(words[1], CultureInfo.InvariantCulture), (int)job.Number);
                var told = new PictureWords("", words[0], string.Join(' ', words[2..]));
                if (Pictures.Take(job.Number, shell, told).Refusal is { } refused)
                    throw new InvalidOperationException($"{Wrong(job, verb, rest).Message} {refused.Problem}");
                break;
            case "day":
                _clock.Step(TimeSpan.FromDays(double.Parse(rest, CultureInfo.InvariantCulture)));
                break;
            default:
                throw Wrong(job, verb, rest);
        }
    }

    private static List<RecordBody> Tried(DeviceModel model, string verb, string rest)
    {
        var words = rest.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        List<RecordBody?> bodies = verb switch
        {
            "mark" => [MarkNoted.Make(model.Library, words[0])],
            "pass" => [.. words.Select(f => FunctionTrial.Make(model, f, true))],
            "fail" => [FunctionTrial.Make(model, words[0], false, words.ElementAtOrDefault(1))],
            _ => [.. model.Profile.Functions.Select(f => FunctionTrial.Make(model, f.Id, false, words.ElementAtOrDefault(0)))],
        };
        return bodies
            .Select(b => b ?? throw new InvalidOperationException($"Demo: {model.Profile.Id} knows nothing of “{verb} {rest}”."))
            .ToList();
    }

    private static int Number(string text) => int.Parse(text, CultureInfo.InvariantCulture);

    private static void Must(Deed<Done> deed, Job job, string verb, string rest)
    {
        if (deed.Refusal is { } refusal)
            throw new InvalidOperationException($"{Wrong(job, verb, rest).Message} {refusal.Problem}");
    }

    private static InvalidOperationException Wrong(Job job, string verb, string rest) =>
        new($"Demo job {job.Number}: “{verb} {rest}” cannot be done.");
}
