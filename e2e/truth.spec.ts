import { readFile } from 'node:fs/promises';
import { readBuildSheet } from '@fettle/core';
import { expect, test } from '@playwright/test';
import { acceptBest, choose } from './choices.js';
import { allSaved, enter, putOnBench, reedDocument, SEDGE_TYPE } from './engines.js';
import { toStage } from './stages.js';

type Shells = ReturnType<typeof reedDocument>['shells'];
const half = (grade: string, wall: number, more: object = {}) => ({
  family: 'main',
  series: 'Osier',
  grade,
  half: 'either',
  wall,
  stock: null,
  line: null,
  ...more,
});

test('before a doubtful choice is accepted it is said what is doubtful; it can be withdrawn; what was read since is marked', async ({
  page,
  request,
}) => {
  // By hand, µm: 64 010 − 59 985 − 2 · 1 995 = 35, the aim; the wall is known to ±9, so the clearance to ±18 of the ±15 there are.
  const banded = half('Mid', 1_995_000, { band: { low: 1_986_000, high: 2_004_000 } });
  const id = await putOnBench(
    request,
    reedDocument('Reed 6 in doubt', 3, { shells: { mid: banded } as unknown as Shells }),
  );
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, main === 2 ? '64.012' : '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByRole('button', { name: /^M2: Could be loose/ })).toBeVisible();
  await page.getByRole('button', { name: 'Accept selection' }).click();
  const asked = page.getByRole('group', { name: 'Check before accepting' });
  await expect(asked).toContainText(/M2 may be loose: \d\d % inside/);
  await expect(asked).toContainText('not counted in stock: Mid either');
  await asked.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Withdraw' })).toHaveCount(0);
  await acceptBest(page);
  await expect(page.getByText('Showing the accepted selection')).toBeVisible();
  await allSaved(page);
  // Read again and still inside: marked all the same.
  await toStage(page, 'Main journals');
  await page.getByLabel('M1 main journal front, 0°, mm').fill('59.986');
  await page.getByLabel('M1 main journal front, 0°, mm').press('Enter');
  await toStage(page, 'Select shells');
  await expect(page.getByText('re-measured since')).toHaveCount(1);
  // The line and the detail say the same of a station, and of the pair that is chosen for it.
  await page.getByRole('button', { name: /^M2: / }).click();
  const panel = page.getByRole('region', { name: 'Main 2' });
  await expect(panel.getByText('Could be loose').first()).toBeVisible();
  await expect(panel.getByRole('row', { name: /^Mid Mid/ })).toContainText('Could be loose');
  await page.getByRole('button', { name: 'Withdraw' }).click();
  await allSaved(page);
  expect((await (await request.get(`/api/jobs/${id}`)).json()).document.choice).toBeNull();
});

