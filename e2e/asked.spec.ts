import { nanometres } from '@fettle/core';
import { expect, test } from '@playwright/test';
import { choose } from './choices.js';
import { allSaved, BURR_2, enter, putOnBench, reedDocument } from './engines.js';
import { toStage } from './stages.js';

const um = (value: number) => nanometres(value * 1000);
const BOOK = 'Reed book, p. 7';

test('caps are asked about once at the bores, the answer stays and stands on the sheet; a bore outside stops the work', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with its caps on'));
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('Fitter').fill('Sorrel');
  await expect(page.getByText('Before you read: are the caps on, without shells?')).toBeVisible();
  await page.getByRole('button', { name: 'Caps on and torqued' }).click();
  await expect(page.getByText(/^Caps in their places and directions, lubricated and torqued: Sorrel/)).toBeVisible();
  await page.getByLabel('M1 main bore front plane, mm').fill('64.031');
  await page.keyboard.press('Enter');
  await expect(page.getByText('A bore outside its limits stops the work: no shell cures it.')).toBeVisible();
  await allSaved(page);
  await page.reload();
  await expect(page.getByText(/^Caps in their places and directions, lubricated and torqued: Sorrel/)).toBeVisible();
  await expect(page.getByText('Before you read')).toBeHidden();
  await page.goto(`/engines/${id}/sheet`);
  await expect(page.getByText(/in place, lubricated, torqued: Sorrel/)).toBeVisible();
  // Taken back, it is asked again.
  await page.goto(`/engines/${id}/bores`);
  await page.getByRole('button', { name: 'Undo: caps while the bores are read' }).click();
  await expect(page.getByRole('button', { name: 'Caps on and torqued' })).toBeVisible();
});

test('a main off the line of its neighbours is told at the bores', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 off its line'));
  for (const [at, bore] of ['64.002', '64.018', '64.002'].entries()) await enter(request, id, 'mainBore', at + 1, bore);
  await page.goto(`/engines/${id}/bores`);
  await expect(page.getByText(/M2.*0\.016 mm above the line of M1 and M3/)).toBeVisible();
});

