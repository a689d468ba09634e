import { expect, test } from '@playwright/test';
import { ownServer } from './ownServer.js';

test('the first page says what Fettle does; samples are marked, and one button removes them all', async ({
  browser,
}) => {
  test.setTimeout(120_000);
  const server = await ownServer('samples');
  const page = await (await browser.newContext({ baseURL: server.origin })).newPage();
  await page.goto('/');
  await expect(page.getByText('Fettle selects bearing shells and shims from your measurements')).toBeVisible();
  const engines = page.getByRole('list', { name: 'Engines' });
  await expect(engines.getByText('Sample', { exact: true })).toHaveCount(12);
  // The first engine of one's own asks for a name, once.
  await page.getByRole('button', { name: 'New engine' }).click();
  await page.getByRole('button', { name: 'Create engine' }).click();
  // A form with errors leads to the first of them.
  await expect(page.getByLabel('Name, with its number')).toBeFocused();
  await page.getByLabel('Name, with its number').fill('Reed 6 of our own');
  await page.getByLabel('Your name').fill('Wren');
  await page.getByRole('button', { name: 'Create engine' }).click();
  await expect(page.getByLabel('M1 main bore front plane, mm')).toBeVisible();
  await expect(page.getByLabel('Fitter')).toHaveValue('Wren');
  await page.goto('/new');
  await expect(page.getByLabel('Name, with its number')).toBeVisible();
  await expect(page.getByLabel('Your name')).toBeHidden();

  await page.goto('/');
  await page.getByRole('button', { name: 'Remove all samples' }).click();
  const ask = page.getByRole('group', { name: 'Remove all samples?' });
  await expect(ask).toContainText('Engines can be reopened');
  await ask.getByRole('button', { name: 'Remove samples' }).click();
  await expect(
    page.getByText(
      'Samples removed: 12 engines closed, 2 types archived, 8 instruments retired, 11 kinds of stock removed.',
    ),
  ).toBeVisible();
  await expect(engines.getByRole('heading')).toHaveText(['Reed 6 of our own']);
  await page.reload();
  await expect(engines.getByRole('heading')).toHaveText(['Reed 6 of our own']);
  await expect(page.getByRole('button', { name: 'Remove all samples' })).toBeHidden();
  await page.goto('/drawer');
  await expect(page.getByText('No stock yet.', { exact: false })).toBeVisible();
  await page.context().close();
  await server.stop();
});
