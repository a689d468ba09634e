import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { type APIRequestContext, expect, type Page, test } from '@playwright/test';
import { choose } from './choices.js';
import { allSaved, MARKED_SEDGE_4, putOnBench, REED_TYPE, reedDocument, SEDGE_4 } from './engines.js';

/** Halves of a series of its own in the workshop's drawer. */
async function putSeries(request: APIRequestContext, series: string, onHand: number): Promise<void> {
  const changes = (['upper', 'lower'] as const).map((half) => ({
    id: randomUUID(),
    version: 0,
    half: { family: 'main', series, grade: 'Teal', half, wall: 1_992_000, onHand },
  }));
  const answer = await request.post('/api/drawer/move', { data: { by: 'Wren', kind: 'add', changes } });
  expect(answer.status()).toBe(200);
}

function rowOf(page: Page, series: string, half: string) {
  return page
    .getByRole('row')
    .filter({ hasText: series })
    .filter({ hasText: `main ${half}` });
}

test('halves come and go as sets, are counted, and everything can be taken back', async ({ page, request }) => {
  await putSeries(request, 'Horsetail', 4);
  await page.goto('/drawer');
  await page.getByRole('searchbox').fill('horsetail');
  await rowOf(page, 'Horsetail', 'upper').getByRole('button', { name: /^Open/ }).click();
  const half = page.getByRole('region', { name: 'Teal upper (Horsetail)' });
  await half.getByLabel('Shells or pairs').fill('3');
  await choose(half, 'Move as', 'set');
  await half.getByLabel('Note, such as supplier or engine').fill('from the rep');
  await half.getByRole('button', { name: 'Receive' }).click();
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('7');
  await expect(page.getByLabel('On hand of Teal lower')).toHaveValue('7');
  const history = page.getByRole('region', { name: 'Stock history' });
  await expect(history).toContainText('from the rep');
  await expect(history).toContainText('+3, now 7');

  await half.getByLabel('Shells or pairs').fill('9');
  await half.getByRole('button', { name: 'Use' }).click();
  await expect(half.getByText('Only 7 of Teal upper (Horsetail) are there.')).toBeVisible();

  // Boxes filled one after the other, quicker than the server answers.
  await half.getByLabel('Found on receipt').fill('oil hole half covered');
  await half.getByLabel('Bin').fill('C 4');
  await half.getByLabel('Minimum free').fill('9');
  await expect(rowOf(page, 'Horsetail', 'upper')).toContainText('C 4');
  await half.getByLabel('Minimum free').blur();
  await expect(rowOf(page, 'Horsetail', 'upper')).toContainText('order 2');
  await expect(half.getByText('oil hole half covered', { exact: true })).toBeVisible();
  await half.getByLabel('Undersize, if any').fill('0.50');
  await half.getByLabel('Price of one').fill('6,40');
  await expect(rowOf(page, 'Horsetail', 'upper')).toContainText('0.50 under');
  await page.getByLabel('Undersize, if any').fill('');
  await page.getByLabel('Price of one').focus();
  await expect(page.getByLabel('Price of one')).toHaveValue(/6[.,]4/u);
  await expect(rowOf(page, 'Horsetail', 'upper')).not.toContainText('under');

  await history.getByRole('button', { name: /^Undo: Received/ }).click();
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('4');
  await expect(page.getByLabel('On hand of Teal lower')).toHaveValue('4');
  await expect(rowOf(page, 'Horsetail', 'upper')).toContainText('C 4');
  await half.getByRole('button', { name: 'Close the detail' }).click();
  await rowOf(page, 'Horsetail', 'lower')
    .getByRole('button', { name: /^Remove Teal lower from/ })
    .click();
  await expect(rowOf(page, 'Horsetail', 'lower')).toHaveCount(0);
  await page.getByRole('button', { name: 'History' }).click();
  await page.getByRole('button', { name: /^Undo: Removed from stock, Teal lower \(Horsetail\)/ }).click();
  await expect(page.getByLabel('On hand of Teal lower')).toHaveValue('4');
});

