import { expect, test } from '@playwright/test';
import { acceptBest, choose } from './choices.js';
import { allSaved, enter, putOnBench, reedDocument } from './engines.js';
import { toStage } from './stages.js';

test('rods join a job by hand: limits, marks, big ends, pins, halves, and the shaft line shows them', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with rods'));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/bores`);
  await expect(page.getByRole('link', { name: /^Main bores/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Big ends/ })).toBeHidden();
  await toStage(page, 'Data sheet');
  await choose(page, 'Work covers', { label: 'The mains and the rods' });
  for (const [name, low, high] of [
    ['Big-end bore', '51.000', '51.018'],
    ['Crankpin', '47.980', '47.998'],
    ['Rod oil clearance', '.030', '.040'],
  ] as const) {
    const group = page.getByRole('group', { name });
    await group.getByLabel('Low limit, mm').fill(low);
    await group.getByLabel('High limit, mm').fill(high);
    await group.getByLabel('Source: book and page').fill('Reed book, p. 8');
    await group.getByLabel('Source: book and page').blur();
  }
  await page.getByLabel('R1 mark').fill('K');
  await page.getByLabel('R1 mark').blur();

  // The next thing to do leads to the rods, and a keypad drives the figures.
  await expect(page.getByRole('button', { name: 'Next: Read the big end at R1, R2' })).toBeVisible();
  await toStage(page, 'Big ends');
  await page.getByLabel('R1 big end front plane, mm').fill('51.013');
  await page.keyboard.press('Enter');
  await page.keyboard.type('51.007');
  await page.keyboard.press('Enter');
  await expect(page.getByText('R1 K')).toBeVisible();
  await toStage(page, 'Crankpins');
  await page.getByLabel('P1 crankpin front, 0°, mm').fill('47.486');
  await expect(page.getByText(/thimble/)).toBeVisible();
  await page.getByLabel('P1 crankpin front, 0°, mm').fill('47.992');
  await page.keyboard.press('Enter');
  await page.keyboard.type('47.986');
  await page.keyboard.press('Enter');
  await allSaved(page);

  await toStage(page, 'Stock');
  await page.getByRole('button', { name: 'Add shells' }).click();
  await choose(page, 'Shells for', { label: 'the rods' });
  await page.getByRole('textbox', { name: 'Series' }).fill('Osier');
  await page.getByLabel('First wall, mm').fill('1.490');
  await page.getByLabel('Step, mm').fill('0.003');
  await page.getByLabel('Grades', { exact: true }).fill('3');
  await page.getByLabel('Shells of each').fill('1');
  await page.getByRole('button', { name: 'Add 6 lines' }).click();

  await toStage(page, 'Select shells');
  await expect(page.getByText('Best selection for 3 of 3 mains and 2 of 2 rods, proven.')).toBeVisible();
  // One set a grade: 3.021 with R1 on P1 is wanted twice, so the rods go crosswise, or a set is mixed.
  await choose(page, 'Show', { label: 'Mains' });
  await expect(page.getByTestId('clearance-M1')).toBeVisible();
  await expect(page.getByTestId('clearance-P1')).toBeHidden();
  await choose(page, 'Show', { label: 'Rods' });
  await expect(page.getByTestId('clearance-M1')).toBeHidden();
  await expect(page.getByTestId('clearance-P2')).toBeVisible();
  await choose(page, 'Show', { label: 'Mains and rods' });
  await expect(page.getByTestId('clearance-M3')).toBeVisible();
  await expect(page.getByTestId('clearance-P1')).toBeVisible();

  // No mix at a pin is kept, shown, and obeyed: one grade above and below.
  await page.getByRole('button', { name: /^P1: / }).click();
  await page.getByRole('region', { name: 'Pin 1' }).getByRole('button', { name: 'No mixed pair' }).click();
  await expect(page.getByText('Locked: P1 no mixed pair.')).toBeVisible();
  await acceptBest(page);
  await allSaved(page);
  const { document } = await (await request.get(`/api/jobs/${id}`)).json();
  const { P1, P2 } = document.choice.stations;
  expect(P1.upper.wall).toBe(P1.lower.wall);
  expect([P1.rod, P2.rod].sort()).toEqual([1, 2]);
  await toStage(page, 'Build sheet');
  await expect(page.getByRole('heading', { name: 'Rods, millimetres' })).toBeVisible();
  await expect(page.getByRole('article', { name: 'Build sheet' })).toContainText('R1 K');
});

test('the choosing view says which stock is short', async ({ page, request }) => {
  const shells = reedDocument('x').shells;
  const short = { ...shells, mid: { ...shells.mid!, stock: 4 } };
  const id = await putOnBench(request, reedDocument('Reed 6 short of Mid', 3, { shells: short }));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByText(/One pair of Mid is missing: with it M\d would not be mixed\./)).toBeVisible();
});
