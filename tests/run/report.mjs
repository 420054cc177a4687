// What is told at the end: the slowest tests, what failed, how many, and the time of the whole.
import { say, took } from './words.mjs';

const slowestTold = 30;
const shorten = (name) => name.replace(/^Mendro\./, '').slice(0, 150);

/** Tells the end of a run. The last line is the count alone. Gives the exit code. */
export const report = (results, began) => {
  const tests = results.flatMap((result) => result.tests);
  const slowest = [...tests].sort((a, b) => b.seconds - a.seconds).slice(0, slowestTold);
  say(`\nThe ${slowest.length} slowest tests:`);
  for (const test of slowest) say(`  ${took(test.seconds).padStart(11)}  ${test.piece === 'browser' ? 'browser ' : ''}${shorten(test.test)}`);
  const failed = tests.filter((test) => test.outcome === 'failed');
  if (failed.length > 0) say(`\nWhat failed:\n${failed.map((test) => `  ${test.piece}: ${shorten(test.test)}\n    ${test.words.split('\n')[0]}`).join('\n')}`);
  const passed = tests.filter((test) => test.outcome === 'passed').length;
  say(`\n${took((Date.now() - began) / 1000)} in all\n${passed} passed, ${failed.length} failed`);
  return failed.length === 0 && passed > 0 ? 0 : 1;
};
