// Taps on a picture: each draws a mark, or says where the shell is to be measured.
(() => {
  const picture = document.getElementById('picture');
  if (!picture) return;
  const mark = document.getElementById('mark');
  const measure = document.getElementById('measure');
  const go = document.getElementById('measure-go');
  const near = (share) => share.toFixed(4);

  // Choosing a tool of one form lets go of the other's.
  mark.addEventListener('change', (event) => {
    if (event.target.name !== 'shape') return;
    measure.querySelectorAll('[name="tap"]').forEach((radio) => { radio.checked = false; });
  });

  const ring = (name, x, y) => {
    picture.querySelector(`[data-tap="${name}"]`)?.remove();
    const { width, height } = picture.viewBox.baseVal;
    const dot = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
    dot.setAttribute('cx', x * width);
    dot.setAttribute('cy', y * height);
    dot.setAttribute('r', Math.max(width, height) * 0.015);
    dot.setAttribute('class', 'pm-tap');
    dot.dataset.tap = name;
    picture.append(dot);
  };

  picture.addEventListener('click', (event) => {
    const box = picture.getBoundingClientRect();
    const x = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width));
    const y = Math.min(1, Math.max(0, (event.clientY - box.top) / box.height));
    const tap = measure.querySelector('[name="tap"]:checked');
    if (tap) {
      measure.elements[tap.value].value = `${near(x)} ${near(y)}`;
      ring(tap.value, x, y);
      go.disabled = !(measure.elements.inside.value && measure.elements.outside.value);
      const next = [...measure.querySelectorAll('[name="tap"]')].find((radio) => !measure.elements[radio.value].value);
      if (next) next.checked = true;
      return;
    }
    const { text, shape } = mark.elements;
    if (shape.value === 'Words' && text.value.trim() === '') { text.focus(); return; }
    mark.elements.x.value = near(x);
    mark.elements.y.value = near(y);
    mark.requestSubmit();
  });
})();
