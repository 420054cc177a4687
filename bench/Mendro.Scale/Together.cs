using Dapper;
using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Scale;

/// <content>Several people at one shop: eight benches that are signed in, and many browsers that only listen.</content>
internal sealed partial class PageTimes
{
    private const string Owner = "Nora Weld";
    private const string Password = "kettle orbit lamp sixty";
    private const int Browsers = 200;
    private static readonly TimeSpan Quiet = TimeSpan.FromSeconds(60);

    /// <summary>Makes the first account, lets eight benches write without pause, then two hundred browsers listen to nothing.</summary>
    public async Task<int> Together()
    {
        using (var first = new ShopVisitor(address))
            await first.Post("/Accounts?handler=First", ("name", Owner), ("password", Password));
        async Task<ShopVisitor> SignedIn()
        {
            var visitor = new ShopVisitor(address);
            await visitor.SignIn(Owner, Password);
            return visitor;
        }

        var bench = _jobs.Live().Where(j => j.Shelf == Shelf.None).ToList();
        Console.WriteLine("| signed in | p50 ms | p95 ms | KB |");
        Console.WriteLine("|---|---|---|---|");
        var before = Rows();
        var answered = await EightBenches(bench, SignedIn);
        var (rows, nameless) = (Rows() - before, Count("SELECT count(*) FROM bench_records WHERE done_by = '' AND id > @before", before));
        Console.WriteLine(FormattableString.Invariant($"| written, of {answered} answered (a repair with its cause writes two) | {rows} | | |"));
        Console.WriteLine(FormattableString.Invariant($"| of them without a name | {nameless} | | |"));

        using var stop = new CancellationTokenSource();
        var visitors = await Task.WhenAll(Enumerable.Range(0, Browsers).Select(async _ =>
        {
            var visitor = new ShopVisitor(address);
            // Each is a browser of its own; that they are signed in costs nothing while they listen.
            await visitor.Get("/SignIn");
            return visitor;
        }));
        foreach (var visitor in visitors.Chunk(20))
            await Task.WhenAll(visitor.Select(v => v.SignIn(Owner, Password)));
        var listening = visitors.Select(v => v.Listen(stop.Token)).ToList();
        await Settled();
        var used = Used();
        await Task.Delay(Quiet);
        var share = (Used() - used) / Quiet.TotalMilliseconds;
        Console.WriteLine(FormattableString.Invariant($"| {listening.Count(l => !l.IsCompleted)} browsers listening, share of a core | {share:0.0 %} | | |"));
        await stop.CancelAsync();
        await Task.WhenAll(listening);
        return 0;
    }

    /// <summary>Waits until what the writes before left to be worked out is done: nothing happens from then on.</summary>
    private async Task Settled()
    {
        var step = TimeSpan.FromSeconds(5);
        for (var quiet = 0; quiet < 3; )
        {
            var used = Used();
            await Task.Delay(step);
            quiet = Used() - used < step.TotalMilliseconds * 0.05 ? quiet + 1 : 0;
        }
    }

    private double Used() => OfServer(process => (long)process.TotalProcessorTime.TotalMilliseconds);

    private long Rows() => Count("SELECT coalesce(max(id), 0) FROM bench_records", 0);

    private long Count(string sql, long before)
    {
        using var connection = new ShopDatabase(Path.Combine(folder, "shop.db")).Open();
        return connection.ExecuteScalar<long>(sql, new { before });
    }
}
