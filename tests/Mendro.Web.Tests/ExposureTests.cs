using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using System.Runtime.Versioning;
using System.Text;
using Dapper;
using Mendro.Storage;

namespace Mendro.Web.Tests;

/// <summary>What the shop shows to the outside: nothing but this machine, under its own names, within its limits.</summary>
public sealed class ExposureTests(ExposureTests.Standing standing) : IClassFixture<ExposureTests.Standing>, IDisposable
{
    /// <summary>A server that the tests share which leave it as it is.</summary>
    public sealed class Standing : IAsyncLifetime
    {
        private RealServer? _server;

        public string Folder { get; } = Directory.CreateTempSubdirectory("mendro-standing-").FullName;

        public string Address => _server!.Address;

        public int Port => _server!.Port;

        public async ValueTask InitializeAsync() => _server = await RealServer.Open(Folder);

        public ValueTask DisposeAsync()
        {
            _server?.Dispose();
            Directory.Delete(Folder, true);
            return ValueTask.CompletedTask;
        }
    }

    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-exposure-").FullName;

    public void Dispose()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    [Fact]
    public async Task Bare_variables_of_the_environment_open_nothing_to_the_network()
    {
        using var server = await RealServer.Open(
            _folder,
            new()
            {
                ["HOST"] = "0.0.0.0",
                ["URLS"] = "http://0.0.0.0:0",
                ["DATA"] = "/nowhere",
                ["DEMO"] = "true",
                ["PORT"] = "1",
                ["LANG"] = "de_DE.UTF-8",
                ["TZ"] = "Asia/Kathmandu",
            }
        );
        Listening(server.Port).ShouldBe([IPAddress.Loopback]);
        // Not the demo, and in the folder that was told.
        File.Exists(Path.Combine(_folder, "shop.db")).ShouldBeTrue();
        using var client = new HttpClient();
        (await client.GetStringAsync(server.Address + "/Jobs", TestContext.Current.CancellationToken)).ShouldContain(
            "No unit is in the shop"
        );
        // From any other address of this machine it is not reached.
        foreach (var address in OtherAddresses())
        {
            using var socket = new Socket(address.AddressFamily, SocketType.Stream, ProtocolType.Tcp);
            Should.Throw<SocketException>(() => socket.Connect(address, server.Port));
        }
    }

    [Theory]
    [InlineData("ASPNETCORE_URLS", "http://0.0.0.0:0")]
    [InlineData("DOTNET_URLS", "http://0.0.0.0:0")]
    [InlineData("ASPNETCORE_HTTP_PORTS", "0")]
    [InlineData("Kestrel__Endpoints__Open__Url", "http://0.0.0.0:0")]
    [InlineData("ASPNETCORE_Kestrel__Endpoints__Open__Url", "http://0.0.0.0:0")]
    public async Task What_else_says_where_to_listen_is_refused_in_one_sentence(string variable, string value)
    {
        var (code, said) = await RealServer.Refused(_folder, new() { [variable] = value });
        code.ShouldBe(2);
        said.Trim().ShouldBe(
            $"“{variable}” says where to listen, and that is said to Mendro only: take it away, and use --host and --port (docs/operations.md)."
        );
    }

    [Fact]
    public async Task The_command_line_opens_nothing_else_either()
    {
        foreach (var more in (string[][])[["--urls", "http://0.0.0.0:0"], ["--Kestrel:Endpoints:Open:Url=http://0.0.0.0:0"]])
        {
            var (code, said) = await RealServer.Refused(_folder, null, more);
            (code, said.Contains("says where to listen", StringComparison.Ordinal)).ShouldBe((2, true));
        }
    }

