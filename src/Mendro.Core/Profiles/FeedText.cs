namespace Mendro.Core.Profiles;

/// <summary>
/// The block diagram as lines of text, quick to type at the bench: <c>power: cells &gt; contacts &gt; fuse</c>, one chain
/// a line.
/// </summary>
public static class FeedText
{
    /// <summary>Writes feeds as chains, in their order.</summary>
    public static string Write(IReadOnlyList<Feed> feeds)
    {
        var lines = new List<string>();
        Feed? before = null;
        foreach (var feed in feeds)
        {
            if (before is not null && before.To == feed.From && before.Carries == feed.Carries)
                lines[^1] += $" > {feed.To}";
            else
                lines.Add($"{Word(feed.Carries)}: {feed.From} > {feed.To}");
            before = feed;
        }

        return string.Join('\n', lines);
    }

    /// <summary>Reads chains.</summary>
    /// <param name="text">Lines of text; blank ones are skipped.</param>
    /// <param name="problems">What could not be read, with its line.</param>
    public static IReadOnlyList<Feed> Read(string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var (feeds, wrong) = (new List<Feed>(), new List<ProfileProblem>());
        var lines = (text ?? "").Split('\n');
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n].Trim();
            if (line.Length == 0)
                continue;
            var place = $"feeds, line {n + 1}";
            if (line.Split(':', 2) is not [var what, var chain])
            {
                wrong.Add(new ProfileProblem(place, "begin with what flows and a colon: “power: cells > contacts”."));
                continue;
            }

            if (!Enum.TryParse<Carries>(what.Trim(), ignoreCase: true, out var carries) || !char.IsLetter(what.Trim()[0]))
            {
                wrong.Add(
                    new ProfileProblem(
                        place,
                        $"“{what.Trim()}” does not flow here; it is one of {string.Join(", ", Enum.GetValues<Carries>().Select(Word))}."
                    )
                );
                continue;
            }

            var parts = chain.Split('>', StringSplitOptions.TrimEntries);
            if (parts.Length < 2 || parts.Any(p => p.Length == 0))
            {
                wrong.Add(new ProfileProblem(place, "a chain needs a part on each side of every “>”."));
                continue;
            }

            for (var k = 1; k < parts.Length; k++)
                feeds.Add(new Feed(parts[k - 1], parts[k], carries));
        }

        problems = wrong;
        return feeds;
    }

    private static string Word(Carries carries) => carries.ToString().ToLowerInvariant();
}
