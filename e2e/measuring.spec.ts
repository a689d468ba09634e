import { readFile } from 'node:fs/promises';
import { typeLimitsSchema } from '@fettle/core';
import { expect, test } from '@playwright/test';
import { choose } from './choices.js';
import { allSaved, enter, putOnBench, reedDocument, TRIED_SEDGE_4 } from './engines.js';
import { settled } from './looks.js';
import { toStage } from './stages.js';

test('a figure that cannot be right is kept, explained, and the likely one is a touch away', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 doubt'));
  await page.goto(`/engines/${id}/bores`);
  const first = page.getByLabel('M1 main bore front plane, mm');
  await first.fill('64.510');
  await expect(page.getByText('0.491 mm over what this bore can be. One thimble turn (0.5 mm) off?')).toBeVisible();
  await first.press('Enter');
  await allSaved(page);
  await page.reload();
  await expect(first).toHaveValue('64.510');
  await first.focus();
  await page.getByRole('button', { name: /^Use 64\.010 mm instead/ }).click();
  await expect(first).toHaveValue('64.010');
  await allSaved(page);

  const second = page.getByLabel('M2 main bore front plane, mm');
  await second.fill('64.o1');
  await expect(page.getByText('“64.o1” is not a size.')).toBeVisible();
  await second.press('Enter');
  await allSaved(page);
  await page.reload();
  await expect(second).toHaveValue('64.o1');
  await expect(second).toHaveAttribute('aria-invalid', 'true');
  // It never became a size.
  await toStage(page, 'Select shells');
  await expect(page.getByRole('button', { name: /^M2: Not measured/ })).toBeVisible();
});

test('a figure in hand survives a reload before its box is left', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 reloaded'));
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('M3 main bore front plane, mm').focus();
  await page.keyboard.type('64.0');
  await page.reload();
  // Half a figure is no reading: it waits in its box, in hand, and says so.
  const box = page.getByLabel('M3 main bore front plane, mm');
  await expect(box).toHaveValue('64.0');
  await expect(page.getByText('unfinished')).toBeVisible();
  await expect(box).toBeFocused();
  const kept = async () => (await (await request.get(`/api/jobs/${id}`)).json()).readings;
  expect(await kept()).toEqual([]);
  await page.keyboard.type('13');
  await page.keyboard.press('Enter');
  await expect(page.getByText('unfinished')).toBeHidden();
  await allSaved(page);
  expect(await kept()).toMatchObject([{ text: '64.013', station: 3 }]);
  // Text that cannot be saved as it is stays in its box, with what is wrong, and is not taken for a size.
  await toStage(page, 'Stock');
  const wall = page.getByLabel('Wall of Mid either, mm');
  await wall.fill('-1.9');
  await wall.blur();
  await expect(page.getByText('Enter a wall above 0.')).toBeVisible();
  await page.reload();
  await expect(wall).toHaveValue('-1.9');
  await wall.fill('1.996');
  await wall.blur();
  await allSaved(page);
  expect((await (await request.get(`/api/jobs/${id}`)).json()).document.shells.mid.wall).toBe(1_996_000);
});

