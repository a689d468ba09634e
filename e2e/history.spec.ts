import { expect, test } from '@playwright/test';
import { allSaved, enter, putOnBench, reedDocument, THIRD_BUILD, um } from './engines.js';

const half = (shell: string, wall: number) => ({ shell, label: `${shell} (Osier)`, wall: um(wall) });

test('an engine that comes back goes on from its last build; how it came apart comes up again at assembly', async ({
  page,
  request,
}) => {
  const station = { upper: half('mid', 1_995), lower: half('mid', 1_995), predicted: um(36), rod: null };
  const choice = { at: new Date().toISOString(), by: 'Wren', stations: { M1: station, M2: station, M3: station } };
  const first = await putOnBench(request, reedDocument('Reed 6 · e2e first', 3, { serial: 'E2E-77', choice }));
  for (const main of [1, 2, 3]) {
    await enter(request, first, 'mainBore', main, '64.010');
    await enter(request, first, 'mainJournal', main, '59.984');
  }
  const { revision } = await (await request.get(`/api/jobs/${first}`)).json();
  const signed = await request.post(`/api/jobs/${first}/sheets`, { data: { by: 'Wren', seen: revision, revision: 1 } });
  expect(signed.status()).toBe(201);

  await page.goto('/new');
  await page.getByLabel('Name, with its number').fill('Reed 6 · e2e second');
  await page.getByLabel('Serial number').fill('e2e-77');
  await expect(page.getByLabel('Earlier build to continue')).toContainText('Reed 6 · e2e first, signed');
  await expect(page.getByText('come from Reed 6 · e2e first')).toBeVisible();
  await expect(page.getByLabel('Data sheet of the library')).toBeHidden();
  await page.getByRole('button', { name: 'Create engine' }).click();
  await expect(page.getByRole('heading', { name: 'M1 as it came apart' })).toBeVisible();
  await allSaved(page);
  const address = page.url();

  // What was fitted stands beside what came out.
  const upper = page.getByRole('region', { name: 'Old upper shell of M1' });
  await expect(upper).toContainText('Fitted: mid (Osier), wall 1.995 mm');
  await upper.getByRole('button', { name: 'One edge worn' }).click();
  await upper.getByLabel('Old wall, mm').fill('1.989');
  await page.getByLabel('Cap arrow').click();
  await page.getByRole('option', { name: 'To the rear' }).click();
  await expect(upper).toContainText('Worn by 0.006 mm');
  await expect(page.getByText('journal: size, taper, barrel, surface')).toBeVisible();
  const lower = page.getByRole('region', { name: 'Old lower shell of M1' });
  await lower.getByRole('button', { name: 'Even wear' }).click();
  await expect(page.getByRole('button', { name: 'M1: described' })).toBeVisible();
  await page.getByLabel('Run since').fill('2000');
  await page.getByLabel('Run since').blur();
  await allSaved(page);

  // Then and now, once a journal is read again.
  const id = /engines\/([^/]+)\//u.exec(address)![1]!;
  await enter(request, id, 'mainJournal', 2, '59.964');
  await page.reload();
  await expect(page.getByRole('table', { name: 'Then and now by station' })).toContainText('+0.020');
  await expect(page.getByLabel('Earlier build')).toContainText('Most worn: M2, 0.020 mm');
  await expect(page.getByLabel('Earlier build')).toContainText('0.010 mm in 1,000 hours');

  await page.goto(address.replace('cameApart', 'assembly'));
  await page.getByRole('button', { name: /^M1: / }).click();
  const checks = page.getByLabel('Checks at M1');
  await expect(checks).toContainText('Cause found: old upper shell one edge worn');
  await expect(checks).toContainText('Cap came off with its arrow to the rear');
  // Undone where it was said, it is no check any more.
  await page.goto(`${address}?station=M1`);
  await page
    .getByRole('region', { name: 'Old upper shell of M1' })
    .getByRole('button', { name: 'One edge worn' })
    .click();
  await allSaved(page);
  await page.goto(address.replace('cameApart', 'assembly'));
  await page.getByRole('button', { name: /^M1: / }).click();
  await expect(page.getByLabel('Checks at M1')).not.toContainText('Cause found');
});

