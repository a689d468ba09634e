import { randomUUID } from 'node:crypto';
import { type CrankLayout, type Feature, type JobDocument, nanometres, newJob, usualLayout } from '@fettle/core';
import { type APIRequestContext, expect, type Page } from '@playwright/test';

export const SEDGE_4 = '5ed9e400-0217-4000-8000-000000000001';
export const REED_6 = '4eed6000-0105-4000-8000-000000000003';
/** Chosen by its marks until it is read; one of them is contradicted. */
export const MARKED_SEDGE_4 = '5ed9e400-0233-4000-8000-000000000005';
export const BURR_2 = 'b0992000-0009-4000-8000-000000000006';
/** Being put together: some checks are made, two passes done. */
export const ASSEMBLED_SEDGE_4 = '5ed9e400-0226-4000-8000-000000000010';
/** In the middle of its trials: two mains read with their shells in, applied to the others. */
export const TRIED_SEDGE_4 = '5ed9e400-0241-4000-8000-000000000007';
/** Read with instruments of the workshop; its mains lie in a line that is bent. */
export const BENT_REED_6 = '4eed6000-0112-4000-8000-000000000012';
/** Built here for the third time: it came apart, and half of its shaft is measured. */
export const THIRD_BUILD = '5ed9e400-0101-4000-8000-000000000013';
/** Its second build: signed, closed, and run in. */
export const SECOND_BUILD = '5ed9e400-1022-4000-8000-000000000020';
export const BORE_GAUGE = '1257a100-0000-4000-8000-0000000000c1';
export const REED_TYPE = '4eed6000-0000-4000-8000-0000000000a2';
export const SEDGE_TYPE = '5ed9e400-0000-4000-8000-0000000000a1';
export const SAMPHIRE_8 = '5a3b4180-0046-4000-8000-000000000002';

export const um = (value: number) => nanometres(Math.round(value * 1000));

function layoutOf(mains: number): CrankLayout {
  const usual = usualLayout(mains, mains - 1, 1, 2);
  if (!usual.ok) throw new Error(usual.message);
  return usual.layout;
}

/** A millimetre engine with limits and three grades of plain halves; parts can be replaced. */
export function reedDocument(name: string, mains = 3, parts: Partial<JobDocument> = {}): JobDocument {
  const job = newJob(name, 'mm', layoutOf(mains), { block: 'iron', caps: 'iron', rods: 'steel' });
  const half = (grade: string, wall: number) => ({
    family: 'main' as const,
    series: 'Osier',
    grade,
    half: 'either' as const,
    wall: um(wall),
    stock: 6,
    line: null,
  });
  return {
    ...job,
    limits: {
      ...job.limits,
      mainBore: { low: um(64_000), high: um(64_019), source: 'Reed book, p. 3' },
      mainJournal: { low: um(59_976), high: um(59_994), source: 'Reed book, p. 4' },
      mainClearance: { low: um(20), high: um(50), source: 'Reed book, p. 5' },
    },
    measuring: {
      ...job.measuring,
      slots: { mainBore: ['front'], mainJournal: ['front-0'], bigEnd: ['front'], pin: ['front-0'] },
    },
    instruments: { ...job.instruments, boreGauge: { ...job.instruments.boreGauge, needle: 'bigger' } },
    shells: { thin: half('Thin', 1_990), mid: half('Mid', 1_995), thick: half('Thick', 2_000) },
    ...parts,
  };
}

/** Puts an engine on the bench through the API. */
export async function putOnBench(request: APIRequestContext, document: JobDocument): Promise<string> {
  const id = randomUUID();
  const answer = await request.post('/api/jobs', { data: { id, by: 'Wren', document } });
  expect(answer.status()).toBe(201);
  return id;
}

/** Enters a reading through the API. */
export async function enter(
  request: APIRequestContext,
  job: string,
  feature: Feature,
  station: number,
  text: string,
): Promise<void> {
  const answer = await request.put(`/api/jobs/${job}/readings/${randomUUID()}`, {
    data: {
      feature,
      station,
      slot: feature === 'mainBore' || feature === 'bigEnd' ? 'front' : 'front-0',
      text,
      unit: 'mm',
      setting: null,
      replaces: null,
      by: 'Wren',
      at: new Date().toISOString(),
    },
  });
  expect(answer.status()).toBe(201);
}

/** Waits until everything typed is on the server. */
export async function allSaved(page: Page): Promise<void> {
  await expect(page.getByText('All saved')).toBeVisible();
}

interface Kind {
  readonly id: string;
  readonly grade: string;
  readonly wall: number;
}

/** Kinds of halves that fit either side in the workshop's drawer, under a series of their own. */
export async function putSeries(
  request: APIRequestContext,
  series: string,
  grades: readonly [string, number, number][],
) {
  const kinds: Kind[] = [];
  for (const [grade, um, onHand] of grades) {
    const id = randomUUID();
    const half = { family: 'main', series, grade, half: 'either', wall: um * 1000, onHand };
    const changes = [{ id, version: 0, half }];
    const answer = await request.post('/api/drawer/move', { data: { by: 'Wren', kind: 'add', changes } });
    expect(answer.status()).toBe(200);
    kinds.push({ id, grade, wall: um * 1000 });
  }
  return kinds;
}

/** An engine of three mains that draws on a series, every main at the same gap. */
export async function engineOn(
  request: APIRequestContext,
  name: string,
  series: string,
  kinds: readonly Kind[],
  bore: string,
) {
  const shells: JobDocument['shells'] = Object.fromEntries(
    kinds.map(({ id, grade, wall }) => [
      grade.toLowerCase(),
      { family: 'main', series, grade, half: 'either', wall: nanometres(wall), stock: null, line: id },
    ]),
  );
  const id = await putOnBench(request, reedDocument(name, 3, { shells }));
  for (let main = 1; main <= 3; main += 1) {
    await enter(request, id, 'mainBore', main, bore);
    await enter(request, id, 'mainJournal', main, '59.985');
  }
  return id;
}

/** A browser that has been told already what others have not sent: notices of what other tests left behind stay away. */
export async function toldAlready(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const noted = JSON.stringify({ id: crypto.randomUUID(), told: [''] });
    if (localStorage.getItem('fettle.browser') === null) localStorage.setItem('fettle.browser', noted);
  });
}
