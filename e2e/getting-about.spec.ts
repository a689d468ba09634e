import { expect, type Page, test } from '@playwright/test';
import { allInOrder } from './checks.js';
import { acceptBest, choose } from './choices.js';
import { allSaved, engineOn, enter, putOnBench, putSeries, reedDocument } from './engines.js';
import { toStage } from './stages.js';

/** Types figures with Enter from a box on. */
async function typeFrom(page: Page, label: string, figures: readonly string[]) {
  await page.getByLabel(label).focus();
  for (const figure of figures) {
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
  }
}

test('one bar leads everywhere, each page has its own name, and the engine’s name leads back to its bench', async ({
  page,
  request,
}) => {
  const name = 'Reed 6 with a name so long that it would not go into one line of a page that is not very wide at all';
  const id = await putOnBench(request, reedDocument(name.slice(0, 80)));
  await page.goto('/');
  for (const [link, title] of [
    ['Workshop stock', 'Workshop stock · Fettle'],
    ['Engine types', 'Engine types · Fettle'],
    ['Several engines', 'Several engines · Fettle'],
    ['Quick calculation', 'Quick calculation · Fettle'],
    ['Engines', 'Engines · Fettle'],
  ] as const) {
    const pages = page.getByRole('navigation', { name: 'Pages' });
    await pages.getByRole('link', { name: link, exact: true }).click();
    await expect(page).toHaveTitle(title);
    await expect(pages.getByRole('link', { name: link, exact: true })).toHaveAttribute('aria-current', 'page');
  }
  await page.goto(`/engines/${id}/bores`);
  await expect(page).toHaveTitle(`${name.slice(0, 80)} · Main bores · Fettle`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name.slice(0, 80));
  await page.getByRole('heading', { level: 1 }).getByRole('link').click();
  await expect(page).toHaveURL(/\/choose$/u);
  await page.goto('/nowhere');
  await expect(page).toHaveTitle('Page not found · Fettle');
  await expect(page.getByRole('heading', { name: 'Page not found' })).toBeVisible();
});

test('a panel stands in the address: back, forward and reload bring it, and the focus goes there and back', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 gone about'));
  await page.goto(`/engines/${id}/bores`);
  await typeFrom(page, 'M1 main bore front plane, mm', ['64.010', '64.011', '64.012']);
  await toStage(page, 'Main journals');
  await typeFrom(page, 'M1 main journal front, 0°, mm', ['59.981', '59.982', '59.983']);
  await allSaved(page);
  await toStage(page, 'Select shells');
  const opener = page.getByRole('button', { name: /^M2: / });
  await opener.press('Enter');
  const panel = page.getByRole('region', { name: 'Main 2' });
  await expect(panel).toBeFocused();
  await expect(page).toHaveURL(/station=M2/u);
  await page.reload();
  await expect(panel).toBeVisible();
  await page.goBack();
  await expect(panel).toBeHidden();
  await page.goForward();
  await expect(panel).toBeVisible();
  await page.getByRole('button', { name: 'Close the detail' }).click();
  await expect(panel).toBeHidden();
  await opener.press('Enter');
  await page.getByRole('button', { name: 'Close the detail' }).press('Enter');
  await expect(opener).toBeFocused();

  await page.goto('/drawer');
  await page.getByRole('button', { name: 'History' }).press('Enter');
  await expect(page.getByRole('region', { name: 'Stock history' })).toBeFocused();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Stock history' })).toBeVisible();
});

test('Enter on the last box leads to the next thing to do, and by Enter alone to its first box', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 by Enter'));
  await page.goto(`/engines/${id}/bores`);
  await typeFrom(page, 'M1 main bore front plane, mm', ['64.010', '64.011', '64.012']);
  await expect(page.getByRole('button', { name: /^Next: / })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('M1 main journal front, 0°, mm')).toBeFocused();
});

