using BenchmarkDotNet.Attributes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Mendro.Benchmarks;

/// <summary>Server time of the pages in the demo world. Aim: no page of Find over 250 ms.</summary>
public class PageBenchmarks
{
    private readonly string _folder = Path.Combine(Path.GetTempPath(), "mendro-bench-" + Guid.NewGuid().ToString("N"));
    private WebApplicationFactory<Program> _factory = null!;
    private HttpClient _client = null!;

    /// <summary>Page asked for.</summary>
    [Params("/Jobs/143/Find", "/Jobs/143/Why", "/Jobs/149/Swaps", "/", "/Patterns", "/Models/Edit/dovrel-sextant")]
    public string Path_ { get; set; } = "";

    /// <summary>Starts the application in this process.</summary>
    [GlobalSetup]
    public void Start()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root.FullName, "Mendro.slnx")))
            root = root.Parent!;
        Environment.SetEnvironmentVariable("ASPNETCORE_TEST_CONTENTROOT_MENDRO_WEB", Path.Combine(root.FullName, "src", "Mendro.Web"));
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.UseSetting("data", _folder).UseSetting("demo", "true")
        );
        _client = _factory.CreateClient();
    }

    /// <summary>Stops it.</summary>
    [GlobalCleanup]
    public void Stop()
    {
        _client.Dispose();
        _factory.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    /// <summary>One request; results of unchanged jobs are kept by the server.</summary>
    [Benchmark]
    public async Task<int> Kept() => (await _client.GetStringAsync(Path_)).Length;
}