test('half a figure that a reload left is not taken over a whole one because somebody went by', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 gone by'));
  await enter(request, id, 'mainBore', 1, '64.012');
  await enter(request, id, 'mainBore', 2, '64.010');
  await page.goto(`/engines/${id}/bores`);
  const box = (main: number) => page.getByLabel(`M${main} main bore front plane, mm`);
  const texts = async () =>
    (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(({ text }: { text: string }) => text).sort();
  await box(2).fill('64.0');
  await page.reload();
  await expect(box(2)).toBeFocused();
  await expect(page.getByText('Unfinished. Enter saves it.')).toBeVisible();
  // By the mouse, by an arrow: it stays what it is.
  await box(3).click();
  await expect(box(3)).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(box(2)).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(box(3)).toBeFocused();
  await expect(box(2)).toHaveValue('64.0');
  await expect(page.getByText('unfinished')).toBeVisible();
  expect(await texts()).toEqual(['64.010', '64.012']);
  // Escape lets it go; a whole one that is typed, or Enter, keeps it.
  await box(2).click();
  await page.keyboard.press('Escape');
  await expect(box(2)).toHaveValue('64.010');
  await expect(page.getByText('unfinished')).toBeHidden();
  await box(2).fill('64.9');
  await expect(page.getByText('instead of 64.010; Escape brings it back')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Back to 64.010' }).click();
  await expect(box(2)).toHaveValue('64.010');
  await expect(page.getByText('unfinished')).toBeHidden();
  await box(2).fill('640.12');
  await page.reload();
  await page.getByRole('button', { name: /^Use 64.012 mm instead/ }).click();
  await expect(box(2)).toHaveValue('64.012');
  await allSaved(page);
  await box(2).fill('64.014');
  await page.reload();
  await expect(box(2)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText('unfinished')).toBeHidden();
  await allSaved(page);
  expect(await texts()).toEqual(['64.012', '64.014']);
  // What somebody else reads at the box in hand is neither left there nor typed: the bar tells what stands.
  await box(2).click();
  const { readings } = await (await request.get(`/api/jobs/${id}`)).json();
  const replaces = readings.find(({ station }: { station: number }) => station === 2).id;
  const again = { ...readings[0], station: 2, text: '64.015', by: 'Teasel', replaces };
  const { id: _, nm: _nm, ...draft } = again;
  const answer = await request.put(`/api/jobs/${id}/readings/${crypto.randomUUID()}`, { data: draft });
  expect(answer.status()).toBe(201);
  await expect(box(2)).toHaveValue('64.015');
  await expect(page.getByText('read by Teasel')).toBeVisible();
  await expect(page.getByText('Unfinished')).toBeHidden();
});

test('what was typed into the data sheet before a reload says that it is not saved yet', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 left'));
  await page.goto(`/engines/${id}/data`);
  const name = page.getByLabel('Name, with its number');
  await name.fill('Reed 6, no 31');
  await expect(page.getByText('Not saved yet: saves on leaving the field.')).toBeHidden();
  await expect(page.getByText('Typed, not saved yet')).toBeVisible();
  await page.reload();
  await expect(name).toHaveValue('Reed 6, no 31');
  await expect(page.getByText('Not saved yet: saves on leaving the field.')).toBeVisible();
  const high = page.getByLabel('Main oil clearance: high limit, mm');
  await high.fill('0.055');
  await page.reload();
  await expect(high).toHaveValue('0.055');
  await expect(page.getByText('not saved yet: leave the row to save it')).toBeVisible();
  await high.focus();
  await name.focus();
  await expect(page.getByText('not saved yet: leave the row to save it')).toBeHidden();
  await name.blur();
  await expect(page.getByText('Not saved yet')).toBeHidden();
  await allSaved(page);
  await expect(page.getByRole('link', { name: 'Reed 6, no 31' }).first()).toBeVisible();
  const { document } = await (await request.get(`/api/jobs/${id}`)).json();
  expect(document.name).toBe('Reed 6, no 31');
  expect(document.limits.mainClearance.high).toBe(55_000);
});

test('deviations, other units and both schools of order work from the keypad', async ({ page, request }) => {
  const base = reedDocument('Reed 6 keypad');
  const id = await putOnBench(request, {
    ...base,
    measuring: { ...base.measuring, slots: { ...base.measuring.slots, mainBore: ['front', 'rear'] } },
  });
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('M1 main bore front plane, mm').fill('+1.2');
  await expect(page.getByText('this row has no setting size', { exact: false })).toBeVisible();
  await page.getByLabel(/^Setting size/).fill('64.000');
  await page.getByLabel(/^Setting size/).blur();
  await page.getByLabel('M1 main bore front plane, mm').fill('+1.2');
  await expect(page.getByText('64.012 mm = 2.52016 in')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('M2 main bore front plane, mm')).toBeFocused();
  await page.keyboard.type('2.52 in');
  await expect(page.getByText('64.008 mm = 2.52000 in')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByLabel('M2 main bore rear plane, mm')).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('M1 main bore rear plane, mm')).toBeFocused();
  await choose(page, 'Enter moves', 'down');
  await page.getByLabel('M2 main bore front plane, mm').focus();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('M2 main bore rear plane, mm')).toBeFocused();
  await page.keyboard.type('64.00');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('M2 main bore rear plane, mm')).toHaveValue('');
  await allSaved(page);
});

test('what is outside the data sheet is blocked, and no shell is chosen for it', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 worn'));
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, main === 2 ? '64.031' : '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByText('M2 outside the data sheet: left out.')).toBeVisible();
  await page.getByRole('button', { name: /^M2: Part out of limits/ }).click();
  await expect(page.getByText('Bore above its limit by 0.012 mm.')).toBeVisible();
});

