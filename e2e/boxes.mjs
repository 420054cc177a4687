// What an eye would trip over on a page as it stands, told by its boxes: text that lies on text, text that is cut and can be read
// nowhere, a heading that hangs on what is above it, and a main action that the bar at the foot covers for good.

/** A line for each, or none. */
export const boxFaults = (page) => page.evaluate(() => {
  const shown = (element) => element.checkVisibility({ visibilityProperty: true, opacityProperty: true, contentVisibilityAuto: true });
  const name = (element) => {
    const own = element.closest('[id]');
    return `${element.tagName.toLowerCase()}${element.classList.length > 0 ? `.${[...element.classList].join('.')}` : ''}${own ? ` in #${own.id}` : ''}`;
  };
  const short = (text) => text.trim().replace(/\s+/g, ' ').slice(0, 40);
  // What stands still while the page moves lies over it by intent; what nobody sees lies over nothing.
  const apart = (element) => {
    if (element.closest('.visually-hidden, dialog, [hidden], noscript, template')) return true;
    for (let at = element; at; at = at.parentElement) if (['sticky', 'fixed'].includes(getComputedStyle(at).position)) return true;
    return false;
  };
  // What of a box is seen through the windows that cut it.
  const seen = (box, element) => {
    let { left, right, top, bottom } = box;
    for (let at = element; at && at !== document.body; at = at.parentElement) {
      const style = getComputedStyle(at);
      if (style.overflowX === 'visible' && style.overflowY === 'visible') continue;
      const window = at.getBoundingClientRect();
      [left, right] = [Math.max(left, window.left), Math.min(right, window.right)];
      [top, bottom] = [Math.max(top, window.top), Math.min(bottom, window.bottom)];
    }
    return { left, right, top, bottom, width: right - left, height: bottom - top };
  };

  const faults = [];
  const lines = [];
  const walker = document.createTreeWalker(document.querySelector('main') ?? document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const element = node.parentElement;
    if (node.data.trim() === '' || apart(element) || element.closest('option, script, style, textarea') || !shown(element)) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const whole of range.getClientRects()) {
      const box = seen(whole, element);
      if (box.width > 2 && box.height > 2) lines.push({ box, element, node, text: node.data });
    }
  }

  // Text on text: two lines that share more than a sliver in both directions.
  lines.sort((a, b) => a.box.top - b.box.top);
  const told = new Set();
  for (let n = 0; n < lines.length; n++)
    for (let m = n + 1; m < lines.length && lines[m].box.top < lines[n].box.bottom; m++) {
      const [a, b] = [lines[n], lines[m]];
      // A line that is cut has a box for what is seen of it and one for the whole.
      if (a.node === b.node) continue;
      const across = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
      const down = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
      // Line boxes are taller than their letters: only what shares half of a line is seen.
      if (across <= 3 || down <= Math.min(a.box.height, b.box.height) / 2) continue;
      const words = `“${short(a.text)}” and “${short(b.text)}” lie on each other, ${name(a.element)}`;
      if (!told.has(words)) faults.push(words);
      told.add(words);
    }

  // Text that is cut, and no title says the rest.
  const pen = document.createElement('canvas').getContext('2d');
  for (const element of document.querySelectorAll('main *')) {
    if (apart(element) || !shown(element)) continue;
    const style = getComputedStyle(element);
    if (element.matches('select')) {
      // A phone opens a list of its own, where it can be read.
      if (window.innerWidth < 700) continue;
      const text = element.selectedOptions[0]?.text ?? '';
      pen.font = style.font;
      const room = element.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
      if (pen.measureText(text).width > room + 2 && !element.title) faults.push(`“${short(text)}” is cut in ${name(element)}[${element.name}]`);
    } else if (['hidden', 'clip'].includes(style.overflowX) && element.scrollWidth > element.clientWidth + 1 && element.textContent.trim() !== ''
      && !element.closest('[title]') && !element.querySelector('svg') && !element.closest('svg')) {
      faults.push(`“${short(element.textContent)}” is cut in ${name(element)}`);
    }
  }

  // A heading belongs to what is below it.
  for (const heading of document.querySelectorAll('main :is(h2, h3)')) {
    if (apart(heading) || !shown(heading)) continue;
    const own = heading.getBoundingClientRect();
    const end = own.left + Math.min(own.width, 160);
    const beside = (line) => !line.element.closest('svg') && !heading.contains(line.element) && line.box.right > own.left && line.box.left < end;
    const above = lines.filter((line) => beside(line) && line.box.bottom <= own.top + 2).map((line) => own.top - line.box.bottom);
    const below = lines.filter((line) => beside(line) && line.box.top >= own.bottom - 2).map((line) => line.box.top - own.bottom);
    if (above.length === 0 || below.length === 0) continue;
    const [up, down] = [Math.min(...above), Math.min(...below)];
    if (up * 1.5 < down && down < 60) faults.push(`heading “${short(heading.textContent)}” stands ${Math.round(up)} below and ${Math.round(down)} above`);
  }

  // At the very end of the page nothing that is to be pressed is left under the bar.
  const bar = document.querySelector('.reading-bar');
  if (bar) {
    window.scrollTo(0, document.documentElement.scrollHeight);
    const edge = bar.getBoundingClientRect().top;
    for (const action of document.querySelectorAll('main .btn.first')) {
      if (apart(action) || !shown(action)) continue;
      const box = action.getBoundingClientRect();
      if (box.bottom > edge + 1 && box.top < window.innerHeight) faults.push(`“${short(action.textContent)}” stays under the bar`);
    }
    window.scrollTo(0, 0);
  }

  return faults;
});