test('Enter twice on the last figure goes where that figure leads to, before the page has said so', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 by Enter twice'));
  await page.goto(`/engines/${id}/bores`);
  await typeFrom(page, 'M1 main bore front plane, mm', ['64.010', '64.011']);
  await page.keyboard.type('64.012');
  // In one task of the page, so that nothing can be drawn between the two.
  await page.evaluate(async () => {
    const enter = (type: string) =>
      document.activeElement?.dispatchEvent(
        new KeyboardEvent(type, { key: 'Enter', code: 'Enter', bubbles: true, cancelable: true }),
      );
    for (let time = 0; time < 2; time += 1) {
      enter('keydown');
      enter('keyup');
      await Promise.resolve();
    }
  });
  await expect(page.getByLabel('M1 main journal front, 0°, mm')).toBeFocused();
});

test('an engine goes off the bench with its halves fitted or back in the drawer, and comes back where the eye is', async ({
  page,
  request,
}) => {
  const reserved = async (engine: string) => {
    const lines: { half: { onHand: number }; reservations: { name: string; count: number }[] }[] = await (
      await request.get('/api/drawer')
    ).json();
    return lines
      .flatMap(({ reservations }) => reservations.filter((one) => one.name === engine))
      .reduce((sum, { count }) => sum + count, 0);
  };
  const name = 'Reed 6 off the bench';
  const kinds = await putSeries(request, 'Sedge grass', [['Mid', 1_995, 12]]);
  const id = await engineOn(request, name, 'Sedge grass', kinds, '64.010');
  await page.goto(`/engines/${id}/choose`);
  await acceptBest(page);
  await allSaved(page);
  const count = await reserved(name);
  expect(count).toBeGreaterThan(0);
  await page.goto('/');
  await page.getByRole('button', { name: `Close ${name}` }).click();
  const question = page.getByRole('group', { name: `${name}: reserved shells` });
  await expect(question).toContainText(`${count} parts in stock are reserved for it.`);
  await question.getByRole('button', { name: 'Back to stock' }).click();
  await expect(page.getByText(`${count} parts back in stock.`)).toBeVisible();
  expect(await reserved(name)).toBe(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: name })).toBeVisible();
  expect(await reserved(name)).toBe(count);
  await page.getByRole('button', { name: `Close ${name}` }).click();
  await page.getByRole('button', { name: 'Fitted: close engine' }).click();
  await expect(page.getByText(`${count} parts fitted in it removed from stock.`)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: name })).toBeVisible();
  expect(await reserved(name)).toBe(count);
});

