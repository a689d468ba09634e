import { readFileSync } from 'node:fs';
import { type JobDocument, nanometres, newJob, usualLayout } from '@fettle/core';
import { type APIRequestContext, expect, type Page, test } from '@playwright/test';
import { allSaved, enter, putOnBench, reedDocument } from './engines.js';

const um = (value: number) => nanometres(Math.round(value * 1000));

/** A twin with two rods that only fit crosswise with the halves on hand. */
async function crosswiseTwin(request: APIRequestContext, name: string): Promise<string> {
  const usual = usualLayout(3, 2, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  const job = newJob(name, 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }, true);
  const half = (family: 'main' | 'rod', grade: string, side: 'upper' | 'lower', wall: number, stock: number) => ({
    family,
    series: 'Osier',
    grade,
    half: side,
    wall: um(wall),
    stock,
    line: null,
  });
  const limit = (low: number, high: number) => ({ low: um(low), high: um(high), source: 'Rush book, p. 9' });
  const document: JobDocument = {
    ...job,
    limits: {
      ...job.limits,
      mainBore: limit(64_000, 64_019),
      mainJournal: limit(59_976, 59_994),
      mainClearance: limit(20, 50),
      bigEnd: limit(51_000, 51_018),
      pin: limit(47_980, 47_998),
      rodClearance: limit(30, 40),
    },
    measuring: {
      ...job.measuring,
      slots: { mainBore: ['front'], mainJournal: ['front-0'], bigEnd: ['front'], pin: ['front-0'] },
    },
    rules: { ...job.rules, mixedHalves: false },
    rods: { 1: { mark: 'K', pin: null }, 2: { mark: 'H', pin: null } },
    shells: {
      'mid-u': half('main', 'Mid', 'upper', 1_995, 6),
      'mid-l': half('main', 'Mid', 'lower', 1_995, 6),
      'thick-u': half('main', 'Thick', 'upper', 1_998, 6),
      'thick-l': half('main', 'Thick', 'lower', 1_998, 6),
      'thin-ru': half('rod', 'Thin', 'upper', 1_490, 1),
      'thin-rl': half('rod', 'Thin', 'lower', 1_490, 1),
      'even-ru': half('rod', 'Even', 'upper', 1_493, 0),
      'even-rl': half('rod', 'Even', 'lower', 1_493, 0),
      'full-ru': half('rod', 'Full', 'upper', 1_496, 1),
      'full-rl': half('rod', 'Full', 'lower', 1_496, 1),
    },
  };
  const id = await putOnBench(request, document);
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await enter(request, id, 'bigEnd', 1, '51.013');
  await enter(request, id, 'bigEnd', 2, '51.007');
  await enter(request, id, 'pin', 1, '47.992');
  await enter(request, id, 'pin', 2, '47.986');
  return id;
}

const matching = (page: Page) => page.getByRole('region', { name: 'Rods on pins' });

test('rods are matched to pins, a refused placement says why, and its remedy puts it right', async ({
  page,
  request,
}) => {
  const id = await crosswiseTwin(request, 'Rush Twin crosswise');
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByText('Best selection for 3 of 3 mains and 2 of 2 rods, proven.')).toBeVisible();
  await expect(matching(page)).toContainText('2 of 4 placements work');
  await page.getByRole('button', { name: 'R1 K' }).click();
  const reasons = page.getByRole('list', { name: 'Where R1 can go' });
  await expect(reasons.getByRole('listitem').nth(0)).toContainText('Even rod upper (Osier)');
  await expect(reasons.getByRole('listitem').nth(1)).toContainText('planned');

  // Kept where it cannot be: the conflict says what is missing, and what would help was checked.
  await page.getByRole('button', { name: 'Lock R1 on P1' }).click();
  const help = page.getByRole('list', { name: 'What would help, checked' });
  await expect(help).toContainText('Let rod R1 leave P1.');
  await expect(help).toContainText('2 × Even rod upper (Osier)');
  await help.getByRole('button', { name: 'They are in stock now' }).click();
  await expect(page.getByText('Best selection for 3 of 3 mains and 2 of 2 rods, proven.')).toBeVisible();
  await expect(page.getByText(/Locked: P1 R1.* locked there\./)).toBeVisible();

  // Everything is undone, one step at a time.
  const undo = page.getByRole('button', { name: /^Undo/ });
  while (await undo.isEnabled()) await undo.click();
  await expect(page.getByText('Best selection for 3 of 3 mains and 2 of 2 rods, proven.')).toBeVisible();
  await expect(page.getByText('Locked:')).toBeHidden();
});

