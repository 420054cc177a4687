// What is committed under wwwroot is what its sources make.
import { test, expect } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');

test('the stylesheet is the one its sources make; if not: ./mendro css', () => {
  const made = join(mkdtempSync(join(tmpdir(), 'mendro-css-')), 'site.css');
  execFileSync('npx', ['tailwindcss', '-i', 'src/Mendro.Web/Styles/site.css', '-o', made, '--minify'], { cwd: root, stdio: 'ignore' });
  expect(readFileSync(join(root, 'src/Mendro.Web/wwwroot/css/site.css'), 'utf8')).toBe(readFileSync(made, 'utf8'));
});

test('htmx is the pinned package, byte for byte', () => {
  const ours = readFileSync(join(root, 'src/Mendro.Web/wwwroot/lib/htmx.min.js'));
  expect(ours.equals(readFileSync(join(root, 'node_modules/htmx.org/dist/htmx.min.js')))).toBe(true);
});
