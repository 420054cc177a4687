// Runs the pieces, as many at once as there are cores, and tells of each as it ends.
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { listen } from './listen.mjs';
import { say, took } from './words.mjs';

const heartbeat = 30_000;
const keptLines = 60;

// Nothing of ours takes this long for one test; what does has hung.
const longestSilence = 10 * 60_000;

const start = (piece, run) => {
  const result = { name: piece.name, of: null, tests: [], began: Date.now(), seconds: 0, code: null, said: [] };
  result.done = new Promise((resolve) => {
    const child = spawn(piece.command, piece.args, { cwd: piece.folder, env: { ...run.environment, ...piece.environment }, stdio: ['ignore', 'pipe', 'pipe'] });
    const keep = (line) => {
      result.said.push(line);
      if (result.said.length > keptLines) result.said.shift();
    };
    let silence;
    const heard = () => {
      clearTimeout(silence);
      silence = setTimeout(() => {
        keep(`No test ended for ${longestSilence / 60_000} minutes: it was ended.`);
        child.kill('SIGKILL');
      }, longestSilence);
    };
    heard();
    const tell = (fact) => {
      heard();
      if (fact.of !== undefined) {
        result.of = fact.of;
        return;
      }
      result.tests.push({ ...fact, piece: piece.name });
      if (fact.outcome === 'failed') say(`  FAILED ${fact.test}\n${fact.words.replace(/^/gm, '    ').slice(0, 4000)}`);
    };
    listen(child.stdout, tell, keep);
    listen(child.stderr, tell, keep);
    const end = (code) => {
      clearTimeout(silence);
      Object.assign(result, { code, seconds: (Date.now() - result.began) / 1000 });
      resolve(result);
    };
    // One that cannot be started at all ends here, with no code.
    child.on('error', (problem) => {
      keep(problem.message);
      end(null);
    });
    child.on('close', end);
  });
  return result;
};

const count = (result, outcome) => result.tests.filter((test) => test.outcome === outcome).length;

const tellEnd = (result) => {
  const failed = count(result, 'failed');
  say(`${result.name.padEnd(12)} ${took(result.seconds).padStart(7)}  ${count(result, 'passed')} passed${failed ? `, ${failed} FAILED` : ''}`);
  if (result.code !== 0 && failed === 0) {
    result.tests.push({ piece: result.name, test: `${result.name} (ended with ${result.code})`, seconds: 0, outcome: 'failed', words: '' });
    say(`  It ended with ${result.code} and named no test. Its last words:\n${result.said.join('\n')}`);
  }
};

/** Runs all pieces and gives their results. */
export const runAll = async (pieces, run) => {
  const waiting = [...pieces];
  const running = new Set();
  const results = [];
  const beat = setInterval(() => {
    const words = [...running].map((r) => `${r.name} ${r.tests.length}${r.of ? ` of ${r.of}` : ''} in ${took((Date.now() - r.began) / 1000)}`);
    say(`  … ${words.join(', ')}`);
  }, heartbeat);
  while ((waiting.length > 0 && !run.over) || running.size > 0) {
    while (waiting.length > 0 && !run.over && running.size < Math.max(2, availableParallelism())) {
      const result = start(waiting.shift(), run);
      running.add(result);
      results.push(result);
    }
    const ended = await Promise.race([...running].map((r) => r.done));
    running.delete(ended);
    tellEnd(ended);
  }
  clearInterval(beat);
  return results;
};
