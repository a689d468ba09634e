import { chmodSync, mkdirSync, mkdtempSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { acceptBest } from './choices.js';
import { chromiumOptions } from './chromium.js';
import {
  ASSEMBLED_SEDGE_4,
  BENT_REED_6,
  MARKED_SEDGE_4,
  REED_6,
  SAMPHIRE_8,
  SECOND_BUILD,
  SEDGE_4,
  THIRD_BUILD,
  TRIED_SEDGE_4,
} from './engines.js';

import { BEYOND, makeAccount, makeOwner, ownServer } from './ownServer.js';

const origin = process.argv[2];
const folder = join(import.meta.dirname, '../docs/screenshots');

interface Shot {
  readonly name: string;
  readonly path: string;
  readonly look?: 'workshop';
  readonly height?: number;
  readonly before?: (page: Page) => Promise<void>;
  /** Puts back what the picture changed. */
  readonly after?: (page: Page) => Promise<void>;
}

const doubtful = async (page: Page) => {
  await page.getByLabel('M3 main journal front, 90°, mm').fill('59.487');
};

/** One engine's choice accepted, so that the drawer shows what is reserved. */
const twinsAccepted = async (page: Page) => {
  await page.goto(`${origin}/engines/4057e200-0301-4000-8000-000000000004/choose`);
  await acceptBest(page);
  await page.getByText('All saved').waitFor();
  await page.goto(`${origin}/drawer`);
  await page.getByText('Rush Twin').first().waitFor();
  await page.getByRole('button', { name: 'Open Plum upper' }).click();
};

const SHOTS: readonly Shot[] = [
  { name: 'benches', path: '/' },
  { name: 'data-sheet', path: `/engines/${SEDGE_4}/data` },
  { name: 'after-the-build', path: `/engines/${SECOND_BUILD}/running`, height: 1150 },
  { name: 'instruments', path: '/instruments' },
  { name: 'known', path: '/known/offsets' },
  { name: 'came-apart', path: `/engines/${THIRD_BUILD}/cameApart?station=M3`, height: 1150 },
  { name: 'main-line', path: `/engines/${BENT_REED_6}/mainLine`, height: 1150 },
  { name: 'codes', path: `/engines/${MARKED_SEDGE_4}/codes`, height: 1000 },
  {
    name: 'end-play',
    path: `/engines/${REED_6}/endPlay`,
    height: 1200,
    before: (page) => page.getByRole('button', { name: 'Accept these' }).waitFor(),
  },
  { name: 'assembly', path: `/engines/${ASSEMBLED_SEDGE_4}/assembly?station=M2`, height: 1100 },
  { name: 'torque', path: `/engines/${ASSEMBLED_SEDGE_4}/torque` },
  {
    name: 'choose',
    path: `/engines/${SAMPHIRE_8}/choose`,
    before: async (page) => {
      await page.getByText(/^Best selection for .* proven/).waitFor();
      await page.getByRole('button', { name: /^M3: / }).click();
    },
  },
  { name: 'trial', path: `/engines/${TRIED_SEDGE_4}/trial`, height: 1100 },
  {
    name: 'runout',
    path: `/engines/${TRIED_SEDGE_4}/runout`,
    before: async (page) => {
      await page.getByLabel('0°', { exact: true }).click();
      for (const figure of ['0', '0.006', '0.015', '0.022', '0.025', '0.019', '0.010', '0.003']) {
        await page.keyboard.type(figure);
        await page.keyboard.press('Enter');
      }
      await page.getByText('All saved').waitFor();
    },
  },
  { name: 'workshop-drawer', path: '/drawer', before: twinsAccepted },
  {
    name: 'together',
    path: '/together',
    before: async (page) => {
      await page.getByRole('button', { name: /^Select for these/ }).click();
      await page.getByText('proven.').waitFor();
    },
  },
  {
    name: 'sheet',
    path: `/engines/${ASSEMBLED_SEDGE_4}/sheet`,
    height: 1400,
  },
  { name: 'journals', path: `/engines/${SEDGE_4}/journals`, before: doubtful },
];

mkdirSync(folder, { recursive: true });
const browser = await chromium.launch(chromiumOptions());
for (const { name, path, look, before, after, height = 800 } of SHOTS) {
  const context = await browser.newContext({ viewport: { width: 1280, height } });
  await context.addInitScript((appearance) => {
    localStorage.setItem('fettle.person', 'Wren');
    localStorage.setItem('fettle.appearance', appearance);
  }, look ?? 'light');
  const page = await context.newPage();
  await page.goto(origin + path, { waitUntil: 'networkidle' });
  await before?.(page);
  // What is fetched when it is first needed is there.
  await page.getByText('Opening the page …').waitFor({ state: 'detached' });
  await page.locator('.look button').first().waitFor();
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await after?.(page);
  await context.close();
}

// People and devices are there only where one signs in: a workshop of its own for the picture.
process.env.FETTLE_E2E_DATA = mkdtempSync('/tmp/fettle-pictures-');
chmodSync(process.env.FETTLE_E2E_DATA, 0o755);
const workshop = await ownServer('pictures', BEYOND);
const context = await browser.newContext({
  baseURL: workshop.origin,
  ignoreHTTPSErrors: true,
  viewport: { width: 1280, height: 800 },
});
const owner = await context.newPage();
await owner.goto('/people');
await makeOwner(owner, workshop.code, 'Wren');
for (const [name, role] of [
  ['Finch', 'fitter'],
  ['Teasel', 'fitter'],
  ['Old Heron', 'stores'],
  ['Rush', 'reader'],
] as const) {
  await makeAccount(owner, name, role);
}
for (const name of ['Tablet at the vise', 'Phone of Finch']) {
  const address = await owner.evaluate(async () => {
    const { token } = await (await fetch('/api/session')).json();
    const headers = { 'content-type': 'application/json', 'x-fettle-token': token };
    const body = JSON.stringify({ to: '/' });
    return (await (await fetch('/api/devices/invitations', { method: 'POST', headers, body })).json()).address;
  });
  const device = await (await browser.newContext({ baseURL: workshop.origin, ignoreHTTPSErrors: true })).newPage();
  await device.goto(`/let-in${new URL(address).hash}`);
  await device.getByLabel('Device name').fill(name);
  await device.getByRole('button', { name: 'Add device' }).click();
  await device.getByRole('heading', { name: 'Sign in' }).waitFor();
  await device.context().close();
}
await owner.goto('/people');
await owner.getByText('Tablet at the vise').waitFor();
// With six pages the word stands there for nobody to see.
await owner.getByText('Theme', { exact: true }).first().waitFor({ state: 'attached' });
await owner.waitForTimeout(600);
await owner.screenshot({ path: join(folder, 'people.png') });
await workshop.stop();
await browser.close();