    [Fact]
    public async Task A_shop_of_the_house_takes_nothing_that_came_through_a_proxy_nobody_named()
    {
        using var client = new HttpClient();
        foreach (var header in (string[])["X-Forwarded-For", "X-Forwarded-Host", "X-Forwarded-Proto", "Forwarded"])
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, standing.Address + "/Jobs");
            request.Headers.Add(header, "for=203.0.113.9");
            using var answer = await client.SendAsync(request, TestContext.Current.CancellationToken);
            ((int)answer.StatusCode).ShouldBe(403, header);
            (await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldContain("--proxy");
        }
    }

    [Fact]
    public async Task Plain_http_beyond_this_machine_is_refused_in_one_sentence_unless_it_is_confirmed()
    {
        foreach (var host in (string[])["0.0.0.0", "::", "192.168.1.20"])
        {
            ServeOptions.Read(["--host", host], out var problem).ShouldBeNull();
            problem!.ShouldContain("--plain-http yes");
            ServeOptions.Read(["--host", host, "--plain-http", "yes"], out _)!.IsNetwork.ShouldBeTrue();
            ServeOptions.Read(["--host", host, "--proxy", "10.0.0.7"], out _)!.IsNetwork.ShouldBeTrue();
        }

        ServeOptions.Read(["--host", "shop.example"], out var noAddress).ShouldBeNull();
        noAddress!.ShouldContain("“shop.example” is no address");
        ServeOptions.Read(["--host", "127.0.0.1"], out _)!.IsNetwork.ShouldBeFalse();
        ServeOptions.Read(["--proxy", "127.0.0.1"], out _)!.IsNetwork.ShouldBeTrue("who comes through a proxy may come from anywhere");
        ServeOptions.Read(["--cert", Path.Combine(_folder, "none.pem")], out var noCertificate).ShouldBeNull();
        noCertificate!.ShouldContain("cannot be used");

        foreach (
            var told in (Func<Task<(int, string)>>[])
                [
                    () => RealServer.Refused(_folder, null, "--host", "0.0.0.0"),
                    () => RealServer.Refused(_folder, new() { ["MENDRO_HOST"] = "0.0.0.0" }),
                ]
        )
        {
            var (code, said) = await told();
            code.ShouldBe(2);
            said.Trim().Split('\n').ShouldHaveSingleItem().ShouldContain("--plain-http yes");
            File.Exists(Path.Combine(_folder, "shop.db")).ShouldBeFalse();
        }
    }

    [Fact]
    public async Task Our_own_variables_are_read_and_the_command_line_comes_first()
    {
        var elsewhere = Path.Combine(_folder, "told");
        var options = ServeOptions.Read(["--port", "5099"], out _)!;
        (options.Port, options.Demo, options.Host).ShouldBe((5099, false, IPAddress.Loopback));
        ServeOptions.Read(["--host", "::1"], out _)!.Host.ShouldBe(IPAddress.IPv6Loopback);
        ServeOptions.Read(["--port", "many"], out var problem).ShouldBeNull();
        problem!.ShouldContain("“many”");
        using var server = await RealServer.Open(_folder, new() { ["MENDRO_DATA"] = elsewhere, ["MENDRO_PORT"] = "1" });
        File.Exists(Path.Combine(elsewhere, "shop.db")).ShouldBeFalse();
    }

    [Fact]
    public async Task Only_local_names_are_answered()
    {
        foreach (
            var (host, expected) in ((string, int)[])
                [
                    ("evil.example", 400),
                    ("evil.example:5080", 400),
                    ("127.0.0.1.evil.example", 400),
                    ("", 400),
                    ("localhost", 200),
                    ("127.0.0.1:5080", 200),
                    ("[::1]:5080", 200),
                ]
        )
        {
            foreach (var path in (string[])["/", "/Intake", "/health"])
            {
                var answer = await Raw(standing.Port, $"GET {path} HTTP/1.1\r\nHost: {host}\r\nConnection: close\r\n\r\n");
                answer.ShouldStartWith($"HTTP/1.1 {expected} ", Case.Sensitive, host);
                if (expected != 200)
                    answer.ShouldNotContain("Mendro");
            }
        }
    }

    [Fact]
    public async Task A_request_larger_than_the_limit_is_refused_and_changes_nothing()
    {
        // The body waits for the server's word however busy the machine is; by itself it would be sent after a second, into a closing line.
        using var handler = new SocketsHttpHandler { Expect100ContinueTimeout = Timeout.InfiniteTimeSpan };
        using var client = new HttpClient(handler);
        using var content = new StringContent("line=" + new string('x', 5_000_000), Encoding.UTF8, "application/x-www-form-urlencoded");
        using var request = new HttpRequestMessage(HttpMethod.Post, standing.Address + "/?handler=Quick") { Content = content };
        request.Headers.ExpectContinue = true;
        using var response = await client.SendAsync(request, TestContext.Current.CancellationToken);
        response.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        using var connection = new ShopDatabase(Path.Combine(standing.Folder, "shop.db")).Open();
        connection.ExecuteScalar<long>("SELECT count(*) FROM jobs WHERE claim LIKE '%xxx%'").ShouldBe(0);
    }

    [Theory]
    [InlineData("TRACE")]
    [InlineData("PUT")]
    [InlineData("DELETE")]
    [InlineData("OPTIONS")]
    [InlineData("CONNECT")]
    [InlineData("PROPFIND")]
    public async Task Methods_that_nothing_answers_are_refused(string method)
    {
        foreach (var path in (string[])["/", "/Settings", "/css/site.css"])
        {
            var answer = await Raw(standing.Port, $"{method} {path} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n");
            answer.ShouldMatch("^HTTP/1.1 (405|400|501) ");
            answer.ShouldNotContain("Host: localhost");
        }
    }

    [Fact]
    [SupportedOSPlatform("linux")]
    public async Task The_folder_and_its_files_are_the_owners_alone()
    {
        var shop = Path.Combine(_folder, "wide");
        Directory.CreateDirectory(shop);
        File.SetUnixFileMode(shop, (UnixFileMode)0b111_101_101);
        await File.WriteAllTextAsync(Path.Combine(shop, "letter.txt"), "not ours", TestContext.Current.CancellationToken);
        File.SetUnixFileMode(Path.Combine(shop, "letter.txt"), (UnixFileMode)0b110_100_100);
        // Made by the server itself, not a prepared one.
        using var server = RealServer.Launch(shop);
        await server.Hears("Mendro is open");
        using var client = new HttpClient();
        // A page has the keys made.
        await client.GetStringAsync(server.Address + "/Settings", TestContext.Current.CancellationToken);
        ((int)File.GetUnixFileMode(shop)).ShouldBe(0b111_000_000);
        ((int)File.GetUnixFileMode(Path.Combine(shop, "keys"))).ShouldBe(0b111_000_000);
        var files = Directory
            .EnumerateFiles(shop, "*", SearchOption.AllDirectories)
            .Where(f => !f.EndsWith(".txt", StringComparison.Ordinal))
            .ToList();
        files.Count.ShouldBeGreaterThanOrEqualTo(4);
        foreach (var file in files)
            ((int)File.GetUnixFileMode(file)).ShouldBe(0b110_000_000, file);
        // What is not the shop's is left alone.
        ((int)File.GetUnixFileMode(Path.Combine(shop, "letter.txt"))).ShouldBe(0b110_100_100);
    }

    [Fact]
    public async Task Every_cookie_is_ours_strict_and_out_of_reach_of_scripts()
    {
        using var handler = new HttpClientHandler { AllowAutoRedirect = false };
        using var client = new HttpClient(handler) { BaseAddress = new Uri(standing.Address) };
        using var page = await client.GetAsync("/Settings", TestContext.Current.CancellationToken);
        var token = (await WebShop.Parse(page)).QuerySelector("meta[name=mendro-token]")!.GetAttribute("content")!;
        List<string> cookies = [.. page.Headers.GetValues("Set-Cookie")];
        foreach (
            var (path, field, value) in ((string, string, string)[])
                [("/Settings?handler=Theme", "theme", "dark"), ("/?handler=Quick", "line", "quartet no light")]
        )
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path)
            {
                Content = new FormUrlEncodedContent([KeyValuePair.Create(field, value)]),
            };
            request.Headers.Add("X-Mendro-Antiforgery", token);
            using var answer = await client.SendAsync(request, TestContext.Current.CancellationToken);
            answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
            cookies.AddRange(answer.Headers.GetValues("Set-Cookie"));
        }

        cookies
            .Select(c => string.Join('.', c.Split('=')[0].Split('.').Take(2)))
            .Distinct()
            .ShouldBe(["mendro.antiforgery", "mendro.browser", "mendro.theme", "mendro.said"], ignoreOrder: true);
        cookies.ShouldAllBe(c =>
            c.Contains("samesite=strict", StringComparison.OrdinalIgnoreCase) && c.Contains("httponly", StringComparison.OrdinalIgnoreCase)
        );
    }

    [Fact]
    public async Task What_goes_wrong_here_shows_an_id_that_the_log_has_and_nothing_else_of_it()
    {
        using var server = await RealServer.Open(_folder);
        using var connection = new ShopDatabase(Path.Combine(_folder, "shop.db")).Open();
        connection.Execute("ALTER TABLE gear RENAME TO hidden_away");
        using var client = new HttpClient();
        using var broken = await client.GetAsync(
            server.Address + "/Gear?x=%0a12:00:00%20ERR%20forged",
            TestContext.Current.CancellationToken
        );
        broken.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        broken.Headers.GetValues("Content-Security-Policy").ShouldHaveSingleItem();
        var page = await WebShop.Parse(broken);
        page.Body!.TextContent.ShouldNotContain("SQLite");
        var id = page.QuerySelector("main .mono")!.TextContent;
        await server.Hears($"RequestId=\"{id}\"");
        server.Said.Split('\n').ShouldNotContain(l => l.StartsWith("12:00:00 ERR", StringComparison.Ordinal));
        // What is merely not there needs no looking up.
        using var missing = await client.GetAsync(server.Address + "/nothing", TestContext.Current.CancellationToken);
        (await WebShop.Parse(missing)).QuerySelector("main .mono").ShouldBeNull();
    }

    [Fact]
    public async Task A_second_server_on_the_same_folder_is_refused()
    {
        var (code, said) = await RealServer.Refused(standing.Folder);
        (code, said.Trim().Split('\n').Length).ShouldBe((2, 1));
        said.ShouldContain("Another Mendro works on");
    }

    private static async Task<string> Raw(int port, string request)
    {
        using var client = new TcpClient();
        await client.ConnectAsync(IPAddress.Loopback, port, TestContext.Current.CancellationToken);
        var stream = client.GetStream();
        await stream.WriteAsync(Encoding.ASCII.GetBytes(request), TestContext.Current.CancellationToken);
        using var reader = new StreamReader(stream);
        return await reader.ReadToEndAsync(TestContext.Current.CancellationToken);
    }

    private static IReadOnlyList<IPAddress> Listening(int port) =>
        IPGlobalProperties.GetIPGlobalProperties().GetActiveTcpListeners().Where(e => e.Port == port).Select(e => e.Address).ToList();

    private static IEnumerable<IPAddress> OtherAddresses() =>
        NetworkInterface
            .GetAllNetworkInterfaces()
            .SelectMany(n => n.GetIPProperties().UnicastAddresses)
            .Select(a => a.Address)
            .Where(a => !IPAddress.IsLoopback(a) && !a.IsIPv6LinkLocal);
}
