import { expect, test } from '@playwright/test';
import { choose } from './choices.js';
import { allSaved, MARKED_SEDGE_4, putOnBench, reedDocument } from './engines.js';

test('a source counts for the filled rows below it, up to the next one that has its own', async ({ page }) => {
  await page.goto('/new');
  await choose(page, 'Work covers', 'no');
  const source = (name: string) => page.getByLabel(`${name}: source: book and page`);
  await page.getByLabel('Main housing bore: low limit, mm').click();
  for (const range of ['64-64.02', '59.98-60', '.02-.06']) {
    await page.keyboard.type(range);
    await page.keyboard.press('Enter');
  }
  await source('Main oil clearance').fill('other book, p. 9');
  await source('Main housing bore').fill('book, p. 7');
  await source('Main housing bore').press('Tab');
  await expect(source('Main journal')).toHaveValue('book, p. 7');
  await expect(source('Main oil clearance')).toHaveValue('other book, p. 9');
});

test('the setting size is offered from the limits, one reading a part where the fitter starts, and a bare figure is a deviation', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 of few keys'));
  await page.goto(`/engines/${id}/bores`);
  await page.getByRole('button', { name: /^Low / }).click();
  // The focus goes on to the first empty box.
  const first = page.getByLabel('M1 main bore front plane, mm');
  await expect(first).toBeFocused();
  await page.keyboard.type('2');
  await page.keyboard.press('Enter');
  await expect(first).toHaveValue('+2');
  const needle = page.getByRole('button', { name: '+ is a bigger bore' });
  if (await needle.isVisible()) await needle.click();
  await allSaved(page);
  // What is read in one place only is not offered once something is read there.
  await expect(page.getByRole('button', { name: 'One reading a part' })).toBeHidden();
  await page.reload();
  await expect(first).toHaveValue('+2');
});

test('a row of marks is typed without blanks and without its letter, and gets both', async ({ page }) => {
  await page.goto(`/engines/${MARKED_SEDGE_4}/codes`);
  const journals = page.getByLabel(/^Main journals as stamped/);
  const before = await journals.inputValue();
  await journals.fill(before.replace(/^J\s*/u, '').replaceAll(' ', '').toLowerCase());
  await journals.press('Tab');
  await expect(journals).toHaveValue(/^J( \S)+$/u);
  await allSaved(page);
});

test('bands go on from the one before, and the table is filled from them', async ({ page }) => {
  await page.goto('/types');
  await page.getByRole('button', { name: 'New engine type' }).click();
  await page.getByLabel('Main oil clearance: low limit, mm').fill('.02-.06');
  await page.getByLabel('Main oil clearance: source: book and page').fill('book, p. 9');
  await page.getByRole('link', { name: 'Grade marks of the mains' }).click();
  for (const [title, what, row, more] of [
    ['Main bores', 'mark', ['A', '64', '64.006'], 'B-C'],
    ['Main journals', 'mark', ['1', '59.98', '59.986'], '2-3'],
    ['Shell grades, walls', 'grade', ['1', '1.985', '1.988'], '2-4'],
  ] as const) {
    for (const [at, part] of [what, 'from', 'to'].entries()) {
      await page.getByLabel(`${title}, line 1, ${part}`).fill(row[at]!);
    }
    await page.getByLabel(`${title}: next marks`).fill(more);
    await page.getByLabel(`${title}: next marks`).press('Enter');
  }
  await expect(page.getByLabel('Main bores, line 3, to')).toHaveValue('64.018');
  // A mark that is typed by hand begins where the one before ends.
  await page.getByLabel('Main bores, line 4, mark').fill('D');
  await expect(page.getByLabel('Main bores, line 4, from')).toHaveValue('64.018');
  await page.getByLabel('Main bores, line 4, to').fill('64.024');
  await page.getByRole('button', { name: 'Fill from bands' }).click();
  await expect(page.getByRole('button', { name: 'Fill from bands' })).toBeHidden();
  await expect(page.getByLabel('A × 1', { exact: true })).not.toHaveValue('');
});