test('a half is measured over a ball, numbered with its own wall, and a wrong one is told', async ({
  page,
  request,
}) => {
  await putSeries(request, 'Cattail', 2);
  await page.goto('/drawer');
  await page.getByRole('searchbox').fill('cattail');
  await rowOf(page, 'Cattail', 'upper').getByRole('button', { name: /^Open/ }).click();
  const half = page.getByRole('region', { name: 'Teal upper (Cattail)' });
  await half.getByLabel('Ball, mm', { exact: true }).fill('7.000');
  await half.getByLabel('Reading over the ball, mm').fill('8.9975');
  await expect(half.getByText('Wall 1.9975 mm')).toBeVisible();
  await expect(half.getByText('Wall 0.0055 mm too thick for Teal: wrong box or wrong shell')).toBeVisible();
  await half.getByLabel('Reading over the ball, mm').fill('8.9932');
  await expect(half.getByText('wrong box')).toHaveCount(0);
  await half.getByLabel('Its number').fill('12');
  await half.getByRole('button', { name: 'Number it' }).click();
  await expect(half.getByText('No. 12 now has its own wall: 1.9932 mm.')).toBeVisible();
  const numbered = page.getByRole('row').filter({ hasText: 'no. 12' });
  await expect(numbered).toContainText('1.9932');
  await expect(rowOf(page, 'Cattail', 'upper').first().getByRole('textbox')).toHaveValue('1');
  // An engine that draws on the series has it by its own wall.
  const engine = await putOnBench(request, reedDocument('Reed 6 on Cattail', 3, { shells: {} }));
  const bench = await page.context().newPage();
  await bench.goto(`/engines/${engine}/drawer`);
  await bench.getByRole('button', { name: 'Use Cattail, 3 kinds' }).click();
  await expect(bench.getByRole('row').filter({ hasText: 'Teal no. 12' })).toContainText('1.9932');
  await allSaved(bench);
  await bench.close();
  // It stands in the history as one thing, and is taken back as one.
  await page.getByRole('button', { name: /^Undo: Numbered/ }).click();
  await expect(numbered).toHaveCount(0);
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('2');
});

test('a file is shown row by row before it is kept: bad rows with their reason, as CSV and as XLSX', async ({
  page,
  request,
}) => {
  await putSeries(request, 'Spikerush', 2);
  await page.goto('/drawer');
  await page.getByRole('button', { name: 'Import' }).click();
  const csv = [
    'Family;Series;Grade;Half;Wall;On hand;Bin',
    'main;Spikerush;Teal;upper;1,992;8;D 1',
    'main;Spikerush;Plum;upper;1.9x;8;D 2',
    'main;Spikerush;Rust;top;1.998;;D 3',
    'main;Spikerush;Sand;lower;1.995;4;D 4',
  ].join('\r\n');
  await page
    .getByLabel('Stock file')
    .setInputFiles({ name: 'stock.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  const panel = page.getByRole('region', { name: 'Import' });
  await expect(panel.getByText('2 of 4 rows of stock.csv can be read')).toBeVisible();
  const rows = panel.getByRole('table', { name: 'Rows of the file' });
  await expect(rows.getByRole('row', { name: /^2 / })).toContainText('Changes it, 2 to 8 on hand');
  await expect(rows.getByRole('row', { name: /^3 / })).toContainText('Wall: ');
  await expect(rows.getByRole('row', { name: /^4 / })).toContainText('Half: “top” is not one of upper, lower, either');
  await expect(rows.getByRole('row', { name: /^4 / })).toContainText('On hand: missing');
  await expect(rows.getByRole('row', { name: /^5 / })).toContainText('New');
  await panel.getByRole('button', { name: 'Add 2 rows to stock' }).click();
  await expect(page.getByText('2 rows of stock.csv added to stock.')).toBeVisible();
  await page.getByRole('searchbox').fill('spikerush');
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('8');

  const [plain] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV', exact: true }).click(),
  ]);
  const lines = (await readFile(await plain.path(), 'utf8')).split('\r\n');
  expect(lines[0]).toMatch(/^Family,Series,Grade,Half,Undersize,Number,Wall,/u);
  expect(lines.some((line) => line.startsWith('main,Spikerush,Teal,upper,,,1.992 mm,,,8,D 1,'))).toBe(true);

  // Out as XLSX and back in: nothing changes.
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'XLSX', exact: true }).click(),
  ]);
  const content = await readFile(await download.path());
  await page.getByRole('button', { name: 'Import' }).click();
  await page.getByLabel('Stock file').setInputFiles({
    name: 'drawer.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: content,
  });
  await expect(panel.getByText('0 change stock')).toBeVisible();
  await expect(panel.getByText('left out')).toHaveCount(0);
  await page
    .getByLabel('Stock file')
    .setInputFiles({ name: 'wrong.csv', mimeType: 'text/csv', buffer: Buffer.from('Grade,Wall\nTeal,2') });
  await expect(panel.getByText('Its first row lacks Family, Series, Half, On hand.')).toBeVisible();
});

