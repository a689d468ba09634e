import { type JobDocument, jobOfType, newJob, shellsOfSheet } from '@fettle/core';
import { layout } from './demoParts.js';
import { demoTypes, SEDGE_TYPE } from './demoTypes.js';
import { type DemoEngine, size } from './demoWriting.js';

export function sedge4(): DemoEngine {
  const mm = (text: string) => size(text, 'mm');
  const base = newJob('Sedge 4 · no. 0217', 'mm', layout(5, 4, 1, 3), {
    block: 'aluminium',
    caps: 'iron',
    rods: 'steel',
  });
  const shells: JobDocument['shells'] = {};
  const grades = [
    ['Teal', '1.989', 2, 2],
    ['Sand', '1.992', 3, 2],
    ['Plum', '1.995', 4, 4],
    ['Rust', '1.998', 3, 3],
    ['Slate', '2.001', 2, 2],
  ] as const;
  for (const [grade, wall, upper, lower] of grades) {
    const key = grade.toLowerCase();
    shells[`${key}-upper`] = {
      family: 'main',
      series: 'Marsh',
      grade,
      half: 'upper',
      wall: mm(wall),
      stock: upper,
      line: null,
    };
    shells[`${key}-lower`] = {
      family: 'main',
      series: 'Marsh',
      grade,
      half: 'lower',
      wall: mm(wall),
      stock: lower,
      line: null,
    };
  }
  const sheet = 'Sedge 4 workshop book';
  return {
    id: '5ed9e400-0217-4000-8000-000000000001',
    by: 'Wren',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: mm('64.000'), high: mm('64.019'), source: `${sheet}, p. 31` },
        mainJournal: { low: mm('59.976'), high: mm('59.994'), source: `${sheet}, p. 34` },
        mainClearance: { low: mm('0.020'), high: mm('0.050'), source: `${sheet}, p. 36` },
      },
      measuring: { ...base.measuring, setting: { ...base.measuring.setting, mainBore: mm('64.010') } },
      rules: { ...base.rules, maxSpread: mm('0.010') },
      shells,
    },
    readings: [
      { feature: 'mainBore', slot: 'front', by: 'Wren', texts: ['64.012', '64.009', '64.007', '64.011', '64.014'] },
      { feature: 'mainBore', slot: 'rear', by: 'Wren', texts: ['64.012', '64.008', '64.008', '64.010', '+0.3'] },
      { feature: 'mainJournal', slot: 'front-0', by: 'Teasel', texts: ['59.981', '59.983', '59.987', '', ''] },
      { feature: 'mainJournal', slot: 'front-90', by: 'Teasel', texts: ['59.982', '59.983', '', '', ''] },
    ],
  };
}

/** A second Sedge that came with its marks written down: chosen by them until it is read, and one of them is contradicted. */
export function markedSedge4(): DemoEngine {
  const { id: type, type: sheet } = demoTypes().find(({ id }) => id === SEDGE_TYPE)!;
  const job = jobOfType('Sedge 4 · no. 0233', sheet, { type, revision: 1 }, true);
  const shells = (['main', 'rod'] as const).flatMap((family) => shellsOfSheet(sheet, family, null));
  return {
    id: '5ed9e400-0233-4000-8000-000000000005',
    by: 'Wren',
    document: {
      ...job,
      measuring: { ...job.measuring, slots: { ...job.measuring.slots, mainBore: ['front'], mainJournal: ['front-0'] } },
      marks: {
        mainBore: { text: 'B A C B B', first: 'front' },
        mainJournal: { text: 'J 2 1 2 3 2', first: 'front' },
        pin: { text: 'P 1 2 2 1', first: 'front' },
      },
      rods: Object.fromEntries(['K', 'L', 'L', 'K'].map((mark, at) => [String(at + 1), { mark, pin: null }])),
      shells: Object.fromEntries(shells.map((shell) => [`${shell.family} ${shell.grade} ${shell.half}`, shell])),
    },
    readings: [
      { feature: 'mainJournal', slot: 'front-0', by: 'Teasel', texts: ['59.984', '59.983', '59.985', '', ''] },
      { feature: 'mainBore', slot: 'front', by: 'Wren', texts: ['64.009', '64.004', '64.016', '', ''] },
    ],
  };
}
