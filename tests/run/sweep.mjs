// Waits until the run that started it is over, by whatever end, then ends every process that carries the run's name and removes
// the run's folder.
import { readdirSync, readFileSync, rmSync } from 'node:fs';

const folder = process.argv[2];
const mark = `MENDRO_TEST_RUN=${folder}\0`;

const ofRun = () => readdirSync('/proc')
  .filter((name) => /^\d+$/.test(name) && Number(name) !== process.pid)
  .filter((pid) => {
    try {
      return `${readFileSync(`/proc/${pid}/environ`, 'latin1')}\0`.includes(mark);
    } catch {
      // It has ended meanwhile, or is another user's.
      return false;
    }
  });

const sweep = () => {
  // What is ended may have started another meanwhile: until none is left.
  for (let round = 0; round < 50; round++) {
    const left = ofRun();
    if (left.length === 0) break;
    for (const pid of left) {
      try {
        process.kill(Number(pid), 'SIGKILL');
      } catch {
        // Gone already.
      }
    }
  }
  rmSync(folder, { recursive: true, force: true, maxRetries: 5 });
};

process.stdin.on('end', sweep);
process.stdin.on('error', sweep);
process.stdin.resume();
