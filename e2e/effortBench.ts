/** npm run bench effort: how many clicks and keys the main jobs take, driven by keyboard as far as it goes. */
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { nanometres, newJob, usualLayout } from '@fettle/core';
import { type BrowserContext, chromium, expect, type Locator, type Page, request } from '@playwright/test';
import { chromiumOptions } from './chromium.js';

const origin = process.argv[2]!;

/** A hand that counts: what is clicked, and what is pressed. A choice in an open list is a click, as its list is. */
class Hand {
  clicks = 0;
  keys = 0;
  readonly page: Page;

  constructor(page: Page) {
    this.page = page;
  }

  async click(at: Locator): Promise<void> {
    await at.click();
    this.clicks += 1;
  }

  async choose(label: string, value: string): Promise<void> {
    await this.click(this.page.getByRole('button', { name: new RegExp(`${label}$`, 'u') }));
    await this.click(this.page.getByRole('listbox').locator(`[data-option="${value}"]`));
  }

  async press(...keys: readonly string[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key);
    this.keys += keys.length;
  }

  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
    this.keys += text.length;
  }

  /** Figures one after the other, Enter after each. */
  async along(figures: readonly string[]): Promise<void> {
    for (const figure of figures) {
      await this.type(figure);
      await this.press('Enter');
    }
  }
}

interface Job {
  readonly name: string;
  /** Clicks and keys that it is to take at most. */
  readonly aim: readonly [clicks: number, keys: number];
  readonly run: (hand: Hand) => Promise<void>;
}

/** A figure so many hundredths from a setting, in full or as what the needle shows. */
const figures = (setting: number, hundredths: readonly number[], inFull: boolean) =>
  hundredths.map((off) => (inFull ? (setting + off / 100).toFixed(3) : String(off)));

/** How far five, and eight, parts are off their setting, in hundredths of a millimetre. */
const FIVE = [0, 0.2, -0.1, 0.1, 0];
const EIGHT = [0, 0.1, 0.2, 0, -0.1, 0.1, 0, 0.2];

async function startV8(hand: Hand): Promise<void> {
  const { page } = hand;
  await page.goto(origin);
  await hand.click(page.getByRole('button', { name: 'New engine' }));
  await expect(page.getByLabel('Name, with its number')).toBeFocused();
  await hand.type('Samphire 8');
  await hand.choose('Rods on each pin', '2');
  await hand.click(page.getByLabel('Main housing bore: low limit, mm'));
  for (const range of ['64-64.02', '59.98-60', '.02-.06', '54-54.02', '50.98-51', '.02-.06']) {
    await hand.type(range);
    await hand.press('Enter');
  }
  await hand.click(page.getByLabel('Main housing bore: source: book and page'));
  await hand.type('book, p. 7');
  await hand.click(page.getByRole('button', { name: 'Create engine' }));
}

/** Reads a feature from its first box; the gauge is set where the fitter likes. */
async function read(
  hand: Hand,
  first: string,
  setting: number,
  off: readonly number[],
  inFull: boolean,
  isOne = false,
): Promise<void> {
  const { page } = hand;
  await expect(page.getByLabel(first)).toBeVisible();
  if (!inFull) await hand.click(page.getByRole('button', { name: /^Middle/u }));
  const one = page.getByRole('button', { name: 'One reading a part' });
  if (isOne && (await one.isVisible())) await hand.click(one);
  const box = page.getByLabel(first);
  if (!(await box.evaluate((input) => input === document.activeElement))) await hand.click(box);
  await hand.along(figures(setting, off, inFull));
  const needle = page.getByRole('button', { name: '+ is a bigger bore' });
  if (await needle.isVisible()) await hand.click(needle);
}

/** Goes on to the next thing to do: the focus is there after the last box. */
async function goOn(hand: Hand, to: RegExp): Promise<void> {
  const next = hand.page.getByRole('button', { name: to });
  await expect(next).toBeVisible();
  if (await next.evaluate((button) => button === document.activeElement)) await hand.press('Enter');
  else await hand.click(next);
}

