using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Web.Drawing;

namespace Mendro.Web;

/// <summary>
/// Diagnoses and draws a shipped model once after start, when the first visitors are served, so that the first reading of the
/// day is answered as quickly as the second. Touches no data.
/// </summary>
public sealed class WarmUp(TradeLibrary library, TimeProvider time) : BackgroundService
{
    private static readonly TimeSpan FirstVisitors = TimeSpan.FromSeconds(3);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Neither start-up nor the first page waits for it.
        await Task.Delay(FirstVisitors, time, stoppingToken);
        foreach (var profile in library.Profiles.TakeWhile(_ => !stoppingToken.IsCancellationRequested))
        {
            var model = new DeviceModel(profile, library);
            var events = profile.Functions.Select((f, n) => (BenchEvent)new FunctionTried(n, f.Id, false)).ToList();
            var diagnosis = UnitDiagnosis.Make(model, events).Value;
            if (diagnosis is not null)
                new MoveAdvisor(new BenchCosts()).Advise(diagnosis, AccessState.Closed);
            PathMapSvg.Draw(
                new MapScene(
                    model,
                    diagnosis?.Verdict,
                    new Dictionary<string, string>(),
                    new Dictionary<string, string>(),
                    null,
                    id => id,
                    id => id,
                    id => id
                )
            );
        }
    }
}
