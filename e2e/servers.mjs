// The two ways in which a test's shop is served: among others in one process that stays, or as a process of its own, which can be
// ended as by a power cut.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const program = process.env.MENDRO_TEST_PROGRAM ?? join(root, 'tests/Mendro.TestHost/bin/Release/net10.0');
const contents = ['--contentRoot', join(root, 'src/Mendro.Web')];

const freePort = () => new Promise((resolve) => {
  const probe = createServer().listen(0, '127.0.0.1', () => {
    const { port } = probe.address();
    probe.close(() => resolve(port));
  });
});

/** Opens a shop on a free port. Between the asking and the opening another may have taken the port: then the next. */
export const onFreePort = async (openAt) => {
  for (let tries = 0; ; tries++) {
    const port = await freePort();
    try {
      return [port, await openAt(port)];
    } catch (problem) {
      if (tries === 4 || !/address already in use/i.test(problem.message)) throw problem;
    }
  }
};

// A server of a test lives too short to gain from compiling what is called often once more.
const shortLived = { ...process.env, DOTNET_TC_CallCountThreshold: '2000' };

/** Opens a shop as a process of its own. */
export const openAlone = async (words) => {
  const server = spawn('dotnet', [join(program, 'Mendro.Web.dll'), ...contents, ...words], { env: shortLived, stdio: ['ignore', 'pipe', 'pipe'] });
  const ended = new Promise((resolve) => { server.once('close', resolve); });
  let log = '';
  // The server says itself when it is open: nothing has to be waited for by the clock.
  await new Promise((resolve, reject) => {
    const read = (chunk) => { log += chunk; if (log.includes('Mendro is open')) resolve(); };
    server.stdout.on('data', read);
    server.stderr.on('data', read);
    server.on('exit', () => reject(new Error(`The server ended:\n${log}`)));
  });
  return {
    /** What it said so far. */
    said: () => log,
    /** Ends it as a power cut would. */
    close: () => {
      server.kill('SIGKILL');
      return ended;
    },
  };
};

/** A process that opens shops one after the other: what the first has compiled the others use. */
export const startHost = () => {
  const host = spawn('dotnet', [join(program, 'Mendro.TestHost.dll')], { stdio: ['pipe', 'pipe', 'inherit'] });
  const waiting = [];
  const said = [];
  createInterface({ input: host.stdout }).on('line', (line) => {
    if (!line.startsWith('\u0001')) {
      said.push(line);
      if (said.length > 200) said.shift();
      return;
    }
    const [resolve, reject] = waiting.shift();
    const answer = JSON.parse(line.slice(1));
    if (answer.failed) reject(new Error(`${answer.failed}\n${said.join('\n')}`));
    else resolve(answer);
  });
  host.on('close', () => {
    for (const [, reject] of waiting.splice(0)) reject(new Error(`The host of the shops ended:\n${said.join('\n')}`));
  });
  const ask = (line) => new Promise((resolve, reject) => {
    waiting.push([resolve, reject]);
    host.stdin.write(`${line}\n`);
  });
  return {
    open: async (words) => {
      // The pages are those of the program, not of this process.
      const { shop } = await ask(`open ${JSON.stringify([...contents, '--applicationName', 'Mendro.Web', ...words])}`);
      return { said: () => said.join('\n'), close: () => ask(`close ${shop}`) };
    },
    end: () => host.kill('SIGKILL'),
  };
};
