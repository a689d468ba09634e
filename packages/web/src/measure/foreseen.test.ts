// @vitest-environment jsdom
import { type JobDocument, nanometres, newJob, type Reading, usualLayout } from '@fettle/core';
import { expect, it } from 'vitest';
import { foreseenFor, halvesSoFar, readingsOnceTyped } from './foreseen.js';
import { draftOf, type Place } from './useSaveReading.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const blank = newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' });
const document: JobDocument = {
  ...blank,
  limits: {
    ...blank.limits,
    mainBore: { low: nanometres(64_000_000), high: nanometres(64_019_000), source: 'book, p. 1' },
  },
};
const place = (station: number): Place => ({ feature: 'mainBore', station, slot: 'front' });

function reading(station: number, text: string, standing: Reading | null = null, setting = null): Reading {
  const draft = draftOf({ document }, place(station), text, setting, standing, { reason: 'misread', by: 'Wren' });
  return { ...draft, id: `${station} ${text}`, nm: nanometres(Math.round(Number(text) * 1e6)) };
}

const readings = [reading(1, '64.010'), reading(2, '64.011')];
const job = { document, readings };
const halves = {};

it('foresees the engine with a figure that is whole, in the place where it will stand', () => {
  const once = readingsOnceTyped(job, { place: place(3), text: ' 64.012 ' })!;
  expect(once.map(({ station, text, nm }) => [station, text, nm])).toEqual([
    [1, '64.010', 64_010_000],
    [2, '64.011', 64_011_000],
    [3, '64.012', 64_012_000],
  ]);
  const corrected = readingsOnceTyped(job, { place: place(1), text: '64.013' })!;
  expect(corrected.map(({ text, replaces }) => [text, replaces])).toEqual([
    ['64.013', '1 64.010'],
    ['64.011', null],
  ]);
});

it.each([
  ['half a figure', '64.01'],
  ['no figure', ''],
  ['no size', 'sixty'],
  ['one that is doubted', '64.410'],
])('foresees nothing for %s', (_, text) => {
  expect(readingsOnceTyped(job, { place: place(3), text })).toBeNull();
});

it('foresees nothing for what stands there already', () => {
  expect(readingsOnceTyped(job, { place: place(2), text: '64.011' })).toBeNull();
});

it('counts what was foreseen while the engine is just that, and no longer', () => {
  const once = readingsOnceTyped(job, { place: place(3), text: '64.012' })!;
  const foreseen = { document, readings: once, halves };
  const stands = [...readings, reading(3, '64.012')];
  expect(foreseenFor(foreseen, { document, readings: stands })).toBe(halves);
  expect(foreseenFor(null, { document, readings: stands })).toBeNull();
  expect(foreseenFor(foreseen, job)).toBeNull();
  expect(foreseenFor(foreseen, { document, readings: [...readings, reading(3, '64.013')] })).toBeNull();
  expect(foreseenFor(foreseen, { document: { ...document }, readings: stands })).toBeNull();
  const another = [readings[0]!, reading(2, '64.014'), stands[2]!];
  expect(foreseenFor(foreseen, { document, readings: another })).toBeNull();
});

it('shows what was foreseen until the search has answered for the same figures, and then its answer', () => {
  const [before, foreseen, found] = [{}, {}, {}];
  expect(halvesSoFar(null, false, null, before)).toBe(before);
  // The answer for the figures before is still there, then the search for these begins, then it has answered otherwise.
  expect(halvesSoFar(before, false, foreseen, before)).toBe(foreseen);
  expect(halvesSoFar(null, true, foreseen, foreseen)).toBe(foreseen);
  expect(halvesSoFar(found, true, foreseen, foreseen)).toBe(found);
  expect(halvesSoFar(found, false, null, before)).toBe(found);
});
