import { expect, test } from '@playwright/test';
import { acceptBest } from './choices.js';
import { allSaved, engineOn, enter, putOnBench, putSeries, reedDocument } from './engines.js';
import { toStage } from './stages.js';

test('three engines are fitted together from one drawer, accepted, reserved and fitted', async ({ page, request }) => {
  const series = 'Sallow';
  // Each alone would take six Mid halves; there are eight for eighteen places.
  const kinds = await putSeries(request, series, [
    ['Mid', 1_995, 8],
    ['Thin', 1_990, 6],
    ['Thick', 2_000, 6],
  ]);
  const names = ['Reed 6 together one', 'Reed 6 together two', 'Reed 6 together three'];
  const ids: string[] = [];
  for (const [at, name] of names.entries()) ids.push(await engineOn(request, name, series, kinds, `64.0${10 + at}`));

  await page.goto('/together');
  const list = page.getByRole('list', { name: 'Engines that use workshop stock' });
  await expect(list.getByLabel(names[2]!)).toBeVisible();
  for (const box of await list.getByRole('checkbox').all()) {
    if (!names.includes((await box.locator('xpath=..').innerText()).trim())) await box.uncheck();
  }
  await page.getByRole('button', { name: 'Select for these 3 engines' }).click();
  await expect(page.getByText('3 engines, 9 stations, proven.')).toBeVisible();
  await page.getByRole('button', { name: 'Accept for all 3' }).click();
  await expect(page.getByText('The selections of 3 engines are accepted; their shells are reserved.')).toBeVisible();

  await page.getByRole('link', { name: 'Open workshop stock' }).click();
  const mid = page.getByRole('row').filter({ hasText: series }).filter({ hasText: 'Mid' });
  await expect(mid).toContainText('Reed 6 together');
  await expect(mid.getByRole('cell').nth(5)).toHaveText('none');

  // No engine's plan takes what the others hold; its halves can be marked as fitted and leave the drawer.
  await page.goto(`/engines/${ids[0]}/choose`);
  // What is best for all need not be what is best for this one alone: both are told.
  await expect(page.getByText(/Accepted by/)).toBeVisible();
  await toStage(page, 'Stock');
  const workshop = page.getByRole('region', { name: 'From workshop stock' });
  await expect(workshop).toContainText('6 shells are reserved for this engine.');
  await workshop.getByRole('button', { name: 'Mark as fitted' }).click();
  await expect(workshop).toContainText('6 shells are fitted in this engine and have left stock.');
  await workshop.getByRole('button', { name: 'Undo' }).click();
  await expect(workshop).toContainText('6 shells are reserved for this engine.');
});

test('a large drawer is solved in the page’s own worker, and a search can be cancelled', async ({ page, request }) => {
  const kinds = await putSeries(request, 'Alder', [
    ['Mid', 1_995, 26],
    ['Thin', 1_990, 30],
    ['Thick', 2_000, 30],
  ]);
  const names = Array.from({ length: 12 }, (_, at) => `Reed 6 alder ${at + 1}`);
  for (const [at, name] of names.entries()) await engineOn(request, name, 'Alder', kinds, `64.0${10 + (at % 5)}`);
  // The integer solver does not arrive before somebody has changed their mind.
  let arrive: () => void = () => undefined;
  const isThere = new Promise<void>((resolve) => {
    arrive = resolve;
  });
  await page.route('**/*.wasm', async (route) => {
    await isThere;
    await route.continue().catch(() => undefined);
  });
  await page.goto('/together');
  const list = page.getByRole('list', { name: 'Engines that use workshop stock' });
  await expect(list.getByLabel(names[11]!)).toBeVisible();
  for (const box of await list.getByRole('checkbox').all()) {
    if (!names.includes((await box.locator('xpath=..').innerText()).trim())) await box.uncheck();
  }
  await page.getByRole('button', { name: 'Select for these 12 engines' }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('Search cancelled. Nothing was changed.')).toBeVisible();
  arrive();
  await page.getByRole('button', { name: 'Select for these 12 engines' }).click();
  await expect(page.getByText('12 engines, 36 stations, proven.')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText(/One more of these would help most: .*Mid either \(Alder\)/)).toBeVisible();
});

