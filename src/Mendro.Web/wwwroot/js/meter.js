// The meter beside the reading bar: live value from the stream, hands-free filing, whose turn it is, and what happens when it is lost.
(() => {
  const meter = document.getElementById('meter');
  if (!meter) return;
  const value = document.getElementById('meter-value');
  const words = document.getElementById('meter-words');
  const said = document.getElementById('meter-said');
  const free = document.getElementById('hands-free');
  const pause = document.getElementById('meter-pause');
  const walk = document.getElementById('walk');
  const tips = document.getElementById('tips');
  const token = document.querySelector('meta[name="mendro-token"]')?.content ?? '';
  const ask = document.getElementById('meter-ask');
  const again = document.getElementById('meter-again');
  let point = null;
  let live = null;
  let filing = false;
  let stopped = false;
  let tone = null;
  // A reading that was on its way when the meter was given away is not shown any more.
  let given = false;

  const pressed = (button) => button?.getAttribute('aria-pressed') === 'true';
  const bar = () => document.querySelector('.reading-bar');
  const entry = () => document.querySelector('.reading-bar .entry');

  // A short tone, made here: higher for a good reading, lower for a bad one.
  const beep = (good) => {
    try {
      tone ??= new AudioContext();
      const [oscillator, gain] = [tone.createOscillator(), tone.createGain()];
      oscillator.frequency.value = good ? 1320 : 520;
      gain.gain.setValueAtTime(0.12, tone.currentTime);
      gain.gain.exponentialRampToValueAtTime(0.001, tone.currentTime + 0.16);
      oscillator.connect(gain).connect(tone.destination);
      oscillator.start();
      oscillator.stop(tone.currentTime + 0.17);
    } catch { /* A machine without sound still files readings. */ }
  };

  const show = (state, text, more, css) => {
    meter.dataset.state = state;
    value.textContent = text;
    words.textContent = more;
    words.className = css;
  };

  const describe = (now) => {
    const waits = stopped ? ' · paused: read the stop card, then P goes on' : ' · paused';
    const hands = pressed(free) ? (pressed(pause) ? waits : ' · hands-free') : '';
    switch (now.state) {
      case 'lost': show('lost', '—', `${now.problem} Trying again; type readings meanwhile.`, 'bad'); break;
      case 'busy': show('lost', '—', now.problem, ''); break;
      case 'open': show('open', now.typed, `leads open${hands}${now.typed === 'OL' && pressed(free) ? '; Enter files OL' : ''}`, ''); break;
      case 'moving': show('moving', now.typed, `settling${hands}`, ''); break;
      default: {
        const lift = pressed(free) && now.state === 'held' ? ' · lift the tips for the next' : '';
        show(now.state, now.typed, `${now.words ?? 'steady'}${pressed(free) && pressed(pause) ? waits : lift}`, now.good === false ? 'bad' : 'ok');
      }
    }
  };

  const take = (now) => {
    const field = entry();
    if (!pressed(free) || pressed(pause) || filing || !field || field.value !== '') return;
    filing = true;
    beep(now.good !== false);
    said.textContent = `Taken: ${now.typed}, ${now.words ?? ''}${now.stop ? '. Stop: read the card.' : ''}`;
    // The next point may want power: with a short or a wrong adapter nobody goes on without looking up.
    if (now.stop) setPause(true, true);
    field.value = now.typed;
    field.form.requestSubmit(field.form.querySelector('button:not([name])'));
  };

  // Taking, keeping and giving back are posts: a stream alone moves nothing.
  const post = (act, more = {}) => {
    const form = new FormData();
    Object.entries({ act, page: window.mendro.page, __RequestVerificationToken: token, ...more }).forEach(([name, told]) => form.append(name, told));
    return form;
  };
  const say = (act, more) => fetch(`${meter.dataset.bar}?handler=Meter`, { method: 'POST', body: post(act, more) }).catch(() => lost());
  const lost = () => {
    live = null;
    if (point) show('lost', '—', 'No answer from the server. Trying again; what was filed is kept.', 'bad');
  };

  const connect = (anew = false) => {
    const wanted = bar()?.dataset.metered ?? null;
    if (wanted === point && !anew) return;
    const before = point;
    [point, live] = [wanted, null];
    given = false;
    again.hidden = true;
    if (!wanted) {
      if (before) say('leave');
      const other = bar()?.dataset.select ? 'look, press or try' : null;
      const idle = other ? `${other}; the meter waits` : 'the meter waits for a point';
      const left = stopped ? 'paused: read the stop card, then P goes on' : `Nothing left that a meter answers${other ? `: ${other}` : ''}`;
      show('none', '—', pressed(free) ? left : idle, '');
      return;
    }
    say('take', { point: wanted, contact: bar().dataset.stream === 'contact' });
  };

  window.mendro.on('meter', (told) => {
    if (told.page !== window.mendro.page || told.point !== point || given) return;
    live = told.reading;
    again.hidden = live.state !== 'busy';
    if (live.state === 'busy') ask.hidden = true;
    describe(live);
    if (live.state === 'accepted') take(live);
    if (live.state === 'refused' && pressed(free) && !pressed(pause)) { beep(false); said.textContent = live.words; }
  });
  // Another page wants the meter: a tab that is out of sight and files nothing gives it, in front one is asked.
  window.mendro.on('ask', (told) => {
    if (told.page !== window.mendro.page) return;
    if (!told.job) { ask.hidden = true; return; }
    if (document.hidden && !pressed(free)) { say('leave'); point = null; return; }
    ask.hidden = false;
    ask.querySelector('b').textContent = told.job;
  });
  window.mendro.on('open', () => connect(true));
  window.mendro.on('lost', lost);
  document.getElementById('meter-give').addEventListener('click', () => {
    ask.hidden = true;
    given = true;
    say('leave');
    live = null;
    again.hidden = false;
    show('lost', '—', 'Given to another page.', '');
  });
  document.getElementById('meter-keep').addEventListener('click', () => { ask.hidden = true; say('keep'); });
  again.addEventListener('click', () => connect(true));
  document.addEventListener('visibilitychange', () => { if (!document.hidden && !point) connect(true); });

  const toggle = (button, on = !pressed(button)) => button.setAttribute('aria-pressed', String(on));
  const setPause = (on, stop = false) => {
    toggle(pause, on);
    stopped = stop;
  };
  const setFree = (on) => {
    toggle(free, on);
    pause.hidden = !on;
    if (on) setPause(false);
    try { sessionStorage.setItem('mendro.hands-free', on ? '1' : ''); } catch { /* Private windows forget. */ }
    if (live) describe(live);
  };
  free.addEventListener('click', () => setFree(!pressed(free)));
  pause.addEventListener('click', () => { setPause(!pressed(pause)); if (live) describe(live); });
  tips?.addEventListener('click', () => {
    toggle(tips);
    fetch(`${meter.dataset.bar}?handler=Tips&off=${!pressed(tips)}`, { method: 'POST', headers: { 'X-Mendro-Antiforgery': token } }).catch(() => lost());
  });
  try {
    // Where the page itself says how to walk, what was chosen elsewhere does not count.
    if (!walk.dataset.own) walk.value = localStorage.getItem('mendro.walk') ?? 'best';
    if (sessionStorage.getItem('mendro.hands-free')) setFree(true);
  } catch { /* As above. */ }
  walk.addEventListener('change', () => { try { if (!walk.dataset.own) localStorage.setItem('mendro.walk', walk.value); } catch { /* As above. */ } });

  document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || document.getElementById('keys')?.open) return;
    const field = event.target.closest?.('input:not([type=radio]):not([type=checkbox]), textarea, select');
    // In an empty reading field these letters begin no reading; anywhere else they are typed.
    if (field && !(field === entry() && field.value === '' && point)) return;
    const button = { h: free, p: pause.hidden ? null : pause, t: tips }[event.key];
    if (!button) return;
    button.click();
    event.preventDefault();
  });

  // Enter in an empty field files what the meter shows.
  document.addEventListener('submit', (event) => {
    const field = event.target.querySelector?.('.entry');
    if (!event.target.closest('.reading-bar') || !field || field !== entry() || field.value !== '' || !live?.typed || event.submitter?.name === 'say') return;
    field.value = live.typed;
    filing = true;
  }, true);
  document.addEventListener('htmx:configRequest', (event) => {
    if (!event.detail.path.includes('handler=Reading')) return;
    if (filing) event.detail.parameters.append?.('metered', 'true');
    if (pressed(free)) event.detail.parameters.append?.('walk', walk.value);
  });
  document.addEventListener('htmx:afterRequest', (event) => {
    if (event.detail.requestConfig?.verb === 'post') filing = false;
  });
  document.addEventListener('htmx:afterSettle', () => connect());
  window.addEventListener('pagehide', () => { if (point) navigator.sendBeacon(`${meter.dataset.bar}?handler=Meter`, post('leave')); });
  window.addEventListener('pageshow', (event) => { if (event.persisted) connect(true); });
  connect();
})();
