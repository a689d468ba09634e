import {
  type JobDocument,
  type JobShell,
  type Json,
  nanometres,
  newJob,
  type ReadingDraft,
  usualLayout,
} from '@fettle/core';
import { format } from 'date-fns';
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
    ['/name', 'Rush Twin 2', 'Rush Twin 3', 'Name: you set “Rush Twin 2”, somebody else set “Rush Twin 3” meanwhile.'],
    [
      '/limits/mainJournal/low',
      59_976_000,
      59_980_000,
      'Limits: main journal: you set 59.976 mm, somebody else set 59.980 mm meanwhile.',
    ],
    [
      '/measuring/setting/pin',
      48_000_000,
      null,
      'Setting size for the pins: you set 48.000 mm, somebody else set nothing meanwhile.',
    ],
    [
      '/instruments/boreGauge/setting',
      2_000,
      1_000,
      'Bore gauge: you set 0.002 mm, somebody else set 0.001 mm meanwhile.',
    ],
    [
      '/fasteners/main/torque',
      '30 · 55 N·m',
      '',
      'Torque of the fasteners of the mains: you set “30 · 55 N·m”, somebody else set “” meanwhile.',
    ],
    [
      '/strips/M2/diameter',
      200_000,
      150_000,
      'Gauging strip at M2: you set 0.200 mm, somebody else set 0.150 mm meanwhile.',
    ],
    [
      '/trialSchool',
      'one',
      'every',
      'How far the figures are checked: you set “one”, somebody else set “every” meanwhile.',
    ],
    ['/rules/mixedHalves', true, false, 'Mixed halves: you set yes, somebody else set no meanwhile.'],
    ['/rods/2/pin', 1, null, 'Pin of rod R2: you set 1, somebody else set nothing meanwhile.'],
    [`/shells/${ID}/stock`, 4, 3, 'Count of Teal upper (Osier): you set 4, somebody else set 3 meanwhile.'],
    [
      `/shells/${ID}`,
      undefined,
      { ...teal, grade: 'Plum' } as unknown as Json,
      'Teal upper (Osier): you set nothing, somebody else set Plum upper (Osier) meanwhile.',
    ],
    [
      '/wishes/M2/upper',
      ID,
      null,
      'Upper half held at M2: you set Teal upper (Osier), somebody else set nothing meanwhile.',
    ],
    [
      '/wishes/M2/noShells',
      [ID],
      [],
      'Halves not wanted at M2: you set another list, somebody else set another list meanwhile.',
    ],
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
      `${place}: you typed “51.002”, meanwhile Teasel entered “51.004” (${format(new Date(theirs.at), 'd MMM HH:mm')}).`,
    );
    expect(clashQuestion({ ...clash, theirs: null }, document)).toBe(
      `${place}: you typed “51.002”, meanwhile it was taken back.`,
    );
  });
});
