// Prints pages to PDF, as a browser does: node e2e/pdf.mjs FOLDER FORMAT,… ADDRESS … ; the files are A4-0.pdf, A4-1.pdf and so on.
import { chromium } from 'playwright-core';
import { chromiumOptions } from './chromium.mjs';
import { join } from 'node:path';

const [folder, formats, ...addresses] = process.argv.slice(2);
const browser = await chromium.launch(chromiumOptions);
const page = await browser.newPage();
for (const [n, address] of addresses.entries()) {
  await page.goto(address, { waitUntil: 'load' });
  await page.evaluate(() => document.fonts.ready);
  // Pages that name their paper keep it; the others take the format that is asked for.
  for (const format of formats.split(',')) {
    await page.pdf({ path: join(folder, `${format}-${n}.pdf`), format, preferCSSPageSize: true, printBackground: true,
      margin: { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' } });
  }
}
await browser.close();
