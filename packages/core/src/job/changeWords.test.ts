import { expect, it } from 'vitest';
import { nanometres } from '../measure/nanometres.js';
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
  [[{ path: '/crush/joints/M1/left/otherGo', from: null, to: 50_000 }], 'joint at M1: 0.050 mm'],
  [
    [{ path: '/limits/mainJournal', from: null, to: { low: 59_976_000, high: 59_994_000, source: 'book, p. 3' } }],
    'limits: main journal: 59.976 mm to 59.994 mm (book, p. 3)',
  ],
  [
    [{ path: '/choice', from: null, to: { at: 'x', by: 'y', stations: { M1: {}, M2: {} } } }],
    'accepted a selection for M1, M2',
  ],
  [[{ path: '/choice', from: { at: 'x' }, to: null }], 'withdrew the accepted selection'],
  [
    [
      { path: '/choice/at', from: 'x', to: 'z' },
      { path: '/choice/stations/M2/upper/shell', from: 'teal', to: 'plum' },
    ],
    'accepted another selection: M2',
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
  expect(changeWords({ kind: 'deleted', changes: [], reading: null }, job, told)).toBe('closed the engine');
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

it('tells every length of a document in its unit, never in nanometres', () => {
  const um = (value: number) => nanometres(value * 1000);
  const side = { go: um(40), noGo: um(50), otherGo: um(40), otherNoGo: um(50), shim: um(300) };
  const blank = newJob('Rush Twin', 'mm', job.layout, job.materials, true);
  const full = {
    ...blank,
    rules: {
      ...blank.rules,
      aim: { kind: 'figure', clearance: um(40) },
      maxSpread: um(10),
      maxRodSpread: um(10),
      extras: { M1: um(5) },
    },
    measuring: { ...blank.measuring, alongLine: um(13), setting: { ...blank.measuring.setting, mainBore: um(64_000) } },
    crush: {
      ...blank.crush,
      aim: um(100),
      aimAluminium: um(130),
      joints: { M1: { left: side, right: side, clearance: um(50), recheck: null, choice: null } },
    },
    endPlay: {
      ...blank.endPlay,
      fitted: { front: um(2_310), rear: um(2_310), width: null },
      aim: um(100),
      maxShift: um(100),
      settle: um(12),
    },
    instruments: {
      ...blank.instruments,
      ballMicrometer: {
        ...blank.instruments.ballMicrometer,
        ball: um(6_000),
        range: { low: um(1_000), high: um(9_000) },
      },
    },
  };
  const paths: [string, number][] = [];
  const walk = (value: unknown, path: string) => {
    if (typeof value === 'number' && value >= 1000) paths.push([path, value]);
    else if (typeof value === 'object' && value !== null)
      for (const [key, own] of Object.entries(value)) walk(own, `${path}/${key}`);
  };
  walk(full, '');
  expect(paths.length).toBeGreaterThan(40);
  const raw = paths.flatMap(([path, value]) => {
    const words = changeWords(
      { kind: 'changed', changes: [{ path, from: value, to: value + 1000 }], reading: null },
      full as never,
      told,
    );
    return / mm$/u.test(words) ? [] : [`${path}: ${words}`];
  });
  expect(raw).toEqual([]);
});
