import { nanometres } from '@fettle/core';
import { expect, type Page, test } from '@playwright/test';
import { acceptBest, choose } from './choices.js';
import { allSaved, BURR_2, enter, putOnBench, reedDocument, TRIED_SEDGE_4 } from './engines.js';
import { toStage } from './stages.js';

const um = (value: number) => nanometres(Math.round(value * 1000));

async function read(page: Page, station: string, text: string): Promise<void> {
  const box = page.getByLabel(new RegExp(`^${station}, shells in`, 'u'));
  await box.fill(text);
  await box.press('Enter');
  await expect(box).toHaveValue('');
}

test('one station is tried, checked, confirmed, and what it shows corrects the plan of the others', async ({
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
  await expect(trial.getByText('No shells accepted for M1 yet')).toBeVisible();
  await trial.getByRole('link', { name: 'select them first' }).click();
  await acceptBest(page);
  // By hand: 64.011 − 59.985 − 2 · 1.995 = 0.036, and 0.038 at M2, which has the least room to 0.050.
  await page.getByRole('button', { name: 'Next: Try M2 first: the least room, 0.012 mm to its high limit' }).click();
  const stations = page.getByRole('table', { name: 'Clearances, mm' });
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('0.038');

  // A needle the wrong way round is told as such; the reading can be taken back.
  await choose(page, 'Gauge zeroed', 'journal');
  await read(page, 'M2', '-3.8');
  await expect(trial.getByText('needle sign reversed')).toBeVisible();
  await trial.getByRole('button', { name: /^Remove reading 1 at M2/ }).click();
  // Nothing that is no length is kept.
  const box = page.getByLabel(/^M2, shells in/);
  await box.fill('dirty');
  await box.press('Enter');
  await expect(trial.getByText('“dirty” has no digits')).toBeVisible();
  await page.reload();
  await expect(box).toHaveValue('dirty');
  await expect(trial.getByText('Not saved yet: press “Save reading”.')).toBeVisible();
  await read(page, 'M2', '0.046');
  await expect(trial.getByText('Not as predicted.', { exact: true })).toBeVisible();
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('0.008');
  await expect(page.getByRole('button', { name: /^Next: Check M2/ })).toBeVisible();
  await trial.getByRole('button', { name: 'Checked: reading is right' }).click();
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('Measured, in limits');

  // Applied to the others, they would be 0.044, and the plan is another.
  await choose(page, 'Trial assembly', 'one');
  await expect(page.getByText('Assembly offset 0.008 mm')).toBeVisible();
  await expect(stations.getByRole('row', { name: /^M1/ })).toContainText('0.044');
  await allSaved(page);
  await toStage(page, 'Select shells');
  await expect(page.getByText('one differs', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: /^M1: / }).click();
  const sum = page.getByRole('table', { name: 'Arithmetic' });
  await expect(sum).toContainText('assembly offset, trial of M2');
  await acceptBest(page);
  // What M2 showed stays although other halves are accepted there now: the plan does not fall back.
  await toStage(page, 'Trial assembly');
  await expect(page.getByText('Assembly offset 0.008 mm')).toBeVisible();
  await expect(stations.getByRole('row', { name: /^M2/ })).toContainText('shells changed since');

  // Other bolts: nothing that was read with the old ones holds.
  await toStage(page, 'Trial assembly');
  const bolts = page.getByRole('region', { name: 'Fasteners of the mains' });
  await bolts.getByLabel('Name').fill('cap bolts');
  await bolts.getByLabel('Name').press('Tab');
  // Naming them changes nothing; other ones do.
  await choose(bolts, 'Maker', 'other');
  await expect(page.getByText('Assembly offset 0.008 mm')).toBeVisible();
  await bolts.getByLabel('Name').fill('studs');
  await bolts.getByLabel('Name').press('Tab');
  await expect(page.getByText('Assembly offset')).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Next: Re-read the bore at M1, M2, M3/ })).toBeVisible();
  await page.getByRole('button', { name: 'Open M2' }).click();
  await expect(trial.getByText('Out of date: fasteners changed since.')).toBeVisible();
  await trial.getByRole('button', { name: 'Start a new trial' }).click();
  await expect(stations.getByRole('row', { name: /^M2/ })).not.toContainText('0.046');
});

test('the demo engine in the middle of its trials says where its offset comes from, on the sheet too', async ({
  page,
}) => {
  await page.goto(`/engines/${TRIED_SEDGE_4}/trial`);
  // By hand: 0.005 and 0.004 over the sum of the parts. Apart from what both share, M1 is known to 2.083/2 + 2.083/2 µm² (two readings with the
  // shells in, a bore of two readings), M4 with one reading to 2.083 + 2.083/2: weights of 0.6 and 0.4.
  await expect(page.getByText('Assembly offset 0.0046 mm')).toBeVisible();
  const trial = page.getByRole('region', { name: 'Trial of M1' });
  await expect(trial).toContainText('0.043 mm');
  await expect(trial).toContainText('As predicted.');
  // By hand: 0.043 with two of 1.995; 0.037 with two of 1.998, 0.034 with one of them under one of 2.001.
  const others = page.getByRole('table', { name: 'What other pairs would read at M1' });
  await expect(others.getByRole('row', { name: /^Rust 1\.998 Rust 1\.998/ })).toContainText('0.037 mm');
  await expect(others.getByRole('row', { name: /^Slate 2\.001 Rust 1\.998/ })).toContainText('0.034 mm');
  await toStage(page, 'Build sheet');
  const table = page.getByRole('table', { name: 'Measured with the shells in' });
  await expect(table.getByRole('row', { name: /^M4/ })).toContainText('0.042 mm');
  await expect(page.getByText('try one, apply to all')).toBeVisible();

  // Where every station must be inside with a chance, what the gauge tells counts in the choice.
  await page.goto(`/engines/${TRIED_SEDGE_4}/trial`);
  await page.getByText(/^Bore gauge: one reading/).click();
  await page.getByLabel('Bore gauge: setting, u, mm').fill('0.012');
  await page.getByLabel('Bore gauge: setting, u, mm').press('Tab');
  await choose(page, 'Required chance of being in limits', '95');
  await toStage(page, 'Select shells');
  await expect(page.getByText('too uncertain for the required chance').first()).toBeVisible();
});

