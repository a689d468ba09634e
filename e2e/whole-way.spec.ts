import { expect, type Page, test } from '@playwright/test';
import { acceptBest, choose } from './choices.js';
import { allSaved, enter, putOnBench, reedDocument, SAMPHIRE_8, SEDGE_4 } from './engines.js';
import { toStage } from './stages.js';

/** Types one figure a box, going on with Enter only. */
async function typeAlong(page: Page, figures: readonly string[]): Promise<void> {
  for (const figure of figures) {
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
  }
}

const clearanceOf = (page: Page, main: number) => page.getByTestId(`clearance-M${main}`);

test('a new engine goes from its name to a printed sheet, measured by keyboard only', async ({ page }) => {
  await page.addInitScript(() => {
    const counted = window as unknown as { printed: number };
    counted.printed = 0;
    window.print = () => {
      counted.printed += 1;
    };
  });
  await page.goto('/');
  await page.getByLabel('Fitter').fill('Teasel');
  await page.getByRole('button', { name: 'New engine' }).click();

  await page.getByLabel('Name, with its number').fill('Rush Twin · no. 0009');
  await choose(page, 'Work covers', 'no');
  await page.getByLabel('Mains', { exact: true }).fill('3');
  await page.getByLabel('Rods', { exact: true }).fill('2');
  await page.getByRole('textbox', { name: 'Thrust at main' }).fill('2');
  await choose(page, 'Block of', 'aluminium');
  await choose(page, 'Caps of', 'iron');
  const limits: [string, string, string, string][] = [
    ['Main housing bore', '64.000', '64.019', 'Rush book, p. 7'],
    ['Main journal', '59,976', '59,994', 'Rush book, p. 8'],
    ['Main oil clearance', '20 um', '.050', 'Rush book, p. 9'],
  ];
  for (const [name, low, high, source] of limits) {
    const group = page.getByRole('group', { name });
    await group.getByLabel('Low limit').fill(low);
    await group.getByLabel('High limit').fill(high);
    await group.getByLabel('Source').fill(source);
  }
  await page.getByRole('button', { name: 'Create engine' }).click();
  await expect(page.getByRole('heading', { name: 'Rush Twin · no. 0009' })).toBeVisible();
  // The next engine starts from an empty form.
  await page.goto('/new');
  await expect(page.getByLabel('Name, with its number')).toHaveValue('');
  await page.goBack();

  // Bores, two planes, Enter along the shaft; then on by the keyboard to the journals.
  await page.getByRole('button', { name: /^Next: Read the bore/ }).press('Enter');
  await expect(page.getByLabel('M1 main bore front plane, mm')).toBeFocused();
  await typeAlong(page, ['64.012', '64,008', '64.014', '64.012', '64.010', '64.014']);
  await page.getByRole('button', { name: /^Next: Read the journal/ }).press('Enter');
  await expect(page.getByLabel('M1 main journal front, 0°, mm')).toBeFocused();
  await typeAlong(page, ['59.981', '59.984', '59.982', '59.981', '59.986', '59.982']);

  await page.getByRole('button', { name: 'Next: Enter the shells in stock' }).click();
  const family = page.getByRole('group', { name: 'Add shells' });
  await family.getByLabel('Series').fill('Osier');
  await family.getByLabel('First wall, mm').fill('1.992');
  await family.getByLabel('Step').fill('6 um');
  await family.getByLabel('Grades', { exact: true }).fill('2');
  await family.getByLabel('Shells of each').fill('3');
  await family.getByLabel(/Names of the grades/).fill('Thin, Thick');
  await family.getByRole('button', { name: 'Add 4 lines' }).click();

  await toStage(page, 'Select shells');
  await expect(page.getByText('Best selection for 3 of 3 mains, proven.')).toBeVisible();
  // By hand, µm: M1 64 012 − 59 981 − 1 998 − 1 998 = 35; M2 64 009 − 59 985 − 1 998 − 1 992 = 34; M3 64 014 − 59 982 − 3 996 = 36.
  await expect(clearanceOf(page, 1)).toHaveText('0.035');
  await expect(clearanceOf(page, 2)).toHaveText('0.034');
  await expect(clearanceOf(page, 3)).toHaveText('0.036');
  await acceptBest(page);
  await expect(page.getByText('Accepted by Teasel')).toBeVisible();
  await allSaved(page);

  await page.reload();
  await expect(page.getByText('Accepted by Teasel')).toBeVisible();
  await expect(clearanceOf(page, 2)).toHaveText('0.034');
  // The thinner half of the mixed pair stands on the cap side of the aluminium block.
  await page.getByRole('button', { name: /^M2: In limits/ }).click();
  const sum = page.getByRole('table', { name: 'Arithmetic' });
  await expect(sum).toContainText('64.009');
  await expect(sum).toContainText('upper, Thick upper (Osier)');
  await expect(sum).toContainText('lower, Thin lower (Osier)');

  // The usual school measures every station with its shells in; who only sees that it turns says so, and goes on.
  await page.getByRole('button', { name: /^Next: Try M2 first/ }).click();
  await choose(page, 'Trial assembly', 'turns');
  await expect(page.getByRole('button', { name: 'Next: Assemble M2, check by check' })).toBeVisible();
  await toStage(page, 'Build sheet');
  const sheet = page.getByRole('article', { name: 'Build sheet' });
  await expect(
    sheet.getByRole('row', {
      name: /^M2 \(thrust\) 64\.009 ?± 0\.003 59\.985 ?± 0\.003 Thick ?Osier 1\.998 Thin ?Osier 1\.992/,
    }),
  ).toContainText('0.0340');
  await expect(sheet).toContainText('Rush book, p. 9');
  await page.getByRole('button', { name: 'Print build sheet', exact: true }).click();
  await expect.poll(() => page.evaluate(() => (window as unknown as { printed: number }).printed)).toBe(1);
  // On paper the whole shaft stays on the page.
  await page.emulateMedia({ media: 'print' });
  await page.setViewportSize({ width: 680, height: 900 });
  const flange = await sheet.locator('svg rect').nth(1).boundingBox();
  const paper = await sheet.boundingBox();
  expect(flange!.x + flange!.width).toBeLessThanOrEqual(paper!.x + paper!.width);
  // The sheet on one page, its readings on the next.
  const pdf = await page.pdf({ format: 'A4' });
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/gu)).toHaveLength(2);
});

