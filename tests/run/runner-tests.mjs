// The runner's own tests, in the words that it hears from every piece: a line a test.
import assert from 'node:assert/strict';
import { PassThrough } from 'node:stream';
import { readArguments } from './arguments.mjs';
import { listen } from './listen.mjs';
import { pieces } from './pieces.mjs';
import { report } from './report.mjs';
import { runAll } from './schedule.mjs';
import { took } from './words.mjs';

// What is printed on the way is not for whoever listens here.
const quietly = async (work) => {
  const write = process.stdout.write;
  let said = '';
  process.stdout.write = (chunk) => { said += chunk; return true; };
  try {
    return [await work(), said];
  } finally {
    process.stdout.write = write;
  }
};

const hear = async (...lines) => {
  const [stream, facts, others] = [new PassThrough(), [], []];
  listen(stream, (fact) => facts.push(fact), (line) => others.push(line));
  stream.end(`${lines.join('\n')}\n`);
  await new Promise((resolve) => { stream.once('close', resolve); });
  await new Promise(setImmediate);
  return { facts, others };
};

const run = (script) =>
  runAll([{ name: 'piece', command: process.execPath, args: ['-e', script], folder: '.', environment: {} }], { environment: process.env });

const tests = {
  'nothing asked for is everything': () => {
    const asked = readArguments([]);
    assert.ok(asked.projects.includes('Core') && asked.projects.includes('Web'));
    assert.deepEqual(asked.browser, { files: [] });
  },
  'projects, a filter and browser files are read': () => {
    assert.deepEqual(readArguments(['core', '--filter', 'lesson']), { projects: ['Core'], filter: 'lesson', browser: null, problem: null });
    assert.deepEqual(readArguments(['--browser', 'find', 'fix']).browser, { files: ['find', 'fix'] });
    assert.deepEqual(readArguments(['--browser', 'find', 'fix']).projects, []);
  },
  'what is no project is refused with those there are': () => {
    assert.match(readArguments(['Kore']).problem, /“Kore” is no test project\. There are: .*Core/);
    assert.match(readArguments(['--filter']).problem, /--filter WORD/);
  },
  'the longest begin first and the web runs as it was compiled ahead': () => {
    const asked = { projects: ['Cli', 'Core', 'Web'], filter: null, browser: { files: [] } };
    assert.deepEqual(pieces(asked, true).map((p) => p.name).slice(0, 3), ['browser', 'Web', 'Core']);
    assert.match(pieces(asked, true).find((p) => p.name === 'Web').command, /Ahead/);
    assert.doesNotMatch(pieces(asked, false).find((p) => p.name === 'Web').command, /Ahead/);
  },
  'xUnit’s messages become facts': async () => {
    const { facts } = await hear(
      '{"$type":"test-starting","TestUniqueID":"7","TestDisplayName":"A.b"}',
      '{"$type":"test-failed","TestUniqueID":"7","ExecutionTime":0.5,"Messages":["no"],"StackTraces":["at x"]}',
      '{"$type":"test-class-cleanup-failure","Messages":["left over"]}',
    );
    assert.deepEqual(facts.map((f) => [f.test, f.outcome]), [['A.b', 'failed'], ['test-class-cleanup-failure', 'failed']]);
    assert.match(facts[0].words, /no\nat x/);
  },
  'what is no message is kept as a word, broken JSON too': async () => {
    const { facts, others } = await hear('Listening on {port', '{"of": 3}', 'plain');
    assert.deepEqual(facts, [{ of: 3 }]);
    assert.deepEqual(others, ['Listening on {port', 'plain']);
  },
  'a piece that ends badly without naming a test has failed': async () => {
    const [results, said] = await quietly(() => run('console.log("broken"); process.exit(3)'));
    assert.equal(results[0].tests[0].outcome, 'failed');
    assert.match(said, /ended with 3[\s\S]*broken/);
  },
  'a piece that cannot be started has failed': async () => {
    const [results] = await quietly(() => runAll([{ name: 'none', command: '/no/such/program', args: [], folder: '.' }], { environment: process.env }));
    assert.equal(results[0].tests[0].outcome, 'failed');
  },
  'a piece has its own environment': async () => {
    const script = 'console.log(JSON.stringify({ test: process.env.OWN ?? "none", seconds: 0, outcome: "passed", words: "" }))';
    const [results] = await quietly(() =>
      runAll([{ name: 'own', command: process.execPath, args: ['-e', script], folder: '.', environment: { OWN: 'yes' } }], { environment: process.env }));
    assert.equal(results[0].tests[0].test, 'yes');
  },
  'the last line is the count, and nothing passed is no success': async () => {
    const told = (outcome) => [{ tests: [{ piece: 'x', test: 't', seconds: 1, outcome, words: 'why' }] }];
    const [good, saidGood] = await quietly(() => report(told('passed'), Date.now()));
    const [bad, saidBad] = await quietly(() => report(told('failed'), Date.now()));
    const [none] = await quietly(() => report([{ tests: [] }], Date.now()));
    assert.deepEqual([good, bad, none], [0, 1, 1]);
    assert.equal(saidGood.trimEnd().split('\n').at(-1), '1 passed, 0 failed');
    assert.equal(saidBad.trimEnd().split('\n').at(-1), '0 passed, 1 failed');
  },
  'lengths of time are told in words': () => {
    assert.deepEqual([took(8.44), took(125), took(59.96)], ['8.4 s', '2 min 5 s', '60.0 s']);
  },
};

const tell = (fact) => process.stdout.write(`${JSON.stringify(fact)}\n`);
tell({ of: Object.keys(tests).length });
for (const [test, work] of Object.entries(tests)) {
  const began = Date.now();
  let words = '';
  try {
    await work();
  } catch (problem) {
    words = `${problem.message}\n${problem.stack}`;
    process.exitCode = 1;
  }
  tell({ test, seconds: (Date.now() - began) / 1000, outcome: words ? 'failed' : 'passed', words });
}
