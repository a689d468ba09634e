import { eachFeature, FEATURE_TABLE, type JobDocument, newJob } from '@fettle/core';
import { dial, layout, pieces } from './demoParts.js';
import { type DemoEngine, size } from './demoWriting.js';

/** Grades of the mains: name, wall in mm, how many of each half. */
const MAINS = [
  ['Fern', '1.990', 3],
  ['Moss', '1.993', 4],
  ['Kelp', '1.996', 4],
  ['Silt', '1.999', 3],
] as const;

/** Grades of the rods; of the second there are none. */
const RODS = [
  ['Fern', '1.4875', 2],
  ['Moss', '1.4905', 0],
  ['Kelp', '1.4935', 4],
  ['Silt', '1.4965', 1],
] as const;

const READINGS: DemoEngine['readings'] = [
  {
    feature: 'mainBore',
    slot: 'front',
    by: 'Sorrel',
    texts: ['68.008', '68.010', '68.006', '68.009', '68.011', '68.007', '68.009'],
  },
  {
    feature: 'mainJournal',
    slot: 'front-0',
    by: 'Teasel',
    texts: ['63.981', '63.978', '63.984', '63.980', '63.977', '63.983', '63.979'],
  },
  {
    feature: 'bigEnd',
    slot: 'front',
    by: 'Sorrel',
    texts: ['51.002', '51.014', '51.008', '51.0025', '51.014', '51.0085'],
  },
  {
    feature: 'pin',
    slot: 'front-0',
    by: 'Teasel',
    texts: ['47.986', '47.992', '47.986', '47.992', '47.992', '47.9915'],
  },
];

/** Six rods of three marks, pins of two, and a drawer that has none of the second grade: few ways to place the rods work. */
export function reed6(): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob(
    'Reed 6 · no. 0105',
    'mm',
    layout(7, 6, 1, 4),
    { block: 'iron', caps: 'iron', rods: 'steel' },
    true,
  );
  const shells: JobDocument['shells'] = {};
  for (const half of ['upper', 'lower'] as const) {
    for (const [family, grades] of [
      ['main', MAINS],
      ['rod', RODS],
    ] as const) {
      for (const [grade, wall, stock] of grades) {
        const id = `${family}-${grade.toLowerCase()}-${half}`;
        shells[id] = { family, series: 'Brackish', grade, half, wall: mm(wall), stock, line: null };
      }
    }
  }
  const sheet = 'Reed 6 works manual';
  const marks = ['A', 'C', 'B', 'A', 'C', 'B'];
  return {
    id: '4eed6000-0105-4000-8000-000000000003',
    by: 'Sorrel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('68.000'), high: mm('68.019'), source: `${sheet}, p. 12` },
        mainJournal: { low: mm('63.970'), high: mm('63.990'), source: `${sheet}, p. 14` },
        mainClearance: { low: mm('0.022'), high: mm('0.052'), source: `${sheet}, p. 15` },
        bigEnd: { low: mm('51.000'), high: mm('51.018'), source: `${sheet}, p. 21` },
        pin: { low: mm('47.982'), high: mm('47.996'), source: `${sheet}, p. 22` },
        rodClearance: { low: mm('0.030'), high: mm('0.040'), source: `${sheet}, p. 23` },
        endPlay: { low: mm('0.090'), high: mm('0.270'), source: `${sheet}, p. 18` },
      },
      endPlay: {
        ...base.endPlay,
        kind: 'washers',
        fitted: { front: mm('2.362'), rear: mm('2.361'), width: null },
        readings: dial('mm', 'Sorrel', 'found', ['0.055', '0.060']),
      },
      pieces: Object.assign(
        {},
        ...(['upper', 'lower'] as const).map((half) =>
          pieces(
            'washer',
            'mm',
            [
              ['Thin', '2.310', 2],
              ['Half thin', '2.335', 1],
              ['Plain', '2.360', 4],
              ['Thick', '2.410', 2],
            ],
            { half },
          ),
        ),
      ) as JobDocument['pieces'],
      measuring: {
        ...base.measuring,
        slots: eachFeature((feature) => [FEATURE_TABLE[feature].usualSlots[0]]),
      },
      rules: { ...base.rules, mixedHalves: false },
      rods: Object.fromEntries(marks.map((mark, at) => [String(at + 1), { mark, pin: null }])),
      shells,
    },
    readings: READINGS,
  };
}