/** One family of shells in a line; the focus is where its typing begins. */
async function addFamily(hand: Hand, wall: string, count: string): Promise<void> {
  await hand.type(wall);
  for (const text of ['.003', '3', count]) {
    await hand.press('Tab');
    await hand.type(text);
  }
  await hand.press('Enter');
}

const v8 = (inFull: boolean) => async (hand: Hand) => {
  const { page } = hand;
  await startV8(hand);
  await read(hand, 'M1 main bore front plane, mm', 64.01, FIVE, inFull, true);
  await goOn(hand, /^Next: Read the journal/u);
  await read(hand, 'M1 main journal front, 0°, mm', 59.99, FIVE, inFull, true);
  await goOn(hand, /^Next: Read the big end/u);
  await read(hand, 'R1 big end front plane, mm', 54.01, EIGHT, inFull, true);
  await goOn(hand, /^Next: Read the (?:pin|crankpin)/u);
  await read(hand, 'P1 crankpin front, 0°, mm', 50.99, EIGHT, inFull, true);
  await goOn(hand, /^Next: Enter the shells/u);
  const form = page.getByRole('group', { name: 'Add shells' });
  await expect(form.getByLabel('Series')).toBeFocused();
  await hand.type('Osier');
  await hand.click(form.getByLabel('First wall, mm'));
  await addFamily(hand, '1.987', '8');
  await expect(form.getByLabel('First wall, mm')).toBeFocused();
  await addFamily(hand, '1.487', '8');
  await goOn(hand, /^Next: Select shells/u);
  await expect(page.getByText(/for 5 of 5 mains and 8 of 8 rods, proven/u)).toBeVisible({ timeout: 60_000 });
};

async function table(hand: Hand): Promise<void> {
  const { page } = hand;
  await page.goto(`${origin}/types`);
  await hand.click(page.getByRole('button', { name: 'New engine type' }));
  await hand.click(page.getByLabel('Name of the type'));
  await hand.type('Reed 6');
  await hand.click(page.getByLabel('Main oil clearance: low limit, mm'));
  await hand.type('.02-.06');
  await hand.press('ArrowRight');
  await hand.press('ArrowRight');
  await hand.type('book, p. 9');
  await hand.click(page.getByRole('link', { name: 'Grade marks of the mains' }));
  await hand.click(page.getByLabel(/^Source of bands and table/u));
  await hand.type('book, p. 11');
  const bands = async (title: string, first: readonly string[], more: string) => {
    await hand.click(page.getByLabel(`${title}, line 1, ${title.startsWith('Shell') ? 'grade' : 'mark'}`));
    for (const [at, text] of first.entries()) {
      await hand.type(text);
      if (at < first.length - 1) await hand.press('ArrowRight');
    }
    await hand.click(page.getByLabel(`${title}: next marks`));
    await hand.type(more);
    await hand.press('Enter');
  };
  await bands('Main bores', ['A', '64', '64.006'], 'B-D');
  await bands('Main journals', ['1', '59.98', '59.986'], '2-4');
  await bands('Shell grades, walls', ['1', '1.985', '1.988'], '2-5');
  await hand.click(page.getByRole('button', { name: 'Fill from bands' }));
  await hand.click(page.getByRole('button', { name: 'Save to library' }));
  await expect(page.getByText(/Revision 1, saved by/u)).toBeVisible();
}

/** An engine of the sample type Sedge 4, from its stamped marks. */
async function marks(hand: Hand): Promise<void> {
  const { page } = hand;
  await page.goto(`${origin}/types/5ed9e400-0000-4000-8000-0000000000a1/sheet`);
  await hand.click(page.getByRole('button', { name: 'New engine of this type' }));
  await expect(page.getByLabel('Name, with its number')).toBeFocused();
  await hand.type('Sedge');
  await hand.press('Enter');
  await hand.click(page.getByLabel(/^Main bores as stamped/u));
  for (const row of ['bbcbb', '22322', 'klkl', '2222']) {
    await hand.type(row);
    await hand.press('Enter');
  }
  await hand.click(page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Select \d/u }));
  await hand.click(page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Select shells/u }));
  await expect(page.getByText(/for 5 of 5 mains and 4 of 4 rods, proven/u)).toBeVisible({ timeout: 60_000 });
}