test('a quick sum tells the clearance and other walls, travels by its address, and is kept as an engine of one main', async ({
  page,
}) => {
  await page.goto('/sum');
  await page.getByLabel('Housing bore, mm').fill('64.010');
  await page.getByLabel('Journal, mm').fill('59.980');
  await expect(page.getByRole('region', { name: 'Result' })).toContainText('room for both walls');
  await page.getByLabel('Upper wall, mm').fill('1.995');
  await page.getByLabel('Lower wall, mm').fill('1.998');
  // A range that is pasted goes into both boxes.
  await page.getByLabel('Clearance, low limit, mm').fill('0.020 – 0.050');
  await expect(page.getByLabel('Clearance, high limit, mm')).toHaveValue('0.050');
  await page.getByLabel('Wall step of the grades, mm').fill('0.003');
  const result = page.getByRole('region', { name: 'Result' });
  await expect(result).toContainText('0.037');
  await expect(result.getByText('In limits').first()).toBeVisible();
  await expect(page.getByRole('table', { name: 'Other walls' }).getByRole('row')).toHaveCount(7);
  await expect(page).toHaveURL(/step=0\.003/u);
  const address = page.url();
  await page.goto('/');
  await page.goto(address);
  await expect(page.getByLabel('Lower wall, mm')).toHaveValue('1.998');
  await page.getByLabel('Or: gauge zeroed on the journal, bare bore, mm').fill('4.02');
  await expect(result).toContainText('0.027');
  await page.getByLabel('Or: gauge zeroed on the journal, bare bore, mm').fill('');
  await page.getByLabel('Name of the engine').fill('Burr 2 from a scrap of paper');
  await page.getByRole('button', { name: 'Save as an engine' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Burr 2 from a scrap of paper');
  await expect(page.getByText('Best selection for 1 of 1 mains, proven.')).toBeVisible();
  await allSaved(page);
  await toStage(page, 'Main bores');
  await expect(page.getByLabel('M1 main bore front plane, mm')).toHaveValue('64.010');
});

test('engines are filtered by stage and person, a history by what and by whom; without a server the bench leads to what was opened', async ({
  page,
  request,
}) => {
  const name = 'Reed 6 to be found';
  const id = await putOnBench(request, reedDocument(name));
  await enter(request, id, 'mainBore', 1, '64.010');
  await page.goto('/');
  const found = page.getByRole('button', { name: new RegExp(`^${name}, next: `) });
  await expect(found).toBeVisible();
  await choose(page, 'Next stage', 'choose');
  await expect(found).toBeHidden();
  await choose(page, 'Next stage', 'bores');
  await expect(found).toBeVisible();
  await page.reload();
  await expect(found).toBeVisible();
  await choose(page, 'Last edited by', 'Teasel');
  await expect(found).toBeHidden();
  await choose(page, 'Last edited by', 'Wren');
  await expect(found).toBeVisible();

  await page.goto(`/engines/${id}/history`);
  const history = page.getByRole('region', { name: 'History' });
  await expect(history.getByRole('listitem')).toHaveCount(2);
  await choose(page, 'Show', 'readings');
  await expect(history.getByRole('listitem')).toHaveCount(1);
  await expect(history).toContainText('M1 bore, front plane: 64.010');
  await page.getByLabel('Only by').fill('Sorrel');
  await page.getByLabel('Only by').press('Enter');
  await expect(page.getByText('No entries.')).toBeVisible();

  await page.route('**/api/**', (route) => route.abort());
  await page.getByRole('navigation', { name: 'Pages' }).getByRole('link', { name: 'Engines', exact: true }).click();
  await expect(page.getByText('Offline copy.')).toBeVisible();
  await expect(found).toBeVisible();
  // What was never asked for before cannot be told.
  await choose(page, 'Next stage', 'runout');
  await expect(page.getByRole('heading', { name: 'The server does not answer' })).toBeVisible();
  await page.getByRole('list', { name: 'Engines opened here before' }).getByRole('link', { name }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
});

test('once all is put together and tightened the halves are said to be fitted: Next leads there', async ({
  page,
  request,
}) => {
  const kinds = await putSeries(request, 'Osier kept to the end', [
    ['Thin', 1_990, 6],
    ['Mid', 1_995, 6],
  ]);
  const id = await engineOn(request, 'Reed 6 put together', 'Osier kept to the end', kinds, '64.010');
  await page.goto(`/engines/${id}/choose`);
  await page.getByLabel('Fitter').fill('Wren');
  await acceptBest(page);
  await toStage(page, 'Trial assembly');
  await choose(page, 'Trial assembly', 'codes');
  await toStage(page, 'Final assembly');
  for (const station of ['M2', 'M1', 'M3']) {
    await page.getByRole('button', { name: new RegExp(`^${station}: \\d+ open`) }).click();
    await allInOrder(page, station);
    await page.getByRole('button', { name: 'Free and even' }).click();
  }
  await allSaved(page);
  await page.getByRole('button', { name: 'Next: Mark the 6 reserved parts as fitted' }).click();
  await expect(page).toHaveURL(/\/drawer$/u);
});

test('a stage whose code comes late takes the focus from nobody: Enter on Next is Enter on Next', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 fetched late'));
  await page.goto(`/engines/${id}/drawer`);
  const next = page.getByRole('button', { name: /^Next: Read the bore/ });
  const first = page.getByLabel('M1 main bore front plane, mm');
  await next.press('Enter');
  await expect(first).toBeFocused();
  // Read again where "Next" had led to, with the code of the stage held back.
  let letIn = () => {};
  const held = new Promise<void>((resolve) => {
    letIn = resolve;
  });
  await page.route('**/MeasureView-*.js', async (route) => {
    await held;
    await route.continue();
  });
  await page.reload({ waitUntil: 'commit' });
  await next.focus();
  letIn();
  await expect(first).toBeVisible();
  await expect(next).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(first).toBeFocused();
  // Who did nothing meanwhile starts typing at once.
  await page.reload();
  await expect(first).toBeFocused();
});
