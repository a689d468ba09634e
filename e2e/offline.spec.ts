import { type BrowserContext, expect, type Page, request as requests, test } from '@playwright/test';
import { touch } from './checks.js';
import { allSaved, enter, putOnBench, reedDocument } from './engines.js';
import { ownServer } from './ownServer.js';
import { toStage } from './stages.js';

const bore = (main: number) => `M${main} main bore front plane, mm`;
const journal = (main: number) => `M${main} main journal front, 0°, mm`;

/** Opens a page that the browser may keep for itself, and waits until it has. */
async function keptPage(context: BrowserContext, address: string): Promise<Page> {
  const page = await context.newPage();
  await page.goto(address);
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready;
  });
  await expect.poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null)).toBe(true);
  return page;
}

test('without the server the page opens, measures, chooses and ticks off; all of it arrives once', async ({
  browser,
}) => {
  test.setTimeout(90_000);
  let server = await ownServer('offline');
  const api = await requests.newContext({ baseURL: server.origin });
  const id = await putOnBench(api, reedDocument('Reed 6 out of reach'));
  for (const main of [1, 2, 3]) await enter(api, id, 'mainJournal', main, '59.985');
  await enter(api, id, 'mainBore', 1, '64.010');
  const context = await browser.newContext({ baseURL: server.origin, serviceWorkers: 'allow' });
  const page = await keptPage(context, `/engines/${id}/bores`);
  await expect(page.getByLabel(bore(1))).toHaveValue('64.010');
  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Engines' })).toContainText('Reed 6 out of reach');
  // What was seen is written down in the pauses.
  await page.waitForTimeout(2000);
  await server.stop();

  // Loaded anew without any server.
  await page.reload();
  await expect(page.getByText('Offline copy.')).toBeVisible();
  await page.getByRole('button', { name: /^Reed 6 out of reach, next: / }).click();
  await toStage(page, 'Main bores');
  await expect(page.getByLabel(bore(1))).toHaveValue('64.010');
  await page.getByLabel(bore(2)).fill('64.011');
  await page.keyboard.press('Enter');
  await page.getByLabel(bore(3)).fill('64.012');
  await page.keyboard.press('Enter');
  // Another tab, which was never open while there was a server.
  const other = await context.newPage();
  await other.goto(`/engines/${id}/journals`);
  await other.getByLabel(journal(2)).fill('59.986');
  await other.keyboard.press('Enter');
  await expect(other.getByText(/1 change saved on this device/)).toBeVisible();
  // Chosen and ticked off, and there after another reload.
  await toStage(page, 'Select shells');
  await page.getByRole('button', { name: 'Accept selection' }).click();
  await expect(page.getByText('Showing the accepted selection')).toBeVisible();
  await toStage(page, 'Final assembly');
  await touch(page.getByRole('checkbox', { name: /^Oil hole/ }));
  await page.reload();
  await expect(page.getByRole('checkbox', { name: /^Oil hole/ })).toBeChecked();

  server = await ownServer('offline', { FETTLE_PORT: server.port });
  await allSaved(page);
  await allSaved(other);
  const after = await (await api.get(`/api/jobs/${id}`)).json();
  const texts = after.readings.map(
    ({ feature, station, text }: Record<string, string>) => `${feature} ${station} ${text}`,
  );
  expect(texts.sort()).toEqual([
    'mainBore 1 64.010',
    'mainBore 2 64.011',
    'mainBore 3 64.012',
    'mainJournal 1 59.985',
    'mainJournal 2 59.986',
    'mainJournal 3 59.985',
  ]);
  expect(Object.keys(after.document.choice.stations)).toEqual(['M1', 'M2', 'M3']);
  // Seven readings, none twice: four before, three since.
  const { entries } = await (await api.get(`/api/jobs/${id}/history?what=readings`)).json();
  expect(entries).toHaveLength(7);
  await context.close();
  await api.dispose();
  await server.stop();
});
