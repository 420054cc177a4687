// Tells the run of each browser test as it ends, one line of JSON a test.
import { relative } from 'node:path';

const say = (line) => process.stdout.write(`${JSON.stringify(line)}\n`);

export default class BrowserReporter {
  #root = '';

  printsToStdio() {
    return true;
  }

  onBegin(config, suite) {
    this.#root = config.rootDir;
    say({ of: suite.allTests().length });
  }

  onTestEnd(test, result) {
    say({
      test: `${relative(this.#root, test.location.file)}: ${test.title}`,
      seconds: result.duration / 1000,
      outcome: result.status === 'passed' ? 'passed' : result.status === 'skipped' ? 'skipped' : 'failed',
      words: result.errors.map((error) => error.stack ?? error.message ?? '').join('\n'),
    });
  }

  onError(error) {
    say({ test: 'browser tests', seconds: 0, outcome: 'failed', words: error.stack ?? error.message ?? '' });
  }
}