test('the demo engine in inches is choosable, its sums as worked by hand', async ({ page }) => {
  await page.goto(`/engines/${SAMPHIRE_8}/choose`);
  await expect(page.getByText('Best selection for 5 of 5 mains, proven.')).toBeVisible();
  // By hand: M3 bore (2.6410 + 2.6411)/2 = 2.64105, journal (2.4491 + 2.4490 + 2.4491 + 2.4490)/4 = 2.44905,
  // one standard and one extra-clearance half: 2.64105 − 2.44905 − 0.0950 − 0.0945 = 0.0025.
  await expect(clearanceOf(page, 3)).toHaveText('0.00250');
  // M4: 2.6412 − (3 · 2.4487 + 2.4488)/4 − 2 · 0.0950 = 0.002475.
  await expect(clearanceOf(page, 4)).toHaveText('0.00248');
  await page.getByRole('button', { name: /^M3: In limits/ }).click();
  const sum = page.getByRole('table', { name: 'Arithmetic' });
  for (const figure of ['2.64105', '2.44905', '0.0945', '0.0950']) await expect(sum).toContainText(figure);
  await expect(page.getByRole('region', { name: 'Clearance of each pair at M3' }).getByRole('row')).toHaveCount(5);
  await page.getByRole('button', { name: 'Close the detail' }).click();
  // Used and left: 2 of 3 extra-clearance uppers are taken, at M3 and at the rear main with its larger aim.
  await expect(page.getByRole('row', { name: /^Extra clearance upper/ })).toHaveText(/0\.0945·?\d+\d+/);
});

test('the half-measured demo engine is finished from the keyboard', async ({ page }) => {
  await page.goto(`/engines/${SEDGE_4}/choose`);
  await expect(
    page.getByText(/Best selection for 3 of 5 mains, proven\..*M4, M5 not measured yet: left out\./),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Next: Read the journal at M3, M4, M5/ }).press('Enter');
  await expect(page.getByLabel('M4 main journal front, 0°, mm')).toBeFocused();
  await typeAlong(page, ['59.984', '59.980']);
  await page.getByLabel('M3 main journal front, 90°, mm').focus();
  await typeAlong(page, ['59.987', '59.985', '59.981']);
  await page.getByRole('button', { name: 'Next: Select shells for 5 mains' }).press('Enter');
  await expect(page.getByText('Best selection for 5 of 5 mains, proven.')).toBeVisible();
  // By hand, µm: M5 (64 014 + 64 013)/2 − (59 980 + 59 981)/2 = 4 033 over both walls; two Rust at 1 998 leave 37.
  await expect(clearanceOf(page, 5)).toHaveText(/^0\.037/);
  await acceptBest(page);
  await allSaved(page);
  await page.goto('/');
  await expect(page.getByRole('listitem').filter({ hasText: 'no. 0217' })).toContainText('Try M5 first');
});

test('an accepted choice is judged anew when a reading changes, and can be made again', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 read again'));
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  await page.goto(`/engines/${id}/choose`);
  await acceptBest(page);
  await allSaved(page);
  await toStage(page, 'Main journals');
  await page.getByLabel('M2 main journal front, 0°, mm').fill('59.976');
  await page.keyboard.press('Enter');
  await toStage(page, 'Select shells');
  // By hand, µm: 64 010 − 59 976 − 2 · 1 995 = 44 with the accepted halves; with two of 2 000 it is 34.
  await expect(clearanceOf(page, 2)).toHaveText('0.044');
  await expect(page.getByText('the best one differs', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Show the best selection' }).click();
  await expect(clearanceOf(page, 2)).toHaveText('0.034');
  await acceptBest(page);
  await allSaved(page);
  // Every step is in the history, with who did it.
  await page.getByRole('link', { name: 'History' }).click();
  const history = page.getByRole('region', { name: 'History' });
  const done = history.getByRole('listitem').filter({ hasText: 'Unnamed' });
  await expect(done.filter({ hasText: 'M2 journal, front, 0°: 59.985 → 59.976' })).toHaveCount(1);
  await expect(done.filter({ hasText: 'accepted another selection: M2' }).first()).toBeVisible();
});

test('the page of the API is there, without scripts and within its policy', async ({ page }) => {
  await page.goto('/api/docs');
  await expect(page.getByRole('heading', { name: 'Fettle API' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'PATCH /api/jobs/{id}' })).toBeVisible();
  await page.getByRole('link', { name: 'OpenAPI 3.1' }).click();
  await expect(page.locator('body')).toContainText('"openapi":"3.1.0"');
});
