// What was asked for on the command line.
import { readdirSync } from 'node:fs';
import { root } from './pieces.mjs';
import { join } from 'node:path';

/** The test projects there are, by their short names. */
export const projects = () => readdirSync(join(root, 'tests'))
  .map((name) => /^Mendro\.(\w+)\.Tests$/.exec(name)?.[1])
  .filter(Boolean);

/** Projects, browser files and filter of a run; problem is a sentence when they cannot be followed. */
export const readArguments = (args) => {
  const known = projects();
  const asked = { projects: [], filter: null, browser: null, problem: null };
  for (let at = 0; at < args.length; at++) {
    const word = args[at];
    const next = args[at + 1];
    if (word === '--filter') {
      if (!next || next.startsWith('--')) return { ...asked, problem: 'Say which tests: --filter WORD, a word of their class or name.' };
      asked.filter = next;
      at++;
    } else if (word === '--browser') {
      asked.browser = { files: [] };
      while (args[at + 1] && !args[at + 1].startsWith('--')) asked.browser.files.push(args[++at]);
    } else {
      const project = known.find((name) => name.toLowerCase() === word.toLowerCase());
      if (!project) return { ...asked, problem: `“${word}” is no test project. There are: ${known.join(', ')}; the browser tests: --browser.` };
      asked.projects.push(project);
    }
  }

  if (asked.projects.length === 0 && (!asked.browser || asked.filter)) asked.projects = known;
  // Asked for nothing in particular: the browser tests too.
  if (args.length === 0) asked.browser = { files: [] };
  return asked;
};
