// The line at the door: what was heard of it is turned over by keys before it is taken in. The lists are plain ones, so that a finger
// does the same without any of this.
(() => {
  const chips = () => [...document.querySelectorAll('#heard select[data-heard]:not([disabled])')];
  const line = () => document.querySelector('[data-heard-line]');

  // Works, then fails, then not said, then works again; a mark is there or not.
  const turn = (chip) => {
    const kinds = [...new Set([...chip.options].map((option) => option.dataset.sign))];
    if (chip.id === 'heard-as' || chip.id === 'heard-more' || kinds.length < 2) return false;
    const order = ['ok', 'bad', 'mark', 'none'].filter((kind) => kinds.includes(kind));
    const now = order.indexOf(chip.selectedOptions[0].dataset.sign);
    const next = order[(now + 1) % order.length];
    // As it was heard comes before any other way of failing.
    chip.selectedIndex = [...chip.options].findIndex((option) => option.dataset.sign === next);
    chip.dispatchEvent(new Event('change', { bubbles: true }));
    return true;
  };

  document.addEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    // The line wraps, so that its beginning stays in sight; Enter takes in all the same.
    if (event.target === line() && event.key === 'Enter' && !event.shiftKey && !event.isComposing) {
      event.preventDefault();
      event.target.form.requestSubmit();
      return;
    }
    if (event.target === line() && event.key === 'ArrowDown') {
      const first = chips().find((chip) => chip.id.startsWith('chip-')) ?? chips()[0];
      if (first) { first.focus(); event.preventDefault(); }
      return;
    }
    if (!event.target.matches?.('#heard select[data-heard]')) return;
    const all = chips();
    const at = all.indexOf(event.target);
    let done = true;
    switch (event.key) {
      case 'ArrowLeft': (all[at - 1] ?? line()).focus(); break;
      case 'ArrowRight': (all[at + 1] ?? all[at]).focus(); break;
      case 'Escape': line().focus(); break;
      case ' ': done = turn(event.target); break;
      case 'Enter': event.target.form.requestSubmit(); break;
      default: done = false;
    }
    if (done) { event.preventDefault(); event.stopPropagation(); }
  }, true);
})();
