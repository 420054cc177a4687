// What has to be there before a test can run. Each step says what it does and how long it took.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { basename } from 'node:path';
import { root } from './pieces.mjs';
import { say, took } from './words.mjs';

const chromium = '/usr/bin/chromium';

/** Runs a command quietly and gives what it said; when it fails, all of it is shown. */
export const quietly = (command, args, environment = {}) => new Promise((resolve, reject) => {
  const said = [];
  const child = spawn(command, args, { cwd: root, env: { ...process.env, ...environment }, stdio: ['ignore', 'pipe', 'pipe'] });
  child.stdout.on('data', (chunk) => said.push(chunk));
  child.stderr.on('data', (chunk) => said.push(chunk));
  child.on('error', reject);
  child.on('close', (code) => {
    const all = String(Buffer.concat(said));
    if (code === 0) resolve(all);
    else reject(new Error(`${all}\n${command} ${args[0]} failed; the reason stands above.`));
  });
});

/** Does one thing, and says what and how long. */
export const step = async (words, work) => {
  say(`${words} …`);
  const began = Date.now();
  await work();
  say(`  ${words}: ${took((Date.now() - began) / 1000)}`);
};

/** Debian's Chromium, where it is missing. */
export const installBrowser = async () => {
  if (existsSync(chromium)) return;
  await step('Installing Chromium for the browser tests', async () => {
    await quietly('apt-get', ['update', '-qq']);
    await quietly('apt-get', ['install', '-y', '-qq', 'chromium'], { DEBIAN_FRONTEND: 'noninteractive' });
  });
};

/** The packages of package-lock.json. */
export const installPackages = () => step('Installing the npm packages', () => quietly('npm', ['ci', '--no-audit', '--no-fund']));

// The style of the tests is looked at whenever they are built by hand; here that would take a minute of every run.
// Nor does a compiler that lives for a minute gain from counting what it does.
const quickTests = { MENDRO_QUICK_TESTS: 'true', DOTNET_TieredPGO: '0' };

// All test projects and what they test; the benchmarks are built where they are run.
const whole = 'Mendro.Tests.slnf';

const targetsOf = ({ projects, browser }) => browser && projects.length > 0 ? [whole]
  : browser ? ['tests/Mendro.TestHost/Mendro.TestHost.csproj']
    : projects.length > 2 ? [whole] : projects.map((name) => `tests/Mendro.${name}.Tests/Mendro.${name}.Tests.csproj`);

/** The .NET packages: all of them where the web is tested, those of the benchmarks too, for a test holds their licences against the
 * list. */
export const restore = (asked) => step('Restoring packages', async () => {
  const targets = targetsOf(asked);
  for (const target of targets[0] === whole || asked.projects.includes('Web') ? ['Mendro.slnx'] : targets)
    await quietly('dotnet', ['restore', target]);
});

// One compiler for all projects, already warm: a new one for each takes nearly twice as long. It is this run's own, by its name, and
// ends with the run whatever the machine's settings say.
const oneCompiler = (run) => ['-p:UseSharedCompilation=true', `-p:SharedCompilationId=${basename(run.folder)}`];

/** Builds what was asked for: one project with what it needs, or all. */
export const build = async (asked, run) => {
  const environment = { ...quickTests, MENDRO_TEST_RUN: run.folder };
  for (const target of targetsOf(asked))
    await step(`Building ${target}`, () => quietly('dotnet', [
      'build', target, '-c', 'Release', '--no-restore', '--nologo', '-v', 'quiet', ...oneCompiler(run),
    ], environment));
};
