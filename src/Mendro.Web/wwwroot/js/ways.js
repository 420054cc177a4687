// Which way the old capacitors point, from taps on a photo: two known places give the scale and the turn of the picture.
(() => {
  const canvas = document.getElementById('ways');
  if (!canvas) return;
  const paper = canvas.getContext('2d');
  const say = document.getElementById('ways-say');
  const rows = [...document.querySelectorAll('[data-place]')].map((row) => ({
    row,
    name: row.dataset.place,
    plus: row.dataset.plus.split(' ').map(Number),
    minus: row.dataset.minus.split(' ').map(Number),
  }));
  const middle = (one) => [(one.plus[0] + one.minus[0]) / 2, (one.plus[1] + one.minus[1]) / 2];
  const apart = (a, b) => Math.hypot(a[0] - b[0], a[1] - b[1]);
  // The two places farthest apart turn and scale the photo best.
  let [first, second] = rows;
  for (const a of rows) {
    for (const b of rows) if (apart(middle(a), middle(b)) > apart(middle(first), middle(second))) [first, second] = [a, b];
  }
  const taps = [];
  let photo = null;

  // From the photo to the board: one turn, one scale, and down becomes up.
  const toBoard = ([x, y]) => {
    const [a, b] = [taps[0], taps[1]];
    const [u, v] = [middle(first), middle(second)];
    const [px, py, qx, qy] = [b[0] - a[0], a[1] - b[1], v[0] - u[0], v[1] - u[1]];
    const size = px * px + py * py;
    const [c, s] = [(qx * px + qy * py) / size, (qy * px - qx * py) / size];
    const [dx, dy] = [x - a[0], a[1] - y];
    return [u[0] + c * dx - s * dy, u[1] + s * dx + c * dy];
  };

  const next = () => {
    if (taps.length < 2) say.textContent = `Tap the middle of ${(taps.length === 0 ? first : second).name}.`;
    else say.textContent = 'Now tap the plus end of each old capacitor: the end without the stripe.';
  };

  const paint = () => {
    paper.clearRect(0, 0, canvas.width, canvas.height);
    if (photo) paper.drawImage(photo, 0, 0, canvas.width, canvas.height);
    paper.fillStyle = getComputedStyle(canvas).color;
    for (const [x, y] of taps) {
      paper.beginPath();
      paper.arc(x, y, 4, 0, 7);
      paper.fill();
    }
  };

  const judge = (at) => {
    const near = rows.reduce((best, one) => (apart(middle(one), at) < apart(middle(best), at) ? one : best));
    if (apart(middle(near), at) > 10) {
      say.textContent = 'No capacitor is near there.';
      return;
    }
    const [mx, my] = middle(near);
    const along = (at[0] - mx) * (near.plus[0] - mx) + (at[1] - my) * (near.plus[1] - my);
    const way = along >= 0 ? 'as drawn' : 'turned';
    near.row.querySelector(`input[value="${way}"]`).checked = true;
    say.textContent = `${near.name}: ${way}.`;
  };

  canvas.addEventListener('click', (event) => {
    if (rows.length < 2) return;
    const { x, y } = window.tapOn(canvas, event);
    const at = [x, y];
    taps.push(at);
    paint();
    if (taps.length > 2) judge(toBoard(at));
    else next();
  });
  window.photoOn(canvas, document.getElementById('ways-photo'), say, (image) => {
    photo = image;
    paint();
  });
  if (rows.length >= 2) next();
})();
