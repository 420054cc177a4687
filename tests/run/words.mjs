// How the run speaks.
/** One line, or several, at once. */
export const say = (words) => process.stdout.write(`${words}\n`);

/** A length of time in words: 8.4 s, 2 min 5 s. */
export const took = (seconds) => {
  if (seconds < 60) return `${seconds.toFixed(1)} s`;
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)} min ${whole % 60} s`;
};
