using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;

namespace Mendro.Benchmarks;

/// <summary>Runs the benchmarks: <c>dotnet run -c Release --project bench/Mendro.Benchmarks -- --filter '*'</c>.</summary>
internal static class BenchmarkProgram
{
    // In one process: the project's central package versions need not be restored again for every benchmark.
    private static void Main(string[] args)
    {
        if (args is ["plan-gain", .. var rest])
        {
            PlanGain.Run(rest.Length > 0 ? double.Parse(rest[0], System.Globalization.CultureInfo.InvariantCulture) : 2);
            return;
        }

        BenchmarkSwitcher
            .FromAssembly(typeof(BenchmarkProgram).Assembly)
            .Run(
                args,
                DefaultConfig.Instance.AddJob(
                    Job.Default.WithToolchain(InProcessEmitToolchain.Instance).WithWarmupCount(3).WithIterationCount(10)
                )
            );
    }
}