test('a rod is kept on a pin by dragging it there, and by keyboard', async ({ page, request }) => {
  const id = await crosswiseTwin(request, 'Rush Twin dragged');
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByText('2 of 2 rods, proven.')).toBeVisible();
  // Off its middle: a press in the very middle counts as one of a screen reader, which drags by keyboard.
  await page
    .getByRole('button', { name: 'R1 K' })
    .dragTo(matching(page).getByRole('button', { name: /^P2/ }), { sourcePosition: { x: 14, y: 14 } });
  await expect(page.getByText(/Locked: P2 R1.* locked there\./)).toBeVisible();
  await expect(page.getByText('2 of 2 rods, proven.')).toBeVisible();
  // By keyboard: Enter takes the rod up, Tab goes over the pins, Enter puts it there.
  await page.getByRole('button', { name: /^R2 H/ }).focus();
  await page.keyboard.press('Enter');
  const first = matching(page).getByRole('button', { name: /^P1/ });
  for (let tries = 0; tries < 4 && !(await first.evaluate((pin) => pin === document.activeElement)); tries += 1) {
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Locked: P2 R1.* locked there; P1 R2.* locked there/)).toBeVisible();
  await allSaved(page);
  await page.reload();
  await expect(page.getByText(/Locked: P2 R1.* locked there; P1 R2.* locked there/)).toBeVisible();
  await page.getByRole('button', { name: 'Unlock all' }).click();
  await expect(page.getByText('Locked:')).toBeHidden();
  // Space opens a rod; what it shows can be pressed as well.
  await page.getByRole('button', { name: /^R2 H/ }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Lock R2 on P1' }).press('Enter');
  await expect(page.getByText(/Locked: P1 R2.* locked there\./)).toBeVisible();
});

test('holding, forbidding and aiming at a main show the new best choice and what changed', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 played with'));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  await expect(page.getByText('Best selection for 3 of 3 mains, proven.')).toBeVisible();
  await page.getByRole('button', { name: /^M2: / }).click();
  const panel = page.getByRole('region', { name: 'Main 2' });
  await expect(panel).toBeVisible();
  // One touch is one step for Back, and a second touch of the same is none.
  await page.getByRole('button', { name: /^M2: / }).click();
  await page.goBack();
  await expect(panel).toBeHidden();
  await expect(page).toHaveURL(/\/choose$/);
  await page.getByRole('button', { name: /^M2: / }).click();
  await expect(panel.getByText(/Next best here: .* (?:further off|nearer|as near) target on average/)).toBeVisible();
  await panel.getByRole('button', { name: 'Rule out this shell: Mid' }).click();
  await expect(
    page.getByText(/Change from previous: (?:0\.\d+ mm (?:further off|nearer)|as near) target on average; changed: M2/),
  ).toBeVisible();
  await expect(page.getByText('Locked: M2 Mid either (Osier) ruled out.')).toBeVisible();
  await panel.getByRole('button', { name: 'Lock this pair' }).click();
  await expect(page.getByText(/Locked: M2 .* locked; M2 Mid either \(Osier\) ruled out/)).toBeVisible();
  await page.getByRole('button', { name: /^Undo: M2 locked/ }).click();
  await page.getByRole('button', { name: /^Undo: Mid ruled out at M2/ }).click();
  await expect(page.getByText('Locked:')).toBeHidden();
  await panel.getByLabel('Added to target, mm').fill('0.005');
  await panel.getByLabel('Added to target, mm').blur();
  await expect(page.getByText(/Change from previous: .*changed: M2/)).toBeVisible();
});

