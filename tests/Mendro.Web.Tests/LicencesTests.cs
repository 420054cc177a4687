using System.Text.Json;
using System.Text.RegularExpressions;

namespace Mendro.Web.Tests;

/// <summary>docs/licences.md names every package that is restored, with its version and licence, and no other.</summary>
public sealed partial class LicencesTests
{
    private static readonly string[] Allowed =
    [
        "0BSD",
        "Apache-2.0",
        "BSD-3-Clause",
        "BlueOak-1.0.0",
        "ISC",
        "MIT",
        "MS-PL OR Apache-2.0",
        "OFL-1.1",
    ];

    // They build and test; nothing of theirs is in the application.
    private static readonly string[] ToolsOnly = ["MPL-2.0", "PSF-2.0"];

    [GeneratedRegex("<license type=\"expression\">([^<]+)</license>")]
    private static partial Regex Expression();

    private sealed record Package(string Name, string Version, string Licence);

    [Fact]
    public void Every_package_of_the_application_is_listed_with_its_licence()
    {
        var (shipped, tools) = (Listed("## Shipped"), Listed("## For building"));
        var ours = Restored("src").ToHashSet();
        var all = Restored("tests").Concat(Restored("bench")).ToHashSet();
        all.ExceptWith(ours);
        var (packages, npm) = (PackageFolder(), Npm());
        string[] shippedNpm =
        [
            "htmx.org",
            "@fontsource-variable/atkinson-hyperlegible-mono",
            "@fontsource-variable/atkinson-hyperlegible-next",
        ];
        Names(shipped).ShouldBe(ours.Concat(Names(npm.Where(p => shippedNpm.Contains(p.Name)))), ignoreOrder: true);
        Names(tools).ShouldBe(all.Concat(Names(npm.Where(p => !shippedNpm.Contains(p.Name)))), ignoreOrder: true);
        foreach (var package in shipped.Concat(tools))
            if (LicenceOf(packages, package) is { } says)
                package.Licence.ShouldBe(says, package.Name);
        foreach (var package in npm)
            shipped.Concat(tools).ShouldContain(package);
        shipped.Select(p => p.Licence).Except(Allowed).ShouldBeEmpty();
        tools.Select(p => p.Licence).Except([.. Allowed, .. ToolsOnly]).ShouldBeEmpty();
    }

    private static IEnumerable<string> Names(IEnumerable<Package> packages) => packages.Select(p => $"{p.Name}/{p.Version}").Distinct();

    private static List<Package> Listed(string heading)
    {
        var text = File.ReadAllText(Path.Combine(ArchitectureTests.Root(), "docs", "licences.md"));
        var section = text[text.IndexOf(heading, StringComparison.Ordinal)..];
        var end = section.IndexOf("\n## ", 3, StringComparison.Ordinal);
        return (end < 0 ? section : section[..end])
            .Split('\n')
            .Where(l => l.StartsWith("| ", StringComparison.Ordinal) && !l.StartsWith("| package", StringComparison.Ordinal))
            .Select(l => l.Split('|', StringSplitOptions.TrimEntries))
            .Select(c => new Package(c[1], c[2], c[3]))
            .ToList();
    }

    /// <summary>Packages that the projects of a folder restore, those that others bring along too.</summary>
    private static IEnumerable<string> Restored(string folder) =>
        Directory
            .EnumerateFiles(Path.Combine(ArchitectureTests.Root(), folder), "project.assets.json", SearchOption.AllDirectories)
            .SelectMany(file =>
            {
                using var assets = JsonDocument.Parse(File.ReadAllText(file));
                return assets
                    .RootElement.GetProperty("libraries")
                    .EnumerateObject()
                    .Where(l => l.Value.GetProperty("type").GetString() == "package")
                    .Select(l => l.Name)
                    .ToList();
            })
            .Distinct();

    private static List<Package> Npm()
    {
        using var locked = JsonDocument.Parse(File.ReadAllText(Path.Combine(ArchitectureTests.Root(), "package-lock.json")));
        return locked
            .RootElement.GetProperty("packages")
            .EnumerateObject()
            .Where(p => p.Name.Length > 0)
            .Select(p => new Package(
                p.Name[(p.Name.LastIndexOf("node_modules/", StringComparison.Ordinal) + 13)..],
                p.Value.GetProperty("version").GetString()!,
                p.Value.GetProperty("license").GetString()!
            ))
            .DistinctBy(p => p.Name)
            .ToList();
    }

    private static string PackageFolder()
    {
        using var assets = JsonDocument.Parse(
            File.ReadAllText(Path.Combine(ArchitectureTests.Root(), "src", "Mendro.Core", "obj", "project.assets.json"))
        );
        return assets.RootElement.GetProperty("packageFolders").EnumerateObject().First().Name;
    }

    /// <summary>What a package says of itself; null when it names a file instead.</summary>
    private static string? LicenceOf(string packages, Package package)
    {
        var name = package.Name.ToLowerInvariant();
        var file = Path.Combine(packages, name, package.Version.ToLowerInvariant(), name + ".nuspec");
        return File.Exists(file) && Expression().Match(File.ReadAllText(file)) is { Success: true } says ? says.Groups[1].Value : null;
    }
}