test('a pair of two series that would do is listed as not allowed, and allowed and held where the fitter says so', async ({
  page,
  request,
}) => {
  const shells = {
    thin: half('Thin', 1_985_000),
    other: half('Thick', 2_005_000, { series: 'Marsh' }),
  } as unknown as Shells;
  const base = reedDocument('Reed 6 of two series', 3, { shells });
  const id = await putOnBench(request, base);
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose?station=M1`);
  const barred = page.getByRole('region', { name: 'Not allowed at M1' });
  // By hand, µm: 64 010 − 59 985 − 1 985 − 2 005 = 35.
  await expect(barred).toContainText('0.035');
  await expect(barred).toContainText('shells of two series are not mixed');
  await barred.getByRole('button', { name: /^Allow it here: Thin \(Osier\) over Thick \(Marsh\)/ }).click();
  await expect(page.getByTestId('clearance-M1')).toHaveText(/^0\.035/);
  await allSaved(page);

  // A series that was typed wrong is put right without taking the half out.
  await toStage(page, 'Stock');
  await page.getByRole('button', { name: 'Correct Thick either' }).click();
  await page.getByRole('group', { name: 'Correct Thick either' }).getByLabel('Series').fill('Osier');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'Thick' })).toContainText('Osier');
  await allSaved(page);
});

test('all limits are typed in one table: Enter goes down, a source is carried, a range is split; a main has its own', async ({
  page,
}) => {
  await page.goto('/new');
  await page.getByLabel('Name, with its number').fill('Samphire 8 typed from a book');
  // A V engine proposes its rods.
  await choose(page, 'Rods on each pin', '2');
  await expect(page.getByLabel('Rods', { exact: true })).toHaveValue('8');
  await page.getByLabel('Main housing bore: low limit, mm').fill('64.000 – 64.019');
  await page.getByLabel('Main housing bore: low limit, mm').press('Enter');
  await expect(page.getByLabel('Main housing bore: high limit, mm')).toHaveValue('64.019');
  await expect(page.getByLabel('Main journal: low limit, mm')).toBeFocused();
  await page.getByLabel('Main housing bore: source: book and page').fill('Samphire book, p. 7');
  await page.getByLabel('Main journal: low limit, mm').fill('59.980');
  await page.getByLabel('Main journal: high limit, mm').fill('59.994');
  await page.getByLabel('Main journal: high limit, mm').press('Enter');
  await expect(page.getByLabel('Main journal: source: book and page')).toHaveValue('Samphire book, p. 7');
  // Who goes on to the source has one to type: it is not carried under their hands.
  await page.getByLabel('Main oil clearance: low limit, mm').fill('0.020');
  await page.getByLabel('Main oil clearance: high limit, mm').fill('0.050');
  await page.getByLabel('Main oil clearance: source: book and page').fill('Samphire book, p. 9');
  await page.getByLabel('Main oil clearance: source: book and page').press('Tab');
  await expect(page.getByLabel('Main oil clearance: source: book and page')).toHaveValue('Samphire book, p. 9');
  await page.getByRole('button', { name: 'Create engine' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Samphire 8 typed from a book');
  await toStage(page, 'Data sheet');
  await choose(page, 'Only at', '5');
  await choose(page, 'Limits of its', 'mainJournal');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  const own = page.getByRole('group', { name: 'Main journal, main 5' });
  await own.getByLabel('low limit, mm').fill('59.960');
  await own.getByLabel('high limit, mm').fill('59.974');
  await own.getByLabel('high limit, mm').press('Enter');
  await allSaved(page);
  await page.reload();
  await expect(own.getByLabel('low limit, mm')).toHaveValue('59.960');
  await toStage(page, 'Main journals');
  await page.getByLabel('M5 main journal front, 0°, mm').fill('59.970');
  await page.getByLabel('M4 main journal front, 0°, mm').fill('59.970');
  await page.getByLabel('M4 main journal front, 0°, mm').press('Enter');
  // Inside at its own main, out of limits at another.
  await expect(page.getByText('out of limits', { exact: true })).toHaveCount(1);
});

test('a main that is named takes halves of its own, and they go nowhere else', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with a wide rear main', 3, { shells: {} }));
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/data`);
  await page.getByLabel('Place of M3').fill('the very rear of all of the mains');
  await page.getByLabel('Place of M3').blur();
  await page.getByLabel('Place of M3').fill('Rear!');
  await expect(
    page.getByText('a position is one or two words of at most 20 letters and digits, such as rear'),
  ).toBeVisible();
  await page.getByLabel('Place of M3').fill('Rear');
  await page.getByLabel('Place of M3').press('Enter');
  await expect(page.getByLabel('Place of M3')).toHaveValue('rear');
  await toStage(page, 'Stock');
  for (const [series, wall, place] of [
    ['Osier', '1.996', ''],
    ['Osier wide', '1.994', 'Rear'],
  ] as const) {
    // The form is open where the drawer is empty.
    if (place !== '') await page.getByRole('button', { name: 'Add shells' }).click();
    const form = page.getByRole('group', { name: 'Add shells' });
    await form.getByLabel('Series').fill(series);
    await form.getByLabel('First wall, mm').fill(wall);
    await form.getByLabel('Grades', { exact: true }).fill('1');
    await form.getByLabel('Only for position').fill(place);
    await form.getByRole('button', { name: 'Add 2 lines' }).click();
  }
  await expect(page.getByText('only for rear')).toHaveCount(2);
  await toStage(page, 'Select shells');
  await expect(page.getByText('Best selection for 3 of 3 mains, proven.')).toBeVisible();
  // By hand, µm: 4 025 over both walls; two of 1 996 leave 33 at every main, two of 1 994 leave 37, nearer to 35 by as much, and only at the rear.
  await page.getByRole('button', { name: /^M1: / }).click();
  await expect(page.getByRole('region', { name: 'Clearance of each pair at M1' })).not.toContainText('0.037');
  await page.getByRole('button', { name: 'Close the detail' }).click();
  await page.getByRole('button', { name: /^M3: / }).click();
  await expect(page.getByRole('region', { name: 'Clearance of each pair at M3' })).toContainText('0.037');
});

test('the sheet asks whose name stands on it, goes out as JSON, and is done once it is printed', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 printed'));
  await page.addInitScript(() => {
    window.print = () => {};
  });
  await page.goto(`/engines/${id}/sheet`);
  await page.getByRole('button', { name: 'Print build sheet', exact: true }).click();
  const asked = page.getByRole('group', { name: 'Printed by' });
  await expect(asked.getByRole('button', { name: 'Print with this name' })).toBeDisabled();
  await asked.getByLabel('Your name').fill('Sorrel');
  await asked.getByRole('button', { name: 'Print with this name' }).click();
  await expect(page.getByText(/Printed .* by Sorrel\./)).toBeVisible();
  await expect(page.getByRole('link', { name: 'Build sheet, done', exact: true })).toBeVisible();
  await allSaved(page);
  await expect(page.getByRole('table', { name: 'By hand' })).toContainText('Turns freely and evenly');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Build sheet as JSON' }).click(),
  ]);
  const read = readBuildSheet(JSON.parse(await readFile(await file.path(), 'utf8')));
  expect(read).toMatchObject({ ok: true, sheet: { engine: 'Reed 6 printed', madeBy: 'Sorrel' } });
});

test('an engine is started from its type, and a type that was not saved is listed as such', async ({ page }) => {
  await page.goto(`/types/${SEDGE_TYPE}/sheet`);
  await page.getByRole('button', { name: 'New engine of this type' }).click();
  await page.getByLabel('Name, with its number').fill('Sedge 4 of its type');
  await page.getByRole('button', { name: 'Create engine' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sedge 4 of its type');
  await allSaved(page);
  await page.goto('/types');
  await page.getByRole('button', { name: 'New engine type' }).click();
  await page.getByLabel('Name of the type').fill('Burr 2 half typed');
  await page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name: 'Engine types' }).click();
  await page.getByRole('list', { name: 'Not saved yet' }).getByRole('link', { name: 'Burr 2 half typed' }).click();
  await expect(page.getByLabel('Name of the type')).toHaveValue('Burr 2 half typed');
});
