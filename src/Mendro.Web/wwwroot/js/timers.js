// The strip of timers: counted down between looks at the shop, told by sound and in the page's title when one is due.
(() => {
  const title = document.title;
  let sounded = new Set();
  let seen = performance.now();

  const text = (seconds) => {
    const whole = seconds > 0 ? Math.ceil(seconds) : Math.floor(-seconds);
    const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, String(whole % 60).padStart(2, '0')];
    return (seconds <= 0 ? '+' : '') + (h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}` : `${m}:${s}`);
  };

  // Three rising tones; without a touch of the page before, browsers keep silent, and the title tells alone.
  const ring = () => {
    const audio = new AudioContext();
    [660, 770, 880].forEach((pitch, n) => {
      const [tone, gain] = [audio.createOscillator(), audio.createGain()];
      tone.frequency.value = pitch;
      gain.gain.value = 0.15;
      tone.connect(gain).connect(audio.destination);
      tone.start(audio.currentTime + n * 0.25);
      tone.stop(audio.currentTime + n * 0.25 + 0.2);
    });
  };

  const tick = () => {
    const gone = (performance.now() - seen) / 1000;
    let due = 0;
    document.querySelectorAll('#timers .timer').forEach((timer) => {
      if (timer.dataset.paused) return;
      const left = Number(timer.dataset.left) - gone;
      timer.querySelector('.left').textContent = text(left);
      if (left > 0) return;
      due += 1;
      timer.classList.add('due');
      const id = timer.querySelector('[name=id]').value;
      if (sounded.has(id)) return;
      sounded.add(id);
      if (navigator.userActivation?.hasBeenActive) ring();
    });
    document.title = due > 0 ? `(${due} due) ${title}` : title;
  };

  document.addEventListener('htmx:afterSwap', () => { seen = performance.now(); tick(); });
  setInterval(tick, 500);
  tick();
})();
