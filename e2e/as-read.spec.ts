import { expect, test } from '@playwright/test';
import { SAMPHIRE_8, toldAlready } from './engines.js';
import { toStage } from './stages.js';

test.beforeEach(({ page }) => toldAlready(page));

test('clearances of an inch engine are shown in thousandths to who wants them, on the page and on the sheet', async ({
  page,
}) => {
  await page.goto(`/engines/${SAMPHIRE_8}/choose`);
  const line = page.getByRole('table', { name: 'Selection by station' });
  const m1 = page.getByTestId('clearance-M1');
  await expect(m1).toHaveText(/^0\.\d{5}$/u);
  const inches = Number(await m1.textContent());
  const choice = page.getByLabel('Inch clearances in thousandths');
  await choice.check();
  // The point moves by three places; the size above it stays in inches.
  await expect(m1).toHaveText((inches * 1000).toFixed(2));
  await expect(line.getByRole('rowheader', { name: 'Clearance thou · off target' })).toBeVisible();
  await expect(line.getByRole('rowheader', { name: 'Bore, in' })).toBeVisible();
  await expect(page.getByText(/off target/u).first()).toContainText('thou');
  await page.reload();
  await expect(m1).toHaveText((inches * 1000).toFixed(2));
  await toStage(page, 'Build sheet');
  const sheet = page.getByRole('article', { name: 'Build sheet' });
  await expect(sheet.getByRole('heading', { name: 'Mains, inches; clearances in thousandths' })).toBeVisible();
  await expect(sheet.getByRole('row', { name: /^Main oil clearance 1\.5 thou 3\.2 thou/u })).toBeVisible();
  await expect(sheet.getByRole('row', { name: /^Main housing bore 2\.6406 in 2\.6416 in/u })).toBeVisible();
  expect(await page.getByRole('link', { name: 'Build sheet as PDF' }).getAttribute('href')).toContain(
    'clearances=thou',
  );
  // Another person at the same device reads inches.
  await page.getByRole('textbox', { name: 'Fitter' }).fill('Teasel');
  await page.getByRole('textbox', { name: 'Fitter' }).press('Tab');
  await expect(choice).not.toBeChecked();
  await expect(sheet.getByRole('heading', { name: 'Mains, inches', exact: true })).toBeVisible();
  await page.getByRole('textbox', { name: 'Fitter' }).fill('');
  await page.getByRole('textbox', { name: 'Fitter' }).press('Tab');
  await choice.uncheck();
});

test('on a phone, where a list has no head, it is sorted by a choice', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/types');
  const table = page.getByRole('table').first();
  await expect(table).toBeVisible();
  await expect(table.getByRole('button', { name: 'Name' })).toHaveCount(0);
  const names = () =>
    table
      .locator('tbody tr')
      .evaluateAll((rows) => rows.map((row) => /^\S+ \S+/u.exec(row.querySelector('td')!.textContent ?? '')?.[0]));
  const sort = page.getByLabel(/^Sort by/u);
  // As listed; then each column, ascending and descending.
  await sort.selectOption({ index: 2 });
  const down = await names();
  await sort.selectOption({ index: 1 });
  expect(await names()).toEqual(down.toReversed());
});

test.describe('a device of another country', () => {
  test.use({ locale: 'de-DE', timezoneId: 'Europe/Berlin' });

  test('writes dates as it does, everywhere the same', async ({ page }) => {
    await page.goto(`/engines/${SAMPHIRE_8}/history`);
    await expect(
      page
        .getByRole('main')
        .getByText(/\d{1,2}\. \p{L}+ \d{4}/u)
        .first(),
    ).toBeVisible();
    await page.goto(`/engines/${SAMPHIRE_8}/sheet`);
    await expect(page.getByRole('article', { name: 'Build sheet' })).toContainText(/\d{2}\.\d{2}\.\d{4}, \d{2}:\d{2}/u);
    expect(await page.getByRole('link', { name: 'Build sheet as PDF' }).getAttribute('href')).toContain('locale=de-DE');
  });
});
