using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.StandIns;
using Mendro.StandIns.Instruments;
using Mendro.StandIns.Physics;
using Mendro.Storage;

namespace Mendro.Shop.Demo;

/// <summary>
/// The simulated meter and supply of the demo, and the hand that holds the tips: it follows the selected point of a job
/// and finds there what the job's practice unit, or a demo unit's hidden faults, give. Only readings leave it.
/// </summary>
public sealed class StandInHand(StandInTruthStore truths, SettingsStore settings, TimeProvider time) : IBenchHand, IDisposable
{
    private static readonly TimeSpan HandDelay = TimeSpan.FromMilliseconds(700);

    private readonly Lock _lock = new();
    private readonly MeterTips _tips = new(time);
    private StandInMeter? _meter;
    private StandInSupply? _supply;
    private (JobId Job, TipPoint? Point) _at;

    /// <summary>True when the stand-ins run.</summary>
    public bool Running => _meter is not null;

    /// <summary>True while the technician keeps the stand-in's tips off the board.</summary>
    public bool HeldOff { get; private set; }

    /// <summary>Starts both on free loopback ports and enters them in the settings, unless instruments elsewhere are set.</summary>
    public void Start()
    {
        _meter = new StandInMeter(_tips, time);
        _supply = new StandInSupply();
        _meter.Start();
        _supply.Start();
        var shop = settings.Get();
        static bool Replaceable(InstrumentAddress? address) => address is null or { Host: "127.0.0.1" };
        settings.Save(
            shop with
            {
                Meter = Replaceable(shop.Meter) ? new InstrumentAddress("127.0.0.1", _meter.Port) : shop.Meter,
                Supply = Replaceable(shop.Supply) ? new InstrumentAddress("127.0.0.1", _supply.Port) : shop.Supply,
            }
        );
    }

    /// <summary>Moves the tips to a point of a job's unit, as a hand does: lifted, then on it.</summary>
    public void Reach(JobView view, Probe probe)
    {
        if (_meter is null)
            return;
        Set(view, TrueReadings.At(view.Model, Unit(view), probe, Share(view.Job.Number)));
    }

    /// <summary>Moves the tips across one contact of a connector.</summary>
    public void ReachContact(JobView view, Connector connector, Contact contact)
    {
        if (_meter is not null)
            Set(view, new TipPoint("CONT", TrueReadings.Contact(view.Model, Unit(view), connector, contact, view.Job.Number)));
    }

    /// <summary>Moves the tips to two points of the boards.</summary>
    public void ReachLine(JobView view, TraceSheet sheet, string a, string b)
    {
        if (_meter is null)
            return;
        // Points of two nets are not joined: nothing is heard.
        var ohms =
            sheet.NetOf(a) is { } net && net == sheet.NetOf(b)
                ? TrueReadings.Line(view.Model, Unit(view), net.Net, net.Wires.Select(w => (w.From, w.To)).ToList(), a, b)
                : null;
        Set(view, new TipPoint("CONT", ohms));
    }

    private void Set(JobView view, TipPoint? point)
    {
        lock (_lock)
        {
            _at = (view.Job.Id, point);
            if (point is null || HeldOff)
                _tips.Lift();
            else
                _tips.Reach(point, HandDelay);
        }
    }

    /// <summary>Keeps the tips off the board, or lets them follow again.</summary>
    public void HoldOff(bool off)
    {
        lock (_lock)
        {
            HeldOff = off;
            if (off || _at.Point is null)
                _tips.Lift();
            else
                _tips.Reach(_at.Point, HandDelay);
        }
    }

    /// <summary>Hangs a job's unit on the stand-in supply.</summary>
    public void Connect(JobView view) => _supply?.Attach(TrueReadings.Load(view.Model, Unit(view)));

    /// <summary>Pulls the meter's cable for a moment.</summary>
    public void CutLinks() => _meter?.CutLinks();

    /// <inheritdoc/>
    public void Dispose()
    {
        _meter?.Dispose();
        _supply?.Dispose();
    }

    /// <summary>The unit with its hidden faults, after the repairs that were done to it.</summary>
    public HiddenUnit Unit(JobView view)
    {
        if (view.Job.PracticeSeed is not null)
            return PracticeDesk.Replay(view.Job, view.Model, view.Records).Unit;
        var unit = PhysicalUnit.With(view.Model, $"demo/{view.Job.Number}", Faults(view));
        foreach (var repair in view.Records.Select(r => r.Body).OfType<RepairLogged>())
            if (view.Model.Library.FindMethod(repair.Method) is { } method)
                unit.Repair(repair.Part, method);
        return unit;
    }

    private IEnumerable<int> Faults(JobView view)
    {
        if (truths.Of(view.Job.Id) is not { } hidden)
        {
            // A unit that came in without a hidden truth has what it most likely has, from now on.
            hidden = view.Diagnosis?.Suspects.Take(1).Select(s => s.Fault.Id).ToList() ?? [];
            truths.Hide(view.Job.Id, hidden);
        }

        return hidden
            .Select(id => Enumerable.Range(0, view.Model.Faults.Count).FirstOrDefault(f => view.Model.Faults[f].Id == id, -1))
            .Where(f => f >= 0);
    }

    private static double Share(long number) => SHA256.HashData(Encoding.UTF8.GetBytes($"share/{number}"))[0] / 255.0;
}
