namespace Mendro.Shop.Demo;

/// <summary>A clock that the demo world sets, so that its history lies in the past.</summary>
internal sealed class SteppedClock(TimeProvider real) : TimeProvider
{
    private DateTimeOffset _now = real.GetUtcNow();

    public override DateTimeOffset GetUtcNow() => _now;

    public void Set(DateTimeOffset at) => _now = at;

    /// <summary>Goes on, but never past the present.</summary>
    public void Step(TimeSpan by) => _now = _now + by < real.GetUtcNow() ? _now + by : real.GetUtcNow();
}
