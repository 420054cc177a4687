// The run sheet: its stopwatch, its wait, and the dwell timer for joints that bear little heat.
(() => {
  const begun = performance.now();
  const clock = document.querySelector('.run-clock');
  const text = (seconds) => {
    const whole = Math.abs(Math.trunc(seconds));
    return `${seconds < 0 ? '+' : ''}${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
  };
  const tick = () => {
    if (!clock || clock.dataset.paused) return;
    const gone = (performance.now() - begun) / 1000;
    const seconds = clock.dataset.left === undefined ? Number(clock.dataset.seconds) + gone : Number(clock.dataset.left) - gone;
    clock.textContent = text(seconds);
    clock.classList.toggle('due', clock.dataset.left !== undefined && seconds <= 0);
  };
  setInterval(tick, 250);
  tick();

  const dwell = document.getElementById('dwell');
  if (!dwell) return;
  const [seconds, spotWord, words, told] = ['seconds', 'spot', 'words', 'told'].map((id) => document.getElementById(`dwell-${id}`));
  const field = document.getElementById('touches');
  const touches = new Map((dwell.dataset.touches ?? '').split(', ').filter(Boolean).map((word) => {
    const [, where, times] = /^spot (\d) ×(\d+)/.exec(word) ?? [];
    return [where, Number(times)];
  }));
  let [spot, last, running, since, audio, frame] = ['1', '', 0, 0, null, 0];

  // A context may sound once the page was touched; without one the words tell alone.
  const tone = (pitch, length) => {
    audio ??= new AudioContext();
    const [sound, gain] = [audio.createOscillator(), audio.createGain()];
    sound.frequency.value = pitch;
    gain.gain.value = 0.15;
    sound.connect(gain).connect(audio.destination);
    sound.start();
    sound.stop(audio.currentTime + length);
  };
  const watch = (rang) => {
    if (!since) return;
    const held = (performance.now() - since) / 1000;
    seconds.textContent = `${held.toFixed(1)} s`;
    if (held >= 1 && rang < 1) { tone(660, 0.12); words.textContent = 'Good: lift soon.'; rang = 1; }
    if (held >= 2 && rang < 2) { tone(330, 0.6); words.textContent = 'Stop: lift now.'; dwell.classList.add('over'); rang = 2; }
    frame = requestAnimationFrame(() => watch(rang));
  };
  const down = () => {
    if (since) return;
    since = performance.now();
    dwell.classList.remove('over');
    watch(0);
  };
  const up = () => {
    if (!since) return;
    cancelAnimationFrame(frame);
    const held = (performance.now() - since) / 1000;
    since = 0;
    touches.set(spot, (touches.get(spot) ?? 0) + 1);
    running = spot === last ? running + 1 : 1;
    last = spot;
    words.textContent = held >= 2 ? 'Too long: let that spot cool, and look at it.'
      : running >= 2 ? `Twice running on spot ${spot}: move on to another.` : '';
    dwell.classList.toggle('over', held >= 2 || running >= 2);
    told.textContent = [...touches].map(([where, times]) => `spot ${where} ×${times}`).join(', ');
    if (field) field.value = told.textContent;
  };
  const hold = document.getElementById('dwell-hold');
  hold.addEventListener('pointerdown', down);
  hold.addEventListener('pointerup', up);
  hold.addEventListener('pointerleave', up);
  document.addEventListener('keydown', (event) => {
    if (event.target.closest('input, textarea, select')) return;
    if (/^[1-9]$/.test(event.key)) { spot = event.key; spotWord.textContent = spot; event.preventDefault(); }
    if (event.key === ' ') { if (!event.repeat) down(); event.preventDefault(); }
  });
  document.addEventListener('keyup', (event) => { if (event.key === ' ') { up(); event.preventDefault(); } });
})();
