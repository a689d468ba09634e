import {
  type JobDocument,
  type JobShell,
  type Json,
  momentText,
  nanometres,
  newJob,
  type ReadingDraft,
  usualLayout,
} from '@fettle/core';
import { describe, expect, it } from 'vitest';
import { clashQuestion } from './clashWords.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const ID = '00000000-0000-4000-8000-0000000000aa';
const teal: JobShell = {
  family: 'main',
  series: 'Osier',
  grade: 'Teal',
  half: 'upper',
  wall: nanometres(1_995_000),
  stock: 2,
  line: null,
};
const document: JobDocument = {
  ...newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }),
  shells: { [ID]: teal },
};

/** What is asked about a place that two people have changed. */
function asked(path: string, ours: Json | undefined, theirs: Json | undefined): string {
  return clashQuestion({ kind: 'document', id: 'clash', jobId: 'job', path, ours, theirs }, document);
}

const draft: ReadingDraft = {
  feature: 'bigEnd',
  station: 2,
  slot: 'front',
  text: '51.002',
  unit: 'mm',
  setting: null,
  replaces: null,
  by: 'Wren',
  at: '2026-01-02T03:04:05.000Z',
};

describe('what two people are asked', () => {
  it.each<[string, Json | undefined, Json | undefined, string]>([
    ['/name', 'Rush Twin 2', 'Rush Twin 3', 'Name: you set “Rush Twin 2”, someone else set “Rush Twin 3”.'],
    [
      '/limits/mainJournal/low',
      59_976_000,
      59_980_000,
      'Limits: main journal: you set 59.976 mm, someone else set 59.980 mm.',
    ],
    ['/crush/joints/M1/left/go', 50_000, 60_000, 'Joint at M1: you set 0.050 mm, someone else set 0.060 mm.'],
    [
      '/measuring/setting/pin',
      48_000_000,
      null,
      'Setting size for the pins: you set 48.000 mm, someone else set nothing.',
    ],
    ['/instruments/boreGauge/setting', 2_000, 1_000, 'Bore gauge: you set 0.002 mm, someone else set 0.001 mm.'],
    [
      '/fasteners/main/torque',
      '30 · 55 N·m',
      '',
      'Torque of the fasteners of the mains: you set “30 · 55 N·m”, someone else set “”.',
    ],
    ['/strips/M2/diameter', 200_000, 150_000, 'Gauging strip at M2: you set 0.200 mm, someone else set 0.150 mm.'],
    ['/trialSchool', 'one', 'every', 'Checking method: you set “one”, someone else set “every”.'],
    ['/rules/mixedHalves', true, false, 'Mixed pairs: you set yes, someone else set no.'],
    ['/rods/2/pin', 1, null, 'Crankpin of rod R2: you set 1, someone else set nothing.'],
    [`/shells/${ID}/stock`, 4, 3, 'Count of Teal upper (Osier): you set 4, someone else set 3.'],
    [
      `/shells/${ID}`,
      undefined,
      { ...teal, grade: 'Plum' } as unknown as Json,
      'Teal upper (Osier): you set nothing, someone else set Plum upper (Osier).',
    ],
    ['/wishes/M2/upper', ID, null, 'Upper shell locked at M2: you set Teal upper (Osier), someone else set nothing.'],
    ['/wishes/M2/noShells', [ID], [], 'Shells ruled out at M2: you set another list, someone else set another list.'],
  ])('about %s is said in words, without an id', (path, ours, theirs, question) => {
    expect(asked(path, ours, theirs)).toBe(question);
  });

  it.each([
    ['bigEnd', 'front', 'R2 big end, front plane'],
    ['pin', 'rear-90', 'P2 crankpin, rear, 90°'],
    ['mainBore', 'rear', 'M2 main bore, rear plane'],
    ['mainJournal', 'front-0', 'M2 main journal, front, 0°'],
  ] as const)('about a reading of %s names the part and the slot', (feature, slot, place) => {
    const ours = { ...draft, feature, slot };
    const theirs = { ...ours, id: ID, text: '51.004', nm: null, by: 'Teasel' };
    const clash = { kind: 'reading', id: 'clash', jobId: 'job', ours } as const;
    expect(clashQuestion({ ...clash, theirs }, document)).toBe(
      `${place}: you typed “51.002”, meanwhile Teasel entered “51.004” (${momentText(theirs.at)}).`,
    );
    expect(clashQuestion({ ...clash, theirs: null }, document)).toBe(
      `${place}: you typed “51.002”, meanwhile it was removed.`,
    );
  });
});
