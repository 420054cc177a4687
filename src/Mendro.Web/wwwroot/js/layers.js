// Which layers of a board map are shown is kept for this tab: choosing a net loads the page anew.
(() => {
  const KEPT = 'mendro.layers';
  const read = () => {
    try { return JSON.parse(sessionStorage.getItem(KEPT)) ?? []; } catch { return []; }
  };
  const show = () => {
    const off = read();
    document.querySelectorAll('[data-layers] [data-layer]').forEach((box) => { box.checked = !off.includes(box.dataset.layer); });
  };
  document.addEventListener('change', (event) => {
    const box = event.target.closest?.('[data-layers] [data-layer]');
    if (!box) return;
    const off = read().filter((layer) => layer !== box.dataset.layer);
    if (!box.checked) off.push(box.dataset.layer);
    try { sessionStorage.setItem(KEPT, JSON.stringify(off)); } catch { /* A closed window forgets. */ }
  });
  document.addEventListener('htmx:afterSettle', show);
  show();
})();