test('conflicts are explained with what would do', async ({ page, request }) => {
  const base = reedDocument('Reed 6 short');
  const id = await putOnBench(request, { ...base, shells: { mid: { ...base.shells.mid!, stock: 3 } } });
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  // Three mains of two halves with three halves on hand: the smallest group that cannot be served is two mains, one half short.
  await expect(page.getByText(/Too few shells for .*: 1 is missing \(1 × Mid either \(Osier\)\)/)).toBeVisible();
  await expect(page.getByText('Get 3 × Mid either (Osier).')).toBeVisible();
  // The remedy works: three more, and it is chosen.
  await toStage(page, 'Stock');
  await page.getByLabel('Stock of Mid either').fill('6');
  await page.getByLabel('Stock of Mid either').blur();
  await toStage(page, 'Select shells');
  await expect(page.getByText('Best selection for 3 of 3 mains, proven.')).toBeVisible();
});

test('the rules of the choice are the fitter’s own', async ({ page, request }) => {
  const base = reedDocument('Reed 6 with rules');
  const id = await putOnBench(request, base);
  await enter(request, id, 'mainBore', 1, '64.010');
  await enter(request, id, 'mainJournal', 1, '59.982');
  await page.goto(`/engines/${id}/choose`);
  // By hand, µm: 64 010 − 59 982 = 4 028. Mid over Mid leaves 38 (d 3, cost 9); Mid with Thick leaves 33 (d −2, 2 · 4 + 4 mixed = 12).
  await expect(page.getByTestId('clearance-M1')).toHaveText('0.038');
  await toStage(page, 'Stock');
  await page.getByText(/^Two walls in one main up to/).click();
  await page.getByLabel('A mixed main costs, µm²').fill('0');
  await page.getByLabel('A mixed main costs, µm²').blur();
  await page.getByLabel('A shortfall weighs, times').fill('lots');
  await expect(page.getByText('A number from 0 to 1000.')).toBeVisible();
  await page.getByLabel('A shortfall weighs, times').fill('1');
  await page.getByLabel('A shortfall weighs, times').blur();
  await toStage(page, 'Select shells');
  await expect(page.getByTestId('clearance-M1')).toHaveText('0.033');
  await toStage(page, 'Stock');
  await page.getByText(/^Two walls in one main up to/).click();
  await choose(page, 'Two walls in one main', 'no');
  await toStage(page, 'Select shells');
  await expect(page.getByTestId('clearance-M1')).toHaveText('0.038');
});

test('without limits nothing is judged and nothing assumed', async ({ page, request }) => {
  const id = await putOnBench(
    request,
    reedDocument('Reed 6 no book', 3, {
      limits: typeLimitsSchema.parse({}),
    }),
  );
  await enter(request, id, 'mainBore', 1, '64.010');
  await enter(request, id, 'mainJournal', 1, '59.985');
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByText('No oil clearance limits on the data sheet, so nothing can be selected')).toBeVisible();
  await page.getByRole('button', { name: /^M1: Measured/ }).click();
  await expect(
    page.getByText('Not judged, no limits: main housing bore, main journal, main oil clearance.'),
  ).toBeVisible();
  // The sums are there all the same, by hand: 64.010 − 59.985 − 2 · 1.995 = 0.035.
  await expect(page.getByRole('region', { name: 'Clearance of each pair at M1' })).toContainText('0.035');
  await page.getByRole('link', { name: 'Enter the limits' }).click();
  const group = page.getByRole('group', { name: 'Main oil clearance' });
  await group.getByLabel('Low limit').fill('0.05');
  await group.getByLabel('High limit').fill('0.02');
  await group.getByLabel('Source').fill('Reed book');
  await group.getByLabel('Source').blur();
  await expect(group).toContainText('Above the high limit; swap them.');
  await page.reload();
  await expect(group.getByLabel('Low limit')).toHaveValue('0.05');
  await group.getByLabel('Low limit').fill('0.01');
  await group.getByLabel('Low limit').blur();
  await allSaved(page);
  await expect(page.getByRole('button', { name: /^Next: Enter the main bore, main journal limits/ })).toBeVisible();
  // The boxes show what was saved; touching one and leaving it again takes nothing away, also after a reload.
  for (const again of [false, true]) {
    if (again) await page.reload();
    await expect(group.getByLabel('Low limit')).toHaveValue('0.010');
    await expect(group.getByLabel('Source')).toHaveValue('Reed book');
    await group.getByLabel('Low limit').focus();
    await group.getByLabel('Low limit').blur();
    const { document: kept } = await (await request.get(`/api/jobs/${id}`)).json();
    expect(kept.limits.mainClearance).toEqual({ low: 10_000, high: 20_000, source: 'Reed book' });
  }
  // The throws of the drawn shaft are the engine's own.
  const throws = page.getByLabel('Crank throws, degrees, front to rear');
  await throws.fill('0, 400');
  await expect(page.getByText('“400” is not an angle; enter 0 or more, below 360 degrees.')).toBeVisible();
  await page.reload();
  await expect(throws).toHaveValue('0, 400');
  await throws.fill('0 90');
  await throws.blur();
  await expect(throws).toHaveValue('0, 90');
  await allSaved(page);
  const { document } = await (await request.get(`/api/jobs/${id}`)).json();
  expect(document.layout.pins.map((pin: { angle: number }) => pin.angle)).toEqual([0, 90]);
});

