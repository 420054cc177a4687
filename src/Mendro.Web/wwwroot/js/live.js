// One stream a browser for everything its pages are told: the tab that holds the lock listens, and passes on what it hears.
window.mendro = (() => {
  const page = Array.from(crypto.getRandomValues(new Uint8Array(12)), (b) => b.toString(16).padStart(2, '0')).join('');
  const hearers = {};
  const tell = (name, data) => (hearers[name] ?? []).forEach((hear) => hear(data));
  const channel = 'BroadcastChannel' in window ? new BroadcastChannel('mendro') : null;
  if (channel) channel.onmessage = ({ data: [name, data] }) => tell(name, data);
  const pass = (name, data) => {
    tell(name, data);
    channel?.postMessage([name, data]);
  };

  let source = null;
  const listen = () => {
    source = new EventSource('/Events');
    ['meter', 'ask', 'bench', 'job', 'here'].forEach((name) => source.addEventListener(name, (event) => pass(name, JSON.parse(event.data))));
    source.addEventListener('replaced', () => source.close());
    source.onopen = () => pass('open', null);
    source.onerror = () => {
      pass('lost', null);
      // A stream that was refused does not come back by itself.
      if (source.readyState === EventSource.CLOSED) setTimeout(listen, 2000);
    };
  };
  if (navigator.locks) navigator.locks.request('mendro-stream', () => new Promise(listen));
  else {
    // Without locks the tab in front listens; the server ends the stream of the one before.
    const front = () => { if (document.visibilityState === 'visible' && source?.readyState !== EventSource.OPEN) listen(); };
    document.addEventListener('visibilitychange', front);
    front();
  }

  document.addEventListener('htmx:configRequest', (event) => { event.detail.headers['X-Mendro-Page'] = page; });

  const on = (name, hear) => (hearers[name] ??= []).push(hear);

  // The bench and the day are shown anew when the bench was worked out again, by whomever; once a second is enough.
  const shown = { next: '/?handler=Next', board: '/Day?handler=Board' };
  let waiting = false;
  on('bench', () => {
    const id = Object.keys(shown).find((name) => document.getElementById(name));
    if (waiting || !id) return;
    waiting = true;
    setTimeout(() => {
      waiting = false;
      window.htmx?.ajax('GET', shown[id], { target: `#${id}`, swap: 'outerHTML' });
    }, 1000);
  });

  return { page, on };
})();
