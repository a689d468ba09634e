import { expect, test } from '@playwright/test';
import { allSaved, putOnBench, reedDocument, um } from './engines.js';

const limit = (high: number) => ({ low: um(0), high: um(high), source: 'Reed book, p. 6' });

test('the line of the mains is read along the bar, judged by the sheet, and what the bends take is told under the shaft', async ({
  page,
  request,
}) => {
  const document = reedDocument('Reed 6 with a bent line', 5);
  const limits = { ...document.limits, mainLine: limit(30), mainNeighbours: limit(15) };
  const id = await putOnBench(request, { ...document, limits });
  await page.goto(`/engines/${id}/mainLine`);
  await expect(page.getByText('Three mains at least show whether they lie in a line.')).toBeVisible();
  await page.getByLabel('M1 height, mm').focus();
  for (const figure of ['0', '0,002', '0.004', '0.002', '0']) {
    await page.keyboard.type(figure);
    await page.keyboard.press('Enter');
  }
  // Enter went on to the next row.
  await expect(page.getByLabel('M1 side, mm')).toBeFocused();
  const up = page.getByRole('region', { name: 'Line of the mains, height' });
  await expect(up).toContainText('0.004 mm');
  await expect(up.getByText('In limits')).toBeVisible();
  await expect(up).toContainText('Mains taken as evenly spaced.');
  // One main far off its neighbours stops the work.
  await page.getByLabel('M3 height, mm').fill('0.040');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Next:/ })).toContainText(
    'M3 is 0.038 mm off the line of its neighbours: read again, then line-bore',
  );
  const under = page.getByRole('table', { name: 'Line of the mains by station' });
  await expect(under.getByRole('row', { name: /^Bends may take/ })).toContainText('0.080');
  await allSaved(page);
  // A figure that is none stays, and says so.
  await page.getByLabel('M2 side, mm').fill('up');
  await page.getByLabel('M3 side, mm').focus();
  await expect(page.getByLabel('M2 side, mm')).toHaveValue('up');
  await expect(page.getByLabel('M2 side, mm')).toHaveAttribute('aria-invalid', 'true');
});

test('a journal is read in three directions: oval is told with its direction; how long it must soak is worked out', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6, oval'));
  await page.goto(`/engines/${id}/journals`);
  await page.getByRole('button', { name: /Readings at each main/ }).click();
  await page.getByRole('option', { name: 'One plane, three directions' }).click();
  for (const [angle, size] of [
    ['0°', '59.990'],
    ['60°', '59.984'],
    ['120°', '59.984'],
  ] as const) {
    await page.getByLabel(`M1 main journal front, ${angle}, mm`).fill(size);
    await page.keyboard.press('Enter');
  }
  // By hand: 4, −2 and −2 off the mean are a second lobe of 4, largest at 0°: 8 across.
  await expect(page.getByRole('row', { name: /^Form/ })).toContainText('oval 0.008 at 0°');
  await allSaved(page);

  await page.getByText('How it is read:').click();
  await page.getByText('How long to let the journals soak').click();
  await page.getByLabel('Part earlier, °C').fill('60');
  await page.getByLabel('Minutes ago').fill('30');
  await page.getByLabel('Part now, °C').fill('40');
  await page.getByLabel('Room or instrument, °C').fill('20');
  await expect(page.getByText(/^Wait \d+ h \d\d min\.$/)).toBeVisible();
  await page.getByLabel('Part now, °C').fill('20.3');
  await expect(page.getByText('Near enough: read now.')).toBeVisible();
});
