// The demo world, made once a run: a test's demo shop is a copy of it.
import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './pieces.mjs';
import { step } from './setup.mjs';

/** Makes it and names it in the environment of the run. */
export const prepareDemo = (run) => step('Preparing the demo world', async () => {
  const folder = join(run.folder, 'prepared-demo');
  const web = join(root, 'src/Mendro.Web');
  const server = spawn('dotnet', [
    join(web, 'bin/Release/net10.0/Mendro.Web.dll'), '--contentRoot', web, '--data', folder, '--port', '0', '--demo', 'true', '--warm-up', 'no',
  ], { env: run.environment, stdio: ['ignore', 'pipe', 'pipe'] });
  const ended = new Promise((resolve) => { server.once('close', resolve); });
  await new Promise((resolve, reject) => {
    let said = '';
    const hear = (chunk) => {
      said += chunk;
      if (said.includes('Mendro is open')) resolve();
    };
    server.stdout.on('data', hear);
    server.stderr.on('data', hear);
    server.once('close', () => reject(new Error(`The demo world could not be made:\n${said}`)));
  });
  // Asked to end, it closes its database: everything is in the one file.
  server.kill('SIGTERM');
  await ended;
  // Each copy is another shop, with keys and backups of its own.
  for (const own of ['keys', 'backups']) rmSync(join(folder, own), { recursive: true, force: true });
  run.environment.MENDRO_PREPARED_DEMO = folder;
});
