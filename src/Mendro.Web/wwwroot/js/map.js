// The path map: zoom and pan by buttons, keys, wheel and drag. It is one stop of the Tab key; arrow keys walk between blocks and
// probes inside it.
(() => {
  // Choosing a point loads the page anew; how near the map was is kept for this tab and this page.
  const KEPT = `mendro.map:${location.pathname}`;
  const kept = () => {
    try {
      const { zoom, x, y } = JSON.parse(sessionStorage.getItem(KEPT));
      if ([zoom, x, y].every(Number.isFinite) && zoom >= 1 && zoom <= 4) return { zoom, x, y };
    } catch { /* nothing kept, or a store that is closed to us */ }
    return { zoom: 1, x: 0, y: 0 };
  };
  const keep = () => {
    try { sessionStorage.setItem(KEPT, JSON.stringify(view)); } catch { /* then it begins whole again */ }
  };
  const view = kept();
  window.addEventListener('pagehide', keep);
  const MOST = 4;
  const mapOf = (element) => element?.closest?.('[data-map]')?.querySelector('svg.map') ?? document.querySelector('[data-map] svg.map');
  const boxOf = (svg) => {
    if (!svg.dataset.box) svg.dataset.box = svg.getAttribute('viewBox');
    return svg.dataset.box.split(' ').map(Number);
  };
  const clamp = (value, low, high) => Math.min(Math.max(value, low), Math.max(low, high));
  const show = (svg) => {
    const [, , width, height] = boxOf(svg);
    const [w, h] = [width / view.zoom, height / view.zoom];
    view.x = clamp(view.x, 0, width - w);
    view.y = clamp(view.y, 0, height - h);
    svg.setAttribute('viewBox', `${view.x.toFixed(1)} ${view.y.toFixed(1)} ${w.toFixed(1)} ${h.toFixed(1)}`);
    svg.classList.toggle('zoomed', view.zoom > 1);
    const state = svg.closest('[data-map]');
    if (state) state.dataset.zoom = view.zoom.toFixed(2);
  };
  // A point of the screen in units of the drawing.
  const at = (svg, clientX, clientY) => {
    const matrix = svg.getScreenCTM();
    return matrix ? { x: (clientX - matrix.e) / matrix.a, y: (clientY - matrix.f) / matrix.d } : { x: 0, y: 0 };
  };
  const zoom = (svg, factor, point) => {
    const [, , width, height] = boxOf(svg);
    const next = clamp(view.zoom * factor, 1, MOST);
    const centre = point ?? { x: view.x + width / view.zoom / 2, y: view.y + height / view.zoom / 2 };
    // What lies under the pointer stays under it.
    view.x = centre.x - (centre.x - view.x) * view.zoom / next;
    view.y = centre.y - (centre.y - view.y) * view.zoom / next;
    view.zoom = next;
    show(svg);
  };
  const act = (svg, what) => {
    if (!svg) return false;
    if (what === 'all') { Object.assign(view, { zoom: 1, x: 0, y: 0 }); show(svg); } else zoom(svg, what === 'in' ? 1.4 : 1 / 1.4);
    return true;
  };

  const centre = (link) => {
    const r = link.getBoundingClientRect();
    return [r.left + r.width / 2, r.top + r.height / 2];
  };
  // The next block or probe in a direction: near along the way, and not far off it.
  const walk = (from, key) => {
    const [x, y] = centre(from);
    const across = key === 'ArrowLeft' || key === 'ArrowRight';
    const sign = key === 'ArrowRight' || key === 'ArrowDown' ? 1 : -1;
    let best = null;
    let least = Infinity;
    from.closest('svg').querySelectorAll('a').forEach((other) => {
      if (other === from) return;
      const [ox, oy] = centre(other);
      const along = sign * (across ? ox - x : oy - y);
      const off = Math.abs(across ? oy - y : ox - x);
      if (along <= 2) return;
      const cost = along + 2 * off;
      if (cost < least) [best, least] = [other, cost];
    });
    if (!best) return;
    stopAt(best);
    best.focus();
    reveal(best);
  };

  // The one link of the map that Tab reaches: where the arrows were last, else the chosen probe, else the first.
  let last = null;
  const stopAt = (link) => {
    link.closest('svg').querySelectorAll('a').forEach((other) => other.setAttribute('tabindex', other === link ? '0' : '-1'));
    last = link.dataset.id;
  };
  const oneStop = (svg) => {
    const links = [...svg.querySelectorAll('a')];
    const stop = links.find((a) => a.dataset.id === last) ?? links.find((a) => a.getAttribute('aria-current')) ?? links[0];
    if (stop) stopAt(stop);
  };

  // A map higher than its room is rolled to where it was before the board was drawn anew, and on to the chosen point.
  let rolled = 0;
  document.addEventListener('scroll', (event) => { if (event.target.classList?.contains('map-view')) rolled = event.target.scrollTop; }, true);
  const rollTo = () => {
    const room = document.querySelector('.map-view');
    if (!room) return;
    room.scrollTop = rolled;
    const chosen = room.querySelector('[aria-current="true"]')?.getBoundingClientRect();
    if (!chosen) return;
    const seen = room.getBoundingClientRect();
    if (chosen.bottom > seen.bottom) room.scrollTop += chosen.bottom - seen.bottom + 12;
    else if (chosen.top < seen.top) room.scrollTop -= seen.top - chosen.top + 12;
  };

  // Moves the part of the map that is shown so that something on it is in the middle.
  const reveal = (link) => {
    const svg = link.closest('svg');
    if (view.zoom <= 1) return;
    const [bx, by] = centre(link);
    const point = at(svg, bx, by);
    const [, , width, height] = boxOf(svg);
    view.x = point.x - width / view.zoom / 2;
    view.y = point.y - height / view.zoom / 2;
    show(svg);
  };

  document.addEventListener('click', (event) => {
    const button = event.target.closest('[data-zoom]');
    if (button?.tagName === 'BUTTON') act(mapOf(button), button.dataset.zoom);
  });
  document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('dialog[open]')) return;
    if (event.target.closest('input, textarea, select')) return;
    const anchor = event.target.closest('svg.map a');
    if (anchor && event.key.startsWith('Arrow')) { walk(anchor, event.key); event.preventDefault(); event.stopPropagation(); return; }
    const what = { '+': 'in', '=': 'in', '-': 'out', '−': 'out', 0: 'all' }[event.key];
    if (what && act(mapOf(event.target), what)) event.preventDefault();
  }, true);
  document.addEventListener('wheel', (event) => {
    const svg = event.target.closest?.('[data-map] svg.map');
    // The plain wheel scrolls the page; with Ctrl, or a pinch, it zooms.
    if (!svg || !event.ctrlKey) return;
    event.preventDefault();
    zoom(svg, event.deltaY < 0 ? 1.15 : 1 / 1.15, at(svg, event.clientX, event.clientY));
  }, { passive: false });

  let drag = null;
  document.addEventListener('pointerdown', (event) => {
    const svg = event.target.closest?.('[data-map] svg.map');
    if (!svg || view.zoom <= 1 || event.target.closest('a')) return;
    drag = { svg, ...at(svg, event.clientX, event.clientY) };
    svg.setPointerCapture(event.pointerId);
  });
  const end = () => { drag = null; };
  document.addEventListener('pointermove', (event) => {
    if (!drag) return;
    // The button was let go where no one told us, or the map was drawn anew meanwhile.
    if (event.buttons === 0 || !drag.svg.isConnected) { end(); return; }
    const now = at(drag.svg, event.clientX, event.clientY);
    view.x -= now.x - drag.x;
    view.y -= now.y - drag.y;
    show(drag.svg);
  });
  for (const over of ['pointerup', 'pointercancel', 'lostpointercapture']) document.addEventListener(over, end);
  window.addEventListener('blur', end);
  document.addEventListener('focusin', (event) => {
    const link = event.target.closest?.('svg.map a');
    if (link) stopAt(link);
  });

  const ready = () => document.querySelectorAll('[data-map]').forEach((frame) => {
    frame.querySelector('.map-tools').hidden = false;
    const svg = frame.querySelector('svg.map');
    if (!svg) return;
    show(svg);
    oneStop(svg);
    rollTo();
  });
  document.addEventListener('htmx:afterSettle', ready);
  ready();
})();
