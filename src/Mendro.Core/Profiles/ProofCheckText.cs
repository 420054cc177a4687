namespace Mendro.Core.Profiles;

/// <summary>
/// Checks as lines of text: <c>save: Save kept over power-off; how save, off ten minutes, load; good the save is there; proves saving;
/// with cartridge with a save; after cell, memory; 12 min; closed</c>.
/// </summary>
public static class ProofCheckText
{
    /// <summary>Writes checks.</summary>
    public static string Write(IEnumerable<ProofCheck> checks) =>
        string.Join(
            '\n',
            checks.Select(c =>
                $"{c.Id}: "
                + string.Join(
                    "; ",
                    new[] { Plain(c.Name) }
                        .Concat(c.How is { } how ? [$"how {Plain(how)}"] : [])
                        .Concat(c.Good is { } good ? [$"good {Plain(good)}"] : [])
                        .Concat(c.Function is { } function ? [$"proves {function}"] : [])
                        .Concat(TeardownText.List("with", c.With))
                        .Concat(TeardownText.List("after", c.After?.Select(p => p.Value).ToList()))
                        .Append($"{TeardownText.N(c.Minutes)} min")
                        .Concat(c.Closed ? ["closed"] : [])
                )
            )
        );

    /// <summary>Reads checks; blank lines are skipped.</summary>
    public static IReadOnlyList<ProofCheck> Read(string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var (found, wrong) = (new List<ProofCheck>(), new List<ProfileProblem>());
        foreach (var (place, id, clauses) in TeardownText.Lines(text, "checks", ';', wrong))
        {
            var made = new ProofCheck(id, clauses[0]);
            foreach (var clause in clauses.Skip(1))
            {
                ProofCheck? told = clause switch
                {
                    "closed" => made with { Closed = true },
                    _ when TeardownText.Minutes(clause) is { } minutes => made with { Minutes = minutes },
                    _ when TeardownText.After(clause, "how ") is { } said => made with { How = said },
                    _ when TeardownText.After(clause, "good ") is { } said => made with { Good = said },
                    _ when TeardownText.After(clause, "proves ") is { } said => made with { Function = new FunctionId(said) },
                    _ when TeardownText.After(clause, "with ") is { } said => made with { With = TeardownText.Split(said) },
                    _ when TeardownText.After(clause, "after ") is { } said => made with
                    {
                        After = TeardownText.Split(said).Select(p => new PartId(p)).ToList(),
                    },
                    _ => null,
                };
                if (told is null)
                    wrong.Add(new ProfileProblem(place, $"“{clause}” begins with none of: how, good, proves, with, after, 12 min, closed."));
                made = told ?? made;
            }

            found.Add(made);
        }

        problems = wrong;
        return found;
    }

    private static string Plain(string words) => words.Replace(';', ',');
}
