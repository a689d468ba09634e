import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { allSaved, enter, putOnBench, reedDocument, THIRD_BUILD, um } from './engines.js';

const half = (shell: string, wall: number) => ({ shell, label: `${shell} (Osier)`, wall: um(wall) });
const picture = join(import.meta.dirname, '../docs/screenshots/choose.png');

/** An engine of three mains, read and selected. */
async function selectedEngine(request: Parameters<typeof putOnBench>[0], name: string): Promise<string> {
  const station = { upper: half('mid', 1_995), lower: half('mid', 1_995), predicted: um(36), rod: null };
  const choice = { at: new Date().toISOString(), by: 'Wren', stations: { M1: station, M2: station, M3: station } };
  const id = await putOnBench(request, reedDocument(name, 3, { choice }));
  for (const main of [1, 2, 3]) {
    await enter(request, id, 'mainBore', main, '64.010');
    await enter(request, id, 'mainJournal', main, '59.984');
  }
  return id;
}

/** The day at the bench, as the page's clock says it. */
function day(page: Page): Promise<string> {
  return page.evaluate(() => {
    const now = new Date();
    const two = (value: number) => String(value).padStart(2, '0');
    return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  });
}

test('a pressure that is too low stops everything else; what is due comes up on its day, on a closed engine too', async ({
  page,
  request,
}) => {
  const id = await selectedEngine(request, 'Reed 6 · running');
  await page.goto(`/engines/${id}/running`);
  const limits = page.getByRole('region', { name: 'Limits of the oil pressure' });
  await limits.getByText('Oil pressure hot at idle: no limit').click();
  const limit = limits.getByRole('group', { name: 'Limit of the oil pressure hot at idle' });
  await limit.getByLabel('Least').fill('1,2');
  await limit.getByRole('button', { name: 'Save limit' }).click();
  await expect(limit.getByRole('alert')).toHaveText('Enter the source: book and page.');
  // What was typed outlives a reload, saved or not.
  await page.reload();
  await expect(limit.getByLabel('Least')).toHaveValue('1,2');
  await limit.getByLabel('Source').fill('Reed book, p. 41');
  await limit.getByRole('button', { name: 'Save limit' }).click();
  await expect(limits.getByText('Oil pressure hot at idle: at least 1.2 bar')).toBeVisible();

  const form = page.getByRole('group', { name: 'Reading after the build' });
  const save = form.getByRole('button', { name: 'Save reading' });
  await save.click();
  await expect(form.getByRole('alert')).toContainText('Enter a pressure');
  const read = async (idle: string) => {
    await form.getByLabel('Run since the build, h').fill('2');
    await form.getByLabel('Oil pressure hot at idle').fill(idle);
    await save.click();
    await expect(form.getByLabel('Oil pressure hot at idle')).toHaveValue('');
  };
  await read('0.9');
  await expect(page.getByRole('alert').filter({ hasText: 'too low, limit at least 1.2 bar' })).toBeVisible();
  await expect(
    page.getByRole('button', { name: /^Next: Find out why the oil pressure hot at idle is too low/u }),
  ).toBeVisible();
  await read('1.6');
  await expect(page.getByRole('button', { name: /^Next: Find out/u })).toBeHidden();
  await expect(page.getByRole('table', { name: 'Readings after the build' })).toContainText(
    '0.7 bar more than the first',
  );

  const again = page.getByRole('region', { name: 'Re-checks' });
  await again.getByRole('button', { name: 'Add to the list' }).click();
  await expect(page.getByText('Enter the task.')).toBeVisible();
  await again.getByLabel('What', { exact: true }).fill('Look at the rear seal');
  await again.getByLabel('On', { exact: true }).fill(await day(page));
  await again.getByRole('button', { name: 'Add to the list' }).click();
  await expect(page.getByRole('button', { name: 'Next: Look at the rear seal' })).toBeVisible();
  await allSaved(page);

  // Closed, nothing of it stands on a bench: the page of the engines says it.
  const { version } = await (await request.get(`/api/jobs/${id}`)).json();
  expect((await request.delete(`/api/jobs/${id}?version=${version}&by=Wren`)).ok()).toBe(true);
  await page.goto('/');
  const due = page.getByRole('region', { name: 'Due on closed engines' });
  await expect(due).toContainText('Reed 6 · running, closed: Look at the rear seal');
  await due.getByRole('button', { name: 'Reopen Reed 6 · running, to note it' }).click();
  await expect(due).toBeHidden();
  await page.getByRole('button', { name: 'Reed 6 · running, next: Look at the rear seal' }).click();
  await again.getByRole('button', { name: 'Done: Look at the rear seal' }).click();
  await expect(again).toContainText('done, ');
  await expect(page.getByRole('button', { name: 'Next: Look at the rear seal' })).toBeHidden();
});

