import { expect, type Page, test } from '@playwright/test';
import { choose } from './choices.js';
import { allSaved, enter, putOnBench, reedDocument, TRIED_SEDGE_4 } from './engines.js';

async function read(page: Page, station: string, text: string): Promise<void> {
  const box = page.getByLabel(new RegExp(`^${station}, shells in`, 'u'));
  await box.fill(text);
  await box.press('Enter');
  await expect(box).toHaveValue('');
}

test('one station is tried, looked into, believed, and what it shows corrects the plan of the others', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 on trial'));
  for (const station of [1, 2, 3]) {
    await enter(request, id, 'mainBore', station, station === 2 ? '64.013' : '64.011');
    await enter(request, id, 'mainJournal', station, '59.985');
  }
  await page.goto(`/engines/${id}/trial`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const trial = page.getByRole('region', { name: /^Trial of/ });
  await expect(trial.getByText('No halves are accepted for M1 yet')).toBeVisible();
  await trial.getByRole('link', { name: 'choose them first' }).click();
  await page.getByRole('button', { name: 'Accept the best choice' }).click();
  // By hand: 64.011 − 59.985 − 2 · 1.995 = 0.036, and 0.038 at M2, which has the least room to 0.050.
  await page.getByRole('button', { name: 'Next: Try M2 first: the least room, 0.012 mm to its high limit' }).click();
  const stations = page.getByRole('table', { name: 'Clearances, mm' });
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('0.038');

  // A needle the wrong way round is told as such; the reading can be taken back.
  await choose(page, 'Gauge zeroed', 'journal');
  await read(page, 'M2', '-3.8');
  await expect(trial.getByText('the needle read with the wrong sign')).toBeVisible();
  await trial.getByRole('button', { name: /^Take back reading 1 at M2/ }).click();
  // Nothing that is no length is kept.
  const box = page.getByLabel(/^M2, shells in/);
  await box.fill('dirty');
  await box.press('Enter');
  await expect(trial.getByText('“dirty” has no digits')).toBeVisible();
  await read(page, 'M2', '0.046');
  await expect(trial.getByText('Not as predicted.', { exact: true })).toBeVisible();
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('0.008');
  await expect(page.getByRole('button', { name: /^Next: Look into M2/ })).toBeVisible();
  await trial.getByRole('button', { name: 'Looked: it is so' }).click();
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('Checked');

  // Applied to the others, they would be 0.044, and the plan is another.
  await choose(page, 'Before it is believed', 'one');
  await expect(page.getByText('Assembly offset 0.008 mm')).toBeVisible();
  await expect(stations.getByRole('row', { name: /^M1/ })).toContainText('0.044');
  await allSaved(page);
  await page.getByRole('link', { name: /^Choose/ }).click();
  await expect(page.getByText('It differs from the accepted choice')).toBeVisible();
  await page.getByRole('button', { name: /^M1: / }).click();
  const sum = page.getByRole('table', { name: 'Arithmetic' });
  await expect(sum).toContainText('assembly offset, trial of M2');
  await page.getByRole('button', { name: 'Accept the best choice' }).click();
  await expect(
    page.getByRole('button', { name: /^Next: Read M2 again: other halves were accepted since/ }),
  ).toBeVisible();

  // Other bolts: nothing that was read with the old ones holds.
  await page.getByRole('link', { name: /^Trial/ }).click();
  const bolts = page.getByRole('region', { name: 'Fasteners of the mains' });
  await bolts.getByLabel('Name').fill('cap bolts');
  await bolts.getByLabel('Name').press('Tab');
  await choose(bolts, 'Whose', 'other');
  await expect(page.getByText('Assembly offset')).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Next: Read the bore at M1, M2, M3 again/ })).toBeVisible();
  await page.getByRole('button', { name: 'Open M2' }).click();
  await expect(trial.getByText('The fasteners were changed since: this holds no more.')).toBeVisible();
  await trial.getByRole('button', { name: 'Put together anew' }).click();
  await expect(stations.getByRole('row', { name: /^M2/ })).not.toContainText('0.046');
});

test('the demo engine in the middle of its trials says where its offset comes from, on the sheet too', async ({
  page,
}) => {
  await page.goto(`/engines/${TRIED_SEDGE_4}/trial`);
  // By hand: 0.005 and 0.004 over the sum of the parts, the first a little better known.
  await expect(page.getByText('Assembly offset 0.0045 mm')).toBeVisible();
  const trial = page.getByRole('region', { name: 'Trial of M1' });
  await expect(trial).toContainText('0.043 mm');
  await expect(trial).toContainText('As predicted.');
  await page.getByRole('link', { name: /^Sheet/ }).click();
  await expect(page.getByText('try one and apply')).toBeVisible();
  const table = page.getByRole('table', { name: 'Measured with the shells in' });
  await expect(table.getByRole('row', { name: /^M4/ })).toContainText('0.042 mm');

  // Where every station must be inside with a chance, what the gauge tells counts in the choice.
  await page.goto(`/engines/${TRIED_SEDGE_4}/trial`);
  await page.getByText(/^Bore gauge: one reading/).click();
  await page.getByLabel('Bore gauge: setting, u, mm').fill('0.012');
  await page.getByLabel('Bore gauge: setting, u, mm').press('Tab');
  await choose(page, 'Chance to be inside, in the choice', '95');
  await page.getByRole('link', { name: /^Choose/ }).click();
  await expect(page.getByText('not known well enough for the chance that is asked for').first()).toBeVisible();
});
