// What a piece says as it runs, read line by line: xUnit's messages and those of the browser tests become the same few facts.
import { createInterface } from 'node:readline';

const fromXunit = (message, names) => {
  switch (message.$type) {
    case 'test-starting':
      names.set(message.TestUniqueID, message.TestDisplayName);
      return null;
    case 'test-passed':
    case 'test-skipped':
    case 'test-failed':
      return {
        test: names.get(message.TestUniqueID) ?? message.TestUniqueID,
        seconds: message.ExecutionTime,
        outcome: message.$type.slice('test-'.length),
        words: [...(message.Messages ?? []), ...(message.StackTraces ?? [])].join('\n'),
      };
    // What goes wrong beside the tests: a fixture that cannot be made, a clean-up that throws.
    case 'error-message':
    case 'test-cleanup-failure':
    case 'test-class-cleanup-failure':
    case 'test-collection-cleanup-failure':
    case 'test-assembly-cleanup-failure':
      return {
        test: message.$type,
        seconds: 0,
        outcome: 'failed',
        words: [...(message.Messages ?? []), ...(message.StackTraces ?? [])].join('\n'),
      };
    default:
      return null;
  }
};

/** Hears a process out: tell(fact) for every fact, other(line) for whatever else it says. */
export const listen = (stream, tell, other) => {
  const names = new Map();
  createInterface({ input: stream }).on('line', (line) => {
    const at = line.indexOf('{');
    let message = null;
    if (at >= 0) {
      try {
        message = JSON.parse(line.slice(at));
      } catch {
        // Not ours: a server's own line.
      }
    }
    const fact = message === null ? null : message.$type ? fromXunit(message, names) : 'of' in message || 'test' in message ? message : null;
    if (fact) tell(fact);
    else if (!message?.$type) other(line);
  });
};
