import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { chromiumOptions } from './chromium.js';
import { SAMPHIRE_8, SEDGE_4 } from './engines.js';

const origin = process.argv[2];
const folder = join(import.meta.dirname, '../docs/screenshots');

interface Shot {
  readonly name: string;
  readonly path: string;
  readonly look?: 'dark' | 'workshop';
  readonly before?: (page: Page) => Promise<void>;
}

const doubtful = async (page: Page) => {
  await page.getByLabel('M3 main journal front, 90°, mm').fill('59.487');
};

const SHOTS: readonly Shot[] = [
  { name: 'benches', path: '/' },
  {
    name: 'new-engine',
    path: '/new',
    before: async (page) => {
      await page.getByLabel('Name, with its number').fill('Rush Twin · no. 0009');
      await page.getByLabel('Mains', { exact: true }).fill('3');
      await page.getByLabel('Rods', { exact: true }).fill('2');
      await page.getByRole('textbox', { name: 'Thrust at main' }).fill('2');
    },
  },
  { name: 'data-sheet', path: `/engines/${SEDGE_4}/data` },
  { name: 'drawer', path: `/engines/${SEDGE_4}/drawer` },
  { name: 'choose-dark', path: `/engines/${SEDGE_4}/choose`, look: 'dark' },
  {
    name: 'choose',
    path: `/engines/${SAMPHIRE_8}/choose`,
    before: async (page) => {
      await page.getByRole('button', { name: /^M3: / }).click();
    },
  },
  {
    name: 'sheet',
    path: `/engines/${SAMPHIRE_8}/choose`,
    before: async (page) => {
      await page.getByRole('button', { name: 'Accept the best choice' }).click();
      await page.getByRole('link', { name: /^Sheet/ }).click();
    },
  },
  { name: 'journals', path: `/engines/${SEDGE_4}/journals`, before: doubtful },
  { name: 'journals-workshop', path: `/engines/${SEDGE_4}/journals`, look: 'workshop', before: doubtful },
];

mkdirSync(folder, { recursive: true });
const browser = await chromium.launch(chromiumOptions());
for (const { name, path, look, before } of SHOTS) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addInitScript((appearance) => {
    localStorage.setItem('fettle.person', 'Wren');
    localStorage.setItem('fettle.appearance', appearance);
  }, look ?? 'light');
  const page = await context.newPage();
  await page.goto(origin + path, { waitUntil: 'networkidle' });
  await before?.(page);
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await context.close();
}
await browser.close();
