namespace Mendro.Web.Live;

/// <summary>A page that wants the meter at a point.</summary>
/// <param name="Browser">Browser it is open in.</param>
/// <param name="Page">The page, by a random name of its own.</param>
/// <param name="Job">Number of the job.</param>
/// <param name="Point">Probe, or connector and contact such as <c>slot:12</c>.</param>
/// <param name="IsContact">True for a contact.</param>
public sealed record MeterPage(string Browser, string Page, long Job, string Point, bool IsContact);

/// <summary>
/// Whose turn it is at the one meter. Who has it is asked before another page takes it over; who does not answer has gone for
/// coffee, and loses it. When it is given back, the page before has it again.
/// </summary>
public sealed class MeterTurns(TimeProvider time)
{
    /// <summary>How long the holder has to answer.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    // More pages than that nobody has open.
    private const int MostWaiting = 64;

    private readonly Lock _lock = new();
    private readonly List<MeterPage> _waiting = [];
    private MeterPage? _holder;
    private (MeterPage By, long Since)? _asked;

    /// <summary>Whose turn it is, or null.</summary>
    public MeterPage? Holder
    {
        get
        {
            lock (_lock)
                return _holder;
        }
    }

    /// <summary>Who asks the holder for it just now, or null.</summary>
    public MeterPage? Asking
    {
        get
        {
            lock (_lock)
                return _asked?.By;
        }
    }

    /// <summary>Asks for the meter.</summary>
    /// <param name="page">Who asks.</param>
    /// <returns>Null when the page has it now; else the one to be asked for it.</returns>
    public MeterPage? Take(MeterPage page)
    {
        lock (_lock)
        {
            _waiting.RemoveAll(p => p.Page == page.Page);
            if (_holder is null || _holder.Page == page.Page)
            {
                // Asked again for the same point it goes on; given back and taken anew it begins anew.
                _holder = _holder == page ? _holder : page;
                return null;
            }

            if (_waiting.Count >= MostWaiting)
                _waiting.RemoveAt(0);
            _waiting.Add(page);
            _asked = (page, time.GetTimestamp());
            return _holder;
        }
    }

    /// <summary>The holder keeps it.</summary>
    /// <returns>Who asked, to be told; null when nobody did or the page is not the holder.</returns>
    public MeterPage? Keep(string browser, string page)
    {
        lock (_lock)
        {
            if (_holder?.Page != page || _holder.Browser != browser || _asked is not { } asked)
                return null;
            _asked = null;
            return asked.By;
        }
    }

    /// <summary>A page gives the meter back, or wants it no more.</summary>
    public void Leave(string browser, string page)
    {
        lock (_lock)
            Remove(p => p.Page == page && p.Browser == browser);
    }

    /// <summary>All pages of a browser are gone.</summary>
    public void LeaveAll(string browser)
    {
        lock (_lock)
            Remove(p => p.Browser == browser);
    }

    /// <summary>Hands the meter over when its holder did not answer in time.</summary>
    /// <returns>The one who had it, or null when nothing changed.</returns>
    public MeterPage? HandOverWhenDue()
    {
        lock (_lock)
        {
            if (_asked is not { } asked || time.GetElapsedTime(asked.Since) < Patience)
                return null;
            var before = _holder;
            _waiting.Remove(asked.By);
            // It waits on, and has the meter again when the other gives it back.
            if (before is not null)
                _waiting.Add(before);
            (_holder, _asked) = (asked.By, null);
            return before;
        }
    }

    private void Remove(Predicate<MeterPage> gone)
    {
        _waiting.RemoveAll(gone);
        if (_asked is { } asked && gone(asked.By))
            _asked = null;
        if (_holder is null || !gone(_holder))
            return;
        _holder = _waiting.Count > 0 ? _waiting[^1] : null;
        if (_holder is not null)
            _waiting.RemoveAt(_waiting.Count - 1);
        _asked = null;
    }
}
