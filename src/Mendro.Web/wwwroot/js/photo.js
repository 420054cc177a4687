// A photo chosen from the machine, drawn on a canvas; it is read here and sent nowhere.
window.photoOn = (canvas, input, say, shown) => {
  input.addEventListener('change', (event) => {
    const [file] = event.target.files;
    if (!file) return;
    const reader = new FileReader();
    reader.addEventListener('load', () => {
      const image = new Image();
      image.addEventListener('load', () => {
        canvas.height = Math.round((canvas.width * image.height) / image.width);
        shown(image);
      });
      image.addEventListener('error', () => {
        say.textContent = 'That file is no picture the browser can show.';
      });
      image.src = reader.result;
    });
    reader.readAsDataURL(file);
  });
};

// Where on a canvas a click went, in its own pixels.
window.tapOn = (canvas, event) => {
  const box = canvas.getBoundingClientRect();
  return {
    x: ((event.clientX - box.left) / box.width) * canvas.width,
    y: ((event.clientY - box.top) / box.height) * canvas.height,
  };
};

// From a photo taken at a slant to the plane: the eight numbers that take four tapped corners of a rectangle (left lower, right lower,
// right upper, left upper) to its millimetres, by eight linear equations. Returns null when three of them lie on a line.
window.planeOf = (corners, width, height) => {
  const to = [[0, 0], [width, 0], [width, height], [0, height]];
  const rows = [];
  corners.forEach(({ x, y }, n) => {
    const [u, v] = to[n];
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v]);
  });
  for (let k = 0; k < 8; k += 1) {
    let best = k;
    for (let n = k; n < 8; n += 1) if (Math.abs(rows[n][k]) > Math.abs(rows[best][k])) best = n;
    if (Math.abs(rows[best][k]) < 1e-9) return null;
    [rows[k], rows[best]] = [rows[best], rows[k]];
    for (let n = 0; n < 8; n += 1) {
      if (n === k) continue;
      const times = rows[n][k] / rows[k][k];
      for (let m = k; m < 9; m += 1) rows[n][m] -= times * rows[k][m];
    }
  }
  const h = rows.map((row, k) => row[8] / row[k]);
  return ({ x, y }) => {
    const depth = h[6] * x + h[7] * y + 1;
    return { x: (h[0] * x + h[1] * y + h[2]) / depth, y: (h[3] * x + h[4] * y + h[5]) / depth };
  };
};