test('a shaft is read round a turn on its outer mains: its bend, and what is not of it', async ({ page, request }) => {
  const id = await putOnBench(
    request,
    reedDocument('Reed 6 that may be bent', 5, {
      limits: {
        ...reedDocument('', 5).limits,
        runout: { low: um(0), high: um(30), source: 'Reed book, p. 7' },
      },
    }),
  );
  await page.goto(`/engines/${id}/runout`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const dial = page.getByRole('group', { name: 'Dial round the turn, mm' });
  await dial.getByLabel('0°', { exact: true }).click();
  // A swing of 0.020 either way, once a turn, highest at 90°: a total of 0.040, bent by 0.020.
  for (const figure of ['0', '.0141', '.020', '.0141', '0', '-0.0141', '-0.020', '-0.0141 mm']) {
    await page.keyboard.type(figure.replace(/^\./u, '0.'));
    await page.keyboard.press('Enter');
  }
  const verdict = page.getByRole('region', { name: 'Result' });
  await expect(verdict).toContainText('total reading of 8: the shaft is bent by half of it, 0.020 mm');
  await expect(verdict).toContainText('0.040 mm of it comes once a turn, highest at 90°');
  await expect(verdict).toContainText('Limit 0.030 mm: Reed book, p. 7.');
  await expect(dial.getByRole('alert')).toHaveCount(0);
  await expect(page.getByRole('img', { name: /^Dial at M3: total reading 0.040 mm/ })).toBeVisible();
  await allSaved(page);
  await page.reload();
  await expect(dial.getByLabel('90°', { exact: true })).toHaveValue('0.020');
  // A figure that is none is told, and kept in its box; the one before stays.
  await dial.getByLabel('45°', { exact: true }).fill('much');
  await page.keyboard.press('Tab');
  await expect(dial.getByText('“much” has no digits')).toBeVisible();
  await toStage(page, 'Build sheet');
  const table = page.getByRole('table', { name: /^Runout/ });
  await expect(table.getByRole('row', { name: /^M3/ })).toContainText('over its limit');
});

test('a strip is chosen for what is expected, and where it is all that is known the sheet says so', async ({
  page,
}) => {
  await page.goto(`/engines/${BURR_2}/trial?station=M3`);
  await page.getByLabel('Fitter').fill('Sorrel');
  const strip = page.getByRole('region', { name: 'Gauging strip at M3' });
  await expect(strip).toContainText('Target 0.00300 in: a medium strip');
  // By hand: π · 0.008² / 4 / 0.0150 = 0.00335.
  await strip.getByLabel('Width, front end, in').fill('.0150');
  await strip.getByLabel('Width, rear end, in').fill('.0160');
  await strip.getByLabel('Width, rear end, in').press('Tab');
  await expect(strip).toContainText('0.00325 in by strip, ± 0.0003 in at best; taper 0.00021 in, wider at the front');
  await expect(strip).toContainText('the sheet says “by strip only”');
  await allSaved(page);
  await toStage(page, 'Build sheet');
  const table = page.getByRole('table', { name: 'Gauging strips' });
  await expect(table.getByRole('row', { name: /^M3/ })).toContainText('by strip only');
});

test('an instrument is known by its number, who has it, what it reads, and when it is to be calibrated again', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6, instruments'));
  await page.goto(`/engines/${id}/trial`);
  const panel = page.getByRole('region', { name: 'Instruments' });
  const summary = panel.locator('summary').filter({ hasText: /^Bore gauge/ });
  await expect(summary).toContainText('one reading ±');
  await expect(summary).not.toContainText('due for calibration');
  await summary.click();
  await panel.getByLabel('Bore gauge: name or number').fill('gauge 7');
  await panel.getByLabel('Bore gauge: who has it').fill('Teasel, block bench');
  const range = panel.getByLabel('Bore gauge: reads from – to, mm');
  await range.fill('75 – 50');
  await range.press('Tab');
  await expect(range).toHaveAttribute('aria-invalid', 'true');
  await range.fill('50 – 75');
  await panel.getByLabel('Bore gauge: calibrated on').fill('2020-02-29');
  await choose(page, 'Bore gauge: again after', '12');
  await expect(summary).toContainText('Bore gauge gauge 7: one reading ±');
  await expect(summary).toContainText('due for calibration');
  await allSaved(page);
  const { document } = await (await request.get(`/api/jobs/${id}`)).json();
  expect(document.instruments.boreGauge).toMatchObject({
    name: 'gauge 7',
    holder: 'Teasel, block bench',
    range: { low: 50_000_000, high: 75_000_000 },
    calibratedOn: '2020-02-29',
    calibrateAfterMonths: 12,
  });
  await page.reload();
  await summary.click();
  await expect(panel.getByLabel('Bore gauge: who has it')).toHaveValue('Teasel, block bench');
});
