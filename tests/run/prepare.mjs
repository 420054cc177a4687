// What is made once a run: the program compiled ahead, and the demo world.
import { spawn } from 'node:child_process';
import { chmodSync, cpSync, existsSync, readdirSync, rmSync } from 'node:fs';
import { arch, homedir } from 'node:os';
import { dirname, join } from 'node:path';
import { aheadOfWebTests, root } from './pieces.mjs';
import { quietly, step } from './setup.mjs';

const program = join(root, 'tests/Mendro.TestHost/bin/Release/net10.0');
const webTests = join(root, 'tests/Mendro.Web.Tests/bin/Release/net10.0');

// Ours that every server and every test of the web runs through; the framework is compiled ahead as it ships.
const ours = ['Mendro.Core', 'Mendro.Storage', 'Mendro.Shop', 'Mendro.StandIns', 'Mendro.Web', 'Mendro.Web.Tests'];

const newest = (folder) => (existsSync(folder) ? readdirSync(folder) : [])
  .filter((name) => name.startsWith('10.')).sort((a, b) => a.localeCompare(b, 'en', { numeric: true })).at(-1);

// The compiler comes with the packages of the web tests, for this kind of machine alone.
const compiler = () => {
  const package_ = join(process.env.NUGET_PACKAGES ?? join(homedir(), '.nuget/packages'), 'microsoft.netcore.app.crossgen2.linux-x64');
  const version = newest(package_);
  const file = version && join(package_, version, 'tools/crossgen2');
  return arch() === 'x64' && file && existsSync(file) ? file : null;
};

const frameworks = async () => {
  const dotnet = dirname((await quietly('sh', ['-c', 'readlink -f "$(command -v dotnet)"'])).trim());
  return ['Microsoft.NETCore.App', 'Microsoft.AspNetCore.App'].map((name) => join(dotnet, 'shared', name, newest(join(dotnet, 'shared', name)), '*.dll'));
};

/** Compiles the program ahead, and the tests of the web where they are built: each of some thirty servers of a run would spend half its
 * time on that, the tests a quarter of theirs. Where the compiler is missing they run as they were built. */
export const compileAhead = async (run, withTests) => {
  const file = compiler();
  if (!file) return;
  await step('Compiling the program ahead', async () => {
    const built = withTests ? webTests : program;
    // The tests look for the sources above their own folder, so theirs lies within the tree, with what else is built.
    const folder = withTests ? aheadOfWebTests : join(run.folder, 'program');
    // A package keeps no rights of its files.
    chmodSync(file, 0o755);
    rmSync(folder, { recursive: true, force: true });
    cpSync(built, folder, { recursive: true });
    const references = [...await frameworks(), join(built, '*.dll')].flatMap((pattern) => ['-r', pattern]);
    await Promise.all(ours.filter((name) => existsSync(join(built, `${name}.dll`))).map((name) => quietly(file, [
      join(built, `${name}.dll`), '-o', join(folder, `${name}.dll`), ...references, '--targetos', 'linux', '--targetarch', 'x64', '-O',
    ])));
    run.environment.MENDRO_TEST_PROGRAM = folder;
  });
};

/** Makes the demo world and names it in the environment of the run: a test's demo shop is a copy of it. */
export const prepareDemo = (run) => step('Preparing the demo world', async () => {
  const folder = join(run.folder, 'prepared-demo');
  const server = spawn('dotnet', [
    join(run.environment.MENDRO_TEST_PROGRAM ?? program, 'Mendro.Web.dll'), '--contentRoot', join(root, 'src/Mendro.Web'),
    '--data', folder, '--port', '0', '--demo', 'true', '--warm-up', 'no',
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
