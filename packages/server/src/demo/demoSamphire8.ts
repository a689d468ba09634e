import { nanometres, newJob } from '@fettle/core';
import { layout } from './demoParts.js';
import { type DemoEngine, size } from './demoWriting.js';

export function samphire8(): DemoEngine {
  const inch = (text: string) => size(text, 'in');
  const base = newJob('Samphire 8 · no. 0046', 'in', layout(5, 8, 2, 5), {
    block: 'iron',
    caps: 'iron',
    rods: 'steel',
  });
  const half = (grade: string, side: 'upper' | 'lower', wall: string, stock: number) => ({
    family: 'main' as const,
    series: 'Glasswort',
    grade,
    half: side,
    wall: inch(wall),
    stock,
    line: null,
  });
  const sheet = 'Samphire 8 overhaul manual';
  return {
    id: '5a3b4180-0046-4000-8000-000000000002',
    by: 'Teasel',
    document: {
      ...base,
      limits: {
        ...base.limits,
        mainBore: { low: inch('2.6406'), high: inch('2.6416'), source: `${sheet}, table 2-1` },
        mainJournal: { low: inch('2.4483'), high: inch('2.4493'), source: `${sheet}, table 2-2` },
        mainClearance: { low: inch('.0015'), high: inch('.0032'), source: `${sheet}, table 2-4` },
      },
      measuring: {
        ...base.measuring,
        order: 'down',
        slots: { ...base.measuring.slots, mainJournal: ['front-0', 'front-90', 'rear-0', 'rear-90'] },
        setting: { ...base.measuring.setting, mainBore: inch('2.6410') },
      },
      rules: { ...base.rules, extras: { M5: nanometres(12_700) } },
      shells: {
        'std-upper': half('Standard', 'upper', '.0950', 5),
        'std-lower': half('Standard', 'lower', '.0950', 5),
        'extra-upper': half('Extra clearance', 'upper', '.0945', 3),
        'extra-lower': half('Extra clearance', 'lower', '.0945', 3),
      },
    },
    readings: [
      { feature: 'mainBore', slot: 'front', by: 'Wren', texts: ['2.6411', '2.6412', '2.6410', '2.6412', '2.6413'] },
      { feature: 'mainBore', slot: 'rear', by: 'Wren', texts: ['2.6411', '2.6411', '+0.1', '2.6412', '2.6413'] },
      {
        feature: 'mainJournal',
        slot: 'front-0',
        by: 'Teasel',
        texts: ['2.4488', '2.4490', '2.4491', '2.4487', '2.4488'],
      },
      {
        feature: 'mainJournal',
        slot: 'front-90',
        by: 'Teasel',
        texts: ['2.4488', '2.4489', '2.4490', '2.4487', '2.4488'],
      },
      {
        feature: 'mainJournal',
        slot: 'rear-0',
        by: 'Teasel',
        texts: ['2.4489', '2.4490', '2.4491', '2.4488', '2.44885'],
      },
      {
        feature: 'mainJournal',
        slot: 'rear-90',
        by: 'Teasel',
        texts: ['2.4488', '2.4490', '2.4490', '2.4487', '2.4488'],
      },
    ],
  };
}