test('a needle that goes the other way, a warm block, and why a reading was changed are said and kept', async ({
  page,
  request,
}) => {
  const base = reedDocument('Reed 6 in a warm shop');
  const boreGauge = { ...base.instruments.boreGauge, needle: null };
  const id = await putOnBench(request, { ...base, instruments: { ...base.instruments, boreGauge } });
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('Fitter').fill('Sorrel');
  await page.getByLabel('Setting size, mm (for + and − readings)').fill('64.010');
  await page.getByLabel('Setting size, mm (for + and − readings)').press('Tab');
  await page.getByText(/^How it is read: needle direction not set; not temperature-corrected/).click();
  // One setting for all is the least work; another way can be gone, and Enter follows it.
  const ways = page.getByRole('table', { name: 'Ways of reading 3 housings' });
  await expect(
    ways.getByRole('row', { name: /^set once on a setting size 1 1 along the shaft as set now/ }),
  ).toBeVisible();
  await expect(ways.getByRole('row', { name: /^zeroed in each bore, .* 3 5 down each/ })).toBeVisible();
  const first = page.getByLabel('M1 main bore front plane, mm');
  await first.fill('+0.4');
  // Which way the needle goes is asked once, when it first counts, and never assumed.
  await expect(page.getByText('the needle direction is not set', { exact: false })).toBeVisible();
  await first.press('Enter');
  await page.getByRole('button', { name: '+ is a smaller bore' }).click();
  await expect(page.getByText('Which way does the needle of the bore gauge go?')).toBeHidden();
  await expect(page.getByText(/^How it is read: \+ is a smaller bore/)).toBeVisible();
  // By hand: 0.4 hundredths the other way.
  await first.focus();
  await expect(page.getByText('smaller by 0.004 mm than 64.010 mm')).toBeVisible();
  await page.getByLabel('The bores are at, °C').fill('30');
  await page.getByLabel('The bores are at, °C').press('Tab');
  await expect(page.getByText(/bores at 30 °C, instrument at 20 °C: sizes are shown at 20 °C/)).toBeVisible();
  await page.getByLabel('M2 main bore front plane, mm').fill('64.016');
  await page.keyboard.press('Enter');
  await allSaved(page);
  // By hand: iron, 64.016 less 64.016 · 10.5e-6 · 10 K is 64.00928; M1 was read before, as it is.
  await expect(page.getByText('mean at 20 °C, mm')).toBeVisible();
  await expect(page.getByText('64.0093')).toBeVisible();
  await expect(page.getByText('64.0060')).toBeVisible();

  await first.focus();
  await choose(page, 'Reason for change', 'misread');
  await first.fill('64.008');
  await first.press('Enter');
  await allSaved(page);
  await page.getByRole('link', { name: 'History' }).click();
  await expect(page.getByText('M1 bore, front plane: +0.4 → 64.008 (misread)')).toBeVisible();
});

