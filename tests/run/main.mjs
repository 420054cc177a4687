// The whole of ./mendro test: sets up, builds, runs every test project and the browser tests side by side, and tells as it goes.
//   ./mendro test                        everything
//   ./mendro test Core Shop              these projects
//   ./mendro test Core --filter lesson   only tests with this word in class or name
//   ./mendro test --browser [find]       the browser tests, or those in files with this word
import { readArguments } from './arguments.mjs';
import { aheadOfWebTests, pieces } from './pieces.mjs';
import { compileAhead, prepareDemo } from './prepare.mjs';
import { beginRun } from './run-folder.mjs';
import { report } from './report.mjs';
import { runAll } from './schedule.mjs';
import { build, installBrowser, installPackages, restore } from './setup.mjs';

const asked = readArguments(process.argv.slice(2));
if (asked.problem) {
  process.stderr.write(`${asked.problem}\n`);
  process.exit(2);
}

const run = await beginRun();
const began = Date.now();
try {
  // A test of the web prints papers with the browser.
  const withBrowser = asked.browser || asked.projects.includes('Web');
  // What comes over the network waits more than it works: beside it the program is built.
  await Promise.all([
    withBrowser ? installBrowser().then(installPackages) : null,
    restore(asked).then(() => build(asked, run)),
  ]);
  if (withBrowser) {
    await compileAhead(run, asked.projects.includes('Web'));
    await prepareDemo(run);
  }
  const results = await runAll(pieces(asked, run.environment.MENDRO_TEST_PROGRAM === aheadOfWebTests), run);
  process.exitCode = report(results, began);
} catch (problem) {
  process.stderr.write(`${problem.message}\n0 passed, 1 failed\n`);
  process.exitCode = 1;
} finally {
  await run.end();
}