test('plans stand side by side, and the order can be copied and saved', async ({ page, request, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const id = await crosswiseTwin(request, 'Rush Twin compared');
  await page.goto(`/engines/${id}/choose`);
  await page.getByRole('button', { name: 'Compare selections' }).click();
  const plans = page.getByRole('region', { name: 'Selections side by side' });
  for (const name of ['On hand', 'Anything ordered', 'Not mixed', 'Most even']) {
    await expect(plans.getByRole('columnheader', { name: new RegExp(`^${name}`) })).toBeVisible();
  }
  await page.getByRole('button', { name: 'R1 K' }).click();
  await page.getByRole('button', { name: 'Lock R1 on P1' }).click();
  await expect(plans.getByText('2 × Even rod upper (Osier)')).toBeVisible();
  const saving = page.waitForEvent('download');
  await plans.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await (await saving).path();
  expect(readFileSync(file, 'utf8')).toBe(
    'Count,Shell,Family,Side,Wall\r\n2,Even rod upper (Osier),rod,upper,1.493\r\n2,Even rod lower (Osier),rod,lower,1.493\r\n',
  );
  await plans.getByRole('button', { name: 'Copy the order' }).click();
  await expect(plans.getByRole('button', { name: 'Copied' })).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('2\tEven rod lower (Osier)');
});

test('a compared plan is taken, and a clearance is checked by drawing', async ({ page, request }) => {
  const id = await crosswiseTwin(request, 'Rush Twin taken');
  await page.goto(`/engines/${id}/choose`);
  await page.getByRole('button', { name: 'Compare selections' }).click();
  const plans = page.getByRole('region', { name: 'Selections side by side' });
  await plans.getByRole('button', { name: 'Use this selection: Most even' }).click();
  await expect(page.getByText('Showing the accepted selection')).toBeVisible();
  await expect(page.getByText(/Accepted by/)).toBeVisible();
  await page.getByRole('button', { name: /^M1: / }).click();
  await page.getByRole('button', { name: 'Check ± by simulation' }).click();
  await expect(page.getByText(/Simulated 200,000 times from the uncertainty of each size/)).toBeVisible();
  await page.getByRole('button', { name: 'Where ± comes from: the clearance of M1' }).click();
  const budget = page.getByRole('table', { name: 'Uncertainty of the clearance of M1' });
  // Two walls read with one ball micrometer: its setting counts twice.
  await expect(budget.getByRole('row', { name: /^ball micrometer, setting .*−2 ×/u })).toBeVisible();
  await expect(budget.getByRole('row', { name: /^Together/u })).toContainText('100 %');
  await page.getByRole('button', { name: /^Undo: selection used: Most even/ }).click();
  await expect(page.getByText('Showing the accepted selection')).toBeHidden();
});

test('a drawer of halves that were measured one by one stays quick to choose from: those nearest target come first', async ({
  page,
  request,
}) => {
  const document = reedDocument('Reed 6, each measured');
  const { mid } = document.shells;
  // 65 uppers and 65 lowers, each with a wall of its own.
  const shells = Object.fromEntries(
    Array.from({ length: 130 }, (_, at) => {
      const wall = 1_990 + at / 13;
      return [
        `half-${at}`,
        { ...mid!, grade: `No ${at + 1}`, half: at % 2 === 0 ? 'upper' : 'lower', wall: um(wall), stock: 1 },
      ] as const;
    }),
  ) as JobDocument['shells'];
  const id = await putOnBench(request, { ...document, shells });
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose?station=M2`);
  const panel = page.getByRole('region', { name: 'Main 2', exact: true });
  const pairs = panel.getByRole('region', { name: 'Clearance of each pair at M2' });
  await expect(pairs.getByRole('row')).toHaveCount(61);
  await expect(panel.getByText('60 of 4,225 pairs, those nearest target.')).toBeVisible();
  // The best choice is among them, and told apart.
  await expect(pairs.locator('tr[aria-current="true"]')).toHaveCount(1);
  await panel.getByRole('button', { name: 'Show more pairs' }).click();
  await expect(pairs.getByRole('row')).toHaveCount(241);
  await panel.getByRole('button', { name: 'Close the detail' }).click();
  await expect(page.getByText(/^10\d of 130 shells, the first( and the selected ones)?\.$/u)).toBeVisible();
  await page.goto(`/engines/${id}/drawer`);
  const halves = page.getByRole('table', { name: 'Shells in stock' });
  await expect(halves.getByRole('row')).toHaveCount(101);
  await page.getByRole('button', { name: 'Show more shells' }).click();
  // Of so many only those in sight are drawn; the first of the new ones is in hand.
  await expect(halves).toHaveAttribute('aria-rowcount', '131');
  await expect(halves.locator('tr[data-index="100"]')).toBeFocused();
  expect(await halves.getByRole('row').count()).toBeLessThan(90);
  await halves.locator('..').evaluate((frame) => frame.scrollTo(0, frame.scrollHeight));
  await expect(halves.locator('tr[data-index="129"]')).toBeInViewport();
  await expect(page.getByRole('button', { name: 'Show more shells' })).toBeHidden();
});

test('a lock that keeps a station off target is asked about, and taken off where the fitter says so', async ({
  page,
  request,
}) => {
  const M2 = { upper: 'thin', lower: 'thin', noShells: [], unmixed: false };
  const id = await putOnBench(request, reedDocument('Reed 6 locked', 3, { wishes: { M2 } }));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  // By hand, µm: 64 010 − 59 985 = 4 025; two Thin at 1 990 leave 45, two Mid at 1 995 leave 35, the middle of 20 to 50.
  await expect(page.getByText('M2: Mid would be on target.')).toBeVisible();
  await expect(page.getByText('The locked Thin is 0.0100 mm off target. Unlock M2?')).toBeVisible();
  await page.getByRole('button', { name: 'Unlock M2', exact: true }).click();
  await expect(page.getByTestId('clearance-M2')).toHaveText('0.035');
  await expect(page.getByText('M2: Mid would be on target.')).toBeHidden();
  await allSaved(page);
  await page.getByRole('button', { name: /^Undo/u }).first().click();
  await expect(page.getByText('M2: Mid would be on target.')).toBeVisible();
});