test('two people who accept the same last halves on two devices cannot both have them', async ({
  browser,
  request,
}) => {
  const kinds = await putSeries(request, 'Withy', [['Mid', 1_995, 6]]);
  const ids = await Promise.all(
    ['Reed 6 at the vise', 'Reed 6 at the block'].map((name) => engineOn(request, name, 'Withy', kinds, '64.010')),
  );
  const pages = await Promise.all(
    ids.map(async (id, at) => {
      const context = await browser.newContext();
      await context.addInitScript((name) => localStorage.setItem('fettle.person', name), ['Wren', 'Teasel'][at]!);
      const page = await context.newPage();
      await page.goto(`/engines/${id}/choose`);
      await expect(page.getByText('Best selection for 3 of 3 mains, proven.')).toBeVisible();
      return page;
    }),
  );
  await Promise.all(pages.map((page) => page.getByRole('button', { name: 'Accept selection' }).click()));
  const refused = pages.map((page) => page.getByText(/Another engine may have reserved them: select again/));
  await expect
    .poll(async () => (await Promise.all(refused.map((text) => text.count()))).filter(Boolean).length)
    .toBe(1);
  const drawer = await (await request.get('/api/drawer')).json();
  const line = drawer.find(({ id }: { id: string }) => id === kinds[0]!.id);
  expect(line.reservations.map(({ count }: { count: number }) => count)).toEqual([6]);
});

test('the workshop drawer is filled and counted: a count that is not sent stays marked, a true one is taken and names who is short', async ({
  page,
  request,
}) => {
  await page.goto('/drawer');
  await page.getByRole('button', { name: 'Add shells' }).click();
  await page.getByLabel('Series').fill('Bulrush');
  await page.getByLabel('First wall, mm').fill('1.992');
  await page.getByLabel('Step, mm').fill('0.003');
  await page.getByLabel('Grades', { exact: true }).fill('2');
  await page.getByLabel('Shells of each').fill('6');
  await page.getByLabel(/Names of the grades/).fill('Low, Tall');
  await page.getByRole('button', { name: 'Add 4 lines' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Bulrush' })).toHaveCount(4);

  // An engine draws on it and accepts.
  const id = await putOnBench(request, reedDocument('Reed 6 on Bulrush', 3, { shells: {} }));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/drawer`);
  await page.getByRole('button', { name: 'Use Bulrush, 4 kinds' }).click();
  await toStage(page, 'Select shells');
  await acceptBest(page);
  await allSaved(page);
  await page.goto('/drawer');
  const held = page.getByRole('row').filter({ hasText: 'Bulrush' }).filter({ hasText: 'Reed 6 on Bulrush' }).first();
  const count = held.getByLabel(/On hand of/);
  // Enter saves; what cannot be sent stays in its box and says so, after a reload too.
  await page.route('**/api/drawer/move', (route) => route.abort());
  await count.fill('0');
  await count.press('Enter');
  await count.blur();
  await expect(held.getByText('Not saved: stock has 6.')).toBeVisible();
  await page.unroute('**/api/drawer/move');
  await page.reload();
  await expect(count).toHaveValue('0');
  await expect(held.getByText('Not saved: stock has 6.')).toBeVisible();
  // What was counted is true, whoever has reserved it.
  await count.press('Enter');
  await expect(page.getByText(/0 counted, \d reserved for Reed 6 on Bulrush/)).toBeVisible();
  await expect(held.getByText('Not saved')).toBeHidden();
  await expect(held.getByText(/\d short/)).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('listitem').filter({ hasText: 'Reed 6 on Bulrush' })).toContainText(
    'Too few in workshop stock: ',
  );
});
