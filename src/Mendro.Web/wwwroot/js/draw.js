// Drawing a board over a photo: taps become lines of text in millimetres; the photo never leaves the browser.
(() => {
  const canvas = document.getElementById('draw');
  if (!canvas) return;
  const paper = canvas.getContext('2d');
  const text = document.getElementById('draw-text');
  const say = document.getElementById('draw-say');
  const word = (id) => document.getElementById(id).value.trim();
  const number = (id) => Number(word(id).replace(',', '.'));
  const what = () => document.querySelector('input[name="draw-what"]:checked').value;
  // A tap as near as this to a point of a net is that point.
  const SAME = 9;
  const taps = [];
  let photo = null;

  const near = (n) => Math.round(n * 10) / 10;
  const of = (kind) => taps.filter((tap) => tap.what === kind && !tap.end);

  // From pixels to millimetres: by the four corners of a rectangle, which puts a slanted photo right, or by one known distance.
  const plane = () => {
    const frame = of('frame').slice(0, 4);
    if (frame.length === 4) return window.planeOf(frame, number('draw-width'), number('draw-tall'));
    const two = of('scale');
    const mm = number('draw-mm');
    if (two.length < 2 || !(mm > 0)) return null;
    const [a, b] = two.slice(-2);
    const perPixel = mm / Math.hypot(a.x - b.x, a.y - b.y);
    const outline = shapes('outline').at(-1) ?? [];
    const from = { x: Math.min(...outline.map((p) => p.x)), y: Math.max(...outline.map((p) => p.y)) };
    // Millimetres run up from the left lower corner, pixels down from the top.
    return outline.length === 0 ? null : (p) => ({ x: (p.x - from.x) * perPixel, y: (from.y - p.y) * perPixel });
  };

  // Shapes in the order in which they were tapped; corners of one shape, and the points of one line, end with “done”.
  const shapes = (kind) => {
    const made = [[]];
    for (const tap of taps) {
      if (tap.what !== kind) continue;
      if (tap.end) made.push([]);
      else made.at(-1).push(tap);
    }
    return made.filter((shape) => shape.length > 0);
  };

  // Points of nets, each once, however many lines pass it.
  const points = () => {
    const found = [];
    for (const tap of of('net')) {
      const same = found.find((point) => Math.hypot(point.x - tap.x, point.y - tap.y) < SAME);
      tap.id = same?.id ?? `N${found.length + 1}`;
      if (!same) found.push(tap);
    }
    return found;
  };

  const nets = (at) => {
    const lines = [];
    points().forEach((p) => {
      const told = [at(p), p.kind, p.side, p.part && `of ${p.part}`, p.under && `under ${p.under}`].filter(Boolean);
      lines.push(`point ${p.id}: ${told.join('; ')}`);
    });
    // Lines that share a point are one net.
    const groups = [];
    for (const shape of shapes('net')) {
      const ids = shape.map((p) => p.id);
      const met = groups.filter((group) => group.chains.flat().some((id) => ids.includes(id)));
      const one = { name: met[0]?.name ?? shape[0].net, chains: [...met.flatMap((group) => group.chains), ids] };
      met.forEach((group) => groups.splice(groups.indexOf(group), 1));
      groups.push(one);
    }
    groups.forEach(({ name, chains }, n) => {
      lines.push(`net L${n + 1}: ${name || `line ${n + 1}`}; ${chains.map((chain) => chain.join(' - ')).join(', ')}`);
    });
    return lines;
  };

  const write = () => {
    const toMm = plane();
    if (!toMm) return;
    const at = (p) => {
      const mm = toMm(p);
      return `${near(mm.x)} ${near(mm.y)}`;
    };
    const round = (shape) => shape.map(at).join(', ');
    const lines = [];
    const outline = shapes('outline').at(-1) ?? of('frame').slice(0, 4);
    if (outline.length >= 3) lines.push(`board board-1: ${word('draw-board') || 'Board'}; ${round(outline)}`);
    shapes('zone').filter((s) => s.length >= 3).forEach((s) => lines.push(`zone ${s[0].height} mm: ${round(s)}`));
    shapes('part').filter((s) => s.length >= 3).forEach((s, n) => lines.push(`part U${n + 1} ${s[0].height} mm: ${round(s)}`));
    const pads = of('cap');
    for (let n = 0; n + 1 < pads.length; n += 2) {
      const told = [pads[n].section, pads[n].value].filter(Boolean).join('; ');
      lines.push(`cap C${n / 2 + 1}: ${told ? `${told}; ` : ''}plus ${at(pads[n])}, minus ${at(pads[n + 1])}`);
    }
    lines.push(...nets(at));
    if (lines.length > 0) text.value = lines.join('\n');
  };

  const paint = () => {
    paper.clearRect(0, 0, canvas.width, canvas.height);
    if (photo) paper.drawImage(photo, 0, 0, canvas.width, canvas.height);
    const style = getComputedStyle(canvas);
    paper.strokeStyle = style.color;
    paper.fillStyle = style.color;
    paper.lineWidth = 2;
    for (const kind of ['scale', 'frame', 'outline', 'part', 'zone', 'net']) {
      for (const shape of shapes(kind)) {
        paper.beginPath();
        shape.forEach((p, n) => (n ? paper.lineTo(p.x, p.y) : paper.moveTo(p.x, p.y)));
        if (kind !== 'scale' && kind !== 'net' && shape.length > 2) paper.closePath();
        paper.stroke();
      }
    }
    for (const tap of taps.filter((one) => !one.end)) {
      paper.beginPath();
      paper.arc(tap.x, tap.y, 4, 0, 7);
      paper.fill();
    }
  };

  const CORNERS = ['left lower', 'right lower', 'right upper', 'left upper'];
  const next = () => {
    const framed = of('frame').length;
    if (what() === 'frame' && framed < 4) say.textContent = `Tap the ${CORNERS[framed]} corner of the rectangle.`;
    else if (framed === 4 && !plane()) say.textContent = 'Three of the corners lie on a line: undo, and tap them anew.';
    else if (framed < 4 && of('scale').length < 2) say.textContent = 'Tap two points whose distance you know.';
    else if (framed < 4 && shapes('outline').length === 0) say.textContent = 'Now the corners of the board, one after the other.';
    else if (what() === 'net') say.textContent = 'Tap along the line from point to point; “done” ends it. A tap on a point that is there branches off.';
    else say.textContent = 'Then each capacitor: its plus pad, then its minus pad. Parts that stay and low places as corners.';
  };
  const anew = () => {
    paint();
    write();
    next();
  };

  canvas.addEventListener('click', (event) => {
    taps.push({
      ...window.tapOn(canvas, event),
      what: what(),
      value: word('draw-value'),
      section: word('draw-section'),
      height: word('draw-height') || '6',
      net: word('draw-net'),
      kind: word('draw-kind'),
      side: word('draw-side'),
      part: word('draw-part'),
      under: word('draw-under'),
    });
    anew();
  });
  document.getElementById('draw-close').addEventListener('click', () => taps.push({ what: what(), end: true }));
  document.getElementById('draw-undo').addEventListener('click', () => {
    taps.pop();
    anew();
  });
  document.querySelectorAll('input[name="draw-what"]').forEach((choice) => choice.addEventListener('change', next));
  window.photoOn(canvas, document.getElementById('draw-photo'), say, (image) => {
    photo = image;
    paint();
  });
})();
