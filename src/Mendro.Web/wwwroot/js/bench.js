// Keys, focus and the antiforgery header. No framework; htmx does the swapping.
(() => {
  const token = document.querySelector('meta[name="mendro-token"]')?.content ?? '';
  document.addEventListener('htmx:configRequest', (event) => {
    event.detail.headers['X-Mendro-Antiforgery'] = token;
  });
  // A form that was refused comes back with its message: show it in place.
  document.addEventListener('htmx:beforeSwap', (event) => {
    if (event.detail.xhr.status === 422) event.detail.shouldSwap = true;
  });
  const say = (words) => {
    const line = document.getElementById('link-lost');
    if (line) line.textContent = words;
  };
  document.addEventListener('htmx:sendError', () => say('No answer from the server. What you typed is still here; try again.'));
  document.addEventListener('htmx:responseError', () => say('The server refused that. What you typed is still here.'));

  // The reading bar grows with its words; what stands above it moves up, so that neither hides the other.
  const height = new ResizeObserver(([bar]) => document.documentElement.style.setProperty('--bar-high', `${bar.target.offsetHeight}px`));
  const measure = () => {
    height.disconnect();
    const bar = document.querySelector('.reading-bar');
    if (bar) height.observe(bar);
  };
  document.addEventListener('htmx:afterSettle', measure);
  measure();

  const keys = document.getElementById('keys');
  document.getElementById('keys-open')?.addEventListener('click', () => keys.showModal());

  const typing = (element) => element.closest('input:not([type=radio]):not([type=checkbox]), textarea, select') !== null;
  const press = (selector) => {
    const target = document.querySelector(selector);
    target?.click();
    return target !== null;
  };
  const proveRow = (step) => {
    const rows = [...document.querySelectorAll('[data-prove-row]')];
    const at = rows.findIndex((row) => row.contains(document.activeElement));
    rows[Math.min(rows.length - 1, Math.max(0, at + step))]?.focus();
  };

  document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || keys.open) return;
    // No reading begins with these letters: in an empty reading field they are still keys.
    const empty = event.target.matches?.('.reading-bar .entry') && event.target.value === '' && document.querySelector('.reading-bar[data-metered]');
    if (empty && event.key === 'z' && press('#undo')) { event.preventDefault(); return; }
    if (event.key === 'Escape' && typing(event.target)) {
      // What the bar promises of the key holds in its field too, as long as nothing is typed there; at the best move it only leaves it.
      const idle = event.target.matches('.reading-bar .entry') && event.target.value === '';
      event.target.blur();
      if (idle) press('#hold[data-asked="True"]');
      event.preventDefault();
      return;
    }
    // A page may give letters to its own buttons; they come before those of the whole shop.
    const own = /^[a-z]$/.test(event.key) ? document.querySelector(`[data-key="${event.key}"]`) : null;
    if (own && (!typing(event.target) || empty)) { own.click(); event.preventDefault(); return; }
    if (typing(event.target)) return;
    let done = true;
    switch (event.key) {
      case '/': document.getElementById('find').focus(); break;
      case '?': keys.showModal(); break;
      // On a page where B says beep, back or begin it says that or nothing.
      case 'b': done = document.querySelector('[data-keeps-b]') === null; if (done) location.href = '/'; break;
      case 'i': location.href = '/Intake'; break;
      case 'j': location.href = '/Jobs'; break;
      case 'r': done = document.querySelector('.reading-bar .entry, .reading-bar select')?.focus() === undefined; break;
      case 'z': done = press('#undo'); break;
      case 'Escape': done = press('#hold'); break;
      case '1': case '2': case '3': case '4': done = press(`[data-move="${event.key}"] [data-take]`); break;
      case '5': case '6': case '7': case '8': case '9': done = press(`[data-chip="${event.key}"]`); break;
      case 'ArrowLeft': done = press('#contact-before'); break;
      case 'ArrowRight': done = press('#contact-after'); break;
      case 'ArrowDown': done = document.querySelector('[data-prove-row]') !== null; proveRow(1); break;
      case 'ArrowUp': done = document.querySelector('[data-prove-row]') !== null; proveRow(-1); break;
      case 'w': case 'f': {
        const row = document.activeElement?.closest('[data-prove-row]') ?? document.querySelector('[data-prove-row].now');
        const button = row?.querySelector(event.key === 'w' ? '[value="pass"]' : '[value="fail"]');
        done = Boolean(button);
        button?.click();
        break;
      }
      default: done = false;
    }
    if (done) event.preventDefault();
  });

  // After a swap on Prove the focus goes to the line that wants an answer next.
  document.addEventListener('htmx:afterSettle', (event) => {
    if (event.target.closest('#prove')) document.getElementById('next-line')?.focus();
    // A build was chosen for a new name: Enter goes on.
    if (event.target.id === 'by-model' && document.activeElement === document.body && event.target.querySelector('.new-model'))
      document.querySelector('#intake .btn.first')?.focus({ preventScroll: true });
  });
  document.addEventListener('click', (event) => {
    if (event.target.closest('[data-print]')) window.print();
  });
  // Owner fields follow the choice of owner; without script all of them show.
  const owner = () => {
    const chosen = document.querySelector('input[name="Form.Owner"]:checked')?.value;
    document.querySelectorAll('[data-owner]').forEach((box) => { box.hidden = chosen !== undefined && box.dataset.owner !== chosen; });
  };
  document.addEventListener('change', (event) => {
    if (event.target.name === 'Form.Owner') owner();
    if (event.target.matches('[data-fails]')) {
      const look = document.getElementById(event.target.dataset.fails);
      if (look && event.target.value === 'fail') look.focus();
    }
  });
  owner();

  // The minutes are those of the way that is chosen, until others are typed.
  document.addEventListener('change', (event) => {
    const minutes = event.target.matches('[data-minutes]') ? event.target.form?.elements.minutes : null;
    if (!minutes) return;
    const told = [...document.querySelectorAll('[data-minutes]')].map((way) => way.dataset.minutes);
    if (minutes.value === '' || told.includes(minutes.value)) minutes.value = event.target.dataset.minutes;
  });
})();