test('what to order before anything is measured: a kit with its chance, kept, received, and then there', async ({
  page,
}) => {
  await page.goto('/types');
  await page.getByRole('searchbox').fill('sedge aluminium');
  await page.getByRole('link', { name: 'Sedge 4', exact: true }).click();
  await page.getByRole('link', { name: 'What to order' }).click();
  await choose(page, 'Shells for', 'main');
  await page.getByLabel('Chance of at least, %').fill('80');
  await choose(page, 'Two grades in a station', 'no');
  await page.getByLabel('Alike along the shaft within, mm').fill('0.006');
  await page.getByRole('button', { name: 'Calculate' }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  const kit = page.getByRole('region', { name: 'The kit' });
  await expect(kit).toContainText('of engines can be fitted from this kit', { timeout: 120_000 });
  await expect(kit).toContainText('In 10,000 new simulated engines');
  await expect(kit.getByRole('table', { name: 'Next step up' }).getByRole('row').nth(1)).toContainText('+');
  await expect(kit.getByRole('table', { name: 'Cost of one missing' }).getByRole('row').nth(1)).toContainText('−');
  const share = Number(/(\d+\.\d) %/u.exec((await kit.textContent()) ?? '')?.[1]);
  expect(share).toBeGreaterThan(78);
  await kit.getByRole('button', { name: 'Save as kit' }).click();
  await expect(kit.getByText('is saved with the kits of workshop stock')).toBeVisible();

  await page.goto('/drawer');
  await page.getByRole('button', { name: 'Kits' }).click();
  await page.getByRole('button', { name: 'Receive it' }).click();
  await page.getByRole('searchbox').fill('marsh');
  await expect(page.getByLabel('On hand of Plum upper')).not.toHaveValue('0');
  // A kit that is taken away can be brought back.
  await page.getByRole('button', { name: /^Remove kit any Sedge 4, 80 %/ }).click();
  await expect(page.getByText('“any Sedge 4, 80 %” removed.')).toBeVisible();
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('button', { name: 'Receive it' })).toBeVisible();
  await page.getByRole('button', { name: 'History' }).click();
  await page
    .getByRole('button', { name: /^Undo: Received, .*Marsh/ })
    .first()
    .click();
  await expect(page.getByText('No matches.')).toBeVisible();
});

