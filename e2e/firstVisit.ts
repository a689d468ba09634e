/** npm run bench, first visit: what comes over the wire until the list of the engines can be used, and after it. */
import { chromium } from '@playwright/test';
import { chromiumOptions } from './chromium.js';

const origin = process.argv[2];
const MOST_KB = 240;
/** A phone with a processor four times as slow, in a network of the third generation: what developers' tools call fast 3G (from memory). */
const SLOW = {
  rate: 4,
  network: { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 94_000 },
} as const;
const MOST_MS = 4000;

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
/** How long a slow phone takes until the list can be used, ms; and until it shows anything, ms. */
async function slowly(): Promise<{ usable: number; seen: number }> {
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage();
  const tools = await phone.context().newCDPSession(phone);
  await tools.send('Network.enable');
  await tools.send('Network.emulateNetworkConditions', SLOW.network);
  await tools.send('Emulation.setCPUThrottlingRate', { rate: SLOW.rate });
  const began = performance.now();
  await phone.goto(`${origin}/`, { waitUntil: 'commit' });
  await phone.getByText('Fettle', { exact: true }).first().waitFor();
  const seen = performance.now() - began;
  await phone
    .getByRole('button', { name: /, next: / })
    .first()
    .waitFor({ timeout: 60_000 });
  const usable = performance.now() - began;
  await phone.context().close();
  return { usable, seen };
}
const slow = [await slowly(), await slowly(), await slowly()].sort((one, other) => one.usable - other.usable)[1]!;
await browser.close();
console.log(
  `first visit of a slow phone (processor ÷ ${SLOW.rate}, ${SLOW.network.latency} ms, ${(SLOW.network.downloadThroughput * 8) / 1e6} Mbit/s): ` +
    `the list can be used after ${(slow.usable / 1000).toFixed(1)} s (aim: ${MOST_MS / 1000} s; ${(slow.usable / usable.ms).toFixed(1)} × that of this machine), something is seen after ${(slow.seen / 1000).toFixed(1)} s`,
);
console.log(
  `first visit: ${usable.kilobytes.toFixed(0)} kB over the wire until the list of the engines can be used ` +
    `(aim: at most ${MOST_KB} kB), after ${usable.ms.toFixed(0)} ms; ${(bytes / 1000).toFixed(0)} kB once every page is there`,
);
