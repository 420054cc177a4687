using System.Diagnostics;
using System.Text.RegularExpressions;

namespace Mendro.Web.Tests.Access;

/// <summary>docs/operations.md, followed line by line on a clean folder; and the unit of the service held against its own words.</summary>
public sealed partial class OperationsTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-operations-").FullName;

    public void Dispose() => Directory.Delete(_folder, true);

    [Fact]
    public async Task The_manual_works_line_by_line()
    {
        var blocks = ShellBlock().Matches(await File.ReadAllTextAsync(Root("docs/operations.md"), TestContext.Current.CancellationToken));
        blocks.Count.ShouldBeGreaterThan(9);
        // One shell for all of it, as one would type it; it ends at the first line that fails, and takes its server along.
        var script =
            "set -euo pipefail\ntrap '[ -z \"${PID:-}\" ] || kill -9 $PID 2>/dev/null || true' EXIT\n"
            + string.Join("\n", blocks.Select((b, n) => $"echo 'block {n + 1}'\n{b.Groups[1].Value}"))
                // What is published was built with the tests just now.
                .Replace("dotnet publish", "dotnet publish --no-build", StringComparison.Ordinal);
        var start = new ProcessStartInfo("bash", ["-c", script])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            WorkingDirectory = _folder,
        };
        start.Environment["SOURCE"] = Root(".");
        start.Environment["APP"] = Path.Combine(_folder, "app");
        start.Environment["DATA"] = Path.Combine(_folder, "shop");
        start.Environment["KEEP"] = Path.Combine(_folder, "keep");
        start.Environment["PORT"] = $"{RealServer.FreePort()}";
        using var shell = Process.Start(start)!;
        var said = shell.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        var complained = shell.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        await shell.WaitForExitAsync(TestContext.Current.CancellationToken);
        shell.ExitCode.ShouldBe(0, $"{await said}\n{await complained}");
        File.Exists(Path.Combine(_folder, "keep", "text", "shop.json")).ShouldBeTrue();
        File.Exists(Path.Combine(_folder, "shop-moved", "shop.db")).ShouldBeTrue();
    }

    [Fact]
    public void The_unit_runs_as_its_own_user_and_every_option_it_names_is_one()
    {
        var unit = File.ReadAllLines(Root("deploy/mendro.service"));
        string[] hardened = ["User=mendro", "NoNewPrivileges=true", "ProtectSystem=strict", "CapabilityBoundingSet=", "UMask=0077", "PrivateTmp=true"];
        hardened.ShouldBeSubsetOf(unit);
        var known = new[] { "host", "port", "cert", "cert-key", "cert-password-file", "proxy", "names", "plain-http", "data" };
        var named = File.ReadAllLines(Root("deploy/mendro.env"))
            .Concat(unit)
            .SelectMany(l => Variable().Matches(l))
            .Select(m => m.Groups[1].Value.ToLowerInvariant().Replace('_', '-'));
        named.Distinct().ShouldBeSubsetOf(known);
    }

    private static string Root(string path) => Path.GetFullPath(Path.Combine(ArchitectureTests.Root(), path));

    [GeneratedRegex("^```sh\n(.*?)^```", RegexOptions.Multiline | RegexOptions.Singleline)]
    private static partial Regex ShellBlock();

    [GeneratedRegex(@"\bMENDRO_([A-Z_]+)=")]
    private static partial Regex Variable();
}