test('readings go out as a file and come back, row by row before any is kept', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 read elsewhere'));
  await enter(request, id, 'mainBore', 1, '64.010');
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const file = page.getByRole('region', { name: 'Readings as a file' });
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    file.getByRole('button', { name: 'Readings as CSV' }).click(),
  ]);
  const text = await readFile(await saved.path(), 'utf8');
  expect(text).toContain('M1,Main bore,Front plane,64.010,,64.010 mm');
  const back = Buffer.from(
    `${text.replace('64.010,', '64.012,')}M2,Main bore,Front plane,64.008\r\nM9,Main bore,Front plane,64.008\r\n`,
  );
  await file.getByLabel('Readings file').setInputFiles({ name: 'read.csv', mimeType: 'text/csv', buffer: back });
  await expect(file.getByText('2 of 3 rows of read.csv can be read')).toBeVisible();
  const rows = file.getByRole('table', { name: 'Rows of the file' });
  await expect(rows.getByRole('row', { name: /^2 M1 bore/ })).toContainText('Takes the place of 64.010');
  await expect(rows.getByRole('row', { name: /^3 M2 bore/ })).toContainText('New');
  await expect(rows.getByRole('row', { name: /^4/ })).toContainText('Part: “M9” is not one of M1 to M3');
  // Nothing is kept before it is asked for.
  await expect(page.getByLabel('M1 main bore front plane, mm')).toHaveValue('64.010');
  await file.getByRole('button', { name: 'Save 2 readings' }).click();
  await expect(page.getByLabel('M1 main bore front plane, mm')).toHaveValue('64.012');
  await expect(page.getByLabel('M2 main bore front plane, mm')).toHaveValue('64.008');
  await allSaved(page);

  // The same as XLSX: what it holds is what is there.
  const [sheet] = await Promise.all([
    page.waitForEvent('download'),
    file.getByRole('button', { name: 'Readings as XLSX' }).click(),
  ]);
  const buffer = await readFile(await sheet.path());
  const mimeType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
  await file.getByLabel('Readings file').setInputFiles({ name: 'read.xlsx', mimeType, buffer });
  await expect(file.getByText('2 of 2 rows of read.xlsx can be read')).toBeVisible();
  await expect(rows.getByText('Unchanged')).toHaveCount(2);
  await file
    .getByLabel('Readings file')
    .setInputFiles({ name: 'no.csv', mimeType: 'text/csv', buffer: Buffer.from('a,b\r\n1,2') });
  await expect(file.getByText('Its first row lacks Part, Feature, Where, Reading.')).toBeVisible();
});

test('on a phone one large box is shown at a time, the next on the way with Enter', async ({ page, request }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  const id = await putOnBench(request, reedDocument('Reed 6 at the vise'));
  await enter(request, id, 'mainBore', 1, '64.010');
  await page.goto(`/engines/${id}/bores`);
  const inHand = page.getByRole('region', { name: 'Current field' });
  // The first that is empty; nothing is wider than the screen, and nothing is too small for a thumb.
  await expect(inHand).toContainText('M2 bore');
  await expect(inHand).toContainText('2 of 3');
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  const box = await inHand.getByRole('textbox').boundingBox();
  expect(box!.height).toBeGreaterThanOrEqual(44);
  await inHand.getByRole('textbox').fill('64.011');
  await page.keyboard.press('Enter');
  await expect(inHand).toContainText('M3 bore');
  await page.keyboard.type('63.5');
  await expect(page.getByText('One thimble turn (0.5 mm) off?')).toBeVisible();
  await inHand.getByRole('button', { name: 'Previous field' }).click();
  await expect(inHand.getByRole('textbox')).toHaveValue('64.011');
  await allSaved(page);
  const { readings } = await (await request.get(`/api/jobs/${id}`)).json();
  expect(readings.map(({ text }: { text: string }) => text).sort()).toEqual(['63.5', '64.010', '64.011']);
  // Turned on its side it shows the shaft with all boxes, and only them; and back.
  for (const [width, boxes, inOne] of [
    [1280, 3, 0],
    [390, 1, 1],
  ] as const) {
    await page.setViewportSize({ width, height: 800 });
    await expect(page.locator('input[data-reading]')).toHaveCount(boxes);
    await expect(inHand).toHaveCount(inOne);
  }
  for (const other of ['/', `/engines/${TRIED_SEDGE_4}/trial`, `/engines/${TRIED_SEDGE_4}/runout`]) {
    await page.goto(other);
    await settled(page);
    expect(await page.evaluate(() => document.documentElement.scrollWidth), other).toBeLessThanOrEqual(390);
  }
});

