using System.Security.Claims;
using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;

namespace Mendro.Web.Access;

/// <summary>Hashes passwords by the framework's own hasher: PBKDF2 with HMAC-SHA512, a salt of 128 bits, 100,000 rounds.</summary>
public sealed class PasswordKeeper : IPasswordKeeper
{
    private readonly PasswordHasher<object> _hasher = new();
    private static readonly object Nobody = new();

    /// <inheritdoc/>
    public string Hash(string password) => _hasher.HashPassword(Nobody, password);

    /// <inheritdoc/>
    public bool Fits(string hash, string password) =>
        _hasher.VerifyHashedPassword(Nobody, hash, password) != PasswordVerificationResult.Failed;
}

/// <summary>Protects secrets by the keys of the shop, in its own folder beside the database.</summary>
public sealed class SecretKeeper(Microsoft.AspNetCore.DataProtection.IDataProtectionProvider protection) : ISecretKeeper
{
    private readonly Microsoft.AspNetCore.DataProtection.IDataProtector _keys = protection.CreateProtector("mendro.second-factor");

    /// <inheritdoc/>
    public string Protect(string secret) => Microsoft.AspNetCore.DataProtection.DataProtectionCommonExtensions.Protect(_keys, secret);

    /// <inheritdoc/>
    public string? Read(string kept)
    {
        try
        {
            return Microsoft.AspNetCore.DataProtection.DataProtectionCommonExtensions.Unprotect(_keys, kept);
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }
}

/// <summary>The one-time code with which the first owner of a shop on the network comes in; new with every start.</summary>
public sealed class FirstOwner
{
    private readonly Lock _lock = new();
    private string? _mark;

    /// <summary>Makes a new code.</summary>
    public string Make()
    {
        var code = OneTimeCode.Make();
        lock (_lock)
            _mark = OneTimeCode.Mark(code);
        return code;
    }

    /// <summary>True when this is the code.</summary>
    public bool Fits(string? code)
    {
        lock (_lock)
            return _mark is { } mark && OneTimeCode.Same(mark, OneTimeCode.Mark(code));
    }

    /// <summary>It was used.</summary>
    public void Done()
    {
        lock (_lock)
            _mark = null;
    }
}

/// <summary>The door of the shop: who comes in by which cookie.</summary>
public sealed class ShopDoor(ServeOptions options, AccountDesk accounts, SignInDesk signIn, SecondFactorDesk second)
{
    /// <summary>Name of the scheme.</summary>
    public const string Scheme = "mendro";

    /// <summary>Name of the cookie.</summary>
    public const string Cookie = "session";

    private const string Sid = "sid";
    private const string SessionItem = "mendro.session";

    /// <summary>True when nobody has an account yet in a shop that others reach: it stays shut until the first owner is in.</summary>
    public bool WaitsForOwner => options.IsNetwork && !accounts.Any;

    /// <summary>True for an owner without the second factor that the shop demands: nothing is open but setting it up.</summary>
    public bool Lacks(SignedIn session) => session is { Role: ShopRole.Owner, HasSecond: false, JobNumber: null } && options.IsNetwork && second.Demanded;

    /// <summary>Who asks.</summary>
    public Viewer Who(HttpContext context) =>
        context.Items[SessionItem] is SignedIn session ? new Viewer(session, false)
        : !options.IsNetwork && !accounts.Any ? Viewer.House
        : Viewer.Nobody;

    /// <summary>Gives the cookie of a session that has just begun; one that the browser had before ends.</summary>
    public async Task ComeInAsync(HttpContext context, SignInAnswer answer)
    {
        if (context.Items[SessionItem] is SignedIn before)
            signIn.End(before.Name, before.AccountId, before.Id);
        var identity = new ClaimsIdentity(
            [new Claim(Sid, answer.Secret!), new Claim(ClaimTypes.NameIdentifier, OneTimeCode.MarkOf(answer.Secret!))],
            Scheme
        );
        var properties = new AuthenticationProperties { IsPersistent = true, ExpiresUtc = answer.Session!.EndsAt };
        await context.SignInAsync(Scheme, new ClaimsPrincipal(identity), properties);
    }

    /// <summary>Takes the cookie back and ends the session.</summary>
    public async Task GoAsync(HttpContext context)
    {
        if (context.Items[SessionItem] is SignedIn session)
            signIn.End(session.Name, session.AccountId, session.Id);
        await context.SignOutAsync(Scheme);
    }

    /// <summary>The visitor of a request.</summary>
    public static Visitor Visitor(HttpContext context) =>
        new(context.Request.Headers.UserAgent.ToString(), context.Connection.RemoteIpAddress?.ToString() ?? "");

    /// <summary>Adds the framework's cookie sign-in; each request is held against the session as it is kept.</summary>
    /// <param name="services">Services of the application.</param>
    /// <param name="dataDirectory">Folder of the shop, for the name of its cookie.</param>
    public static void Add(IServiceCollection services, string dataDirectory) =>
        services
            .AddAuthentication(Scheme)
            .AddCookie(
                Scheme,
                cookie =>
                {
                    cookie.Cookie.Name = ShopCookies.Name(Cookie, dataDirectory);
                    cookie.Cookie.HttpOnly = true;
                    cookie.Cookie.SameSite = SameSiteMode.Strict;
                    cookie.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                    cookie.Cookie.IsEssential = true;
                    cookie.ExpireTimeSpan = SignInDesk.Longest;
                    cookie.SlidingExpiration = false;
                    cookie.Events.OnValidatePrincipal = Validate;
                }
            );

    private static Task Validate(CookieValidatePrincipalContext context)
    {
        var desk = context.HttpContext.RequestServices.GetRequiredService<SignInDesk>();
        if (context.Principal?.FindFirstValue(Sid) is { } secret && desk.Check(secret) is { } session)
            context.HttpContext.Items[SessionItem] = session;
        else
            context.RejectPrincipal();
        return Task.CompletedTask;
    }
}
