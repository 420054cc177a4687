// The folder of one run: everything its tests write lies in it, and every process of the run carries its name. However the run
// ends, a sweeper that outlives it ends what is left and takes the folder away.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const memory = '/dev/shm';
const enoughBytes = 4 * 2 ** 30;

// A folder in memory where there is room: an answered write is synced to the disk, and a thousand shops would wait for it.
const base = () => {
  if (!existsSync(memory)) return tmpdir();
  const { bavail, bsize } = statfsSync(memory);
  return bavail * bsize >= enoughBytes ? memory : tmpdir();
};

/** Begins a run: its folder, its environment, and what ends it. */
export const beginRun = async () => {
  const folder = mkdtempSync(join(base(), 'mendro-test-'));
  const sweeper = spawn(process.execPath, [join(dirname(fileURLToPath(import.meta.url)), 'sweep.mjs'), folder], {
    // A group of its own, so that Ctrl+C does not reach it; its input ends with this process, however that ends.
    detached: true,
    stdio: ['pipe', 'ignore', 'inherit'],
  });
  const swept = new Promise((resolve) => { sweeper.once('close', resolve); });
  const run = {
    folder,
    // True once nothing more may be started.
    over: false,
    environment: {
      ...process.env,
      TMPDIR: folder,
      MENDRO_TEST_RUN: folder,
      // No process of a run lives long enough to gain from counting what it does: a fifth of all its time.
      DOTNET_TieredPGO: '0',
      // What is soon thrown away is looked through every 64 MiB (the figure is hexadecimal), not at every megabyte.
      DOTNET_GCgen0size: '4000000',
      // A test's page comes in a browser's context that was emptied, not made anew.
      PW_TEST_REUSE_CONTEXT: '1',
    },
    end: () => {
      run.over = true;
      sweeper.stdin.end();
      return swept;
    },
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.once(signal, async () => {
      await run.end();
      process.exit(130);
    });
  return run;
};