test('an old shell has its picture, and the customer a report of what was signed', async ({ page, request }) => {
  const id = await selectedEngine(request, 'Reed 6 · reported');
  await page.goto(`/engines/${id}/cameApart?station=M2`);
  const lower = page.getByRole('region', { name: 'Old lower shell of M2' });
  await lower.getByRole('button', { name: 'Wiped' }).click();
  await lower.getByLabel(/^Picture/).setInputFiles(picture);
  await expect(lower.getByRole('img')).toBeVisible();
  await allSaved(page);

  await page.goto(`/engines/${id}/sheet`);
  const report = page.getByRole('region', { name: 'Customer’s report' });
  await expect(report).toContainText('Sign the build sheet first.');
  await report.getByLabel('Refused, and why').fill('The owner keeps the old bolts; we advise against it.');
  await report.getByLabel('Refused, and why').blur();
  await allSaved(page);
  const { revision } = await (await request.get(`/api/jobs/${id}`)).json();
  const signed = await request.post(`/api/jobs/${id}/sheets`, { data: { by: 'Wren', seen: revision, revision: 1 } });
  const { hash } = await signed.json();
  await page.reload();
  const address = await report.getByRole('link', { name: 'Report as PDF' }).getAttribute('href');
  const pdf = await request.get(address!);
  expect([pdf.status(), pdf.headers()['content-type']]).toEqual([200, 'application/pdf']);
  expect((await pdf.body()).length).toBeGreaterThan(readFileSync(picture).length / 20);
  expect(hash).toMatch(/^[0-9a-f]{64}$/u);
  await report.getByText('Name the people who did the work').click();
  await expect(report.getByRole('link', { name: 'Report as PDF' })).toHaveAttribute('href', /names=yes/u);

  // With another name it is no report of what was signed any more.
  const { version } = await (await request.get(`/api/jobs/${id}`)).json();
  const steps = [{ op: 'add', path: '/name', value: 'Reed 6 · reported, renamed' }];
  expect((await request.patch(`/api/jobs/${id}`, { data: { version, by: 'Wren', steps } })).status()).toBe(200);
  await page.reload();
  await expect(report).toContainText(/differs from signed revision 1 in \d+ lines?: sign the engine again first/u);
  await expect(report.getByRole('link', { name: 'Report as PDF' })).toBeHidden();
  expect((await request.get(address!)).status()).toBe(409);
});

test('walls of a grade measured here count only where the fitter says so, marked, and go back with one press', async ({
  page,
}) => {
  await page.goto(`/engines/${THIRD_BUILD}/drawer`);
  const seen = page.getByRole('region', { name: 'Walls measured here' });
  await expect(seen).toContainText(/The workshop has measured walls of \d+ of these grades/u);
  await seen.getByRole('button', { name: 'Use measured walls' }).click();
  await expect(page.getByText('measured here', { exact: true }).first()).toBeVisible();
  await page.goto(`/engines/${THIRD_BUILD}/sheet`);
  await expect(
    page.getByText(/counted with a wall of \S+ mm, as seen in \d+ engines here; the grade says/u).first(),
  ).toBeVisible();
  await page.goto(`/engines/${THIRD_BUILD}/drawer`);
  await seen.getByRole('button', { name: 'Use nominal walls' }).click();
  await expect(page.getByText('measured here', { exact: true })).toHaveCount(0);
  await allSaved(page);
});

test('what will be needed ahead stands against the free stock', async ({ page }) => {
  await page.goto('/known/use');
  const ahead = page.getByRole('region', { name: 'Several engines ahead' });
  await expect(ahead.getByRole('table', { name: 'Shells needed' })).toBeVisible();
  await expect(ahead).toContainText('Filter by engine type alone');
  await page.goto('/known/use?type=Sedge%204');
  await expect(ahead).toContainText(/\d+ open engines? without a selection (is|are) certain/u);
  await ahead.getByLabel('Look ahead, weeks').fill('0');
  await expect(ahead).toContainText('Weeks, above 0, at most 52.');
  await ahead.getByLabel('Look ahead, weeks').fill('1');
  await expect(ahead).toContainText('Delivery takes as long as this period');
});
