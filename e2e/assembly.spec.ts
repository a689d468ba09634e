import { join } from 'node:path';
import { readBuildSheet } from '@fettle/core';
import { expect, type Locator, type Page, test } from '@playwright/test';
import { allInOrder, touch } from './checks.js';
import { acceptBest, choose } from './choices.js';
import { ASSEMBLED_SEDGE_4, allSaved, putOnBench, reedDocument, SEDGE_TYPE } from './engines.js';
import { toStage } from './stages.js';

const PICTURE = join(import.meta.dirname, '../docs/screenshots/choose.png');

/** Opens a stage and types one figure a box from its first one on, going on with Enter only. */
async function readAll(
  page: Page,
  stage: Parameters<typeof toStage>[1],
  first: string,
  figures: readonly string[],
): Promise<void> {
  await toStage(page, stage);
  await page.getByLabel(first).focus();
  for (const figure of figures) {
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
  }
}

/** Touches the first of some buttons until there is none left. */
async function pressAll(buttons: Locator): Promise<number> {
  let pressed = 0;
  await expect(buttons.first()).toBeVisible();
  while ((await buttons.count()) > 0) {
    expect(pressed).toBeLessThan(200);
    await buttons.first().click();
    pressed += 1;
  }
  return pressed;
}

test('a whole engine, mains, rods and thrust, goes from its data sheet to a signed sheet', async ({ page }) => {
  test.setTimeout(180_000);
  await page.goto(`/types/${SEDGE_TYPE}/sheet`);
  await page.getByLabel('Fitter').fill('Wren');
  await page.getByRole('button', { name: 'New engine of this type' }).click();
  await page.getByLabel('Name, with its number').fill('Sedge 4 · no. 0777');
  await choose(page, 'Work covers', 'yes');
  await page.getByRole('button', { name: 'Create engine' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Sedge 4 · no. 0777');

  const twice = (figures: readonly string[]) => [...figures, ...figures];
  const mains = ['64.010', '64.009', '64.011', '64.010', '64.009'];
  await readAll(page, 'Main bores', 'M1 main bore front plane, mm', twice(mains));
  const journals = ['59.985', '59.984', '59.986', '59.985', '59.985'];
  await readAll(page, 'Main journals', 'M1 main journal front, 0°, mm', twice(journals));
  await readAll(page, 'Big ends', 'R1 big end front plane, mm', twice(['48.008', '48.009', '48.007', '48.008']));
  await readAll(page, 'Crankpins', 'P1 crankpin front, 0°, mm', twice(['44.984', '44.985', '44.983', '44.984']));

  await toStage(page, 'Select shells');
  await expect(page.getByText('Best selection for 5 of 5 mains and 4 of 4 rods, proven.')).toBeVisible();
  await acceptBest(page);
  await toStage(page, 'Trial assembly');
  await choose(page, 'Trial assembly', 'turns');
  await toStage(page, 'Runout');
  for (const angle of ['0°', '90°', '180°', '270°']) await page.getByLabel(angle, { exact: true }).fill('0.005');
  await page.getByLabel('270°', { exact: true }).blur();
  await toStage(page, 'End play');
  await page.getByLabel('End play, mm').fill('0.160');
  await page.getByLabel('End play, mm').press('Enter');

  // Put together from the middle out; an oil hole is found half covered, with a picture and a decision.
  await toStage(page, 'Final assembly');
  const checks = page.getByRole('region', { name: 'Checks at M3' });
  await page.getByRole('button', { name: 'Problem: M3, Oil hole of the shell over the oil hole of the block' }).click();
  const found = page.getByRole('group', { name: /^Problem: M3, Oil hole/ });
  await found.getByLabel(/^Problem/).fill('half covered');
  await page.keyboard.press('Tab');
  await found.getByLabel(/^Picture/).setInputFiles(PICTURE);
  await expect(found.getByRole('img', { name: 'Picture: half covered' })).toBeVisible();
  await expect
    .poll(() => found.getByRole('img').evaluate((image) => (image as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(100);
  await found.getByLabel(/^Decision/).fill('hole dressed, edges rounded');
  await page.keyboard.press('Tab');
  await expect(found.getByText(/^Decided by Wren/)).toBeVisible();
  await expect(checks).toContainText('Thrust washers: grooves to the shaft’s faces');
  const order = ['M3', 'M2', 'M4', 'M1', 'M5', 'P1', 'P2', 'P3', 'P4'];
  for (const station of order) {
    await page.getByRole('button', { name: new RegExp(`^${station}: \\d+ open`) }).click();
    expect(await allInOrder(page, station)).toBeLessThan(4);
  }

  // Tightened pass by pass, mains stage by stage, then rod by rod; then the shaft is turned.
  await toStage(page, 'Torque');
  await expect(page.getByRole('img', { name: /^Order of the bolts/ })).toHaveAttribute(
    'aria-label',
    /: 3 left, 3 right, 2 right/,
  );
  // By hand: two stages to 50 are 25 and 50, then 60°; each of four rods 20, then 90°.
  expect(await pressAll(page.getByRole('button', { name: /^Done: / }))).toBe(11);
  await toStage(page, 'Final assembly');
  for (const station of order) {
    await page.getByRole('button', { name: new RegExp(`^${station}: 1 open`) }).click();
    const turned = page.getByRole('region', { name: `How the shaft turns with ${station} tight` });
    await turned.getByRole('button', { name: 'Free and even' }).click();
  }
  await expect(page.getByRole('button', { name: 'P4: all done' })).toBeVisible();
  await allSaved(page);

  // Signed with what is open on it; the page works its hash out again.
  await toStage(page, 'Build sheet');
  const sheet = page.getByRole('article', { name: 'Build sheet' });
  await expect(sheet).toContainText('hole dressed, edges rounded');
  await expect(sheet.getByRole('table', { name: 'Tightening, pass by pass' }).getByRole('row')).toHaveCount(12);
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  const signing = page.getByRole('group', { name: 'Sign build sheet' });
  await expect(signing).toContainText('Grade marks: not done');
  await expect(signing).not.toContainText('Final assembly');
  await signing.getByRole('button', { name: 'Sign build sheet' }).click();
  await page.getByRole('button', { name: /^Revision 1, Wren/ }).click();
  const first = page.getByRole('article', { name: 'Signed sheet, revision 1' });
  await expect(first).toContainText('Signed by Wren');
  await expect(page.getByText('Its content still has the hash that is printed on it.')).toBeVisible();
  await expect(page.getByText('No changes since.')).toBeVisible();
  const pdf = await page.request.get(
    (await page.getByRole('link', { name: 'Revision 1 as PDF' }).getAttribute('href'))!,
  );
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

  // A correction is another revision that says why; the first one stays as it was.
  await toStage(page, 'Final assembly');
  await page.getByText('Swapped parts').click();
  await choose(page, 'Part', 'lower');
  await choose(page, 'From', 'M1');
  await choose(page, 'To', 'M2');
  await page.getByLabel('Reason', { exact: true }).fill('numbers misread');
  await page.getByRole('button', { name: 'Record swap' }).click();
  await expect(page.getByRole('link', { name: /^Torque, needs attention/ })).toBeVisible();
  await expect(page.getByText('Parts swapped since. Check again.').first()).toBeVisible();
  await toStage(page, 'Build sheet');
  await allSaved(page);
  await page.getByRole('button', { name: 'Sign another revision' }).click();
  await expect(signing.getByRole('button', { name: 'Sign revision 2' })).toBeDisabled();
  await signing.getByLabel('Why another revision').fill('lower shells of M1 and M2 swapped');
  await signing.getByRole('button', { name: 'Sign revision 2' }).click();
  await page.getByRole('button', { name: /^Revision 1, Wren/ }).click();
  await page.getByText(/things? differs? from the current sheet/).click();
  await expect(page.getByRole('table', { name: 'Differences from the current sheet' })).toContainText(
    'parts swapped since',
  );
  await page.reload();
  await expect(page.getByRole('article', { name: 'Signed sheet, revision 1' })).toContainText('Signed by Wren');
});

test('two people tick at once, and each sees what the other did', async ({ browser }) => {
  const pages = await Promise.all(
    ['Wren', 'Teasel'].map(async (name) => {
      const page = await (await browser.newContext()).newPage();
      await page.goto(`/engines/${ASSEMBLED_SEDGE_4}/assembly?station=M4`);
      await page.getByLabel('Fitter').fill(name);
      return page;
    }),
  );
  const [one, other] = pages as [Page, Page];
  await Promise.all([
    touch(one.getByRole('checkbox', { name: /^Grooved shell/ })),
    touch(other.getByRole('checkbox', { name: /^Cap tapped home/ })),
  ]);
  await Promise.all(pages.map(allSaved));
  for (const page of pages) {
    await expect(page.getByRole('checkbox', { name: /^Grooved shell/ })).toBeChecked({ timeout: 15_000 });
    await expect(page.getByRole('checkbox', { name: /^Cap tapped home/ })).toBeChecked({
      timeout: 15_000,
    });
  }
  await expect(one.getByText(/done, Teasel/)).toBeVisible();
  // Taken back, so that the demo stays as it was.
  await touch(one.getByRole('checkbox', { name: /^Grooved shell/ }));
  await touch(one.getByRole('checkbox', { name: /^Cap tapped home/ }));
  await allSaved(one);
  await Promise.all(pages.map((page) => page.context().close()));
});

test('other fasteners are tightened by their own maker’s figures, out of order is said, bolts that stretched too far are named', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 with studs'));
  await page.goto(`/engines/${id}/torque`);
  await page.getByLabel('Fitter').fill('Wren');
  await expect(page.getByText('No torque steps as figures yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a fastener' }).click();
  await page.getByLabel('Fastener 1: Fastener', { exact: true }).fill('Studs');
  await choose(page, 'Fastener 1 is tightened by', 'stages');
  await choose(page, 'Fastener 1 in', 'ft-lb');
  await page.getByLabel('Fastener 1: Final torque').fill('seventy');
  await page.getByRole('button', { name: 'Save figures' }).click();
  await expect(page.getByText('Enter a torque above 0, such as 55.')).toBeVisible();
  await page.getByLabel('Fastener 1: Final torque').fill('70');
  await page.getByLabel('Fastener 1: Source: book, page').fill('stud maker’s card');
  await page.getByRole('button', { name: 'Save figures' }).click();
  // By hand: 70 in three stages is 25, 50, 70; 25 ft·lb × 1.355818 = 33.9 N·m.
  await expect(page.getByRole('region', { name: 'Current pass' })).toContainText('33.9 N·m');
  const passes = page.getByRole('region', { name: 'All passes' });
  await passes.getByRole('button', { name: /^50 ft·lb, inner bolts/ }).click();
  await page.getByRole('button', { name: 'Done: 50 ft·lb' }).click();
  await expect(passes).toContainText('skipped');
  await passes.getByRole('button', { name: /^25 ft·lb, inner bolts/ }).click();
  await page.getByRole('button', { name: 'Done: 25 ft·lb' }).click();
  await expect(passes).toContainText('done out of order');

  await page.getByText('Main caps: figures of other fasteners').click();
  await choose(page, 'Fastener 1 is tightened by', 'stretch');
  await page.getByLabel('Fastener 1: Stretch from, mm').fill('0.140');
  await page.getByLabel('Fastener 1: Stretch to, mm').fill('0.160');
  await page.getByLabel('Fastener 1: Steps in words').fill('');
  await page.getByRole('button', { name: 'Save figures' }).click();
  for (const [bolt, stretch] of [
    ['M1 inner left', '0.145'],
    ['M2 inner left', '0.146'],
    ['M3 inner left', '0.171'],
  ] as const) {
    await page.getByLabel(bolt, { exact: true }).fill(stretch);
    await page.keyboard.press('Tab');
  }
  await expect(page.getByText('M3 inner left stretched 0.011 mm too much: another bolt.')).toBeVisible();
  await allSaved(page);
  await page.reload();
  await expect(page.getByLabel('M3 inner left', { exact: true })).toHaveValue('0.171');
});

test('labels are printed in any size with a code that leads to the engine, and the sheet goes out as a file that reads back', async ({
  page,
}) => {
  await page.goto(`/engines/${ASSEMBLED_SEDGE_4}/labels`);
  const labels = page.getByRole('group', { name: 'Labels' });
  await expect(labels.getByText('Plum upper over Plum lower')).toHaveCount(5);
  await expect(labels.locator('img')).toHaveCount(5);
  await choose(page, 'Labels of', 'own');
  await page.getByLabel('Width, mm').fill('50');
  await page.getByLabel('Height, mm').fill('5');
  await expect(page.getByText('10 to 200.')).toBeVisible();
  await page.getByLabel('Height, mm').fill('25');
  const box = await labels.locator('> div').first().boundingBox();
  // By hand: 50 mm at 96 px an inch.
  expect(box!.width).toBeCloseTo((50 / 25.4) * 96, 0);

  await toStage(page, 'Build sheet');
  const pdf = await page.request.get(
    (await page.getByRole('link', { name: 'Build sheet as PDF' }).getAttribute('href'))!,
  );
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Build sheet as XLSX' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('Sedge 4 · no. 0226 sheet.xlsx');
  const [json] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Build sheet as JSON' }).click(),
  ]);
  const stream = await json.createReadStream();
  const chunks: Buffer[] = [];
  for await (const chunk of stream) chunks.push(Buffer.from(chunk));
  expect(readBuildSheet(JSON.parse(Buffer.concat(chunks).toString()))).toMatchObject({ ok: true });
});