test('what is known is narrowed, goes down to its engines, and counts none that was left out', async ({ page }) => {
  await page.goto('/known');
  const group = page.getByLabel(/^Sedge 4 · mains, Marsh · the engine maker’s, M10 cap bolts, engine oil$/u);
  await expect(group).toContainText('mean of 40 engines');
  await expect(group).toContainText('The next engine:');
  await page.getByRole('link', { name: 'Are the ± honest' }).click();
  await expect(page.getByText(/came within the stated ±/u)).toBeVisible();
  await page.getByRole('link', { name: 'Walls' }).click();
  await expect(page.getByText('Outside the band of their grade:')).toBeVisible();
  // Down to the engines behind one figure, and back to all of them.
  const teal = page.getByRole('link', { name: /engines behind walls of Marsh Teal, lower/u });
  const count = Number(/^\d+/u.exec((await teal.textContent()) ?? '')![0]);
  await teal.click();
  await expect(page.getByText('Only for walls of Marsh Teal, lower.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Leave .* out$/u })).toHaveCount(count);
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(page.getByText('Only for')).toBeHidden();
  await page.getByRole('link', { name: 'Shells used' }).click();
  await page.getByLabel('Delivery time, weeks').fill('8');
  await expect(page.getByRole('table', { name: 'Shells used by grade' })).toContainText('Teal');

  await page.goto('/known/walls?series=None');
  await expect(page.getByText('No engines match these filters.')).toBeVisible();
  await page.goto('/known/walls');

  // A day that is none is said, and narrows nothing.
  await page.getByLabel('From day').fill('June');
  await expect(page.getByText('Enter a date such as 2026-11-30, or leave it blank.')).toBeVisible();
  await page.getByLabel('From day').fill('');

  await page.getByRole('link', { name: 'Engines', exact: true }).last().click();
  const list = page.getByRole('table', { name: 'Engines behind what is known' });
  const name = 'Sedge 4 · no. 1039';
  await list.getByRole('button', { name: `Leave ${name} out` }).click();
  await list.getByLabel('Reason').fill('gauge was dropped');
  await list.getByRole('button', { name: 'Leave out', exact: true }).click();
  await expect(list).toContainText('gauge was dropped');
  await page.getByRole('link', { name: 'Assembly offsets' }).click();
  await expect(group).toContainText('mean of 39 engines');
  await page.getByRole('link', { name: 'Engines', exact: true }).last().click();
  await list.getByRole('button', { name: `Count ${name} again` }).click();
  await expect(list).not.toContainText('gauge was dropped');
});

test('what other engines let expect counts once it is taken over, and no more when it is dropped', async ({
  page,
  request,
}) => {
  const { body } = await request
    .get(`/api/jobs/${THIRD_BUILD}`)
    .then(async (answer) => ({ body: await answer.json() }));
  const fasteners = {
    kind: 'maker',
    name: 'M10 cap bolts',
    lubricant: 'engine oil',
    torque: '',
    figures: [],
    since: null,
  };
  const document = {
    ...body.document,
    name: 'Sedge 4 · e2e expected',
    serial: '',
    fasteners: { ...body.document.fasteners, main: fasteners },
  };
  const id = await putOnBench(request, document);
  await page.goto(`/engines/${id}/trial`);
  const panel = page.getByLabel('Expected from other engines');
  await expect(panel).toContainText('engines of this type with Marsh let expect');
  await panel.getByRole('button', { name: 'Use the offset expected for Marsh' }).click();
  await expect(panel).toContainText('taken over by');
  await expect(page.getByText(/Assembly offset −0\.00\d+ mm/u)).toBeVisible();
  await allSaved(page);
  await page.reload();
  await panel.getByRole('button', { name: 'Stop using the expected offset, Marsh' }).click();
  await expect(panel).toContainText('let expect');
  await expect(page.getByText(/Assembly offset −0\.00\d+ mm/u)).toBeHidden();
});

test('a grinding plan says what costs least, what else would do, and why a size cannot be', async ({
  page,
  request,
}) => {
  const { document } = await (await request.get(`/api/jobs/${THIRD_BUILD}`)).json();
  const id = await putOnBench(request, { ...document, name: 'Sedge 4 · e2e grinding', serial: '', before: null });
  for (const [main, size] of ['59.985', '59.984', '59.962', '59.986', '59.985'].entries()) {
    await enter(request, id, 'mainJournal', main + 1, size);
  }
  await page.goto(`/engines/${id}/journals`);
  await page.getByRole('link', { name: 'Grinding plan' }).first().click();
  const plan = page.getByLabel('Grinding plan, mains');
  // Nothing is priced: it is the shells that are missing, not another shaft.
  await expect(plan).toContainText('Enter the price of a pair of shells');
  await expect(plan).not.toContainText('No size suits');
  await plan.getByLabel('Price of a pair, 0.25 under, mains').fill('35');
  await expect(plan).toContainText('No price for grinding or set-up yet: it counts as 0.');
  await plan.getByLabel('Grinding per journal').fill('20');
  await plan.getByLabel('Set-up per size').fill('50');
  await plan.getByLabel('Price of a pair, standard, mains').fill('30');
  // By hand: five journals, one set-up, five pairs.
  await expect(plan).toContainText('Grind M1, M2, M3, M4, M5 to 0.25 under: 325.00');
  await expect(plan.getByLabel('Sizes ruled out, mains')).toContainText(
    'Not standard for all: M3 too small by 0.034 mm',
  );
  await plan.getByLabel('Journal sizes').click();
  await page.getByRole('option', { name: 'each its own' }).click();
  await expect(plan).toContainText('Grind M3 to 0.25 under; leave M1, M2, M4, M5 at standard: 225.00');
  await plan.getByLabel('Depth of hardening, mm').fill('0.1');
  await expect(plan).toContainText('No size suits all journals');
  // What was typed is still there after a reload.
  await page.reload();
  await expect(plan.getByLabel('Grinding per journal')).toHaveValue('20');
  await plan.getByLabel('Depth of hardening, mm').fill('deep');
  await expect(plan).not.toContainText('No size suits all journals');
});
