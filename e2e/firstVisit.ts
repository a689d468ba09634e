/** npm run bench, first visit: what comes over the wire until the list of the engines can be used, and after it. */
import { chromium } from '@playwright/test';
import { chromiumOptions } from './chromium.js';

const origin = process.argv[2];
const MOST_KB = 250;

const browser = await chromium.launch(chromiumOptions());
const page = await (await browser.newContext()).newPage();
const session = await page.context().newCDPSession(page);
await session.send('Network.enable');
let bytes = 0;
session.on('Network.loadingFinished', ({ encodedDataLength }) => {
  bytes += encodedDataLength;
});
const before = performance.now();
await page.goto(`${origin}/`);
await page
  .getByRole('button', { name: /, next: / })
  .first()
  .waitFor();
const usable = { kilobytes: bytes / 1000, ms: performance.now() - before };
await page.waitForLoadState('networkidle');
await page.waitForTimeout(6000);
await browser.close();
console.log(
  `first visit: ${usable.kilobytes.toFixed(0)} kB over the wire until the list of the engines can be used ` +
    `(aim: at most ${MOST_KB} kB), after ${usable.ms.toFixed(0)} ms; ${(bytes / 1000).toFixed(0)} kB once every page is there`,
);
