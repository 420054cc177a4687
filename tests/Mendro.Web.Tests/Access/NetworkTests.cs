using System.Net;
using System.Net.Sockets;
using System.Security.Authentication;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Mendro.Web.Access;

namespace Mendro.Web.Tests.Access;

/// <summary>The server as others reach it: by a certificate, behind a proxy, and the first owner. All on loopback addresses.</summary>
public sealed class NetworkTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-network-").FullName;

    public void Dispose() => Directory.Delete(_folder, true);

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private (string File, string Key, X509Certificate2 Certificate) Certificate(DateTimeOffset until)
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest("CN=mendro.test", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName("mendro.test");
        names.AddIpAddress(IPAddress.Loopback);
        request.CertificateExtensions.Add(names.Build());
        var certificate = request.CreateSelfSigned(until.AddDays(-30), until);
        var (file, keyFile) = (Path.Combine(_folder, "shop.pem"), Path.Combine(_folder, "shop.key"));
        File.WriteAllText(file, certificate.ExportCertificatePem());
        File.WriteAllText(keyFile, key.ExportPkcs8PrivateKeyPem());
        return (file, keyFile, certificate);
    }

    [Fact]
    public async Task By_a_certificate_the_shop_speaks_TLS_alone_and_gives_cookies_for_it_alone()
    {
        var (file, key, certificate) = Certificate(DateTimeOffset.UtcNow.AddDays(5));
        var port = RealServer.FreePort();
        using var server = RealServer.Launch(_folder, null, "--port", $"{port}", "--cert", file, "--cert-key", key, "--proxy", "127.0.0.1");
        await server.Hears("Mendro is open at https://");
        server.Said.ShouldContain("the certificate ends on");
        server.Said.ShouldNotContain("plain HTTP");
        using var handler = new SocketsHttpHandler { AllowAutoRedirect = false };
        handler.SslOptions.RemoteCertificateValidationCallback = (_, shown, _, _) =>
            shown!.GetCertHashString() == certificate.GetCertHashString();
        using var client = new HttpClient(handler) { BaseAddress = new Uri($"https://127.0.0.1:{port}") };
        using var first = await client.GetAsync("/First", Cancel);
        first.StatusCode.ShouldBe(HttpStatusCode.OK);
        var page = await WebShop.Parse(first);
        var code = server.Said.Split("once: ")[1].Split('\n')[0].Trim();
        using var request = new HttpRequestMessage(HttpMethod.Post, "/First")
        {
            Content = new FormUrlEncodedContent(
                new Dictionary<string, string> { ["code"] = code, ["name"] = "Nora", ["password"] = SignedShop.Word }
            ),
        };
        request.Headers.Add("X-Mendro-Antiforgery", page.QuerySelector("meta[name=mendro-token]")!.GetAttribute("content"));
        using var opened = await client.SendAsync(request, Cancel);
        opened.StatusCode.ShouldBe(HttpStatusCode.Redirect, await opened.Content.ReadAsStringAsync(Cancel));
        var cookie = opened.Headers.GetValues("Set-Cookie")
            .Single(c => c.StartsWith($"mendro.{ShopDoor.Cookie}.", StringComparison.Ordinal)).ToLowerInvariant();
        foreach (var word in (string[])["secure", "httponly", "samesite=strict"])
            cookie.ShouldContain(word);
        (await client.GetAsync("/Jobs", Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
        // The code works once: the door it opened is gone.
        (await client.GetAsync("/First", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        using var plain = new HttpClient();
        await Should.ThrowAsync<HttpRequestException>(() => plain.GetAsync($"http://127.0.0.1:{port}/", Cancel));
        using var old = new SocketsHttpHandler();
        old.SslOptions.RemoteCertificateValidationCallback = (_, _, _, _) => true;
#pragma warning disable CA5397, SYSLIB0039 // It is refused: that is what is tested.
        old.SslOptions.EnabledSslProtocols = SslProtocols.Tls11;
#pragma warning restore CA5397, SYSLIB0039
        using var oldClient = new HttpClient(old);
        await Should.ThrowAsync<HttpRequestException>(() => oldClient.GetAsync($"https://127.0.0.1:{port}/", Cancel));
    }

    [Fact]
    public async Task Of_a_shop_on_the_network_nothing_is_there_before_its_first_owner()
    {
        using var shop = new WebShop(demo: false, alone: true, models: true, ("proxy", "127.0.0.1"));
        foreach (var path in (string[])["/", "/Jobs", "/SignIn", "/Code", "/Settings", "/api/1/bench", "/openapi/1.json", "/Events", "/nothing"])
        {
            using var answer = await shop.Client.GetAsync(path, Cancel);
            if (path.StartsWith("/api", StringComparison.Ordinal))
                answer.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            else
                answer.Headers.Location!.ToString().ShouldBe("/First", path);
        }

        using var guessed = await shop.Post("/First", ("code", "0000-0000-0000"), ("name", "Eve"), ("password", SignedShop.Word));
        guessed.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        shop.Service<Mendro.Shop.AccountDesk>().Any.ShouldBeFalse();
    }

    /// <summary>RFC 7239 warns of forwarded headers from anybody; here they count from the one proxy alone.</summary>
    [Theory]
    [InlineData("127.0.0.1", "203.0.113.9", true)]
    [InlineData("127.0.0.77", "127.0.0.1", false)]
    public async Task Forwarded_headers_count_from_the_named_proxy_alone(string proxy, string seen, bool https)
    {
        var port = RealServer.FreePort();
        using var server = RealServer.Launch(_folder, null, "--port", $"{port}", "--proxy", proxy, "--names", "mendro.test");
        await server.Hears("Mendro is open");
        using var client = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false, UseCookies = false });
        HttpRequestMessage Ask(HttpMethod method, string? host) =>
            new(method, $"http://127.0.0.1:{port}/First")
            {
                Headers = { { "X-Forwarded-For", "203.0.113.9" }, { "X-Forwarded-Proto", "https" }, { "Host", host ?? $"127.0.0.1:{port}" } },
            };
        using var shown = await client.SendAsync(Ask(HttpMethod.Get, "mendro.test"), Cancel);
        shown.StatusCode.ShouldBe(HttpStatusCode.OK);
        // What it takes the browser to have is told by the headers that go with HTTPS.
        shown.Headers.Contains("Cross-Origin-Opener-Policy").ShouldBe(https);
        (await client.SendAsync(Ask(HttpMethod.Get, "evil.test"), Cancel)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var page = await WebShop.Parse(shown);
        using var post = Ask(HttpMethod.Post, "mendro.test");
        post.Content = new FormUrlEncodedContent(
            new Dictionary<string, string>
            {
                ["code"] = server.Said.Split("once: ")[1].Split('\n')[0].Trim(),
                ["name"] = "Nora",
                ["password"] = SignedShop.Word,
            }
        );
        post.Headers.Add("X-Mendro-Antiforgery", page.QuerySelector("meta[name=mendro-token]")!.GetAttribute("content"));
        post.Headers.Add("Cookie", string.Join("; ", shown.Headers.GetValues("Set-Cookie").Select(c => c.Split(';')[0])));
        using var opened = await client.SendAsync(post, Cancel);
        opened.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        using var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={Path.Combine(_folder, "shop.db")};Mode=ReadOnly;Pooling=False");
        connection.Open();
        Dapper.SqlMapper.ExecuteScalar<string>(connection, "SELECT address FROM sessions").ShouldBe(seen);
        foreach (var cookie in shown.Headers.GetValues("Set-Cookie").Concat(opened.Headers.GetValues("Set-Cookie")))
            cookie.Contains("secure", StringComparison.OrdinalIgnoreCase).ShouldBe(https, cookie);
        opened.Headers.Contains("Strict-Transport-Security").ShouldBe(https);
    }

    [Fact]
    public async Task A_code_from_the_machine_sets_a_new_password_while_the_shop_is_open()
    {
        using var shop = new SignedShop();
        var (output, error) = (new StringWriter(), new StringWriter());
        var folder = Path.GetDirectoryName(shop.Database.File)!;
        Mendro.Cli.Commands.Run(["recover", "ann owner", "--data", folder], output, error).ShouldBe(0, error.ToString());
        var code = output.ToString().Split("with ")[1].Split(' ')[0];
        using var browser = shop.Browser();
        using (var set = await shop.Send(browser, "/Code", "/Code", ("code", code), ("password", "another four words here")))
            set.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await shop.Look(browser, "/Accounts")).ShouldBe(HttpStatusCode.OK);
        Mendro.Cli.Commands.Run(["recover", "Nobody", "--data", folder], output, error).ShouldBe(2);
        error.ToString().ShouldContain("Ann Owner");
    }

    [Theory]
    [InlineData("--cert", "missing.pem", "cannot be used")]
    [InlineData("--cert-key", "missing.key", "without its certificate")]
    [InlineData("--proxy", "proxy.test", "named by its address")]
    public void An_option_that_cannot_be_followed_is_said_in_one_sentence(string option, string value, string says)
    {
        ServeOptions.Read([option, value], out var problem).ShouldBeNull();
        problem!.ShouldContain(says);
        problem!.ShouldNotContain("\n");
    }

    [Fact]
    public void A_certificate_is_taken_as_pem_and_as_pfx_with_its_password_from_a_file()
    {
        var (file, key, made) = Certificate(DateTimeOffset.UtcNow.AddDays(100));
        ServeOptions.Read(["--cert", file, "--cert-key", key], out _)!.Certificate!.HasPrivateKey.ShouldBeTrue();
        var (pfx, word) = (Path.Combine(_folder, "shop.pfx"), Path.Combine(_folder, "word"));
        File.WriteAllBytes(pfx, made.Export(X509ContentType.Pkcs12, "secret word"));
        File.WriteAllText(word, "secret word\n");
        ServeOptions.Read(["--cert", pfx, "--cert-password-file", word], out _)!.Certificate!.HasPrivateKey.ShouldBeTrue();
        ServeOptions.Read(["--cert", pfx], out var wrong).ShouldBeNull();
        wrong!.ShouldContain("cannot be used");
    }
}
