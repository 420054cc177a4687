using Mendro.Core.Access;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Other programs: their tokens, and what they are told.</summary>
public sealed class ProgramDesk(ProgramStore programs, HookStore hooks, AccessLog log, ShopDatabase database, TimeProvider time)
{
    private const int LongestName = 40;
    private const int LongestUrl = 300;
    private const int MostHooks = 10;
    private const string Prefix = "mendro_";

    private static readonly TimeSpan Noted = TimeSpan.FromMinutes(1);

    /// <summary>Programs, ended ones last.</summary>
    public IReadOnlyList<KnownProgram> Programs() => programs.All();

    /// <summary>Who is told.</summary>
    public IReadOnlyList<Hook> Hooks() => hooks.All();

    /// <summary>Makes a token, shown once.</summary>
    /// <param name="by">Who makes it.</param>
    /// <param name="name">Name of the program.</param>
    /// <param name="scopes">What it may.</param>
    public Deed<GivenCode> Add(string by, string? name, IReadOnlyList<string> scopes) =>
        database.InOneTransaction<Deed<GivenCode>>(() =>
        {
            var clean = (name ?? "").Trim();
            if (clean.Length is 0 or > LongestName || clean.Any(char.IsControl))
                return Refusal.Invalid($"A program has a name of up to {LongestName} characters.");
            if (programs.Named(clean) is not null)
                return Refusal.Invalid($"“{clean}” is or was a program of this shop. A name stays one program's: choose another.");
            var known = ProgramScope.All.Select(s => s.Id).Where(scopes.Contains).ToList();
            if (known.Count == 0)
                return Refusal.Invalid("Tick what it may do; nothing more than it needs.");
            var token = Prefix + OneTimeCode.MakeSecret();
            programs.Add(clean, OneTimeCode.MarkOf(token), string.Join(' ', known));
            log.Add(by, $"made a token for the program {clean}: {string.Join(", ", known)}");
            return new GivenCode(token, clean);
        });

    /// <summary>Ends a token.</summary>
    public Deed<Done> End(string by, long id) =>
        database.InOneTransaction<Deed<Done>>(() =>
        {
            if (programs.All().FirstOrDefault(p => p.Id == id) is not { } program || programs.End(id) == 0)
                return Refusal.Missing;
            log.Add(by, $"ended the token of the program {program.Name}");
            return new Done($"The token of {program.Name} does not hold any more.");
        });

    /// <summary>The program of a token, or null.</summary>
    public KnownProgram? Check(string token)
    {
        if (!token.StartsWith(Prefix, StringComparison.Ordinal) || programs.Find(OneTimeCode.MarkOf(token)) is not { } program)
            return null;
        if (program.UsedAt is not { } used || time.GetUtcNow() - used > Noted)
            try
            {
                programs.Used(program.Id);
            }
            catch (ShopBusyException)
            {
                // It is noted the next time.
            }

        return program;
    }

    /// <summary>Adds who is told; the secret is shown once.</summary>
    /// <param name="by">Who adds it.</param>
    /// <param name="url">Its address, looked at already.</param>
    /// <param name="events">Of what.</param>
    public Deed<GivenCode> AddHook(string by, string url, IReadOnlyList<string> events) =>
        database.InOneTransaction<Deed<GivenCode>>(() =>
        {
            var known = HookStore.Events.Select(e => e.Id).Where(events.Contains).ToList();
            if (known.Count == 0)
                return Refusal.Invalid("Tick what it is told of.");
            if (url.Length > LongestUrl)
                return Refusal.Invalid($"An address has up to {LongestUrl} characters.");
            if (hooks.All().Count >= MostHooks)
                return Refusal.Invalid($"Up to {MostHooks} programs are told.");
            var secret = OneTimeCode.MakeSecret();
            hooks.Add(url, secret, string.Join(' ', known));
            log.Add(by, $"lets {url} be told: {string.Join(", ", known)}");
            return new GivenCode(secret, url);
        });

    /// <summary>Tells it no more.</summary>
    public Deed<Done> EndHook(string by, long id) =>
        database.InOneTransaction<Deed<Done>>(() =>
        {
            if (hooks.All().FirstOrDefault(h => h.Id == id) is not { } hook || hooks.End(id) == 0)
                return Refusal.Missing;
            log.Add(by, $"{hook.Url} is told no more");
            return new Done($"{hook.Url} is told no more.");
        });

    /// <summary>Tries again now what was not taken.</summary>
    public Deed<Done> Again(long post) => hooks.Again(post) == 0 ? Refusal.Missing : new Done("It is sent again now.");
}
