// A round: one key for each answer, and N for the next round.
document.addEventListener('keydown', (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey || event.target.closest('input:not([type=radio]), textarea, select')) return;
  const key = event.key.toLowerCase();
  const aim = key === 'n' ? document.getElementById('next-round') : document.querySelector(`[data-key="${CSS.escape(key)}"]`);
  if (!aim) return;
  event.preventDefault();
  aim.click();
});
