using System.Diagnostics;
using System.Net;

namespace Mendro.Web.Tests;

/// <summary>The real server on a small file system that fills up: it says so, keeps what was typed, lets everything be looked at, and goes on
/// by itself when there is room. Left out, with a word, where no such file system can be made.</summary>
public sealed class FullDiskTests : IDisposable
{
    private readonly string _place = Directory.CreateTempSubdirectory("mendro-small-disk-").FullName;
    private readonly bool _mounted;

    public FullDiskTests() => _mounted = OperatingSystem.IsLinux() && Run("mount", "-t", "tmpfs", "-o", "size=24m", "none", _place);

    public void Dispose()
    {
        if (_mounted)
            Run("umount", "-l", _place);
        Directory.Delete(_place, recursive: !_mounted);
    }

    [Fact]
    public async Task It_says_that_the_disk_is_full_keeps_what_was_typed_and_goes_on_when_there_is_room()
    {
        if (!_mounted)
            Assert.Skip("No small file system can be made here.");
        var cancel = TestContext.Current.CancellationToken;
        using var server = await RealServer.Open(Path.Combine(_place, "shop"));
        using var client = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = new Uri(server.Address) };
        var token = (await WebShop.Parse(await client.GetAsync("/Settings", cancel))).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        async Task<HttpResponseMessage> TakeIn(string line)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "/?handler=Quick")
            {
                Content = new FormUrlEncodedContent([KeyValuePair.Create("line", line)]),
            };
            request.Headers.Add("X-Mendro-Antiforgery", token);
            return await client.SendAsync(request, cancel);
        }

        using (var before = await TakeIn("quartet no light, before it was full"))
            before.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await client.GetStringAsync("/health", cancel)).ShouldBe("Healthy");
        var filler = Fill();

        // Room that lies inside the file may take one or two more; then it says so.
        string? refused = null;
        for (var n = 0; n < 400 && refused is null; n++)
        {
            using var answer = await TakeIn($"quartet typed{n} {new string('y', 200)}");
            if (answer.StatusCode == HttpStatusCode.Redirect)
                continue;
            answer.StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
            refused = $"typed{n}";
            var page = await WebShop.Parse(answer);
            page.QuerySelector("h1")!.TextContent.ShouldBe("The disk is full");
            page.QuerySelector("input[name=line]")!.GetAttribute("value")!.ShouldContain(refused);
            answer.Headers.Contains("Content-Security-Policy").ShouldBeTrue();
        }

        refused.ShouldNotBeNull();
        // Everything can be looked at, and each page says it.
        foreach (var path in (string[])["/", "/Jobs", "/Jobs/101/Find", "/Stock", "/Money", "/Models", "/Settings", "/Day"])
        {
            using var shown = await client.GetAsync(path, cancel);
            shown.StatusCode.ShouldBe(HttpStatusCode.OK, path);
            (await shown.Content.ReadAsStringAsync(cancel)).ShouldContain("nothing can be filed");
        }

        using (var health = await client.GetAsync("/health", cancel))
            health.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);

        // Room again: it goes on, and nothing of what was refused is there.
        File.Delete(filler);
        using (var after = await TakeIn("quartet no light, room again"))
            after.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await client.GetStringAsync("/health", cancel)).ShouldBe("Healthy");
        var jobs = await client.GetStringAsync("/Jobs", cancel);
        (jobs.Contains("nothing can be filed", StringComparison.Ordinal), jobs.Contains(refused, StringComparison.Ordinal)).ShouldBe((false, false));
    }

    private string Fill()
    {
        var filler = Path.Combine(_place, "filler");
        using var stream = new FileStream(filler, FileMode.Create, FileAccess.Write);
        var block = new byte[4096];
        try
        {
            while (true)
            {
                stream.Write(block);
                stream.Flush();
            }
        }
        catch (IOException)
        {
            return filler;
        }
    }

    private static bool Run(string program, params string[] args)
    {
        try
        {
            using var process = Process.Start(new ProcessStartInfo(program, args) { RedirectStandardError = true, RedirectStandardOutput = true })!;
            process.WaitForExit();
            return process.ExitCode == 0;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            return false;
        }
    }
}