test('a gauge with a data button types into the box in hand; digits that lack and an instrument that does not reach are told', async ({
  page,
  request,
}) => {
  const blank = reedDocument('Reed 6 on a cable', 5);
  const { boreGauge } = blank.instruments;
  const range = { low: 50_000_000, high: 64_012_000 } as typeof boreGauge.range;
  const id = await putOnBench(request, {
    ...blank,
    instruments: { ...blank.instruments, boreGauge: { ...boreGauge, name: 'gauge 7', range } },
  });
  await page.goto(`/engines/${id}/bores`);
  await page.getByText('Gauge with data cable: none').click();
  await page.getByRole('button', { name: 'Simulated gauge' }).click();
  const press = page.getByRole('button', { name: 'Press its data button' });
  await press.click();
  await expect(page.getByText('no field is selected: select one first', { exact: false })).toBeVisible();
  await page.getByLabel('M1 main bore front plane, mm').focus();
  await press.click();
  await press.click();
  await expect(page.getByLabel('M1 main bore front plane, mm')).toHaveValue(/^64\.0\d\d$/u);
  await expect(page.getByLabel('M2 main bore front plane, mm')).toHaveValue(/^64\.0\d\d$/u);
  await expect(page.getByLabel('M3 main bore front plane, mm')).toBeFocused();
  // A line that is not as it was set is told, and types nothing.
  const line = page.getByLabel('A line it sends, with # for the figure');
  const before = await line.inputValue();
  await line.fill('01A');
  await expect(page.getByText('Put one # where the figure goes.')).toBeVisible();
  await expect(page.getByText('Typed, not saved yet')).toBeVisible();
  await line.fill(before);
  await page.getByRole('button', { name: 'Disconnect' }).click();

  const third = page.getByLabel('M3 main bore front plane, mm');
  await third.fill('64.0');
  await expect(page.getByText('Fewer digits than the other readings')).toBeVisible();
  await third.press('Enter');
  await expect(page.getByText('digit missing?', { exact: true })).toBeVisible();
  await page.getByLabel('M4 main bore front plane, mm').fill('64.015');
  await expect(page.getByText('0.003 mm over gauge 7’s range')).toBeVisible();
  await page.getByLabel('M4 main bore front plane, mm').press('Enter');
  await allSaved(page);
});

test('a deviation keeps the setting it was taken on, and another setting is asked about', async ({ page, request }) => {
  const blank = reedDocument('Reed 6 set anew');
  const mainBore = 64_010_000 as (typeof blank.measuring.setting)['mainBore'];
  const setting = { ...blank.measuring.setting, mainBore };
  const id = await putOnBench(request, { ...blank, measuring: { ...blank.measuring, setting } });
  const sizes = async () =>
    Object.fromEntries(
      (await (await request.get(`/api/jobs/${id}`)).json()).readings.map((one: { station: number; nm: number }) => [
        one.station,
        one.nm,
      ]),
    );
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('M1 main bore front plane, mm').fill('+0.2');
  await page.getByLabel('M1 main bore front plane, mm').press('Enter');
  await page.keyboard.type('+0.3');
  await page.keyboard.press('Enter');
  await allSaved(page);
  const box = page.getByLabel('Setting size, mm (for + and − readings)');
  await box.fill('64.014');
  await box.press('Enter');
  await expect(page.getByText('2 deviations were typed for bores on 64.010 mm')).toBeVisible();
  await expect(page.getByText('64.012 on 64.010')).toBeVisible();
  // Touching the box and leaving it changes nothing; typing the same again takes the new setting.
  await page.getByLabel('M1 main bore front plane, mm').focus();
  await page.getByLabel('M2 main bore front plane, mm').focus();
  await allSaved(page);
  expect(await sizes()).toEqual({ 1: 64_012_000, 2: 64_013_000 });
  await page.getByLabel('M1 main bore front plane, mm').fill('');
  await page.getByLabel('M1 main bore front plane, mm').fill('+0.2');
  await page.getByLabel('M1 main bore front plane, mm').press('Enter');
  await expect(page.getByText('One deviation was typed for bores on 64.010 mm')).toBeVisible();
  await allSaved(page);
  expect(await sizes()).toEqual({ 1: 64_016_000, 2: 64_013_000 });
  await page.getByRole('button', { name: 'Count it from 64.014 mm' }).click();
  await expect(page.getByText('typed for bores on 64.010 mm')).toBeHidden();
  await allSaved(page);
  expect(await sizes()).toEqual({ 1: 64_016_000, 2: 64_017_000 });
  await box.fill('64.010');
  await box.press('Enter');
  await page.getByRole('button', { name: 'Leave them on 64.014 mm' }).click();
  await page.reload();
  await expect(page.getByText('64.016 on 64.014')).toBeVisible();
  await expect(page.getByText('typed for bores on')).toBeHidden();
});
