using System.Diagnostics;
using System.Reflection;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;

namespace Mendro.TestHost;

/// <summary>One shop that is open in this process: the very program, on a thread of its own.</summary>
internal sealed class OpenShop
{
    // The host that is being built is told by the one who opens it, by the thread that runs it.
    private static readonly AsyncLocal<TaskCompletionSource<IHost>?> Building = new();

    private readonly Task<int> _run;
    private readonly IHost _host;

    private OpenShop(Task<int> run, IHost host) => (_run, _host) = (run, host);

    /// <summary>Hears of every host that is built in this process. Once, before the first shop is opened.</summary>
    public static void HearOfHosts() => DiagnosticListener.AllListeners.Subscribe(new Hears<DiagnosticListener>(ListenTo));

    /// <summary>Opens a shop with these words of the command line, and comes back when it answers.</summary>
    /// <exception cref="InvalidOperationException">It ended before it was open.</exception>
    public static async Task<OpenShop> Open(string[] words)
    {
        var built = new TaskCompletionSource<IHost>(TaskCreationOptions.RunContinuationsAsynchronously);
        Building.Value = built;
        var program = Assembly.Load("Mendro.Web").EntryPoint!;
        var run = Task.Factory.StartNew(() => (int)program.Invoke(null, [words])!, TaskCreationOptions.LongRunning);
        Building.Value = null;
        if (await Task.WhenAny(built.Task, run) != built.Task)
            throw new InvalidOperationException($"The shop ended with {await run}.");
        var host = await built.Task;
        var open = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        await using var _ = host.Services.GetRequiredService<IHostApplicationLifetime>().ApplicationStarted.Register(open.SetResult);
        return await Task.WhenAny(open.Task, run) == open.Task
            ? new OpenShop(run, host)
            : throw new InvalidOperationException($"The shop ended with {await run}.");
    }

    /// <summary>Closes it, and comes back when its files are free.</summary>
    public async Task Close()
    {
        _host.Services.GetRequiredService<IHostApplicationLifetime>().StopApplication();
        await _run;
    }

    private static void ListenTo(DiagnosticListener listener)
    {
        if (listener.Name == "Microsoft.Extensions.Hosting")
            listener.Subscribe(
                new Hears<KeyValuePair<string, object?>>(told =>
                {
                    if (told is { Key: "HostBuilt", Value: IHost host })
                        Building.Value?.TrySetResult(host);
                })
            );
    }

    private sealed class Hears<T>(Action<T> hear) : IObserver<T>
    {
        public void OnNext(T value) => hear(value);

        public void OnError(Exception error) { }

        public void OnCompleted() { }
    }
}
