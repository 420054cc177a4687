// What a run is made of: one piece a test project, one for all browser tests.
import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

// The longest first, so that none begins when the others end. A project that is not named comes last.
const longestFirst = ['Web', 'Core', 'Shop', 'Solver', 'Storage'];

const place = (name) => (longestFirst.indexOf(name) + longestFirst.length + 1) % (longestFirst.length + 1);

/** Where the tests of the web stand once more, compiled ahead; made anew by each run that asks for them. */
export const aheadOfWebTests = join(root, 'tests/Mendro.Web.Tests/bin/Ahead');

const built = (name) => join(root, `tests/Mendro.${name}.Tests/bin/Release/net10.0`);

const ofProject = (name, filter, ahead) => ({
  name,
  command: join(name === 'Web' && ahead ? aheadOfWebTests : built(name), `Mendro.${name}.Tests`),
  // What is called a hundred times in a minute gains nothing from being compiled once more.
  environment: name === 'Web' ? { DOTNET_TC_CallCountThreshold: '2000' } : {},
  args: ['-noLogo', '-noColor', '-reporter', 'json', ...(filter ? ['-method', `*${filter}*`] : [])],
  folder: root,
});

const ofBrowser = (files) => ({
  name: 'browser',
  command: process.execPath,
  args: [
    join(root, 'node_modules/@playwright/test/cli.js'), 'test', ...files,
    '--reporter', join(root, 'tests/run/browser-reporter.mjs'), '--workers', String(Math.max(2, availableParallelism())),
  ],
  folder: join(root, 'e2e'),
});

// The runner tests itself where everything is tested.
const ofRunner = { name: 'runner', command: process.execPath, args: [join(root, 'tests/run/runner-tests.mjs')], folder: root };

/** The pieces of a run, in the order in which they begin. */
export const pieces = ({ projects, filter, browser }, ahead) => [
  ...(browser ? [ofBrowser(browser.files)] : []),
  ...[...projects].sort((a, b) => place(a) - place(b)).map((name) => ofProject(name, filter, ahead)),
  ...(browser && projects.length > 1 && !filter ? [ofRunner] : []),
];
