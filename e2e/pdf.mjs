// Prints pages to PDF, as a browser does: node e2e/pdf.mjs FOLDER FORMAT ADDRESS … ; the files are 0.pdf, 1.pdf and so on.
import { chromium } from 'playwright-core';
import { chromiumOptions } from './chromium.mjs';
import { join } from 'node:path';

const [folder, format, ...addresses] = process.argv.slice(2);
const browser = await chromium.launch(chromiumOptions);
for (const [n, address] of addresses.entries()) {
  const page = await browser.newPage();
  await page.goto(address, { waitUntil: 'load' });
  await page.evaluate(() => document.fonts.ready);
  // Pages that name their paper keep it; the others take the format that is asked for.
  await page.pdf({ path: join(folder, `${n}.pdf`), format, preferCSSPageSize: true, printBackground: true,
    margin: { top: '12mm', bottom: '12mm', left: '12mm', right: '12mm' } });
  await page.close();
}
await browser.close();
