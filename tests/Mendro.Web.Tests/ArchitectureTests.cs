using System.Reflection;
using System.Text.RegularExpressions;
using Mendro.Cli;
using Mendro.Core.Diagnosis;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.StandIns;
using Mendro.Storage;
using NetArchTest.Rules;

namespace Mendro.Web.Tests;

/// <summary>
/// Arrows run one way: Web and Cli to Shop, Shop to Storage, Instruments and StandIns, those to Core, and Core to nothing. Inside
/// Core no folder depends on another in a circle.
/// </summary>
public class ArchitectureTests
{
    private static readonly Assembly Core = typeof(DeviceModel).Assembly;

    [Fact]
    public void Core_knows_no_interface_no_storage_and_no_files()
    {
        var result = Types
            .InAssembly(Core)
            .ShouldNot()
            .HaveDependencyOnAny(
                "Mendro.Storage",
                "Mendro.Shop",
                "Mendro.Instruments",
                "Mendro.Web",
                "Mendro.Cli",
                "Mendro.StandIns",
                "Mendro.Solver",
                "Mendro.Pictures",
                "Microsoft.AspNetCore",
                "Microsoft.Data.Sqlite",
                "Dapper",
                "System.IO.File",
                "System.Net",
                "System.Diagnostics.Stopwatch"
            )
            .GetResult();
        result.IsSuccessful.ShouldBeTrue(string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void Every_house_knows_only_what_lies_below_it()
    {
        string[] all =
        [
            "Mendro.Storage",
            "Mendro.Shop",
            "Mendro.Instruments",
            "Mendro.StandIns",
            "Mendro.Solver",
            "Mendro.Pictures",
            "Mendro.Web",
            "Mendro.Cli",
        ];
        foreach (
            var (assembly, below) in ((Assembly, string[])[])
                [
                    (typeof(ShopDatabase).Assembly, []),
                    (typeof(BenchMeter).Assembly, []),
                    (typeof(PracticeBench).Assembly, []),
                    (typeof(BenchDesk).Assembly, ["Mendro.Storage", "Mendro.Instruments", "Mendro.StandIns", "Mendro.Solver", "Mendro.Pictures"]),
                    (typeof(Mendro.Solver.FitSolver).Assembly, []),
                    (typeof(Mendro.Pictures.PictureReader).Assembly, []),
                    (typeof(Mendro.Cli.Commands).Assembly, ["Mendro.Shop", "Mendro.Storage", "Mendro.StandIns", "Mendro.Solver"]),
                    (typeof(Program).Assembly, ["Mendro.Shop", "Mendro.Storage", "Mendro.Instruments", "Mendro.StandIns"]),
                ]
        )
        {
            var own = assembly.GetName().Name!;
            var named = assembly.GetReferencedAssemblies().Select(a => a.Name!).Where(n => all.Contains(n)).ToList();
            named.Except(below).ShouldBeEmpty(own);
            if (own is "Mendro.Web" or "Mendro.Cli")
                continue;
            // Who speaks to suppliers may do so over HTTP; nobody else below the web has a use for it.
            string[] forbidden = own == "Mendro.Instruments" ? ["Microsoft.AspNetCore"] : ["Microsoft.AspNetCore", "System.Net.Http"];
            var result = Types.InAssembly(assembly).ShouldNot().HaveDependencyOnAny(forbidden).GetResult();
            result.IsSuccessful.ShouldBeTrue($"{own}: {string.Join(", ", result.FailingTypeNames ?? [])}");
        }
    }

    [Fact]
    public void No_folder_of_core_depends_on_another_in_a_circle()
    {
        var folders = Core.GetTypes().Select(Folder).Where(f => f.Length > 0).Distinct().ToList();
        var arrows = folders.ToDictionary(f => f, f => folders.Where(other => other != f && DependsOn(f, other)).ToList());
        // Kahn's algorithm: what cannot be taken away stands on a circle.
        var left = folders.ToHashSet();
        while (left.FirstOrDefault(f => arrows[f].All(to => !left.Contains(to))) is { } free)
            left.Remove(free);
        left.ShouldBeEmpty(string.Join("; ", left.Select(f => $"{f} → {string.Join(", ", arrows[f].Where(left.Contains))}")));
        // And the arrows that design forbids outright.
        arrows["Profiles"].Except(["Quantities"]).ShouldBeEmpty();
        arrows["Diagnosis"].Except(["Library", "Profiles", "Evidence", "Quantities", "Dismantling"]).ShouldBeEmpty();
        arrows["Evidence"].Except(["Profiles"]).ShouldBeEmpty();
        arrows["Quantities"].ShouldBeEmpty();
    }

    [Fact]
    public void No_address_of_a_web_page_stands_in_core()
    {
        var root = Root();
        foreach (
            var file in Directory
                .EnumerateFiles(Path.Combine(root, "src", "Mendro.Core"), "*.cs", SearchOption.AllDirectories)
                .Where(f => !f.Contains("/obj/"))
        )
            Regex
                .Matches(File.ReadAllText(file), "\"/[A-Z][a-z]+|href|asp-page|https?://(?!json-schema)")
                .Select(m => m.Value)
                .ShouldBeEmpty(file);
    }

    [Fact]
    public void Lines_can_be_read()
    {
        const int widest = 160;
        var wide = new[] { "src", "tests", "bench", "e2e" }
            .SelectMany(d => Directory.EnumerateFiles(Path.Combine(Root(), d), "*", SearchOption.AllDirectories))
            .Where(f =>
                Regex.IsMatch(f, @"\.(cs|cshtml|css|mjs|js)$")
                && !Regex.IsMatch(f, "/(obj|bin|node_modules|vendor)/|htmx|wwwroot/css/|min\\.js$")
            )
            .SelectMany(f => File.ReadLines(f).Select((line, n) => (File: Path.GetRelativePath(Root(), f), Line: n + 1, line.Length)))
            .Where(l => l.Length > widest)
            .ToList();
        wide.ShouldBeEmpty(string.Join("\n", wide.Take(20).Select(l => $"{l.File}:{l.Line} {l.Length}")));
    }

    /// <summary>Folder of the whole repository.</summary>
    internal static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder!.FullName, "Mendro.slnx")))
            folder = folder.Parent;
        return folder.FullName;
    }

    private static string Folder(Type type) =>
        type.Namespace is { } name && name.StartsWith("Mendro.Core.", StringComparison.Ordinal)
            ? name["Mendro.Core.".Length..].Split('.')[0]
            : "";

    // Read once: every question would read the assembly anew.
    private static readonly Types CoreTypes = Types.InAssembly(Core);

    private static bool DependsOn(string folder, string other) =>
        !CoreTypes
            .That()
            .ResideInNamespace($"Mendro.Core.{folder}")
            .ShouldNot()
            .HaveDependencyOn($"Mendro.Core.{other}")
            .GetResult()
            .IsSuccessful;
}
