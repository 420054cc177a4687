// Recording screws while opening: a tap on the outline writes the screw's line.
(() => {
  const outline = document.getElementById('tap');
  if (!outline) return;
  const lines = document.getElementById('tap-lines');
  const word = (id) => document.getElementById(id).value.trim();
  const free = () => {
    const taken = new Set([...lines.value.matchAll(/^s(\d+):/gm)].map((match) => Number(match[1])));
    let n = 1;
    while (taken.has(n)) n += 1;
    return n;
  };
  const mark = (x, y, n) => {
    const at = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
    at.setAttribute('cx', x);
    at.setAttribute('cy', y);
    at.setAttribute('r', 7);
    const name = document.createElementNS('http://www.w3.org/2000/svg', 'text');
    name.setAttribute('x', x + 10);
    name.setAttribute('y', y + 4);
    name.textContent = `s${n}`;
    outline.append(at, name);
  };
  outline.addEventListener('click', (event) => {
    const box = outline.getBoundingClientRect();
    const [x, y] = [((event.clientX - box.left) / box.width) * 300, ((event.clientY - box.top) / box.height) * 210];
    const n = free();
    const tray = word('tap-tray');
    // Places are told in hundredths of the face.
    const place = `at ${Math.round((x / 300) * 100)} ${Math.round((y / 210) * 100)}`;
    const line = [word('tap-head') || 'cross 00', place, `on ${word('tap-face') || 'back'}`, tray ? `tray ${tray}` : ''].filter(Boolean).join(', ');
    lines.value = `${lines.value.trimEnd()}${lines.value.trim() ? '\n' : ''}s${n}: ${line}`;
    mark(x, y, n);
  });
})();
