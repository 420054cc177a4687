using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Planning;

/// <summary>A subject and a predicate, over every function of every model: what is said of one is filed of that one and of no other.
/// Common practice, no source.</summary>
public class FrameTests
{
    private static readonly DeviceProfile[] Models = [.. TradeLibrary.Shipped.Profiles, .. TradeLibrary.Shipped.Archetypes];

    // A lid and a clock are called by what is tried on them; nobody says “lid noticed is dead”.
    private static string Name(DeviceFunction function) =>
        function.Name.ToLowerInvariant().Replace(" noticed", "", StringComparison.Ordinal).Replace(" kept", "", StringComparison.Ordinal)
            .Replace(" and settings", "", StringComparison.Ordinal);

    public static TheoryData<string> Bad =>
        [
            "has no effect", "fails", "acts up", "is intermittent", "misbehaves", "does not always work", "is temperamental", "comes and goes",
            "does nothing", "only works when the case is squeezed", "is dead",
        ];

    public static TheoryData<string> Good => ["works perfectly", "is fine", "is great", "is ok", "is alright"];

    [Theory]
    [MemberData(nameof(Bad))]
    public void What_is_said_to_fail_is_filed_of_it_alone(string predicate) =>
        Wrong((_, function) => [($"{Name(function)} {predicate}", [$"{function.Id} fail"])]).ShouldBeEmpty();

    [Theory]
    [MemberData(nameof(Good))]
    public void What_is_said_to_work_is_filed_of_it_alone(string predicate) =>
        Wrong((_, function) => [($"{Name(function)} {predicate}", [$"{function.Id} pass"])]).ShouldBeEmpty();

    /// <summary>“Reset is fine, picture fails”, either way round, over all pairs.</summary>
    [Theory]
    [InlineData("is fine, ", "fails")]
    [InlineData("works perfectly but ", "acts up")]
    public void Of_two_each_is_told_its_own(string good, string bad) =>
        Wrong(
                (model, function) =>
                    model.Functions
                        .Where(other => other != function)
                        .Select(other => ($"{Name(function)} {good}{Name(other)} {bad}", new[] { $"{function.Id} pass", $"{other.Id} fail" }))
            )
            .ShouldBeEmpty();

    /// <summary>“The picture cable is broken”: what only tells of which kind a thing is does not fail with it.</summary>
    [Theory]
    [InlineData("atrium picture cable broken", "")]
    [InlineData("quartet sound wire loose", "")]
    [InlineData("leaflet charger cable frayed and broken", "")]
    [InlineData("duet screen protector gone", "")]
    [InlineData("tripos controller cable dead", "")]
    [InlineData("quartet speaker grille missing", "")]
    [InlineData("leaflet screen lens gone", "")]
    [InlineData("halyard disc lid sticks sometimes", "tray fail")]
    [InlineData("quartet volume wheel scratchy", "speaker fail")]
    [InlineData("leaflet start button dead", "buttons fail")]
    public void Of_a_name_of_two_the_second_is_spoken_of(string line, string meant) =>
        string.Join(
                ", ",
                Understanding
                    .Of(line, [.. Models], TradeLibrary.Shipped)
                    .Facts.Where(f => f.Function is not null)
                    .Select(f => $"{f.Function} {(f.Passed ? "pass" : "fail")}")
            )
            .ShouldBe(meant);

    private static string Wrong(Func<DeviceProfile, DeviceFunction, IEnumerable<(string Line, string[] Meant)>> lines)
    {
        var wrong = new List<string>();
        foreach (var model in Models)
        foreach (var function in model.Functions)
        foreach (var (line, meant) in lines(model, function))
        {
            var heard = Understanding
                .Of(line, model, TradeLibrary.Shipped)
                .Facts.Where(f => f.Function is not null)
                .Select(f => $"{f.Function} {(f.Passed ? "pass" : "fail")}")
                .ToHashSet();
            if (!heard.SetEquals(meant))
                wrong.Add($"{model.Id}: {line} → {string.Join(", ", heard)}");
        }

        return string.Join("\n", wrong);
    }
}
