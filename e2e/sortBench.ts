/** npm run bench sort: how long a table of a thousand rows takes to sort, against one of fifty. */
import { randomUUID } from 'node:crypto';
import { chromium, request } from '@playwright/test';
import { chromiumOptions } from './chromium.js';

const origin = process.argv[2]!;
const MOST = 3;
const ROUNDS = 11;

const api = await request.newContext({ baseURL: origin });

/** Puts so many kinds of a series into the workshop's stock. */
async function put(series: string, count: number): Promise<void> {
  for (let from = 0; from < count; from += 100) {
    const changes = Array.from({ length: Math.min(100, count - from) }, (_, at) => ({
      id: randomUUID(),
      version: 0,
      half: {
        family: 'main',
        series,
        grade: `G${from + at}`,
        half: 'either',
        wall: 1_900_000 + (((from + at) * 7_919) % 100_000),
        onHand: 2,
      },
    }));
    const answer = await api.post('/api/drawer/move', { data: { by: 'Wren', kind: 'add', changes } });
    if (answer.status() !== 200) throw new Error(`stock of ${series}: ${answer.status()} ${await answer.text()}`);
  }
}

const tag = randomUUID().slice(0, 8);
await put(`Fifty-${tag}`, 50);
await put(`Thousand-${tag}`, 1000);

const browser = await chromium.launch(chromiumOptions());
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();

/** Presses the head of the walls, and waits for the frame that follows. As text: what builds this program adds names to functions that the page does not know. */
const PRESS = `new Promise((done) => {
  const head = [...document.querySelectorAll('th button')].find(({ textContent }) => textContent.startsWith('Wall'));
  const start = performance.now();
  head.click();
  requestAnimationFrame(() => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => done(performance.now() - start);
    channel.port2.postMessage(null);
  });
})`;

/** Median time from a press on a head to the frame that shows the new order, ms. */
async function sorting(series: string): Promise<number> {
  await page.goto(`${origin}/drawer`);
  await page.getByLabel('Search stock').fill(series);
  const head = page.getByRole('columnheader', { name: /^Wall/u }).getByRole('button');
  await head.waitFor();
  await page.getByText(series).first().waitFor();
  const more = page.getByRole('button', { name: /^Show more/u });
  while (await more.isVisible()) {
    await more.click();
    await page.waitForTimeout(150);
  }
  await page.waitForTimeout(1000);
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    // As text: what builds this program adds names to functions that the page does not know.
    times.push(await page.evaluate<number>(PRESS));
    await page.waitForTimeout(120);
  }
  return times.sort((one, other) => one - other)[Math.floor(ROUNDS / 2)]!;
}

const fifty = await sorting(`Fifty-${tag}`);
const rows = await page.getByRole('row').count();
const thousand = await sorting(`Thousand-${tag}`);
const shown = await page.getByRole('table').first().getAttribute('aria-rowcount');
await browser.close();
await api.dispose();
console.log(
  `sorting ${Number(shown ?? 0) - 1} rows: ${thousand.toFixed(0)} ms, ${(thousand / fifty).toFixed(1)} × the time of ${rows - 1} rows (aim: under ${MOST} ×)`,
);
