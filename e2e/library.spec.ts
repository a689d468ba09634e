import { readFile } from 'node:fs/promises';
import { type EngineType, engineTypeSchema, jobOfType, nanometres } from '@fettle/core';
import { type APIRequestContext, expect, test } from '@playwright/test';
import { acceptBest, choose } from './choices.js';
import { allSaved, enter, putOnBench, SEDGE_TYPE } from './engines.js';
import { toStage } from './stages.js';

/** A copy of the demo's Sedge sheet in the library, under a name of its own. */
async function sedgeCopy(request: APIRequestContext, name: string): Promise<{ id: string; type: EngineType }> {
  const { type } = await (await request.get(`/api/types/${SEDGE_TYPE}`)).json();
  const id = crypto.randomUUID();
  const copy = engineTypeSchema.parse({ ...type, name });
  const answer = await request.put(`/api/types/${id}`, { data: { revision: 0, by: 'Wren', type: copy } });
  expect(answer.status()).toBe(201);
  return { id, type: copy };
}

test('a sheet is found by what stands on it, duplicated, archived, and travels as a file', async ({
  page,
  request,
}) => {
  await sedgeCopy(request, 'Sedge 4 marine');
  await page.goto('/types');
  await page.getByRole('searchbox').fill('marine 60° p. 38');
  await expect(page.getByRole('link', { name: 'Sedge 4 marine' })).toBeVisible();
  await expect(page.getByText('Torque: Main caps')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Reed 6' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Duplicate Sedge 4 marine' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sedge 4 marine (copy)');

  // Out as JSON, changed by hand with a slip, refused with its place; put right, it is in the library.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as JSON' }).click(),
  ]);
  const json = await readFile(await download.path(), 'utf8');
  const bring = (content: string) =>
    page.getByLabel('Engine type file').setInputFiles({
      name: 'sedge.json',
      mimeType: 'application/json',
      buffer: Buffer.from(content),
    });
  await page.goto('/types');
  await bring(json.replace('"high": 64019000', '"high": 64.019'));
  await expect(page.getByRole('alert')).toContainText('sedge.json is not an engine type: /limits/mainBore/high');
  await bring('{ no json');
  await expect(page.getByRole('alert')).toContainText('sedge.json is not JSON');
  await bring(json.replaceAll('Sedge 4 marine (copy)', 'Sedge 4 by file'));
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sedge 4 by file');

  // The table goes out as CSV and comes in again, with one cell changed.
  await page.getByRole('link', { name: 'Grade marks of the mains' }).click();
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const csv = await readFile(await table.path(), 'utf8');
  expect(csv).toBe(',1,2,3\r\nA,Teal,Sand,Plum\r\nB,Sand,Plum,Rust\r\nC,Plum,Rust,Slate\r\n');
  await page.getByLabel('Table file').setInputFiles({
    name: 'mains.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(csv.replace('B,Sand,Plum', 'B,Sand,Plum/Rust')),
  });
  await expect(page.getByLabel('B × 2')).toHaveValue('Plum/Rust');
  await page.getByRole('button', { name: 'Save as revision 2' }).click();
  await expect(page.getByText(/^Revision 2, saved by/)).toBeVisible();
  await page.getByRole('link', { name: 'Revisions' }).click();
  await expect(page.getByRole('cell', { name: 'Mains: table B × 2' })).toBeVisible();

  await page.goto('/types');
  await page.getByRole('button', { name: 'Archive Sedge 4 by file' }).click();
  await expect(page.getByRole('link', { name: 'Sedge 4 by file' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Show the archive' }).click();
  await page.getByRole('button', { name: 'Restore Sedge 4 by file' }).click();
  await expect(page.getByText('No archived types.')).toBeVisible();
});

test('a later revision offers its differences to an engine, and asks where both have changed a limit', async ({
  page,
  request,
}) => {
  const { id, type } = await sedgeCopy(request, 'Sedge 4 revised');
  const job = jobOfType('Sedge 4 on a revised sheet', type, { type: id, revision: 1 }, false);
  const own = { low: nanometres(25_000), high: nanometres(45_000), source: 'this engine’s own card' };
  const engine = await putOnBench(request, { ...job, limits: { ...job.limits, mainClearance: own } });

  await page.goto(`/types/${id}/sheet`);
  const clearance = page.getByRole('group', { name: 'Main oil clearance' });
  await clearance.getByLabel('Low limit, mm').fill('0.022');
  const bore = page.getByRole('group', { name: 'Main housing bore' });
  await bore.getByLabel('High limit, mm').fill('64.018');
  await page.getByRole('link', { name: 'Revisions' }).click();
  await expect(page.getByRole('table', { name: 'Differences' }).getByRole('row')).toHaveCount(3);
  // What was typed can be taken back step by step, dropped changes too.
  await page.getByRole('button', { name: 'Discard changes' }).click();
  await expect(page.getByText('No differences.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('table', { name: 'Differences' }).getByRole('row')).toHaveCount(3);
  // Somebody else saves first: nothing is overwritten unseen.
  const theirs = { ...type, note: 'seen by Teasel' };
  await request.put(`/api/types/${id}`, { data: { revision: 1, by: 'Teasel', type: theirs } });
  // The page may hear of it before the button is pressed, which it then takes away.
  const save = page.getByRole('button', { name: 'Save as revision 2' });
  const said = page.getByRole('alert').getByText('Teasel saved revision 2 after you started from revision 1');
  await expect(save.and(page.locator(':enabled')).or(said).first()).toBeVisible();
  if (!(await said.isVisible())) await save.click({ timeout: 5_000 }).catch(() => undefined);
  await expect(said).toBeVisible();
  await page.getByRole('button', { name: 'Overwrite with mine' }).click();
  await page.getByRole('button', { name: 'Save as revision 3' }).click();
  await expect(page.getByText(/^Revision 3, saved by/)).toBeVisible();
  // Every revision is kept: the second one can be started from again, to be saved or dropped.
  await page.getByRole('button', { name: 'Start again from revision 2' }).click();
  await expect(page.getByText('Changed on this device, not saved yet')).toBeVisible();
  await expect(page.getByRole('table', { name: 'Differences' })).toContainText('seen by Teasel');
  await page.getByRole('button', { name: 'Discard changes' }).click();

  await page.goto(`/engines/${engine}/data`);
  const origin = page.getByRole('region', { name: 'Engine type' });
  await expect(origin).toContainText('the library has revision 3 now');
  await expect(origin.getByRole('table', { name: 'Differences' })).toContainText('64.000 to 64.018 mm');
  await expect(origin.getByText(/Main oil clearance: changed here to 0.025 to 0.045 mm/)).toBeVisible();
  await origin.getByRole('button', { name: 'Take revision 3' }).click();
  await allSaved(page);
  await expect(origin).toContainText('revision 3');
  await expect(bore.getByLabel('High limit, mm')).toHaveValue('64.018');
  await expect(clearance.getByLabel('Low limit, mm')).toHaveValue('0.025');
});

test('a worn journal is told what it cleans up at, and a ground one takes its undersize only', async ({
  page,
  request,
}) => {
  const { id, type } = await sedgeCopy(request, 'Sedge 4 worn');
  const job = jobOfType('Sedge 4 worn', type, { type: id, revision: 1 }, false);
  const slots = { ...job.measuring.slots, mainBore: ['front' as const], mainJournal: ['front-0' as const] };
  const engine = await putOnBench(request, { ...job, measuring: { ...job.measuring, slots } });
  for (let main = 1; main <= 5; main += 1) {
    await enter(request, engine, 'mainBore', main, '64.009');
    await enter(request, engine, 'mainJournal', main, main === 4 ? '59.951' : '59.984');
  }
  await page.goto(`/engines/${engine}/journals`);
  await expect(page.getByText('Ground to 0.25 under (59.726 mm to 59.744 mm) it would clean up')).toBeVisible();
  await expect(page.getByText('(M4) loses at least 0.207 mm')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Shells after grinding' }).getByRole('listitem')).toHaveCount(5);

  // Ground: each journal to size. Standard grades suit nothing; those of the undersize do, and never mix with others.
  for (let main = 1; main <= 5; main += 1) {
    const box = page.getByLabel(`M${main} main journal front, 0°, mm`);
    await box.fill('59.735');
    await box.press('Enter');
  }
  await allSaved(page);
  await expect(page.getByText('it would clean up')).toHaveCount(0);
  await toStage(page, 'Stock');
  await page.getByRole('button', { name: 'Add its standard grades for the mains' }).click();
  await page.getByRole('button', { name: 'Add its 0.25 under grades for the mains' }).click();
  await toStage(page, 'Select shells');
  await expect(page.getByText('Best selection for 5 of 5 mains, proven.')).toBeVisible();
  await page.getByRole('button', { name: /^M4: / }).click();
  const panel = page.getByLabel('Main 4');
  await expect(panel).toContainText('The journal is ground 0.25 under');
  await expect(panel.getByLabel('Arithmetic')).toContainText('0.25 under)');
});

test('another rod with another mark opens the matching again', async ({ page, request }) => {
  const { id, type } = await sedgeCopy(request, 'Sedge 4 rods');
  const job = jobOfType('Sedge 4 with another rod', type, { type: id, revision: 1 }, true);
  const engine = await putOnBench(request, {
    ...job,
    depth: 'codes',
    marks: {
      mainBore: { text: 'B B B B B', first: 'front' },
      mainJournal: { text: 'J 2 2 2 2 2', first: 'front' },
      pin: { text: 'P 1 1 2 2', first: 'front' },
    },
  });
  await page.goto(`/engines/${engine}/codes`);
  // Each rod carries its mark; the row is kept once it is whole.
  await page.getByLabel('Big ends as stamped').fill('K K L');
  await expect(page.getByText('3 marks are typed for 4 stations.')).toBeVisible();
  await page.getByLabel('Big ends as stamped').fill('K K L L');
  await page.getByLabel('Big ends as stamped').press('Enter');
  await allSaved(page);
  await toStage(page, 'Stock');
  await page.getByRole('button', { name: 'Add its standard grades for the mains' }).click();
  await page.getByRole('button', { name: 'Add its standard grades for the rods' }).click();
  await toStage(page, 'Select shells');
  await acceptBest(page);
  await allSaved(page);
  await expect(page.getByRole('button', { name: 'Accepted', exact: true })).toBeVisible();

  await toStage(page, 'Grade marks');
  await expect(page.getByTestId('mark-P3')).toHaveText('2');
  await choose(page, 'Rod', '2');
  await page.getByLabel('Mark of the new rod').fill('L');
  await page.getByRole('button', { name: 'Replace rod' }).click();
  await expect(page.getByText('R2 is a new rod')).toBeVisible();
  await allSaved(page);
  await expect(page.getByRole('button', { name: /^Next: Select shells for P1, P2, P3, P4/ })).toBeVisible();
  await toStage(page, 'Select shells');
  await expect(page.getByText('one differs', { exact: false })).toBeVisible();
});

test('a sheet of many revisions tells them page by page, and stays compared with the one that was picked', async ({
  page,
  request,
}) => {
  const { id, type } = await sedgeCopy(request, 'Sedge 4 of many revisions');
  for (let revision = 1; revision <= 52; revision += 1) {
    const data = { revision, by: 'Wren', type: { ...type, note: `as of ${revision + 1}` } };
    expect((await request.put(`/api/types/${id}`, { data })).status()).toBe(200);
  }
  // Without an answer nothing is said that is not so.
  await page.route('**/revisions*', (route) => route.abort());
  await page.goto(`/types/${id}/compare`);
  await expect(page.getByText('Not known now.')).toBeVisible();
  await expect(page.getByText('Not in the library yet.')).toBeHidden();
  await page.unroute('**/revisions*');
  await page.reload();
  await choose(page, 'Revision', '50');
  const compared = page.getByRole('columnheader', { name: 'Sedge 4 of many revisions, revision 50' });
  await expect(compared).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start again from revision 4', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start again from revision 3', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Show older ones' }).click();
  await expect(page.getByRole('row', { name: /^1 .*first entered/u })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start again from revision 3', exact: true })).toBeVisible();
  await expect(compared).toBeVisible();
  await page.getByRole('button', { name: 'Back to the newest' }).click();
  await expect(page.getByRole('button', { name: 'Start again from revision 52' })).toBeVisible();
  await expect(compared).toBeVisible();
});

test('the form of a new type stays where it is while others change the library', async ({ page, request }) => {
  await page.goto('/types');
  await page.getByRole('button', { name: 'New engine type' }).click();
  const name = page.getByLabel('Name of the type');
  await expect(name).toBeVisible();
  const id = new URL(page.url()).pathname.split('/')[2]!;
  // What is heard as the page begins to listen is looked up once; then somebody else saves a type.
  await page.waitForTimeout(1500);
  await name.focus();
  await name.evaluate((box) => box.setAttribute('data-first', ''));
  const again = page.waitForResponse((answer) => answer.url().endsWith(`/api/types/${id}`) && answer.status() === 404);
  await sedgeCopy(request, 'Sedge 4 of somebody else');
  await again;
  await expect(name).toHaveAttribute('data-first', '');
  await expect(name).toBeFocused();
});
