using Mendro.Core.Dismantling;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>A step of opening a unit, as it was done.</summary>
/// <param name="Name">What was done: “Back off”.</param>
/// <param name="Screws">Fasteners that came out, a line each; see <see cref="TeardownText"/>.</param>
/// <param name="Frees">Parts that can be reached now.</param>
/// <param name="Cables">Cables that were unplugged.</param>
/// <param name="Minutes">Minutes that it took, above 0.</param>
public sealed record StepSeen(string Name, string Screws, IReadOnlyList<PartId> Frees, IReadOnlyList<string> Cables, double Minutes);

/// <summary>A model that was taught a step.</summary>
/// <param name="Profile">The model with it.</param>
/// <param name="Step">Id of the step.</param>
/// <param name="Words">What was taught, in words.</param>
public sealed record StepTaught(DeviceProfile Profile, string Step, string Words);

/// <summary>Records how a model comes apart while it is opened, where nobody has written it down.</summary>
public static class StepTeaching
{
    /// <summary>Longest name, characters.</summary>
    public const int LongestName = 60;

    /// <summary>The model with the step.</summary>
    /// <param name="profile">Model.</param>
    /// <param name="library">Kinds of part.</param>
    /// <param name="seen">What was done.</param>
    /// <param name="done">Steps that were done before it on this unit, in order.</param>
    /// <returns>The model with the step; or why it cannot be kept.</returns>
    public static Outcome<StepTaught> Of(
        DeviceProfile profile,
        TradeLibrary library,
        StepSeen seen,
        IReadOnlyList<string> done
    )
    {
        static Outcome<StepTaught> Fail(string why) => Outcome<StepTaught>.Fail(why);

        var name = seen.Name.Trim();
        if (name.Length is 0 or > LongestName)
            return Fail($"Say in up to {LongestName} characters what was done, such as: back off.");
        if (!(seen.Minutes is > 0 and <= ProfileFormat.MostMinutes))
            return Fail("How many minutes did it take?");
        var screws = TeardownText.ReadFasteners(seen.Screws, out var problems);
        if (problems.Count > 0)
            return Fail($"{problems[0].Place}: {problems[0].Message}");
        if (seen.Frees.FirstOrDefault(f => profile.FindPart(f) is null) is { Value.Length: > 0 } unknown)
            return Fail($"There is no part “{unknown}”.");
        var known = (profile.Fasteners ?? []).Select(f => f.Id).ToHashSet();
        // What was written here may have the ids of another step: the next free ones are taken.
        var kept = new List<Fastener>();
        foreach (var screw in screws)
        {
            var id = known.Contains(screw.Id) ? Fastener.FreeId(known) : screw.Id;
            known.Add(id);
            kept.Add(screw with { Id = id });
        }

        var steps = profile.Steps ?? [];
        var step = new TeardownStep(
            Id(name, steps),
            name,
            // Probes at what is free now can be taken too.
            [
                .. seen.Frees.Select(f => f.Value),
                .. profile.Probes.Where(p => p.State > AccessState.Closed && p.PartIds().Any(seen.Frees.Contains)).Select(p => p.Id.Value),
            ],
            Last(steps, done) is { } last ? [last] : null,
            null,
            kept.Count > 0 ? kept.Select(f => f.Id).ToList() : null,
            seen.Cables.Count > 0 ? seen.Cables : null,
            null,
            seen.Minutes,
            seen.Minutes
        );
        var made = profile with { Fasteners = [.. profile.Fasteners ?? [], .. kept], Steps = [.. steps, step] };
        return ProfileValidator.Check(made, library) is [var problem, ..]
            ? Fail($"{problem.Place}: {problem.Message}")
            : Outcome<StepTaught>.Ok(
                new StepTaught(
                    made,
                    step.Id,
                    $"{name}{(kept.Count > 0 ? $", {kept.Count} {(kept.Count == 1 ? "fastener" : "fasteners")}" : "")}"
                )
            );
    }

    /// <summary>The step that was done last and that is known.</summary>
    private static string? Last(IReadOnlyList<TeardownStep> steps, IReadOnlyList<string> done) =>
        done.LastOrDefault(d => steps.Any(s => s.Id == d));

    private static string Id(string name, IReadOnlyList<TeardownStep> steps)
    {
        var slug = new string(name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-').ToArray()).Trim('-');
        slug = slug.Length == 0 ? "step" : slug[..Math.Min(slug.Length, 30)].Trim('-');
        return steps.All(s => s.Id != slug)
            ? slug
            : Enumerable.Range(2, 10_000).Select(n => $"{slug}-{n}").First(i => steps.All(s => s.Id != i));
    }
}
