// Several people at one shop: who else has this job open, and what they do to it, shown here as it happens, without taking from
// under one's hands what is being typed.
(() => {
  const changed = document.getElementById('changed');
  const here = document.getElementById('here');
  const number = Number(changed?.dataset.job);
  const token = document.querySelector('meta[name="mendro-token"]')?.content ?? '';
  const { page, on } = window.mendro;

  const words = (names) => (names.length ? `${names.join(', ')} ${names.length > 1 ? 'have' : 'has'} this open` : '');
  const announce = (gone) => {
    const body = new FormData();
    body.set('page', page);
    if (gone) body.set('gone', 'true');
    body.set('__RequestVerificationToken', token);
    const to = `/Jobs/${number}/Bar?handler=Here`;
    if (gone) { navigator.sendBeacon(to, body); return; }
    // A server that is away is told again when it is back.
    fetch(to, { method: 'POST', body }).then((answer) => (answer.ok ? answer.json() : [])).then((names) => { here.textContent = words(names); })
      .catch(() => {});
  };
  if (changed) {
    announce(false);
    // A server that was away has forgotten who is here.
    on('open', () => announce(false));
    addEventListener('pagehide', () => announce(true));
    addEventListener('pageshow', (event) => { if (event.persisted) announce(false); });
  }

  on('here', ({ number: job, names }) => {
    if (job === number) here.textContent = words(names);
    document.querySelectorAll(`[data-taken="${job}"]`).forEach((mark) => { mark.textContent = names.join(', '); });
  });

  // A form in which something was typed or chosen, or is about to be.
  const edited = (field) => {
    if (field.type === 'hidden' || field.type === 'submit' || field.type === 'button') return false;
    if (field.type === 'checkbox' || field.type === 'radio') return field.checked !== field.defaultChecked;
    if (field.tagName === 'SELECT') return [...field.options].some((option) => option.selected !== option.defaultSelected) && field.selectedIndex > 0;
    return field.value !== field.defaultValue;
  };
  const busy = (form) => (form.contains(document.activeElement) && document.activeElement.matches('input, textarea, select'))
    || [...form.elements].some(edited);
  const unitOf = (form) => form.closest('.reading-bar') ?? form;
  const nameOf = (form) => `${form.getAttribute('action')} ${form.querySelector('[name="probe"], [name="function"]')?.value ?? ''}`;

  // Puts the new in place of the old; what is being typed stays the very same field. False when it has no place there any more.
  const merge = (old, fresh) => {
    const kept = [...new Set([...old.querySelectorAll('form')].filter(busy).map((form) => [unitOf(form), nameOf(form)]))];
    const pairs = kept.map(([unit, name]) => {
      const twins = [...old.querySelectorAll('form')].filter((form) => nameOf(form) === name);
      const at = twins.findIndex((form) => unit.contains(form));
      const form = [...fresh.querySelectorAll('form')].filter((one) => nameOf(one) === name)[at];
      return [unit, form && unitOf(form)];
    });
    if (pairs.some(([, place]) => !place)) return false;
    const focus = old.contains(document.activeElement) ? document.activeElement : null;
    const again = focus && (focus.id ? `#${CSS.escape(focus.id)}` : null);
    const range = focus && 'selectionStart' in focus ? [focus.selectionStart, focus.selectionEnd] : null;
    const open = new Set([...old.querySelectorAll('details[open] > summary')].map((summary) => summary.textContent.trim()));
    fresh.querySelectorAll('details > summary').forEach((summary) => {
      if (open.has(summary.textContent.trim())) summary.parentElement.open = true;
    });
    pairs.forEach(([unit, place]) => place.replaceWith(unit));
    old.replaceWith(fresh);
    if (focus) {
      const target = document.contains(focus) ? focus : again && document.querySelector(again);
      target?.focus({ preventScroll: true });
      if (target === focus && range && range[0] !== null) target.setSelectionRange(...range);
    }
    window.htmx?.process(fresh);
    fresh.dispatchEvent(new CustomEvent('htmx:afterSettle', { bubbles: true, detail: {} }));
    return true;
  };

  const say = (text, link) => {
    changed.querySelector('span').textContent = text;
    changed.querySelector('a').hidden = !link;
    changed.hidden = false;
  };
  const show = async (who) => {
    const regions = [...document.querySelectorAll('[data-together]')];
    if (regions.length === 0) return say(`${who} changed this job.`, true);
    const select = document.querySelector('.reading-bar')?.dataset.select;
    const at = new URL(location.href);
    at.searchParams.delete('handler');
    if (select) at.searchParams.set('select', select);
    const answer = await fetch(at, { headers: { 'X-Mendro-Page': page } }).catch(() => null);
    if (!answer?.ok || answer.redirected) return say(`${who} changed this job.`, true);
    const fresh = new DOMParser().parseFromString(await answer.text(), 'text/html');
    const whole = [...regions, document.getElementById('worth')].filter(Boolean).every((region) => {
      const twin = fresh.getElementById(region.id);
      return twin && merge(region, document.adoptNode(twin));
    });
    return whole ? say(`${who} changed this job; it is shown as it is now.`, false)
      : say(`${who} changed this job. What you typed is kept.`, true);
  };
  let due = null;
  on('job', ({ number: job, by, who }) => {
    if (!changed || by === page || job !== number) return;
    // What comes in one go is shown in one.
    clearTimeout(due);
    due = setTimeout(() => show(who || 'Another page').catch(() => say('This job was changed on another page.', true)), 200);
  });
})();