/** Fifty-eight readings: five mains in two planes and their journals, eight big ends and eight crankpins of a V8 that is on the bench. */
const readings = (inFull: boolean) => async (hand: Hand) => {
  const { page } = hand;
  const api = await request.newContext({ baseURL: origin });
  const um = (value: number) => nanometres(value * 1000);
  const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'book, p. 7' });
  const usual = usualLayout(5, 8, 2, 3);
  if (!usual.ok) throw new Error(usual.message);
  const blank = newJob('Samphire 8', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
  const id = randomUUID();
  const document = {
    ...blank,
    limits: {
      ...blank.limits,
      mainBore: limit(64_000, 64_020),
      mainJournal: limit(59_980, 60_000),
      bigEnd: limit(54_000, 54_020),
      pin: limit(50_980, 51_000),
      mainClearance: limit(20, 60),
      rodClearance: limit(20, 60),
    },
    measuring: {
      ...blank.measuring,
      slots: {
        mainBore: ['front', 'rear'],
        mainJournal: ['front-0', 'front-90', 'rear-0', 'rear-90'],
        bigEnd: ['front'],
        pin: ['front-0', 'front-90'],
      },
    },
  };
  const made = await api.post('/api/jobs', { data: { id, by: 'Wren', document } });
  if (!made.ok()) throw new Error(await made.text());
  await api.dispose();
  await page.goto(`${origin}/engines/${id}/bores`);
  // 10 + 20 + 8 + 16 are 54; each figure is typed once.
  await read(hand, 'M1 main bore front plane, mm', 64.01, [...FIVE, ...FIVE], inFull);
  await goOn(hand, /^Next: Read the journal/u);
  await read(hand, 'M1 main journal front, 0°, mm', 59.99, [...FIVE, ...FIVE, ...FIVE, ...FIVE], inFull);
  await goOn(hand, /^Next: Read the big end/u);
  await read(hand, 'R1 big end front plane, mm', 54.01, EIGHT, inFull);
  await goOn(hand, /^Next: Read the (?:pin|crankpin)/u);
  await read(hand, 'P1 crankpin front, 0°, mm', 50.99, [...EIGHT, ...EIGHT], inFull);
};

const JOBS: readonly Job[] = [
  { name: 'V8 from nothing to a proven selection, in full', aim: [25, 450], run: v8(true) },
  { name: 'V8 from nothing to a proven selection, deviations', aim: [25, 300], run: v8(false) },
  { name: 'code table from nothing', aim: [15, 220], run: table },
  { name: 'from marks to a proven selection', aim: [5, 40], run: marks },
  { name: '54 readings in full', aim: [8, 400], run: readings(true) },
  { name: '54 readings as deviations', aim: [8, 200], run: readings(false) },
];

const browser = await chromium.launch(chromiumOptions());
let status = 0;
for (const { name, aim, run } of JOBS) {
  const context: BrowserContext = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  page.setDefaultTimeout(15_000);
  const hand = new Hand(page);
  try {
    await run(hand);
  } catch (error) {
    await page.screenshot({ path: join(tmpdir(), 'effort.png'), timeout: 5000 }).catch(() => {});
    console.log(`  ${name}: not finished after ${hand.clicks} clicks, ${hand.keys} keys: ${(error as Error).message}`);
    status = 1;
    await context.close();
    continue;
  }
  const isReached = hand.clicks <= aim[0] && hand.keys <= aim[1];
  console.log(
    `  ${name.padEnd(54)} ${String(hand.clicks).padStart(3)} clicks, ${String(hand.keys).padStart(3)} keys (aim ${aim[0]} and ${aim[1]}${isReached ? '' : ', not reached'})`,
  );
  await context.close();
}
await browser.close();
process.exit(status);
