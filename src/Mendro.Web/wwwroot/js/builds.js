// Pictures of builds to choose from: the arrow keys go to the neighbour in that direction, as the eye does.
document.addEventListener('keydown', (event) => {
  const from = event.target.closest?.('.build');
  if (!from || !event.key.startsWith('Arrow') || event.ctrlKey || event.metaKey || event.altKey) return;
  const all = [...from.parentElement.querySelectorAll('.build')];
  const at = all.indexOf(from);
  const box = (build) => build.getBoundingClientRect();
  const columns = all.filter((build) => Math.abs(box(build).top - box(all[0]).top) < 2).length;
  const steps = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -columns, ArrowDown: columns };
  const to = all[at + steps[event.key]];
  event.preventDefault();
  if (!to) return;
  to.focus();
});
