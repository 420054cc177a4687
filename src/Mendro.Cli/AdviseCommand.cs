using System.Globalization;
using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Cli;

/// <summary><c>advise</c>: suspects and ranked moves for one unit.</summary>
internal static class AdviseCommand
{
    public static int Run(string[] args, TextWriter output, TextWriter error)
    {
        var options = CommandOptions.Read(args, ["--profile", "--evidence"], out var problem);
        if (options is null)
            return Commands.Refuse(error, problem!);
        if (options.Model(out problem) is not { } model)
            return Commands.Refuse(error, problem!);
        if (options.Value("--evidence") is not { } file)
            return Commands.Refuse(error, "--evidence is missing: the file of a mendro.evidence/1.");
        if (Commands.ReadText(file, out var text) is { } unreadable)
            return Commands.Refuse(error, unreadable);
        var evidence = EvidenceFile.Read(text, model);
        if (!evidence.IsOk)
            return Commands.Refuse(error, evidence.Problem!);
        var outcome = UnitDiagnosis.Make(model, evidence.Value.Events, new CaseContext(Gear: evidence.Value.Gear));
        if (!outcome.IsOk)
            return Commands.Refuse(error, outcome.Problem!);

        var diagnosis = outcome.Value;
        var advice = new MoveAdvisor(new BenchCosts()).Advise(diagnosis, evidence.Value.Apart(model));
        var hazards = UnitHazards.Of(model.Profile, model.Library, evidence.Value.Events.OfType<MarkSeen>().Select(m => m.MarkId));
        if (options.Json)
        {
            output.WriteLine(
                JsonSerializer.Serialize(
                    new
                    {
                        target = diagnosis.Target?.Id,
                        complaints = diagnosis.Complaints.Select(c => new { function = c.Function.Id, c.State }),
                        diagnosis.Unexplained,
                        suspects = diagnosis
                            .Suspects.Where(s => s.Share > 0)
                            .Select(s => new
                            {
                                fault = s.Fault.Id,
                                s.Posterior,
                                s.Share,
                            }),
                        advice.Outlook,
                        moves = advice.Moves.Select(m => new
                        {
                            m.Id,
                            m.Title,
                            m.Why,
                            m.Minutes,
                            m.PartsCost,
                            m.ExpectedMinutes,
                            m.ChanceToWork,
                            cautions = hazards.At(m, model.Profile).Select(c => c.Id),
                            known = m.Known ? true : default(bool?),
                            outcomes = m.Outcomes.Select(o => new
                            {
                                o.Answer,
                                o.Probability,
                                leading = o.Leading.Select(s => new { fault = s.Fault.Id, s.Share }),
                                o.Then,
                            }),
                        }),
                        // Only where it is so: most evidence is summed exactly.
                        sampled = diagnosis.Verdict.Sampled ? true : default(bool?),
                    },
                    ProfileJson.Options
                )
            );
            return Commands.Good;
        }

        if (diagnosis.Verdict.Sampled)
            output.WriteLine("Too much hangs together for the exact sum: the numbers are estimated, good to about 0.01.");
        foreach (var move in advice.Moves.Take(8))
            output.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{move.Minutes, 6:0.0} min  {move.Title}: {move.Why}"));
        if (advice.Moves.Count == 0)
            output.WriteLine(diagnosis.Target is null ? "Everything tried works." : "Nothing left that is worth its time.");
        return Commands.Good;
    }
}
