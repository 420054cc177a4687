// Looks at a page with the rules of axe-core, and tells what is serious or critical only: a line a rule, with where.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** Rules that colour alone can break: of a theme that changes nothing else these are enough. */
export const colours = { runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } };

/** What is wrong on the page as it stands. */
export const seriousFaults = async (page, options = {}) => {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(source);
  // Only what is wrong is told in full: the rest is most of the work.
  return page.evaluate(async (asked) => (await window.axe.run(document, asked)).violations
    .filter((rule) => ['serious', 'critical'].includes(rule.impact))
    .map((rule) => `${rule.id}: ${rule.nodes.map((node) => `${node.target} ${node.failureSummary.split('\n')[1]}`).join(' | ')}`),
  { resultTypes: ['violations'], ...options });
};
