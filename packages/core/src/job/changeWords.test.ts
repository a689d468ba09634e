import { expect, it } from 'vitest';
import { usualLayout } from '../part/crankLayout.js';
import { changeWords } from './changeWords.js';
import { newJob } from './newJob.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const half = { family: 'main', series: 'Marsh', grade: 'Teal', half: 'upper', wall: 1_995_000, line: null } as const;
const job = {
  ...newJob('Rush Twin', 'mm', usual.layout, { block: 'iron', caps: 'iron', rods: 'steel' }),
  shells: { teal: { ...half, stock: 4 } as never },
};

const told = (at: string) => `at ${at.slice(11, 16)}`;

it.each([
  [[{ path: '/shells/teal', to: { ...half, stock: 4 } }], 'added Teal upper (Marsh), 4 on hand'],
  [[{ path: '/shells/teal', to: { ...half, stock: null } }], 'added Teal upper (Marsh), not counted'],
  [[{ path: '/shells/gone', from: { ...half, stock: 4 } }], 'took Teal upper (Marsh) out'],
  [[{ path: '/shells/teal/stock', from: 6, to: 4 }], 'counted Teal upper (Marsh): 4 on hand, before 6 on hand'],
  [[{ path: '/name', from: 'Rush Twin', to: 'Rush Twin 7' }], 'name: Rush Twin → Rush Twin 7'],
  [[{ path: '/rules/maxWallStep', from: 13_000, to: 6_000 }], 'largest wall step in a station: 0.013 mm → 0.006 mm'],
  [
    [{ path: '/limits/mainJournal', from: null, to: { low: 59_976_000, high: 59_994_000, source: 'book, p. 3' } }],
    'limits: main journal: 59.976 mm to 59.994 mm (book, p. 3)',
  ],
  [
    [{ path: '/choice', from: null, to: { at: 'x', by: 'y', stations: { M1: {}, M2: {} } } }],
    'accepted a choice for M1, M2',
  ],
  [[{ path: '/choice', from: { at: 'x' }, to: null }], 'withdrew the accepted choice'],
  [
    [
      { path: '/choice/at', from: 'x', to: 'z' },
      { path: '/choice/stations/M2/upper/shell', from: 'teal', to: 'plum' },
    ],
    'accepted another choice: M2',
  ],
])('%j reads “%s”', (changes, words) => {
  expect(changeWords({ kind: 'changed', changes, reading: null }, job, told)).toBe(words);
});

it('tells a reading with what stood there before, and why', () => {
  const reading = {
    feature: 'mainJournal',
    station: 2,
    slot: 'front-0',
    from: '59.985',
    to: '59.976',
    reason: 'misread',
  };
  expect(changeWords({ kind: 'read', changes: [], reading: reading as never }, job, told)).toBe(
    'M2 journal, front, 0°: 59.985 → 59.976 (misread)',
  );
  expect(changeWords({ kind: 'deleted', changes: [], reading: null }, job, told)).toBe('took it off the bench');
});

it('tells what an id stands for and when, never the id or an ISO time', () => {
  const id = '00000000-0000-4000-8000-000000000001';
  const named = { ...job, shells: { [id]: job.shells.teal! } };
  const words = (to: string) =>
    changeWords({ kind: 'changed', changes: [{ path: '/name', from: 'x', to }], reading: null }, named, told);
  expect(words(id)).toBe('name: x → Teal upper (Marsh)');
  expect(words('00000000-0000-4000-8000-000000000002')).toBe('changed name');
  expect(words('2026-02-03T08:15:00.000Z')).toBe('name: x → at 08:15');
});