test('an engine for hard use is offered the loose side, and its sheet says what it is built for', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 for towing'));
  await page.goto(`/engines/${id}/data`);
  await page.getByLabel('Fitter').fill('Sorrel');
  await choose(page, 'Built for', 'hard');
  await page.getByRole('button', { name: 'Use the loose side' }).click();
  await expect(page.getByText('For hard use many fitters choose the loose side')).toBeHidden();
  await allSaved(page);
  // By hand: three quarters from 0.020 to 0.050.
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/sheet`);
  await expect(page.getByText('hard use: long full load, racing, towing')).toBeVisible();
  await expect(page.getByText('loose side: three quarters up the limits')).toBeVisible();
  await expect(page.getByRole('row', { name: /^M1 / }).first()).toContainText('0.0425');
});

test('a spread can be asked of some mains only, and a main that is none is told', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with front mains alike'));
  await page.goto(`/engines/${id}/drawer`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const rules = page.getByRole('region', { name: 'Selection rules' });
  await rules.locator('summary').click();
  await rules.getByLabel('Largest spread, mm').fill('0.005');
  await rules.getByLabel('Spread among mains, as 1-3; empty for all').fill('1-4');
  await rules.getByLabel('Spread among mains, as 1-3; empty for all').press('Tab');
  await expect(rules.getByText('No main 4: the shaft has 3.', { exact: false })).toBeVisible();
  await rules.getByLabel('Spread among mains, as 1-3; empty for all').fill('2 1');
  await rules.getByLabel('Spread among mains, as 1-3; empty for all').press('Tab');
  await expect(rules.locator('summary')).toContainText('spread of the mains 1-2 at most 0.005 mm');
});

test('walls that can hardly be right are asked about before they are added', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with slipped walls'));
  await page.goto(`/engines/${id}/drawer`);
  await page.getByLabel('Fitter').fill('Sorrel');
  await page.getByRole('button', { name: 'Add shells' }).click();
  const form = page.getByRole('group', { name: 'Add shells' });
  await form.getByLabel('Series').fill('Sorrel box');
  await form.getByLabel('First wall, mm').fill('19.92');
  await form.getByLabel('Step, mm').fill('0.003');
  await form.getByLabel('Grades', { exact: true }).fill('2');
  await expect(form.getByText('19.92 can hardly be right here', { exact: false })).toBeVisible();
  await form.getByRole('button', { name: /^Add/ }).click();
  // Nothing was added: it is still asked.
  await expect(form).toBeVisible();
  await form.getByRole('button', { name: 'It is 1.992' }).click();
  await form.getByRole('button', { name: /^Add/ }).click();
  await expect(form).toBeHidden();
  await allSaved(page);

  await page.goto('/drawer');
  await page.getByRole('button', { name: 'Open Plum upper' }).click();
  const wall = page.getByLabel(/^Wall of .*Plum upper.*, mm$/);
  await wall.fill('0.1995');
  await wall.press('Tab');
  await expect(page.getByText('0.1995 can hardly be right here', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'It is 1.995' }).click();
  await expect(wall).toHaveValue('1.995');
});

test('limits and the quick sum ask about figures that can hardly be right', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with a slipped limit'));
  await page.goto(`/engines/${id}/data`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const high = page.getByLabel('Main oil clearance: high limit, mm');
  await high.fill('5');
  await expect(page.getByText('5.000 mm for oil clearance? Check the book.')).toBeVisible();
  await page.getByRole('button', { name: 'It is 0.050' }).click();
  await expect(high).toHaveValue('0.050');
  await expect(page.getByText('Check the book.')).toBeHidden();

  await page.goto('/sum?bore=64.010&journal=59.980&upper=1.995&lower=19.98&low=0.020&high=0.050&step=0.003');
  await expect(page.getByText('is no oil clearance: a figure is wrong.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'It is 1.998 mm' }).first().click();
  await expect(page).toHaveURL(/lower=1\.998/);
  await expect(page.getByText('a figure is wrong', { exact: false })).toBeHidden();
});

test('an end play that can hardly be right is asked about before it is kept', async ({ page, request }) => {
  const job = reedDocument('Reed 6 with a slipped dial');
  const limit = { low: um(100), high: um(200), source: BOOK };
  const id = await putOnBench(request, { ...job, limits: { ...job.limits, endPlay: limit } });
  await page.goto(`/engines/${id}/endPlay`);
  await page.getByLabel('Fitter').fill('Sorrel');
  await page.getByLabel('End play, mm').fill('1.5');
  await page.getByRole('button', { name: 'Save reading' }).click();
  await expect(page.getByText('1.500 mm is far above the limits.')).toBeVisible();
  await expect(page.getByRole('table', { name: 'End play readings' })).toBeHidden();
  await page.getByRole('button', { name: /It is 0\.150 mm/ }).click();
  await page.getByRole('button', { name: 'Save reading' }).click();
  await expect(page.getByRole('table', { name: 'End play readings' })).toContainText('0.150 mm');
});

test('white metal: what to take from each side is said, and where the shims end', async ({ page, request }) => {
  const job = reedDocument('Burr 2 of white metal, worn', 3, {
    withRods: true,
  });
  const id = await putOnBench(request, {
    ...job,
    limits: { ...job.limits, rodClearance: { low: um(30), high: um(60), source: BOOK } },
    crush: { ...job.crush, kind: 'saddle' },
  });
  await page.goto(`/engines/${id}/crush`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const verdict = page.getByRole('region', { name: 'Result' });
  await page.getByLabel('M1 left: shim there now; 0 for none, mm').fill('0.2');
  await page.getByLabel('M1 right: shim there now; 0 for none, mm').fill('0.2');
  await page.getByLabel('M1: oil clearance, mm').fill('0.135');
  await page.getByLabel('M1: oil clearance, mm').press('Tab');
  // By hand: 0.135 less the middle, 0.035.
  await expect(verdict).toContainText(
    'take 0.100 mm from each side, which leaves 0.100 mm of shim at the left and 0.100 mm',
  );
  await page.getByLabel('M1 left: shim there now; 0 for none, mm').fill('0.05');
  await page.getByLabel('M1 left: shim there now; 0 for none, mm').press('Tab');
  await expect(verdict).toContainText(
    'Shims are not enough: with all of them out, 0.050 mm more must come off the joint faces',
  );

  // Big ends of white metal are joints of their own, judged by the rods’ clearance.
  await page.goto(`/engines/${id}/data`);
  await choose(page, 'Joints of the big ends', 'saddle');
  await toStage(page, 'Crush');
  await page.getByRole('button', { name: 'Joint R1, not read' }).click();
  await page.getByLabel('R1: oil clearance, mm').fill('0.080');
  await page.getByLabel('R1: oil clearance, mm').press('Tab');
  await expect(verdict).toContainText('take 0.035 mm from each side');
  await expect(verdict).toContainText(BOOK);
});

test('crush of shims is read at both faces and dressed by a plan; plain shells have theirs recorded too', async ({
  page,
  request,
}) => {
  const job = reedDocument('Burr 2 with much crush');
  const id = await putOnBench(request, {
    ...job,
    limits: { ...job.limits, crush: { low: um(75), high: um(150), source: BOOK } },
    crush: { ...job.crush, kind: 'split-line' },
  });
  await page.goto(`/engines/${id}/crush`);
  await page.getByLabel('Fitter').fill('Sorrel');
  for (const side of ['left', 'right']) {
    await page.getByLabel(`M1 ${side}: feeler that goes in, mm`).fill('0.10');
    await page.getByLabel(`M1 ${side}: next one, which does not, mm`).fill('0.11');
    await page.getByLabel(`M1 ${side}: other face of the shim: goes in, mm`).fill('0.06');
    await page.getByLabel(`M1 ${side}: other face: does not, mm`).fill('0.07');
    await page.getByLabel(`M1 ${side}: shim there now; 0 for none, mm`).fill('0.30');
  }
  await page.getByLabel('M1 right: shim there now; 0 for none, mm').press('Tab');
  const verdict = page.getByRole('region', { name: 'Result' });
  // By hand: 0.10 + 0.06 and 0.11 + 0.07; their middle 0.170 less that of the limits, 0.1125.
  // The table's columns share their decimals, and a pass leaves a crush of five of them.
  await expect(verdict).toContainText('0.160 mm to 0.180 mm');
  await expect(verdict).toContainText('Dress the shims: 0.0575 mm in all, half from each side');
  await expect(verdict.getByRole('table', { name: 'Dressing plan' }).getByRole('row').last()).toContainText(
    '0.11250 mm',
  );

  await page.goto(`/engines/${id}/data`);
  await choose(page, 'Joints of the mains', 'plain');
  await toStage(page, 'Crush');
  await page.getByRole('button', { name: 'Joint M2, not read' }).click();
  await expect(page.getByLabel('M2 left: feeler that goes in, mm')).toBeVisible();
  await expect(page.getByLabel('M2 left: shim there now; 0 for none, mm')).toHaveCount(0);
  for (const side of ['left', 'right']) {
    await page.getByLabel(`M2 ${side}: feeler that goes in, mm`).fill('0.04');
    await page.getByLabel(`M2 ${side}: next one, which does not, mm`).fill('0.05');
  }
  await page.getByLabel('M2 right: next one, which does not, mm').press('Tab');
  await expect(verdict).toContainText('0.0675 mm under the target. With too little crush the shell can turn');
  await allSaved(page);
  await page.goto(`/engines/${id}/sheet`);
  await expect(
    page.getByRole('table', { name: 'Crush of the shells' }).getByRole('row', { name: /^M2/ }),
  ).toContainText('0.040 mm to 0.050 mm');
});

test('a strip as the only method is judged, and at a rod the rings are asked about', async ({ page, request }) => {
  await page.goto(`/engines/${BURR_2}/trial?station=M1`);
  const strip = page.getByRole('region', { name: 'Gauging strip at M1' });
  await expect(strip).toContainText('by strip only');
  await expect(strip.getByText('No piece', { exact: false })).toHaveCount(0);

  const job = reedDocument('Reed 6 with strips at its rods', 3, { withRods: true });
  const id = await putOnBench(request, {
    ...job,
    limits: { ...job.limits, rodClearance: { low: um(30), high: um(80), source: BOOK } },
  });
  await page.goto(`/engines/${id}/trial?station=P1`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const rod = page.getByRole('region', { name: 'Gauging strip at P1' });
  await rod.getByLabel(/^Strip’s diameter/).fill('0.15');
  await rod.getByLabel(/^Strip’s diameter/).press('Tab');
  await rod.getByLabel(/^Width, front end/).fill('0.32');
  await rod.getByLabel(/^Width, front end/).press('Tab');
  await expect(rod).toContainText('by strip only');
  await page.goto(`/engines/${id}/sheet`);
  await expect(page.getByText('Not recorded that the piston rings were off: P1.')).toBeVisible();
  await page.goto(`/engines/${id}/trial?station=P1`);
  await rod.getByText('No piston rings on', { exact: false }).click();
  await allSaved(page);
  await page.goto(`/engines/${id}/sheet`);
  await expect(page.getByRole('table', { name: 'Gauging strips' })).toBeVisible();
  await expect(page.getByText('Not recorded that the piston rings were off')).toHaveCount(0);
});