test('what to order for one engine counts what was read and what is on the shelf, and says what the sheet lacks', async ({
  page,
}) => {
  await page.goto(`/engines/${MARKED_SEDGE_4}/drawer`);
  await page.getByRole('button', { name: 'What to order for this engine' }).click();
  await expect(page.getByText('measured parts keep their size')).toBeVisible();
  await choose(page, 'Shells for', 'main');
  await page.getByLabel('Chance of at least, %').fill('0');
  await expect(page.getByText('Above 0, up to 100.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Calculate' })).toBeDisabled();
  await page.getByLabel('Chance of at least, %').fill('99');
  await page.getByRole('button', { name: 'Calculate' }).click();
  const kit = page.getByRole('region', { name: 'The kit' });
  await expect(kit).toContainText('of engines can be fitted from this kit', { timeout: 120_000 });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    kit.getByRole('button', { name: 'Order as CSV' }).click(),
  ]);
  const order = await readFile(await download.path(), 'utf8');
  expect(order.split('\r\n')[0]).toBe('Count,Shell,Family,Side,"Wall, mm"');
  expect(order).toContain('(Marsh),main,upper,1.99');

  // The demo's Reed sheet has no grades for its rods: that is said, and nothing is assumed.
  await page.goto(`/types/${REED_TYPE}/order`);
  await choose(page, 'Shells for', 'both');
  await expect(page.getByText('More of the data sheet is needed: grades of the rods.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Calculate' })).toBeDisabled();
  await page.goto(`/engines/${SEDGE_4}/order`);
  await expect(page.getByText('This engine has no data sheet with grades.')).toBeVisible();
});

test('two people at one drawer: an undo never takes what came since, and is refused where it would', async ({
  page,
  request,
}) => {
  await putSeries(request, 'Flag iris', 4);
  await page.goto('/drawer');
  await page.getByRole('searchbox').fill('flag iris');
  await rowOf(page, 'Flag iris', 'upper').getByRole('button', { name: /^Open/ }).click();
  const half = page.getByRole('region', { name: 'Teal upper (Flag iris)' });
  await half.getByRole('button', { name: 'Receive' }).click();
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('5');
  // Another device uses most of them and moves the rest.
  const lines: { id: string; version: number; half: Record<string, unknown> }[] = await (
    await request.get('/api/drawer')
  ).json();
  const line = lines.find((one) => one.half.series === 'Flag iris' && one.half.half === 'upper')!;
  const used = await request.post('/api/drawer/move', {
    data: {
      by: 'Teasel',
      kind: 'use',
      changes: [{ id: line.id, version: line.version, half: { ...line.half, onHand: 1, bin: 'Z 9' } }],
    },
  });
  expect(used.status()).toBe(200);
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('1');
  await page.getByRole('button', { name: /^Undo: Received/ }).click();
  await expect(page.getByLabel('On hand of Teal upper')).toHaveValue('0');
  await expect(rowOf(page, 'Flag iris', 'upper')).toContainText('Z 9');
  // Taking back that they were put in would lose what was done since: refused.
  await page.getByRole('button', { name: /^Undo: Added/ }).click();
  await expect(page.getByRole('alert')).toContainText('was added with 4; there are 0 now');
  await half.getByLabel('Shells or pairs').fill('2');
  await half.getByRole('button', { name: 'Use' }).click();
  await expect(half.getByText('Only 0 of Teal upper (Flag iris) are there.')).toBeVisible();
});

test('the history of a half goes back page by page to its first day', async ({ page, request }) => {
  const id = randomUUID();
  for (let version = 0; version < 45; version += 1) {
    const half = {
      family: 'main',
      series: 'Water mint',
      grade: 'Teal',
      half: 'upper',
      wall: 1_992_000,
      onHand: version + 1,
    };
    const kind = version === 0 ? 'add' : 'count';
    const answer = await request.post('/api/drawer/move', {
      data: { by: 'Wren', kind, changes: [{ id, version, half }] },
    });
    expect(answer.status()).toBe(200);
  }
  await page.goto('/drawer');
  await page.getByRole('searchbox').fill('water mint');
  await rowOf(page, 'Water mint', 'upper').getByRole('button', { name: /^Open/ }).click();
  const history = page.getByRole('region', { name: 'Stock history' });
  await expect(history.getByRole('row')).toHaveCount(41);
  await expect(history.getByRole('row').nth(1)).toContainText('now 45');
  await history.getByRole('button', { name: 'Show older ones' }).click();
  await expect(history.getByRole('row')).toHaveCount(6);
  await expect(history.getByRole('row').last()).toContainText('1 added');
  await expect(history.getByRole('button', { name: 'Show older ones' })).toHaveCount(0);
  await history.getByRole('button', { name: 'Back to the newest' }).click();
  await expect(history.getByRole('row')).toHaveCount(41);
});
